/** The colours that walls are shown in, by how thick they are beside what is wanted. */
import { formatLengthWithUnit, type Scene } from '@kadrel/core';

interface Band {
  /** The greatest thickness, as times what is wanted. */
  readonly to: number;
  readonly colour: string;
}

/** From too thin to thick; the last where no face lies opposite. */
export const BANDS: readonly Band[] = [
  { to: 1, colour: '#a3271c' },
  { to: 2, colour: '#d9933d' },
  { to: 4, colour: '#cfc6ac' },
  { to: 1e9, colour: '#8ea3b0' },
  { to: Infinity, colour: '#efeae0' },
];

/** Which band a thickness is in; what is as thick as is wanted is thick enough. */
export function bandOf(size: number, limit: number): number {
  if (size === Infinity) return BANDS.length - 1;
  return BANDS.findIndex(({ to }) => size < to * limit * (1 - HAIR));
}
/** Thicknesses are measured between facets in single precision: what is thinner by less than this part is not. */
const HAIR = 1e-4;

/** The bands in words. */
export function bandWords(limit: number, scene: Scene): string[] {
  const bandWords = (times: number) =>
    formatLengthWithUnit(times * limit, {
      ...scene,
      decimals: Math.max(2, scene.decimals),
      trailingZeros: false,
    });
  return [
    `below ${bandWords(1)}: too thin`,
    `${bandWords(1)} to ${bandWords(2)}`,
    `${bandWords(2)} to ${bandWords(4)}`,
    `${bandWords(4)} and more`,
    'nothing opposite',
  ];
}
