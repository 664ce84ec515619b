/** Debian's Chromium, drawing in software, and a font for it. */
import { existsSync } from 'node:fs';
import { ensureDebianPackages } from './project.mjs';

const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';
const FONT = '/usr/share/fonts/truetype/liberation';

/** Installs what browser tests need of Debian's packages, where it is missing. */
export const ensureChromium = () =>
  ensureDebianPackages({ chromium: () => existsSync(CHROMIUM), 'fonts-liberation': () => existsSync(FONT) });

const FLAGS = [
  '--use-gl=angle',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
  '--ignore-gpu-blocklist',
  '--disable-background-networking',
  '--disable-quic',
];

export async function launchChromium() {
  // Packages may only just have been installed.
  const { chromium } = await import('@playwright/test');
  return chromium.launch({
    executablePath: CHROMIUM,
    args: [...(process.getuid?.() === 0 ? ['--no-sandbox'] : []), ...FLAGS],
  });
}
