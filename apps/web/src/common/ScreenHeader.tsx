import { Link } from 'react-router';
import { AccountMenu } from './AccountMenu.tsx';
import { Wordmark } from './Wordmark.tsx';

/** The head of a screen without a project. @param to where its link leads */
export const ScreenHeader = ({ to, words }: { to: string; words: string }) => (
  <header className="flex h-10 items-center gap-4 border-b border-rule bg-sheet px-3.5">
    <Wordmark />
    <span className="flex-1" />
    <Link to={to} className="quiet">
      {words}
    </Link>
    <AccountMenu />
  </header>
);
