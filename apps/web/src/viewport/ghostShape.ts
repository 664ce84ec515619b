/** The outside of a solid that is being drawn, as rings of corners joined one after another: enough to see it by. */
import { cosDegrees, prismCorners, sinDegrees, valueOf, vectorOf, type Base, type Num } from '@kadrel/core';

/** Corners of a ring, all at one height, in the solid's own frame, mm: those of an outline, so many times as large. */
interface Ring {
  readonly corners: readonly (readonly [x: number, y: number])[];
  readonly scale: number;
  readonly z: number;
}

/** Rings that are joined, each with the next; all of one stack have as many corners. */
export interface Stack {
  readonly rings: readonly Ring[];
  /** The last one is joined with the first, and nothing is closed by a lid. */
  readonly isLoop?: true;
  /** Its corners run on as edges from ring to ring. */
  readonly isEdged: boolean;
}

/** What is round is shown by so many corners. */
const ROUND = 48;
/** Half a ball, and the section of a ring, by so many steps. */
const BULGE = 8;

/** How each kind that is drawn by the pointer is seen. */
const SHAPES: { readonly [K in Base['kind']]?: (base: Extract<Base, { kind: K }>) => readonly Stack[] } = {
  box({ size }) {
    const [x, y, z] = vectorOf(size);
    return [upTo(rectangle(0, x, y), rectangle(0, x, y), z)];
  },
  wedge(base) {
    const [x, y, z] = vectorOf(base.size);
    const top = valueOf(base.top);
    const from = base.lean === 'left' ? 0 : (x - top) / 2;
    return [upTo(rectangle(0, x, y), rectangle(from, from + top, y), z)];
  },
  cylinder: ({ diameter, height }) => [round([half(diameter), 0], [half(diameter), valueOf(height)])],
  cone: ({ diameter, top, height }) => [round([half(diameter), 0], [half(top), valueOf(height)])],
  tube({ diameter, bore, height }) {
    const [outer, inner, high] = [half(diameter), half(bore), valueOf(height)];
    return [{ ...round([outer, 0], [outer, high], [inner, high], [inner, 0]), isLoop: true }];
  },
  sphere: ({ diameter }) => [round(...bulge(half(diameter), -90))],
  cap({ diameter, height }) {
    const radius = half(diameter);
    const below = valueOf(height) - radius;
    const from = (Math.asin(Math.max(-1, Math.min(1, -below / radius))) * 180) / Math.PI;
    return [round(...bulge(radius, from).map(([r, z]) => [r, z + below] as const))];
  },
  torus({ diameter, thickness }) {
    const [middle, thick] = [half(diameter), half(thickness)];
    const section = steps(2 * BULGE, 0, 360 - 360 / (2 * BULGE)).map(
      (angle) => [middle + thick * cosDegrees(angle), thick * sinDegrees(angle)] as const,
    );
    return [{ ...round(...section), isLoop: true }];
  },
  prism: (base) => [upTo(prismCorners(base), prismCorners(base), valueOf(base.height))],
  frustum: (base) => [
    upTo(prismCorners(base), prismCorners({ ...base, size: base.top }), valueOf(base.height)),
  ],
  tiers: tierStacks,
};

/** Undefined for what is not drawn by the pointer. */
export const ghostShape = (base: Base): readonly Stack[] | undefined => SHAPES[base.kind]?.(base as never);

const half = (n: Num) => valueOf(n) / 2;

const rectangle = (from: number, to: number, y: number) =>
  [
    [from, 0],
    [to, 0],
    [to, y],
    [from, y],
  ] as const;

const upTo = (below: Ring['corners'], above: Ring['corners'], height: number): Stack => ({
  rings: [
    { corners: below, scale: 1, z: 0 },
    { corners: above, scale: 1, z: height },
  ],
  isEdged: true,
});

const steps = (count: number, from: number, to: number) =>
  Array.from({ length: count }, (_, i) => from + ((to - from) * i) / (count - 1));

/** Of a ball, from an angle below or above its middle up to its top. */
const bulge = (radius: number, from: number) =>
  steps(2 * BULGE, from, 90).map(
    (angle) => [radius * cosDegrees(angle), radius * sinDegrees(angle)] as const,
  );

/** Of radius 1, made once: what is round is drawn at every move of the pointer. */
const CIRCLE: Ring['corners'] = Array.from({ length: ROUND }, (_, i) => {
  const angle = (360 * i) / ROUND;
  return [cosDegrees(angle), sinDegrees(angle)] as const;
});

const round = (...profile: readonly (readonly [radius: number, z: number])[]): Stack => ({
  rings: profile.map(([radius, z]) => ({ corners: CIRCLE, scale: radius, z })),
  isEdged: false,
});

/** Each level by itself, straight from its width below to that above. */
function tierStacks({ levels }: Extract<Base, { kind: 'tiers' }>): Stack[] {
  let z = 0;
  return levels.map((level) => {
    const bottom = z;
    z += valueOf(level.height);
    const above = level.flank === 'step' ? level.below : level.above;
    if (level.outline === 'round') return round([half(level.below), bottom], [half(above), z]);
    const sides = level.outline === 'square' ? 4 : level.sides;
    const corners = prismCorners({ sides, across: 'flats', size: 1 });
    return {
      rings: [
        { corners, scale: valueOf(level.below), z: bottom },
        { corners, scale: valueOf(above), z },
      ],
      isEdged: true,
    };
  });
}
