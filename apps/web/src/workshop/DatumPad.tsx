import type { BoxPoint, Part } from '@kadrel/core';
import clsx from 'clsx';
import { useSession } from './context.ts';

const LEVELS: readonly (readonly [BoxPoint[2], string])[] = [
  [1, 'top'],
  [0, 'mid'],
  [-1, 'under'],
];
const SIDES = {
  x: { '-1': 'left', '0': 'middle', '1': 'right' },
  y: { '-1': 'front', '0': 'middle', '1': 'back' },
} as const;

const datumWords = ([x, y, z]: BoxPoint): string => {
  const sides = [SIDES.y[`${y}`], SIDES.x[`${x}`]]
    .filter((word, _, all) => word !== 'middle' || all.every((w) => w === 'middle'))
    .slice(0, x === 0 && y === 0 ? 1 : 2);
  return `${sides.join(' ')}, ${LEVELS.find(([level]) => level === z)![1]}`;
};

const textOf = (point: BoxPoint): string => point.join(' ');

/** The 27 points of the part's box as a small plan with three levels, and its own origin. */
export function DatumPad({ part }: { part: Part }) {
  const session = useSession();
  const isOwn = part.datum === 'own';
  const isFree = typeof part.datum === 'object' && 'point' in part.datum;
  const isBox = !isOwn && !isFree;
  const point: BoxPoint = Array.isArray(part.datum) ? part.datum : [-1, -1, -1];
  const set = (datum: string) => void session.say('change', { parts: [part.id], datum });
  return (
    <div className="flex items-center gap-3.5 px-3.5 pb-2">
      <DatumPlan point={point} isBox={isBox} choose={set} />
      <div className="min-w-0">
        <p className="mb-1.5 text-ink2">
          Datum:{' '}
          {isOwn
            ? part.recipe.base.kind === 'box'
              ? 'its own origin, the least corner'
              : 'its own origin'
            : isFree
              ? 'a picked point'
              : datumWords(point)}
        </p>
        <div
          role="group"
          aria-label="Datum level"
          className="inline-flex overflow-hidden rounded border border-rule"
        >
          {LEVELS.map(([z, word]) => (
            <button
              key={word}
              type="button"
              aria-pressed={isBox && point[2] === z}
              className={clsx('px-2 py-0.5', isBox && point[2] === z ? 'bg-ink text-paper' : 'text-ink2')}
              onClick={() => set(textOf([point[0], point[1], z]))}
            >
              {word}
            </button>
          ))}
          <button
            type="button"
            aria-pressed={isOwn}
            className={clsx('px-2 py-0.5', isOwn ? 'bg-ink text-paper' : 'text-ink2')}
            onClick={() => set('own')}
          >
            own
          </button>
        </div>
        <button
          type="button"
          className={clsx('quiet ml-1.5', isFree && 'text-plum')}
          title="Put it onto a corner, an edge, a face or any point"
          onClick={() => session.start('datum', { part: part.id })}
        >
          pick…
        </button>
      </div>
    </div>
  );
}

interface DatumPlanProps {
  readonly point: BoxPoint;
  /** It is one of the points of the box. */
  readonly isBox: boolean;
  readonly choose: (datum: string) => void;
}

/** Nine points of one level. */
const DatumPlan = ({ point, isBox, choose }: DatumPlanProps) => (
  <div
    role="group"
    aria-label="Datum in plan"
    className="grid size-[66px] shrink-0 grid-cols-3 rounded border border-rule bg-sheet p-1"
  >
    {([1, 0, -1] as const).map((y) =>
      ([-1, 0, 1] as const).map((x) => {
        const isChosen = isBox && point[0] === x && point[1] === y;
        const words = datumWords([x, y, point[2]]);
        return (
          <button
            key={`${x}${y}`}
            type="button"
            aria-pressed={isChosen}
            aria-label={`Datum ${words}`}
            title={words}
            className="flex items-center justify-center"
            onClick={() => choose(textOf([x, y, point[2]]))}
          >
            <span
              className={clsx(
                'size-2 rounded-full border',
                isChosen ? 'size-2.5 border-plum bg-plum' : 'border-ink3',
              )}
            />
          </button>
        );
      }),
    )}
  </div>
);
