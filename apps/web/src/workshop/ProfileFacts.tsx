/** What is said of a profile: its lengths and areas, and the table that it is drawn by. */
import {
  filledArea,
  formatAngle,
  formatLengthWithUnit,
  formatMeasure,
  gapsOf,
  pathLength,
  pathsOf,
  rowsOfCurve,
  rowsOfTraverse,
  traverseOf,
  type Figure,
  type FigureOf,
  type Part,
} from '@kadrel/core';
import { Choice } from './Choice.tsx';
import { useSession, useSessionState } from './context.ts';
import { TableButton } from './TableButton.tsx';

export function ProfileFacts({ part, figure }: { part: Part; figure: Figure }) {
  const scene = useSessionState((state) => state.document.scene);
  const document = useSessionState((state) => state.document);
  const paths = pathsOf(document, part.id);
  const closed = paths.every((path) => path.closed);
  const gaps = gapsOf(paths);
  const facts: (readonly [string, string])[] = [
    [
      closed ? 'Perimeter' : 'Length',
      formatLengthWithUnit(
        paths.reduce((sum, path) => sum + pathLength(path), 0),
        scene,
      ),
    ],
    ['Area', closed ? formatMeasure(filledArea(paths), 2, scene) : 'open'],
    ...gaps.map(({ size }): readonly [string, string] => [
      'Gap',
      size === undefined ? 'a loose end' : formatLengthWithUnit(size, scene),
    ]),
  ];
  return (
    <>
      {figure.kind === 'traverse' && <TraverseFacts part={part} figure={figure} />}
      {figure.kind === 'curve' && <CurveFacts part={part} figure={figure} />}
      <dl className="grid grid-cols-[76px_1fr] gap-x-1.5 px-3.5 pt-1">
        {facts.map(([label, words], i) => (
          <div key={i} className="contents">
            <dt className="text-ink2">{label}</dt>
            <dd className="num">{words}</dd>
          </div>
        ))}
      </dl>
    </>
  );
}

function TraverseFacts({ part, figure }: { part: Part; figure: FigureOf<'traverse'> }) {
  const session = useSession();
  const scene = useSessionState((state) => state.document.scene);
  const { error, legs } = traverseOf(figure);
  const isOff = error.length > 1e-7 && legs.length > 1;
  return (
    <>
      <TableButton
        words={`${legs.length} legs…`}
        verb="relay"
        typed={{ profile: part.id, legs: rowsOfTraverse(figure), closing: figure.closing }}
        blank="legs"
      />
      {isOff && (
        <div className="flex flex-wrap gap-1 px-2 pb-1">
          {(['straight', 'square', 'spread'] as const).map((closing) => (
            <button
              key={closing}
              type="button"
              className="quiet"
              aria-pressed={figure.closing === closing}
              onClick={() => void session.say('relay', { profile: part.id, closing })}
            >
              {CLOSE_WORDS[closing]}
            </button>
          ))}
        </div>
      )}
      {isOff && (
        <p className="px-3.5 text-ink2">
          Misses its start by <span className="num">{formatLengthWithUnit(error.length, scene)}</span> at{' '}
          <span className="num">{formatAngle(error.bearing)}</span>
        </p>
      )}
    </>
  );
}

function CurveFacts({ part, figure }: { part: Part; figure: FigureOf<'curve'> }) {
  const session = useSession();
  const change = (values: object) => void session.say('repoint', { profile: part.id, ...values });
  return (
    <>
      <Choice
        label="Drawn"
        chosen={figure.how}
        choices={{ through: 'through', control: 'towards' }}
        choose={(how) => change({ how })}
      />
      <Choice
        label="End"
        chosen={figure.closed ? 'yes' : 'no'}
        choices={{ no: 'open', yes: 'closed' }}
        choose={(closed) => change({ closed })}
      />
      <TableButton
        words={`${figure.points.length} points…`}
        verb="repoint"
        typed={{ profile: part.id, points: rowsOfCurve(figure) }}
        blank="points"
      />
    </>
  );
}

const CLOSE_WORDS = { straight: 'Close', square: 'Close square', spread: 'Spread the error' };
