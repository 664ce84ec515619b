/** The traverse table: each leg in one of four ways, with its end, and the closing error as a surveyor books it. */
import {
  filledArea,
  formatAngle,
  formatLength,
  formatLengthWithUnit,
  formatMeasure,
  isRefusal,
  outlineOf,
  pathLength,
  traverseOf,
  type Booked,
  type Refusal,
  type Traverse,
  type TypedRow,
} from '@kadrel/core';
import { exactMm, type Statement } from '../session/statement.ts';
import type { Sketch } from '../session/sketch.ts';
import { useSession, useSessionState } from './context.ts';
import { AddRow, Cell, RemoveRow, pasteRows, withCell, type TableProps } from './TableCells.tsx';

const WAYS = {
  by: ['dx', 'dy'],
  bearing: ['length', 'bearing'],
  turn: ['length', 'turn'],
  to: ['x', 'y'],
} as const;
type Way = keyof typeof WAYS;
const WAY_WORDS: Readonly<Record<Way, string>> = {
  by: 'ΔX ΔY',
  bearing: 'length, bearing',
  turn: 'length, turn right',
  to: 'to X Y',
};
const EVERY_WAY = ['dx', 'dy', 'length', 'bearing', 'turn', 'x', 'y'];

const wayOf = (row: TypedRow): Way =>
  'x' in row || 'y' in row
    ? 'to'
    : 'bearing' in row
      ? 'bearing'
      : 'turn' in row
        ? 'turn'
        : 'length' in row
          ? 'turn'
          : 'by';

const nextWay = (way: Way): Way => {
  const ways = Object.keys(WAYS) as Way[];
  return ways[(ways.indexOf(way) + 1) % ways.length]!;
};

/** The same leg given in another way; numbers that are not known yet are left empty. */
function rewrittenAs(row: TypedRow, way: Way, leg: Booked | undefined): TypedRow {
  const kept = Object.fromEntries(Object.entries(row).filter(([name]) => !EVERY_WAY.includes(name)));
  if (!leg) return { ...kept, [WAYS[way][0]]: '', [WAYS[way][1]]: '' };
  const { x, y, length, bearing } = leg.course;
  const entries: Readonly<Record<Way, readonly [string, string]>> = {
    by: [exactMm(x), exactMm(y)],
    bearing: [exactMm(length), String(bearing)],
    turn: [exactMm(length), String(leg.turn + (leg.sweep === 0 ? 0 : -leg.sweep / 2))],
    to: [exactMm(leg.to[0]), exactMm(leg.to[1])],
  };
  const [a, b] = entries[way];
  return { ...kept, [WAYS[way][0]]: a, [WAYS[way][1]]: b };
}

/** The heads of the columns, and whether they are seen: some go without saying. */
const HEADS = [
  ['Leg', false],
  ['Told by', true],
  ['First number', false],
  ['Second number', false],
  ['Arc °', true],
  ['Corner', true],
  ['Ends at X', true],
  ['Y', true],
  ['Remove', false],
] as const;

export function LegsTable({ rows, set, statement, blank }: TableProps & { statement: Statement }) {
  const session = useSession();
  const found = session.sketch(statement);
  const figure = found && !isRefusal(found) ? found.figure : undefined;
  const traverse = figure?.kind === 'traverse' ? traverseOf(figure) : undefined;
  const add = () => {
    const way = rows.length > 0 ? wayOf(rows.at(-1)!) : 'by';
    set([...rows, { [WAYS[way][0]]: '', [WAYS[way][1]]: '' }]);
  };
  const change = (i: number, row: TypedRow) => set(rows.map((one, k) => (k === i ? row : one)));
  return (
    <>
      <table className="text-[13px]" onPaste={(event) => pasteRows(event, rows, set, blank)}>
        {rows.length > 0 && (
          <thead>
            <tr className="text-left text-[12px] text-ink2">
              {HEADS.map(([words, isSaid], i) => (
                <th key={i} className="px-1 font-normal">
                  <span className={isSaid ? undefined : 'sr-only'}>{words}</span>
                </th>
              ))}
            </tr>
          </thead>
        )}
        <tbody>
          {rows.map((row, i) => (
            <LegRow
              key={i}
              at={i}
              rows={rows}
              set={set}
              blank={blank}
              leg={traverse?.legs[i]}
              change={(changed) => change(i, changed)}
              onEnter={i === rows.length - 1 ? add : undefined}
              row={row}
            />
          ))}
        </tbody>
      </table>
      <AddRow add={add} words="Add a leg" />
      <Closing found={found} traverse={traverse} />
      <p className="mt-1 max-w-[620px] text-[12px] text-ink2">
        Bearings run clockwise from +Y. Click points in the view, or paste rows of ΔX and ΔY from a
        spreadsheet. F2 tells a leg in the next way, Ctrl+Enter carries it out.
      </p>
    </>
  );
}

interface LegRowProps extends TableProps {
  readonly at: number;
  readonly row: TypedRow;
  /** As it is booked; undefined while it is not whole. */
  readonly leg: Booked | undefined;
  readonly change: (row: TypedRow) => void;
  readonly onEnter: (() => void) | undefined;
}

/** One leg: how it is given, its two numbers, its arc and its corner, and where it ends. */
function LegRow({ at, row, rows, set, blank, leg, change, onEnter }: LegRowProps) {
  const scene = useSessionState((state) => state.document.scene);
  const columns = blank.columns!;
  const way = wayOf(row);
  return (
    <tr
      onKeyDown={(event) => {
        if (event.key !== 'F2') return;
        event.preventDefault();
        change(rewrittenAs(row, nextWay(way), leg));
      }}
    >
      <td className="num pr-1 text-right text-ink3">{at + 1}</td>
      <td>
        <WayChoice at={at} way={way} choose={(chosen) => change(rewrittenAs(row, chosen, leg))} />
      </td>
      {WAYS[way].map((name) => (
        <td key={name} className="px-0.5 py-px">
          <Cell
            label={`${columns[name]!.label}, leg ${at + 1}`}
            column={columns[name]!}
            value={row[name]}
            set={(value) => change({ ...row, [name]: value })}
            onEnter={onEnter}
          />
        </td>
      ))}
      {(['sweep', 'round'] as const).map((name) => (
        <td key={name} className="px-0.5 [&_input]:w-16!">
          <Cell
            label={`${name === 'sweep' ? 'Arc to the left' : 'Corner radius'}, leg ${at + 1}`}
            column={columns[name]!}
            value={row[name]}
            set={(value) => change(withCell(row, name, value))}
          />
        </td>
      ))}
      {[0, 1].map((axis) => (
        <td key={axis} className="num px-1.5 text-right text-ink2">
          {leg && formatLength(leg.to[axis]!, scene)}
        </td>
      ))}
      <td>
        <RemoveRow at={at} rows={rows} set={set} />
      </td>
    </tr>
  );
}

interface WayChoiceProps {
  readonly at: number;
  readonly way: Way;
  readonly choose: (way: Way) => void;
}

const WayChoice = ({ at, way, choose }: WayChoiceProps) => (
  <select
    className="field"
    aria-label={`How leg ${at + 1} is told`}
    value={way}
    onChange={(event) => choose(event.target.value as Way)}
  >
    {Object.entries(WAY_WORDS).map(([key, words]) => (
      <option key={key} value={key}>
        {words}
      </option>
    ))}
  </select>
);

function Closing({
  found,
  traverse,
}: {
  found: Sketch | Refusal | undefined;
  traverse: Traverse | undefined;
}) {
  const scene = useSessionState((state) => state.document.scene);
  if (!traverse || !found || isRefusal(found))
    return (
      <p className="mt-1.5 text-[12px] text-ink2" role="status">
        {found && isRefusal(found) && found.blank === 'legs' ? found.message : 'Type the first leg.'}
      </p>
    );
  const paths = outlineOf(found.figure);
  const { error, closed, closing } = traverse;
  const length = paths.reduce((sum, path) => sum + pathLength(path), 0);
  return (
    <dl
      className="mt-1.5 grid grid-cols-[auto_1fr_auto_1fr] gap-x-3 gap-y-0.5 border-t border-rule pt-1.5"
      role="status"
    >
      <dt className="text-ink2">{closed ? 'Perimeter' : 'Length'}</dt>
      <dd className="num">{formatLengthWithUnit(length, scene)}</dd>
      <dt className="text-ink2">Area</dt>
      <dd className="num">{closed ? formatMeasure(filledArea(paths), 2, scene) : 'open'}</dd>
      <dt className="text-ink2">Closing error</dt>
      <dd className="num">
        {error.length < 1e-7
          ? 'none'
          : `${formatLengthWithUnit(error.length, scene)} at ${formatAngle(error.bearing)}`}
      </dd>
      <dt className="text-ink2">End</dt>
      <dd>
        {closing.length > 0
          ? `${closing.length === 1 ? 'one leg closes' : `${closing.length} legs close`} it`
          : closed
            ? 'meets its start'
            : 'left open'}
      </dd>
    </dl>
  );
}
