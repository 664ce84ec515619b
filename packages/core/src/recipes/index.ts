/** Every kind of base that has numbers, by its name: plain solids, bodies, figures and layouts. */
import { BODIES } from './bodies/index.ts';
import type { Kind } from './declare.ts';
import { FIGURES } from './figures/index.ts';
import { LAYOUTS } from './layouts/index.ts';
import { PLAIN_SOLIDS, PRIMITIVES } from './primitives/index.ts';
import { STEPS } from './steps/index.ts';

const plain = (kinds: readonly { readonly kind: string }[]) => kinds as unknown as readonly Kind[];

/** What Change can set: of solids and bodies, and of figures. */
export const SIZED: readonly Kind[] = [
  ...new Set([...plain(PRIMITIVES), ...plain(BODIES), ...plain(FIGURES)]),
];

/** Steps, whose numbers are set by Change step. */
export const SHAPING: readonly { readonly kind: string; readonly schema: Kind['schema'] }[] = STEPS;

const BASES = new Map([...plain(PLAIN_SOLIDS), ...plain(BODIES)].map((one) => [one.kind, one]));
const OF_FIGURES = new Map(plain(FIGURES).map((one) => [one.kind, one]));
const OF_LAYOUTS = new Map(plain(LAYOUTS).map((one) => [one.kind, one]));

/** Undefined for what consists of other items. */
export const baseKind = ({ kind }: { readonly kind: string }): Kind | undefined => BASES.get(kind);
/** The declaration of a figure. */
export const figureKind = ({ kind }: { readonly kind: string }): Kind => OF_FIGURES.get(kind)!;
/** The declaration of a layout. */
export const layoutKind = ({ kind }: { readonly kind: string }): Kind => OF_LAYOUTS.get(kind)!;

/** What holds the numbers that Change sets: the base, or the figure of a profile. */
export function sizedKind(base: { readonly kind: string }): { kind: Kind; holder: object } | undefined {
  if (base.kind === 'profile' && 'figure' in base) {
    const { figure } = base as unknown as { figure: { readonly kind: string } };
    return { kind: figureKind(figure), holder: figure };
  }
  const kind = baseKind(base);
  return kind && { kind, holder: base };
}
