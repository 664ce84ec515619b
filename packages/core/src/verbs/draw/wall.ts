import type { Opening } from '../../recipes/bodies/index.ts';
import { valueOf } from '../../document/items.ts';
import type { Num } from '../../document/schema.ts';
import { addBody, asBlank } from '../shared/bodies.ts';
import { declareVerb, needed, optional, refuse, type Refusal, type Row } from '../../statement/declare.ts';
import { requireProfiles } from '../shared/drawing.ts';

export const SIDES = {
  left: 'on the left of its legs',
  right: 'on the right of its legs',
  centred: 'centred on its legs',
  outside: 'outside the outline',
  inside: 'inside the outline',
} as const;

export const OPENING_COLUMNS = {
  leg: { label: 'Leg', kind: 'count', needed: true },
  from: { label: 'From its start', kind: 'length', needed: true },
  sill: { label: 'Sill', kind: 'length', default: '0' },
  width: { label: 'Width', kind: 'length', needed: true },
  height: { label: 'Height', kind: 'length', needed: true },
} as const;

/** A wall along an outline: thickness, height, and openings along its legs. */
export const wall = declareVerb({
  id: 'wall',
  name: 'Wall',
  group: 'draw',
  about: 'A wall along an outline, as thick and as high as you say, with openings told along its legs.',
  words: ['room', 'building', 'door', 'window', 'opening', 'partition', 'house'],
  blanks: {
    profile: needed('part', 'outline', 'A traverse or another outline in one piece.'),
    thickness: needed('length', 'thickness', 'Square to the outline.', { positive: true }),
    side: needed('choice', 'side', 'Where it stands beside the outline, seen along the legs.', {
      default: 'centred',
      choices: SIDES,
    }),
    height: needed('length', 'height', 'Above the plane of the outline.', { positive: true }),
    openings: optional(
      'rows',
      'openings',
      'Doors and windows: the leg, how far from its start, and the sizes.',
      {
        columns: OPENING_COLUMNS,
        rare: true,
      },
    ),
    as: asBlank,
  },
  sentence:
    'Wall along {profile}, {thickness} thick[, {side}], {height} high[, with {openings}][ named {as}]',
  apply(draft, { profile, thickness, side, height, openings, as }, context) {
    const fault = requireProfiles(draft, [profile], 'profile');
    if (fault) return fault;
    const read = (openings ?? []).map(openingOf);
    const wrong = read.find((one): one is Refusal => 'refused' in one);
    if (wrong) return wrong;
    return addBody(
      draft,
      {
        name: as ?? 'Wall',
        base: {
          kind: 'wall',
          profiles: [profile],
          thickness,
          height,
          side: side as keyof typeof SIDES,
          openings: read as Opening[],
        },
        profiles: [profile],
        how: 'new',
        into: undefined,
      },
      context,
    );
  },
});

export function openingOf(row: Row, index: number): Opening | Refusal {
  const leg = valueOf(row.leg as Num);
  const [width, height] = [row.width as Num, row.height as Num];
  if (!Number.isInteger(leg) || leg < 1) return refuse('leg.openings', { index: index + 1 }, 'openings');
  if (!(valueOf(width) > 0 && valueOf(height) > 0))
    return refuse('size.openings', { index: index + 1 }, 'openings');
  return { leg, from: row.from as Num, sill: row.sill as Num, width, height };
}
