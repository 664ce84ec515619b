import { Popover, PopoverButton } from '@headlessui/react';
import { formatAngle, formatLengthWithUnit, undoStacks, verbNamed, LENGTH_UNIT_WORDS } from '@kadrel/core';
import clsx from 'clsx';
import { Keyboard, Redo2, Undo2 } from 'lucide-react';
import { useEffect, useState, type FormEvent } from 'react';
import { flushSync } from 'react-dom';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { api } from '../api/client.ts';
import { AccountMenu } from '../common/AccountMenu.tsx';
import { Wordmark } from '../common/Wordmark.tsx';
import { Panel } from './Panel.tsx';
import { useSession, useSessionState } from './context.ts';
import { FitButton } from './fit/FitButton.tsx';
import { RackButton } from './racks/RackButton.tsx';
import { Saving } from './Saving.tsx';
import { useRoom } from './useRoom.ts';

/** Name, steps, saving, undo, reports and output. */
export function Header({ openOutput, openKeys }: { openOutput: () => void; openKeys: () => void }) {
  const name = useSessionState((state) => state.name);
  const isSmall = useRoom() === 'small';
  return (
    <header
      className={clsx(
        'flex items-center border-b border-rule bg-sheet',
        isSmall
          ? 'gap-1 overflow-x-auto px-2 whitespace-nowrap [scrollbar-width:thin] *:shrink-0'
          : 'gap-3 px-3.5',
      )}
    >
      <h1 className="sr-only">{name}</h1>
      <Link to="/projects" aria-label="Kadrel: to the projects">
        <Wordmark />
      </Link>
      {!isSmall && (
        <span className="text-ink3" aria-hidden>
          /
        </span>
      )}
      <ProjectName />
      <SceneChip />
      <Saving />
      <span className="flex-1" />
      <UndoAndRedo />
      <RackButton />
      <FitButton />
      <button type="button" className="quiet" onClick={openKeys} title="Keys (?)">
        {isSmall ? <Keyboard size={14} aria-label="Keys" /> : 'Keys'}
      </button>
      <AccountMenu />
      <Announced />
      <button type="button" className="button main" onClick={openOutput} title="Ctrl+E">
        Output
      </button>
    </header>
  );
}

/** By themselves, since they change with every statement, and the menus beside them do not. */
function UndoAndRedo() {
  const session = useSession();
  const edits = useSessionState((state) => state.edits);
  const { undo, redo } = undoStacks(edits);
  const titleOf = (id: string | undefined) => edits.find((edit) => edit.id === id)?.line.title;
  const [undoes, redoes] = [titleOf(undo.at(-1)), titleOf(redo.at(-1))];
  const isSmall = useRoom() === 'small';
  return (
    <>
      <button
        type="button"
        className="quiet inline-flex items-center gap-1.5"
        disabled={undo.length === 0}
        onClick={session.undo}
        title={`${undoes === undefined ? 'Nothing to undo' : `Undo: ${undoes}`} (Ctrl+Z)`}
      >
        <Undo2 size={14} aria-hidden /> <span className={clsx(isSmall && 'sr-only')}>Undo</span>
      </button>
      <button
        type="button"
        className="quiet inline-flex items-center gap-1.5"
        disabled={redo.length === 0}
        onClick={session.redo}
        title={`${redoes === undefined ? 'Nothing to redo' : `Redo: ${redoes}`} (Ctrl+Shift+Z)`}
      >
        <Redo2 size={14} aria-hidden /> <span className={clsx(isSmall && 'sr-only')}>Redo</span>
      </button>
    </>
  );
}

/** Says for a while what was done without a statement in the bar: taken back, brought back, changed from a panel. */
function Announced() {
  const announced = useSessionState((state) => state.announced);
  const [isShown, setIsShown] = useState(false);
  useEffect(() => {
    if (announced === '') return;
    setIsShown(true);
    const timer = setTimeout(() => setIsShown(false), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [announced]);
  return (
    <p
      role="status"
      data-testid="announced"
      className={clsx(
        'pointer-events-none fixed top-[88px] left-1/2 z-30 line-clamp-3 max-w-[60vw] -translate-x-1/2 rounded border border-rule bg-sheet px-3 py-1.5 shadow',
        !isShown && 'sr-only',
      )}
    >
      {announced}
    </p>
  );
}
const SHOWN_MS = 4000;

function ProjectName() {
  const session = useSession();
  const name = useSessionState((state) => state.name);
  const projectId = useSessionState((state) => state.projectId);
  const [typed, setTyped] = useState<string | null>(null);
  useEffect(() => {
    document.title = `${name} · Kadrel`;
  }, [name]);
  const commit = async (text: string) => {
    const next = text.trim();
    setTyped(null);
    if (!next || next === name) return;
    try {
      await api.changeProject(projectId, { name: next });
      session.set({ name: next });
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <input
      className="min-w-12 max-w-72 field-sizing-content rounded border border-transparent bg-transparent px-1.5 py-0.5 font-bold hover:border-rule"
      aria-label="Project name"
      value={typed ?? name}
      maxLength={120}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={(event) => void commit(event.currentTarget.value)}
      onKeyDown={(event) => {
        // Leaving the field commits what stands in it.
        if (event.key === 'Escape') flushSync(() => setTyped(null));
        if (event.key === 'Enter' || event.key === 'Escape') event.currentTarget.blur();
      }}
    />
  );
}

/** Units, grid step and angle step; opens the scene's settings. */
function SceneChip() {
  const scene = useSessionState((state) => state.document.scene);
  const isSmall = useRoom() === 'small';
  return (
    <Popover className="relative">
      <PopoverButton
        className="rounded border border-rule bg-paper px-2 py-0.5 text-ink2"
        title="Units, decimals and steps"
      >
        {scene.units}
        {!isSmall && (
          <>
            {' '}
            · grid{' '}
            <span className="num">
              {formatLengthWithUnit(scene.grid, { ...scene, trailingZeros: false })}
            </span>{' '}
            · turn <span className="num">{formatAngle(scene.angleStep)}</span> · nudge{' '}
            <span className="num">
              {formatLengthWithUnit(scene.nudge, { ...scene, trailingZeros: false })}
            </span>
          </>
        )}
      </PopoverButton>
      <Panel label="Scene" className="w-72 p-4!">
        {({ close }) => <SceneForm close={close} />}
      </Panel>
    </Popover>
  );
}

/** Units, decimals and steps. */
function SceneForm({ close }: { readonly close: () => void }) {
  const session = useSession();
  const scene = useSessionState((state) => state.document.scene);
  const choices = verbNamed('scene')!.blanks;
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const values = Object.fromEntries(new FormData(event.currentTarget).entries());
    if (await session.say('scene', values)) close();
  };
  return (
    <form className="flex flex-col gap-2.5" onSubmit={(event) => void submit(event)}>
      <Choice name="units" label="Units" value={scene.units} choices={LENGTH_UNIT_WORDS} />
      <Line label="Decimals">
        <input className="field num" name="decimals" defaultValue={scene.decimals} aria-label="Decimals" />
      </Line>
      <Choice
        name="zeros"
        label="Trailing zeros"
        value={scene.trailingZeros ? 'yes' : 'no'}
        choices={choices.zeros!.choices!}
      />
      <Choice
        name="fraction"
        label="Fraction of an inch"
        value={String(scene.fraction)}
        choices={choices.fraction!.choices!}
      />
      <Line label="Grid step">
        <input
          className="field num"
          name="grid"
          defaultValue={formatLengthWithUnit(scene.grid, { ...scene, decimals: 9 })}
          aria-label="Grid step"
        />
      </Line>
      <Line label="Angle step">
        <input
          className="field num"
          name="angleStep"
          defaultValue={formatAngle(scene.angleStep)}
          aria-label="Angle step"
        />
      </Line>
      <p className="text-[12px] text-ink2">Nothing changes its size.</p>
      <button type="submit" className="button main self-end">
        Set
      </button>
    </form>
  );
}

function Line({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div className="grid grid-cols-[120px_1fr] items-center gap-2">
      <span>{label}</span>
      {children}
    </div>
  );
}

function Choice({
  name,
  label,
  value,
  choices,
}: {
  name: string;
  label: string;
  value: string;
  choices: Readonly<Record<string, string>>;
}) {
  return (
    <Line label={label}>
      <select className="field" name={name} defaultValue={value} aria-label={label}>
        {Object.entries(choices).map(([choice, words]) => (
          <option key={choice} value={choice}>
            {words}
          </option>
        ))}
      </select>
    </Line>
  );
}
