import { datumInPart, datumInWorld } from '../../document/datum.ts';
import {
  definitionOf,
  poseOfPlacement,
  standingWithin,
  vectorOf,
  worldFromParent,
} from '../../document/items.ts';
import {
  colourSchema,
  type CutFill,
  type Datum,
  type KadrelDocument,
  type NumVector,
  type Part,
} from '../../document/schema.ts';
import { carryBack, turnVector } from '../../space/pose.ts';
import { roundLength } from '../../space/rounding.ts';
import type { Vec3 } from '../../space/vector.ts';
import { readThree } from '../../statement/reading.ts';
import { RECIPE_BLANKS, RECIPE_SENTENCE, sizedBlanks } from '../shared/recipeBlanks.ts';
import { changeSize } from '../shared/changeSize.ts';
import { linkedWith } from '../shared/tree.ts';
import {
  declareVerb,
  needed,
  optional,
  refuse,
  type Refusal,
  type Values,
  type VerbContext,
  type Drafting,
} from '../../statement/declare.ts';

const YES_NO = { yes: 'yes', no: 'no' } as const;

/** Sets what the Spec shows: sizes, place of the datum, turn, colour and the marks of a part. `now` is the present value. */
export const change = declareVerb({
  id: 'change',
  isUnlisted: true,
  name: 'Change',
  group: 'edit',
  about: 'Sets sizes, place, turn, colour or marks of parts; “now + 20” counts from what is there.',
  words: ['edit', 'set', 'size', 'colour', 'resize', 'spec', 'hide', 'lock'],
  blanks: {
    parts: needed('parts', 'parts', 'What is changed.', { least: 1 }),
    ...RECIPE_BLANKS,
    at: optional('quantities', 'place', 'Where the datum stands in the world.', { kind: 'length' }),
    turn: optional('quantities', 'turn', 'Degrees about X, then Y, then Z; the datum stays.', {
      kind: 'angle',
    }),
    datum: optional('text', 'datum', '“own”, or three of -1, 0, 1 for a point of its box.'),
    colour: optional('text', 'colour', 'As #rrggbb.'),
    visible: optional('choice', 'visible', 'Whether it is shown.', { choices: YES_NO }),
    locked: optional('choice', 'locked', 'Whether it is kept from moving.', { choices: YES_NO }),
    snappable: optional('choice', 'snappable', 'Whether snaps catch it.', { choices: YES_NO }),
    cutFill: optional('choice', 'its cut faces', 'How they are drawn where a section plane cuts it.', {
      choices: { plane: 'as the section plane says', hatched: 'hatched', plain: 'filled' },
    }),
  },
  sentence:
    'Change {parts}' +
    RECIPE_SENTENCE +
    '[, at {at}][, turned {turn}][, datum {datum}]' +
    '[, colour {colour}][, visible {visible}][, locked {locked}][, snappable {snappable}][, its cut faces {cutFill}]',
  apply(draft, values, context) {
    for (const id of values.parts) {
      const refusal = changePart({ draft, context }, draft.items[id]!, values);
      if (refusal) return refusal;
    }
    return { select: values.parts };
  },
});

type ChangeValues = Values<(typeof change)['blanks']>;

function changePart({ draft, context }: Drafting, part: Part, values: ChangeValues): Refusal | undefined {
  if (
    part.locked &&
    values.locked !== 'no' &&
    (values.at !== undefined || values.turn !== undefined || sizedBlanks(values).length > 0)
  )
    return refuse('locked', { name: part.name }, 'parts');
  if (values.colour !== undefined) {
    const colour = colourSchema.safeParse(values.colour.toLowerCase());
    if (!colour.success) return refuse('colour', {}, 'colour');
    // A group has the colours of what stands in it.
    for (const one of [part, ...standingWithin(draft, part)]) one.colour = colour.data;
  }
  if (values.visible) part.visible = values.visible === 'yes';
  if (values.locked) part.locked = values.locked === 'yes';
  if (values.snappable) part.snappable = values.snappable === 'yes';
  if (values.cutFill !== undefined) fillCuts(draft, part, values.cutFill);
  if (values.datum !== undefined) {
    const datum = readDatum(values.datum);
    if (!datum) return refuse('datum', {}, 'datum');
    part.datum = datum;
  }
  const sized = sizedBlanks(values).length > 0;
  // Parts that share the recipe change with it, each about its own datum.
  const shared = sized ? linkedWith(draft, part).filter(({ id }) => id !== part.id) : [];
  // The sizes come before the place, so that the datum of the new size is what is put there.
  const fixed =
    values.at !== undefined || values.turn !== undefined || sized
      ? datumInWorld(draft, part, (id) => context.boxOf(id))
      : undefined;
  const sharing = shared.map((one) => ({ one, datum: datumInWorld(draft, one, (id) => context.boxOf(id)) }));
  return (
    changeSize({ draft, context }, part, values) ??
    keepShared(draft, sharing, context) ??
    (values.turn && changeTurn(part, values.turn, context)) ??
    (fixed && keepDatum({ draft, context }, part, fixed)) ??
    (values.at && changePlace({ draft, context }, part, values.at))
  );
}

/** Of a group, those of what stands in it. */
function fillCuts(draft: KadrelDocument, part: Part, fill: string): void {
  for (const one of [part, ...standingWithin(draft, part)]) {
    if (fill === 'plane') delete one.cutFill;
    else one.cutFill = fill as CutFill;
  }
}

function keepShared(
  draft: KadrelDocument,
  sharing: readonly { one: Part; datum: Vec3 | undefined }[],
  context: VerbContext,
): undefined {
  for (const { one, datum } of sharing) if (datum) keepDatum({ draft, context }, one, datum);
  return undefined;
}

function changeTurn(
  part: Part,
  texts: readonly [string, string, string],
  context: VerbContext,
): Refusal | undefined {
  const read = readThree(texts, { kind: 'angle', now: part.placement.turn, context, blank: 'turn' });
  if ('refused' in read) return read;
  part.placement.turn = read;
  return undefined;
}

/** After a change of size or turn: shifts the part so that its datum stands where it stood. */
function keepDatum({ draft, context }: Drafting, part: Part, fixed: Vec3): Refusal | undefined {
  const now = datumInWorld(draft, part, (id) => context.boxOf(id));
  if (now && now.some((n, axis) => Math.abs(n - fixed[axis]!) > 0)) setDatum({ draft, context }, part, fixed);
  return undefined;
}

function setDatum({ draft, context }: Drafting, part: Part, world: Vec3): boolean {
  const { base } = definitionOf(draft, part).recipe;
  const inPart = datumInPart(part, (id) => context.boxOf(id), base);
  if (!inPart) return false;
  const target = carryBack(worldFromParent(draft, part.id), world);
  const offset = turnVector(poseOfPlacement(part.placement).turn, inPart);
  const origin = vectorOf(part.placement.origin);
  part.placement.origin = part.placement.origin.map((n, axis) => {
    const wanted = roundLength(target[axis]! - offset[axis]!);
    return wanted === origin[axis] ? n : wanted;
  }) as NumVector;
  return true;
}

function changePlace(
  { draft, context }: Drafting,
  part: Part,
  texts: readonly [string, string, string],
): Refusal | undefined {
  const now = datumInWorld(draft, part, (id) => context.boxOf(id));
  if (!now) return refuse('no-box.at', { name: part.name }, 'at');
  const read = readThree(texts, { kind: 'length', now: [...now], context, blank: 'at' });
  if ('refused' in read) return read;
  setDatum({ draft, context }, part, vectorOf(read));
  // A formula survives only where the datum is the part's own origin in the world: elsewhere it would say another number.
  if (part.datum === 'own' && part.parent === null)
    part.placement.origin = part.placement.origin.map((n, axis) =>
      typeof read[axis] === 'object' ? read[axis] : n,
    ) as NumVector;
  return undefined;
}

function readDatum(text: string): Datum | undefined {
  if (text.trim() === 'own') return 'own';
  const steps = text
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  return steps.length === 3 && steps.every((n) => n === -1 || n === 0 || n === 1)
    ? (steps as Datum)
    : undefined;
}
