import { Link } from 'react-router';
import { Wordmark } from '../common/Wordmark.tsx';

/** Where there is no such page. */
export function NotFound() {
  return (
    <main className="flex flex-col items-start gap-4 p-10">
      <Wordmark large />
      <h1 className="text-[18px] font-semibold">There is nothing at this address.</h1>
      <Link to="/projects" className="text-plum underline">
        To the projects
      </Link>
    </main>
  );
}
