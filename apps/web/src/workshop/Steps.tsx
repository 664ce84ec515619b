/** The steps of a part after its base: each with its number, and out of the way when it is not wanted. */
import {
  builtRecipe,
  deviationOfStep,
  formatLengthWithUnit,
  isCurveStep,
  referencesOfStep,
  titleOfStep,
  valueOf,
  type KadrelDocument,
  type Part,
  type RecipeStep,
  type Typed,
} from '@kadrel/core';
import clsx from 'clsx';
import { Eye, X } from 'lucide-react';
import { useEffect, useState, type KeyboardEvent } from 'react';
import { imprintsOf } from '../session/faces.ts';
import { useSession, useSessionState } from './context.ts';
import { Section } from './Section.tsx';
import { StepDrawing } from './StepDrawing.tsx';
import { StepFields } from './StepFields.tsx';

/** The steps of a part, in order. */
export function Steps({ part }: { part: Part }) {
  const document = useSessionState((state) => state.document);
  const { steps } = builtRecipe(document, part);
  const failed = useSessionState(
    ({ built }) => built.failures.find((failure) => failure.part === part.id)?.step,
  );
  if (steps.length === 0) return null;
  return (
    <Section title="Steps">
      <ol aria-label="Steps">
        {steps.map((step, i) => (
          <StepRow
            key={i}
            part={part}
            step={step}
            place={{ index: i, count: steps.length }}
            isFailed={failed === i}
          />
        ))}
      </ol>
      <Settle part={part} />
    </Section>
  );
}

/** The recipe gives way to what it makes. */
function Settle({ part }: { part: Part }) {
  const session = useSession();
  return (
    <button
      type="button"
      className="quiet mx-3.5"
      title="Keeps the part as the exact solid that it is, without its recipe. Undo brings it back."
      onClick={() => void session.say('settle', { part: part.id })}
    >
      Settle
    </button>
  );
}

interface StepProps {
  readonly part: Part;
  readonly step: RecipeStep;
  readonly place: { readonly index: number; readonly count: number };
  readonly isFailed: boolean;
}

function StepRow(props: StepProps) {
  const { part, step, place } = props;
  const session = useSession();
  // Steps of drawn outlines make no faces.
  const makesFaces = !isCurveStep(step);
  const { index } = place;
  const built = useSessionState((state) => state.built);
  const [isPointedAt, setIsPointedAt] = useState(false);
  // What it has made is shown anew when it is built anew, and no longer when the row is gone.
  useEffect(() => {
    if (!isPointedAt || !makesFaces) return undefined;
    void session.showStep({ part: part.id, step: index });
    return () => void session.showStep(null);
  }, [session, isPointedAt, makesFaces, part.id, index, built]);
  const point = () => setIsPointedAt(true);
  const leave = () => setIsPointedAt(false);
  return (
    <li onPointerEnter={point} onPointerLeave={leave} onFocus={point} onBlur={leave}>
      <StepHead {...props} />
      <StepFields part={part} step={step} index={String(place.index + 1)} />
      {step.kind === 'resample' && <Deviation part={part} step={place.index} />}
    </li>
  );
}

/** What it does, whether it is on, and its place; Alt with an arrow moves it. */
function StepHead({ part, step, place: { index, count }, isFailed }: StepProps) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const say = (typed: Typed) =>
    void session.say('step', { part: part.id, step: String(index + 1), ...typed });
  const moveTo = (to: number) => to >= 1 && to <= count && say({ to: String(to) });
  return (
    <div className="flex items-center gap-1.5 px-3.5 text-ink2" onKeyDown={movedByKeys(index, moveTo)}>
      <input
        type="checkbox"
        className="accent-plum"
        aria-label={`Step ${index + 1} is on`}
        title="A step that is off is kept, and not done. Alt with an arrow moves it."
        checked={!step.off}
        onChange={(event) => say({ state: event.currentTarget.checked ? 'on' : 'off' })}
      />
      <StepDrawing kind={step.kind} />
      <span
        className={clsx('mr-auto', isFailed ? 'text-bad' : 'truncate', step.off && 'text-ink3 line-through')}
      >
        {index + 1}. {wordsOf(step, document)}
        {isFailed && ' – cannot be done'}
      </span>
      {step.kind === 'emboss' && valueOf(step.depth) === 0 && <MarkedFaces part={part} />}
      {index < count - 1 && <UpTo part={part} index={index} />}
      {count > 1 && <Movers index={index} count={count} moveTo={moveTo} />}
      <button
        type="button"
        className="quiet shrink-0 px-1"
        aria-label={`Take out step ${index + 1}`}
        title="Take it out"
        onClick={() => say({ out: 'yes' })}
      >
        <X size={14} aria-hidden />
      </button>
    </div>
  );
}

/** Shows the part without what comes after, as long as it is pressed. */
function UpTo({ part, index }: { part: Part; index: number }) {
  const session = useSession();
  const isShown = useSessionState(
    ({ builtPreview }) => builtPreview?.upTo?.part === part.id && builtPreview.upTo.step === index,
  );
  return (
    <button
      type="button"
      className="quiet shrink-0 px-1 aria-pressed:text-plum"
      aria-label={`Look at it up to step ${index + 1}`}
      title="Look at it up to here"
      aria-pressed={isShown}
      onClick={() => void session.lookUpTo(isShown ? null : { part: part.id, step: index })}
    >
      <Eye size={14} aria-hidden />
    </button>
  );
}

/** @param moveTo is given the new place, counted from 1 */
const movedByKeys = (index: number, moveTo: (to: number) => void) => (event: KeyboardEvent) => {
  if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
  event.preventDefault();
  event.stopPropagation();
  moveTo(index + 1 + (event.key === 'ArrowUp' ? -1 : 1));
};

interface MoversProps {
  readonly index: number;
  readonly count: number;
  readonly moveTo: (to: number) => void;
}

const Movers = ({ index, count, moveTo }: MoversProps) => (
  <>
    <Mover label={`Do step ${index + 1} earlier`} sign="↑" isOff={index === 0} move={() => moveTo(index)} />
    <Mover
      label={`Do step ${index + 1} later`}
      sign="↓"
      isOff={index === count - 1}
      move={() => moveTo(index + 2)}
    />
  </>
);

interface MoverProps {
  readonly label: string;
  readonly sign: string;
  readonly isOff: boolean;
  readonly move: () => void;
}

const Mover = ({ label, sign, isOff, move }: MoverProps) => (
  <button
    type="button"
    className="quiet shrink-0 px-1"
    aria-label={label}
    title={label}
    disabled={isOff}
    onClick={move}
  >
    {sign}
  </button>
);

/** Selects what an imprint marked on the part. */
function MarkedFaces({ part }: { part: Part }) {
  const session = useSession();
  const built = useSessionState((state) => state.built);
  const names = imprintsOf(built, part.id);
  if (names.length === 0) return null;
  return (
    <button
      type="button"
      className="quiet ml-auto"
      aria-label="Select the marked faces"
      onClick={() => session.selectPlaces({ part: part.id, list: names })}
    >
      Select
    </button>
  );
}

function wordsOf(step: RecipeStep, { items }: KadrelDocument): string {
  const names = referencesOfStep(step).map((id) => items[id]?.name);
  return titleOfStep(step, names.join(', '));
}

function Deviation({ part, step }: { part: Part; step: number }) {
  const document = useSessionState((state) => state.document);
  const found = deviationOfStep(document, part.id, step);
  if (!found) return null;
  return (
    <p className="px-3.5 text-ink2">
      Departs by at most <span className="num">{formatLengthWithUnit(found.deviation, document.scene)}</span>;{' '}
      <span className="num">{found.before}</span> curves became <span className="num">{found.after}</span>
    </p>
  );
}
