/**
 * The solids that items come to, and where: a part is one solid, a group its members, a pattern its sources once for
 * each member. Solids are identified by whose recipe they have, so that ten thousand members are built once.
 */
import { datumInPart } from '../document/datum.ts';
import {
  below,
  definitionOf,
  lineage,
  poseOfPlacement,
  worldFromParent,
  worldFromPart,
} from '../document/items.ts';
import type { MemberKey } from '../recipes/layouts/index.ts';
import type { ItemId, KadrelDocument, Part, PatternBase } from '../document/schema.ts';
import { AT_ORIGIN, carry, type Pose } from '../space/pose.ts';
import { add, type Vec3 } from '../space/vector.ts';
import { countOf, memberExtra, memberKeys, memberLabel, memberPlacer, sameMember } from './members.ts';
import { chainPlacements, type Placement } from './placement.ts';

/** What is built of a part: its recipe, with sizes grown from member to member, and mirrored in its own X. */
export interface Variant {
  /** Sizes that it has more than its recipe says, mm. */
  readonly extra?: Vec3 | undefined;
  readonly mirrored: boolean;
}

/** One solid where it stands. */
export interface Placed extends Variant {
  /** The standing item that it belongs to: a part, or the outermost pattern. */
  readonly item: ItemId;
  /** The part whose recipe it has. */
  readonly leaf: ItemId;
  /** Which members of the patterns above it, the outermost first, joined by dots; '' outside patterns. */
  readonly member: string;
  /** Ids and members on the way down from the item, joined by dots: one of its own for each solid. */
  readonly tag: string;
  /** From its own frame. */
  readonly pose: Pose;
}

/** Names what is built: equal for equal parts and variants. */
export const buildName = ({ leaf, extra, mirrored }: Pick<Placed, 'leaf' | 'extra' | 'mirrored'>): string =>
  extra || mirrored ? `${leaf}${mirrored ? '~' : ''}${extra ? `+${extra.join()}` : ''}` : leaf;

/** What is taken in besides what is seen. */
export interface PlacedOptions {
  /** Takes in what is left out of patterns. */
  readonly withOmitted?: boolean;
  /** Takes in the hidden members of groups. */
  readonly withHidden?: boolean;
}

/** The solids of an item in the world. */
export const placedOf = (document: KadrelDocument, id: ItemId, options: PlacedOptions = {}): Placed[] =>
  placedIn(document, id, worldFromParent(document, id), options);

/** From the part's own frame to each place where it stands in its own sizes: once, or as a source of a pattern once for each member. */
export function standingPlacesOf(document: KadrelDocument, id: ItemId): Placement[] {
  const pattern = lineage(document, id).find((one) => document.items[one]?.recipe.base.kind === 'pattern');
  const members = pattern === undefined ? [] : placedOf(document, pattern);
  const own = members.filter(({ leaf, extra }) => leaf === id && !extra?.some((more) => more !== 0));
  return own.length > 0 ? own : [{ pose: worldFromPart(document, id), mirrored: false }];
}

/** The solids of an item in the frame that its placement is given in, carried by `outer`. */
export function placedIn(
  document: KadrelDocument,
  id: ItemId,
  outer: Pose = AT_ORIGIN,
  options: PlacedOptions = {},
): Placed[] {
  const part = document.items[id];
  if (!part) return [];
  const found: Placed[] = [];
  const start: Walk = {
    outer: { pose: outer, mirrored: false },
    member: '',
    tag: '',
    item: null,
    extra: undefined,
    poses: new Map(),
  };
  walk({ document, options, found }, part, start);
  return found;
}

/** What is gone through, and what it has come to so far. */
interface Walked {
  readonly document: KadrelDocument;
  readonly options: PlacedOptions;
  readonly found: Placed[];
}

interface Walk {
  readonly outer: Placement;
  readonly member: string;
  readonly tag: string;
  /** Set below a pattern or a link: what is found there belongs to it. */
  readonly item: ItemId | null;
  readonly extra: Vec3 | undefined;
  /** Placements of the parts that were come by, which are many times the same. */
  readonly poses: Map<ItemId, Placement>;
}

function placementOf(part: Part, poses: Map<ItemId, Placement>): Placement {
  let found = poses.get(part.id);
  if (!found) poses.set(part.id, (found = { pose: poseOfPlacement(part.placement), mirrored: false }));
  return found;
}

function walk(walked: Walked, part: Part, at: Walk): void {
  const { document, options, found } = walked;
  const own = chainPlacements(at.outer, placementOf(part, at.poses));
  const definition = definitionOf(document, part);
  const { base } = definition.recipe;
  const tag = at.tag === '' ? part.id : `${at.tag}.${part.id}`;
  const item = at.item ?? (definition === part ? null : part.id);
  if (base.kind === 'group') {
    for (const member of below(document, definition))
      if (member.visible || options.withHidden)
        // A member of a group stands for itself, and is determined by its own id.
        walk(walked, member, { ...at, outer: own, item, tag: item === null ? '' : tag });
  } else if (base.kind === 'pattern') {
    walkPattern(walked, definition, base, { ...at, outer: own, item: item ?? part.id, tag });
  } else {
    found.push({
      item: item ?? part.id,
      leaf: part.id,
      member: at.member,
      tag,
      extra: at.extra,
      ...own,
    });
  }
}

function walkPattern(walked: Walked, pattern: Part, base: PatternBase, at: Walk): void {
  const { document, options } = walked;
  const hold = holdOf(document, pattern);
  const sources = below(document, pattern);
  const isOut = leftOut(base.omitted);
  const placementOfMember = memberPlacer(base.layout, hold);
  for (const key of memberKeys(base.layout)) {
    if (!options.withOmitted && isOut(key)) continue;
    const label = memberLabel(base.layout, key);
    const extra = memberExtra(base.layout, key);
    const inside: Walk = {
      outer: chainPlacements(at.outer, placementOfMember(key)),
      member: at.member === '' ? label : `${at.member}.${label}`,
      tag: `${at.tag}.${label}`,
      item: at.item,
      extra: extra && at.extra ? add(extra, at.extra) : (extra ?? at.extra),
      poses: at.poses,
    };
    for (const source of sources) walk(walked, source, inside);
  }
}

function leftOut(omitted: readonly MemberKey[]): (key: MemberKey) => boolean {
  if (omitted.length === 0) return () => false;
  const out = new Set(omitted.map((key) => key.join()));
  return (key) => out.has(key.join());
}

/** Whether a member of a pattern is left out. */
export const isLeftOut = ({ omitted }: PatternBase, key: MemberKey): boolean =>
  omitted.some((one) => sameMember(one, key));

/** The datum of the first source, in the frame of the pattern; its own origin where only the kernel could tell. */
export function holdOf(document: KadrelDocument, pattern: Part): Vec3 {
  const [first] = below(document, pattern);
  if (!first) return [0, 0, 0];
  const pose = poseOfPlacement(first.placement);
  const inPart = datumInPart(first, () => undefined);
  return inPart ? carry(pose, inPart) : pose.shift;
}

/** What must be built for an item: each variant once. */
export function variantsOf(placed: readonly Placed[]): Map<string, Placed> {
  const found = new Map<string, Placed>();
  for (const one of placed) {
    const name = buildName(one);
    if (!found.has(name)) found.set(name, one);
  }
  return found;
}

/** How many solids an item comes to, counted and not walked through. A link counts as what it is linked to. */
export function solidCount(document: KadrelDocument, id: ItemId): number {
  const counted = new Map<ItemId, number>();
  const count = (part: Part): number => {
    const known = counted.get(part.id);
    if (known !== undefined) return known;
    const definition = definitionOf(document, part);
    const { base } = definition.recipe;
    const inner = () => below(document, definition).reduce((sum, one) => sum + count(one), 0);
    const total =
      base.kind === 'pattern' ? countOf(base.layout) * inner() : base.kind === 'group' ? inner() : 1;
    counted.set(part.id, total);
    return total;
  };
  return count(document.items[id]!);
}
