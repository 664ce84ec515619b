import type { LayoutOf } from '../../recipes/layouts/index.ts';
import { NO_TURN } from '../../space/pose.ts';
import { dot, type Vec3 } from '../../space/vector.ts';
import { valueOf } from '../../document/items.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type Values,
} from '../../statement/declare.ts';
import { worldDirection } from '../../statement/directions.ts';
import { makePattern, readCount, readSpacing, type InFrame } from '../shared/repeating.ts';

const blanks = {
  parts: needed('parts', 'parts', 'What is repeated.', { least: 1 }),
  columns: needed('tally', 'columns', 'How many stand side by side.', { default: '1' }),
  columnPitch: optional('length', 'column every', 'From one column to the next.', { excludes: 'columnSpan' }),
  columnSpan: optional('length', 'columns across', 'From the first column to the last.', {
    excludes: 'columnPitch',
    rare: true,
  }),
  rows: needed('tally', 'rows', 'How many stand behind one another.', { default: '1' }),
  rowPitch: optional('length', 'row every', 'From one row to the next.', { excludes: 'rowSpan' }),
  rowSpan: optional('length', 'rows across', 'From the first row to the last.', {
    excludes: 'rowPitch',
    rare: true,
  }),
  levels: needed('tally', 'levels', 'How many stand on one another.', { default: '1', rare: true }),
  levelPitch: optional('length', 'level every', 'From one level to the next.', {
    excludes: 'levelSpan',
    rare: true,
  }),
  levelSpan: optional('length', 'levels across', 'From the first level to the last.', {
    excludes: 'levelPitch',
    rare: true,
  }),
  stagger: needed('choice', 'rows', 'Whether every other row is shifted by half a column.', {
    default: 'no',
    choices: { no: 'in line', half: 'every other row shifted by half' },
    rare: true,
  }),
  x: needed('direction', 'columns along', 'Which way the columns go.', { default: 'x', rare: true }),
  y: needed('direction', 'rows along', 'Which way the rows go.', { default: 'y', rare: true }),
  z: needed('direction', 'levels along', 'Which way the levels go.', { default: 'z', rare: true }),
  as: optional('name', 'name', 'What the grid is called.', { rare: true }),
};

/** Columns, rows and levels, each by pitch or by span. */
export const grid = declareVerb({
  id: 'grid',
  name: 'Repeat in a grid',
  group: 'repeat',
  about: 'Columns, rows and levels, each by pitch or by span; every other row shifted where wanted.',
  words: [
    'array',
    'rows',
    'columns',
    'rectangular',
    'matrix',
    'bricks',
    'wall',
    'levels',
    'storeys',
    'holes',
  ],
  blanks,
  sentence:
    'Repeat in a grid {parts}, {columns} columns[ every {columnPitch}][ across {columnSpan}], {rows} rows[ every {rowPitch}]' +
    '[ across {rowSpan}][, {levels} levels][ every {levelPitch}][ across {levelSpan}][, {stagger}]' +
    '[, columns along {x}][, rows along {y}][, levels along {z}][ named {as}]',
  apply(draft, values, context) {
    const { parts, as } = values;
    return makePattern(
      draft,
      { parts, as, word: 'grid', layout: (inFrame) => layoutOf(values, inFrame) },
      context,
    );
  },
});

const AXES = [
  { count: 'columns', pitch: 'columnPitch', span: 'columnSpan', along: 'x' },
  { count: 'rows', pitch: 'rowPitch', span: 'rowSpan', along: 'y' },
  { count: 'levels', pitch: 'levelPitch', span: 'levelSpan', along: 'z' },
] as const;
/** Two directions nearer to one another than this (cosine) put columns and rows into one line. */
const SAME_DIRECTION = 1 - 1e-9;

function layoutOf(values: Values<typeof blanks>, inFrame: InFrame): LayoutOf<'grid'> | Refusal {
  const rows: LayoutOf<'grid'>['rows'][number][] = [];
  const ways: Vec3[] = [];
  for (const axis of AXES) {
    const count = readCount(values[axis.count], axis.count);
    if (isRefusal(count)) return count;
    const pitch = values[axis.pitch];
    const span = values[axis.span];
    const spacing = readSpacing(pitch, span, { count: valueOf(count), blanks: [axis.pitch, axis.span] });
    if ('refused' in spacing) return spacing;
    const way = worldDirection(values[axis.along], NO_TURN);
    if (valueOf(count) > 1 && ways.some((other) => Math.abs(dot(other, way)) > SAME_DIRECTION))
      return refuse('direction.columns', {}, axis.along);
    if (valueOf(count) > 1) ways.push(way);
    rows.push({ direction: inFrame.direction(way), count, spacing });
  }
  const stagger = values.stagger === 'half' ? 0.5 : 0;
  return { kind: 'grid', rows: rows as LayoutOf<'grid'>['rows'], stagger };
}
