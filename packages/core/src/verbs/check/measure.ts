import { MEASURED, OF_ONE, targetKept, type Measure, type MeasuredKind } from '../../document/fit.ts';
import { MATERIALS, type Material } from '../../document/materials.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type Values,
} from '../../statement/declare.ts';
import { NO_TURN } from '../../space/pose.ts';
import { worldDirection } from '../../statement/directions.ts';
import { checkName, limitKind, limitsRead, nextCheckOrder } from '../shared/checks.ts';

const BLANKS = {
  from: needed('target', 'of', 'A point, an edge, a face or a part: pick it, or type its name.', {
    catches: 'features',
    next: ({ what }) => (OF_ONE.has(what as MeasuredKind) ? undefined : 'to'),
  }),
  to: optional('target', 'to', 'The other one, of a distance or an angle.', {
    catches: 'features',
    next: ({ what }) => (what === 'path' ? 'path' : undefined),
  }),
  what: needed('choice', 'what', 'What is kept.', { default: 'distance', choices: MEASURED }),
  along: optional('direction', 'along', 'Which way a distance along a direction is told.', {
    askedBy: ['what', 'along'],
  }),
  path: optional(
    'target',
    'along the path',
    'The edge, with those that run on from it without a bend, or the drawn line that a distance follows.',
    {
      catches: 'features',
      askedBy: ['what', 'path'],
    },
  ),
  material: optional('choice', 'of material', 'What a mass is of.', {
    askedBy: ['what', 'mass'],
    choices: Object.fromEntries(Object.entries(MATERIALS).map(([id, { name }]) => [id, name])),
  }),
  least: optional('text', 'at least', 'Less is told as a fault.'),
  greatest: optional('text', 'at most', 'More is told as a fault.'),
  called: optional('text', 'called', 'Its name.', { rare: true }),
};

/** Kept in the document, so that it follows the model. */
export const measure = declareVerb({
  id: 'measure',
  name: 'Measure',
  group: 'check',
  key: 'Shift+D',
  about:
    'Reads distances, angles, sizes and masses of points, edges, faces and parts; Enter keeps one, with a limit if you like.',
  words: [
    'distance',
    'how far',
    'gap',
    'angle',
    'length',
    'radius',
    'area',
    'volume',
    'mass',
    'weight',
    'thickness',
    'ruler',
    'running distance',
  ],
  blanks: BLANKS,
  sentence:
    'Measure {what} of {from}[ to {to}][, along {along}][, along the path {path}][, of {material}][, at least {least}][, at most {greatest}][, called {called}]',
  apply(draft, values, context) {
    const kind = values.what as MeasuredKind;
    const fault = unfitting(kind, values);
    if (fault) return fault;
    const { from, to, along, path, material, least, greatest, called } = values;
    const name = checkName(draft, called, 'M');
    if (isRefusal(name)) return name;
    const limits = limitsRead({ least, greatest }, limitKind(kind), context);
    if (isRefusal(limits)) return limits;
    const id = context.newId();
    const kept: Measure = {
      id,
      name,
      order: nextCheckOrder(draft, 'measures'),
      what: kind,
      from: targetKept(from),
      ...(to ? { to: targetKept(to) } : {}),
      ...(kind === 'along' && along ? { direction: [...worldDirection(along, NO_TURN)] } : {}),
      ...(kind === 'path' && path ? { path: targetKept(path) } : {}),
      ...(kind === 'mass' ? { material: material as Material } : {}),
      ...limits,
    };
    draft.measures[id] = kept;
    return {};
  },
});

/** What is said too much or too little for what is measured. */
function unfitting(
  kind: MeasuredKind,
  { to, along, path, material }: Values<typeof BLANKS>,
): Refusal | undefined {
  if (!OF_ONE.has(kind) && !to) return refuse('missing.distance-angle', {}, 'to');
  if (OF_ONE.has(kind) && to) return refuse('of-one', { distance: MEASURED.distance }, 'to');
  if (kind === 'along' && !along) return refuse('missing.along', {}, 'along');
  if (kind !== 'along' && along) return refuse('along-only', { along: MEASURED.along }, 'along');
  if (kind === 'path' && !path) return refuse('missing.path', {}, 'path');
  if (kind !== 'path' && path) return refuse('along-only', { along: MEASURED.path }, 'path');
  if (kind === 'mass' && material === undefined) return refuse('missing.material', {}, 'material');
  return undefined;
}
