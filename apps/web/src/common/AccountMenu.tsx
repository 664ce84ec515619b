import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api } from '../api/client.ts';
import { forgetSolids } from './solidStore.ts';
import { applyTheme, type Theme } from './theme.ts';

const THEMES: readonly (readonly [Theme, string])[] = [
  ['light', 'Light'],
  ['dark', 'Dark'],
  ['system', 'As the system'],
];

/** Who is signed in, and what can be done about it. */
export function AccountMenu() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { data: start } = useQuery({ queryKey: ['start'], queryFn: api.start });
  const me = start?.me;
  const signOut = async () => {
    await api.signOut();
    await forgetSolids();
    queries.clear();
    await navigate('/sign-in');
  };
  return (
    <Menu>
      <MenuButton className="quiet" aria-label={`Account: ${me?.name ?? 'nobody'}`}>
        {me?.name ?? '…'}
      </MenuButton>
      <MenuItems modal={false} anchor="bottom end" className="menu w-44">
        {THEMES.map(([theme, word]) => (
          <MenuItem key={theme}>
            <button type="button" className="menu-item" onClick={() => applyTheme(theme)}>
              {word}
            </button>
          </MenuItem>
        ))}
        <div className="my-1 border-t border-rule" />
        <MenuItem>
          <button type="button" className="menu-item" onClick={() => void navigate('/account')}>
            Your account
          </button>
        </MenuItem>
        <MenuItem>
          <button type="button" className="menu-item" onClick={() => void navigate('/about')}>
            About Kadrel
          </button>
        </MenuItem>
        <MenuItem>
          <button type="button" className="menu-item" onClick={() => void signOut()}>
            Sign out
          </button>
        </MenuItem>
      </MenuItems>
    </Menu>
  );
}
