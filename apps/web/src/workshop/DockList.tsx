/** The docks of the selected part: their names, kinds and roles can be set here. */
import { DOCK_ROLES, docksInOrder, formatLength, type Dock, type Part } from '@kadrel/core';
import { Eye, EyeOff, X } from 'lucide-react';
import { IconButton } from './IconButton.tsx';
import { useSession, useSessionState } from './context.ts';
import { Section } from './Section.tsx';

/** The docks of a part as rows of the Spec. */
export function DockList({ part }: { part: Part }) {
  const session = useSession();
  const isHidden = useSessionState((state) => state.hiddenDocks.includes(part.id));
  const docks = docksInOrder(part);
  if (docks.length === 0) return null;
  const show = isHidden ? 'Show its docks' : 'Hide its docks';
  return (
    <Section title="Docks">
      <ul aria-label="Docks">
        {docks.map((dock) => (
          <DockRow key={dock.id} part={part} dock={dock} />
        ))}
      </ul>
      <div className="flex gap-1 px-2">
        <button
          type="button"
          className="quiet"
          onClick={() => session.start('join-docks', { dock: { on: part.id } })}
        >
          Join
        </button>
        <button
          type="button"
          className="quiet"
          aria-label={show}
          title={show}
          onClick={() => session.toggleDocks(part.id)}
        >
          {isHidden ? <EyeOff size={14} /> : <Eye size={14} />}
        </button>
      </div>
    </Section>
  );
}

function DockRow({ part, dock }: { readonly part: Part; readonly dock: Dock }) {
  const session = useSession();
  const change = (values: Readonly<Record<string, unknown>>) =>
    void session.say('change-dock', { part: part.id, dock: dock.id, ...values });
  return (
    <li className="mb-1 grid grid-cols-[1fr_1fr_auto] items-center gap-1 px-3.5">
      <Words
        label={`Name of dock ${dock.name}`}
        value={dock.name}
        commit={(called) => called && change({ called })}
      />
      <Words
        label={`Kind of dock ${dock.name}`}
        value={dock.kind}
        commit={(kind) => change({ kind: kind || '-' })}
      />
      <IconButton
        label={`Remove dock ${dock.name}`}
        title="Remove"
        onClick={() => void session.say('remove-dock', { part: part.id, dock: dock.id })}
      >
        <X size={13} />
      </IconButton>
      <Role dock={dock} choose={(role) => change({ role })} />
      <Where part={part} dock={dock} />
    </li>
  );
}

interface RoleProps {
  readonly dock: Dock;
  readonly choose: (role: string) => void;
}

function Role({ dock, choose }: RoleProps) {
  return (
    <select
      className="field"
      aria-label={`Role of dock ${dock.name}`}
      value={dock.role ?? 'either'}
      onChange={(event) => choose(event.target.value)}
    >
      {Object.entries({ either: 'either', ...DOCK_ROLES }).map(([role, words]) => (
        <option key={role} value={role}>
          {words}
        </option>
      ))}
    </select>
  );
}

/** Where it stands in the world, as it is now. */
function Where({ part, dock }: { readonly part: Part; readonly dock: Dock }) {
  const session = useSession();
  const scene = useSessionState((state) => state.document.scene);
  useSessionState((state) => state.built);
  const place = session.docksNow().places.find(({ end }) => end.of === part.id && end.dock === dock.id);
  if (!place) return <span className="text-ink3">hidden</span>;
  return (
    <span className="num col-span-2 truncate text-[12px]" title={place.lost ?? 'Place in the world'}>
      {place.lost === undefined
        ? place.pose.shift.map((n) => formatLength(n, scene)).join('  ')
        : 'place is gone'}
    </span>
  );
}

interface WordsProps {
  readonly label: string;
  readonly value: string;
  readonly commit: (text: string) => void;
}

/** A short text that is set by Enter or by leaving the field. */
function Words({ label, value, commit }: WordsProps) {
  return (
    <input
      key={value}
      className="field min-w-0"
      aria-label={label}
      data-words
      defaultValue={value}
      placeholder="any kind"
      onBlur={(event) => event.currentTarget.value !== value && commit(event.currentTarget.value.trim())}
      onKeyDown={(event) => {
        if (event.key === 'Escape') event.currentTarget.value = value;
        if (event.key === 'Enter' || event.key === 'Escape') event.currentTarget.blur();
      }}
    />
  );
}
