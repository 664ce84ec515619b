/** How saving stands: in the header, with what can be done where it does not go on. */
import { Popover, PopoverButton } from '@headlessui/react';
import type { ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { download } from '../common/download.ts';
import type { SaveReport } from '../session/saveQueue.ts';
import { Panel } from './Panel.tsx';
import { useSession, useSessionState } from './context.ts';

/** How saving stands, and what to do where it does not. */
export function Saving() {
  const save = useSessionState((s) => s.save);
  if (save.state === 'conflict') return <Conflict save={save} />;
  return (
    <>
      {save.aside.length > 0 && <SetAside save={save} />}
      <Progress save={save} />
    </>
  );
}

function Progress({ save }: { save: SaveReport }) {
  const { state, revision, reason, isKept } = save;
  const words = {
    saved: `saved · revision ${revision}`,
    saving: 'saving…',
    waiting: isKept ? 'waiting for the server; kept here' : 'waiting for the server',
    conflict: '',
  }[state];
  if (save.wantsSignIn) return <SignedOut isKept={isKept} />;
  return (
    <span
      className={state === 'waiting' ? 'font-semibold text-bad' : 'text-ink3'}
      role="status"
      data-testid="save-state"
      title={reason}
    >
      {words}
      {!isKept && state !== 'saved' && (
        <span className="ml-2 font-semibold text-bad">
          This browser has no room for a copy: leave the page open.
        </span>
      )}
    </span>
  );
}

/** The session has ended: what is done here goes on, and is sent after a sign-in on another page. */
function SignedOut({ isKept }: { isKept: boolean }) {
  return (
    <span
      className="flex items-center gap-2 font-semibold whitespace-nowrap text-bad"
      data-testid="save-state"
    >
      <span role="status">
        Your session has ended; {isKept ? 'what you do is kept here' : 'leave this page open'}.
      </span>
      <a className="button" href="/sign-in" target="_blank" rel="noopener">
        Sign in
      </a>
    </span>
  );
}

function Conflict({ save: { reason, isKept } }: { save: SaveReport }) {
  const session = useSession();
  const navigate = useNavigate();
  return (
    <Trouble label="not saved: conflict">
      <p className="mb-3">
        {reason} Your edits are{' '}
        {isKept ? 'kept in this browser' : 'only on this page: this browser has no room'}.
      </p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="button" onClick={() => void session.takeTheirs()}>
          Take theirs
        </button>
        <button
          type="button"
          className="button main"
          onClick={() => void session.keepMine().then(([first]) => navigate(`/projects/${first}`))}
        >
          Keep mine as a project
        </button>
        <DownloadButton />
      </div>
    </Trouble>
  );
}

/** What the server will not take; all else is saved. */
function SetAside({ save: { aside } }: { save: SaveReport }) {
  const session = useSession();
  const count = aside.length === 1 ? '1 statement' : `${aside.length} statements`;
  return (
    <Trouble label={`${count} not saved`}>
      <ul className="mb-3 flex max-h-60 flex-col gap-2 overflow-auto">
        {aside.map(({ edit, reason }) => (
          <li key={edit.id}>
            <b className="font-semibold">{edit.line.title}</b>
            <p className="text-ink2">{reason}</p>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2">
        <DownloadButton />
        <button type="button" className="button" onClick={() => void session.leaveAside()}>
          Leave {aside.length === 1 ? 'it' : 'them'} out
        </button>
      </div>
    </Trouble>
  );
}

function Trouble({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Popover className="relative">
      <PopoverButton className="rounded border border-bad px-2 py-0.5 font-semibold whitespace-nowrap text-bad">
        {label}
      </PopoverButton>
      <Panel label={label} className="w-96 p-4!">
        {children}
      </Panel>
    </Popover>
  );
}

function DownloadButton() {
  const document = useSessionState((s) => s.document);
  const name = useSessionState((s) => s.name);
  return (
    <button
      type="button"
      className="button"
      onClick={() => download(`${name}.kadrel.json`, 'application/json', JSON.stringify(document, null, 2))}
    >
      Download what is here
    </button>
  );
}
