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

/** The same leg told in another way; numbers that are not known yet are left empty. */
function toldAs(row: TypedRow, way: Way, leg: Booked | undefined): TypedRow {
  const kept = Object.fromEntries(Object.entries(row).filter(([name]) => !EVERY_WAY.includes(name)));
  if (!leg) return { ...kept, [WAYS[way][0]]: '', [WAYS[way][1]]: '' };
  const { x, y, length, bearing } = leg.course;
  const told: Readonly<Record<Way, readonly [string, string]>> = {
    by: [exactMm(x), exactMm(y)],
    bearing: [exactMm(length), String(bearing)],
    turn: [exactMm(length), String(leg.turn + (leg.sweep === 0 ? 0 : -leg.sweep / 2))],
    to: [exactMm(leg.to[0]), exactMm(leg.to[1])],
  };
  const [a, b] = told[way];
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
  const scene = useSessionState((state) => state.document.scene);
  const found = session.sketch(statement);
  const figure = found && !isRefusal(found) ? found.figure : undefined;
  const traverse = figure?.kind === 'traverse' ? traverseOf(figure) : undefined;
  const columns = blank.columns!;
  const add = () => {
    const way = rows.length > 0 ? wayOf(rows.at(-1)!) : 'by';
    set([...rows, { [WAYS[way][0]]: '', [WAYS[way][1]]: '' }]);
  };
  const change = (i: number, row: TypedRow) => set(rows.map((one, k) => (k === i ? row : one)));
  return (
    <>
      <table className="text-[13px]" onPaste={(event) => pasteRows(event, rows, set, blank)}>
        <thead>
          <tr className="text-left text-[12px] text-ink2">
            {HEADS.map(([words, isSaid], i) => (
              <th key={i} className="px-1 font-normal">
                <span className={isSaid ? undefined : 'sr-only'}>{words}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => {
            const way = wayOf(row);
            const [a, b] = WAYS[way];
            const leg = traverse?.legs[i];
            const cell = (name: string) => (
              <td className="px-0.5 py-px">
                <Cell
                  key={name}
                  label={`${columns[name]!.label}, leg ${i + 1}`}
                  column={columns[name]!}
                  value={row[name]}
                  set={(value) => change(i, { ...row, [name]: value })}
                  onEnter={i === rows.length - 1 ? add : undefined}
                />
              </td>
            );
            return (
              <tr
                key={i}
                onKeyDown={(event) => {
                  if (event.key !== 'F2') return;
                  event.preventDefault();
                  change(i, toldAs(row, nextWay(way), leg));
                }}
              >
                <td className="num pr-1 text-right text-ink3">{i + 1}</td>
                <td>
                  <select
                    className="field"
                    aria-label={`How leg ${i + 1} is told`}
                    value={way}
                    onChange={(event) => change(i, toldAs(row, event.target.value as Way, leg))}
                  >
                    {Object.entries(WAY_WORDS).map(([key, words]) => (
                      <option key={key} value={key}>
                        {words}
                      </option>
                    ))}
                  </select>
                </td>
                {cell(a)}
                {cell(b)}
                <td className="px-0.5 [&_input]:w-16!">
                  <Cell
                    label={`Arc to the left, leg ${i + 1}`}
                    column={columns.sweep!}
                    value={row.sweep}
                    set={(value) => change(i, withCell(row, 'sweep', value))}
                  />
                </td>
                <td className="px-0.5 [&_input]:w-16!">
                  <Cell
                    label={`Corner radius, leg ${i + 1}`}
                    column={columns.round!}
                    value={row.round}
                    set={(value) => change(i, withCell(row, 'round', value))}
                  />
                </td>
                <td className="num px-1.5 text-right text-ink2">{leg && formatLength(leg.to[0], scene)}</td>
                <td className="num px-1.5 text-right text-ink2">{leg && formatLength(leg.to[1], scene)}</td>
                <td>
                  <RemoveRow at={i} rows={rows} set={set} />
                </td>
              </tr>
            );
          })}
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
