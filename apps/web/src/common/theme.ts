/** Light or dark, as the system says until the user says otherwise. */
export type Theme = 'system' | 'light' | 'dark';
const KEY = 'kadrel.theme';

/** Light or dark, as it was chosen or as the system has it. */
export function storedTheme(): Theme {
  const stored = localStorage.getItem(KEY);
  return stored === 'light' || stored === 'dark' ? stored : 'system';
}

const systemIsDark = () => window.matchMedia?.('(prefers-color-scheme: dark)').matches ?? false;

/** Views draw with colours of the theme, and listen for this. */
export const THEME_CHANGED = 'kadrel-theme';

/** Shows a theme, and remembers it. */
export function applyTheme(theme: Theme): void {
  if (theme === 'system') localStorage.removeItem(KEY);
  else localStorage.setItem(KEY, theme);
  document.documentElement.dataset.theme =
    theme === 'dark' || (theme === 'system' && systemIsDark()) ? 'dark' : 'light';
  window.dispatchEvent(new Event(THEME_CHANGED));
}

/** A colour of the theme by its role, as #rrggbb. */
export const themeColour = (role: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(`--${role}`).trim();
