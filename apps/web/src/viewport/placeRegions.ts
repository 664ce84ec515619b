/** A region that takes faces, edges or corners of one part: for the statement in hand, or as what is selected. */
import { isChosenType, isWhole, partNamed, verbNamed, type ItemId, type PlaceKind } from '@kadrel/core';
import { listIn } from '../session/chosen.ts';
import { selectingBy } from '../session/manner.ts';
import { placesWith, type SelectedPlace } from '../session/places.ts';
import type { Hand } from './hand.ts';
import { blankInHand } from './picking.ts';
import { placesTaken, type Drawing } from './regions.ts';

interface Meant {
  /** Null where it is not said of which part they are. */
  readonly part: ItemId | null;
  readonly kind: PlaceKind;
  /** The blank that they go into. */
  readonly blank?: string;
}

/** Null where a region takes whole parts. */
export function placesMeant(hand: Hand): Meant | null {
  const { selection, manner, document } = hand.state();
  const [only, ...others] = selection;
  const item = only === undefined || others.length > 0 ? undefined : document.items[only];
  const selected = item && !isWhole(document, item) ? item.id : null;
  const asked = blankInHand(hand);
  if (!asked)
    return hand.openStatement() || manner.taking === 'parts' ? null : { part: selected, kind: manner.taking };
  const { blank, statement } = asked;
  const { type } = verbNamed(statement.verb)!.blanks[blank]!;
  if (!isChosenType(type)) return null;
  const given =
    typeof statement.typed.part === 'string' ? partNamed(document, statement.typed.part)?.id : null;
  const kind = type !== 'places' ? type : manner.taking === 'parts' ? 'corners' : manner.taking;
  return { part: given ?? selected, kind, blank };
}

/** Takes what of a part lies in a region. */
export function takePlaces(hand: Hand, { part, kind, blank }: Meant, region: Drawing): void {
  const { session } = hand;
  if (part === null) return session.announce(`Select one part first: a region then takes its ${kind}.`);
  const taken = { part, list: placesTaken(hand, region, { part, kind }) };
  const how = selectingBy(hand.last, hand.state().manner.selecting);
  if (blank === undefined) return session.selectPlaces(placesWith(hand.state().places, taken, how));
  session.update((s) => {
    const before = { part, list: listIn(s.typed[blank]) as SelectedPlace[] };
    // What is gathered grows.
    const list = placesWith(before, taken, how === 'replace' ? 'add' : how)?.list ?? [];
    return { ...s, typed: { ...s.typed, part, [blank]: list }, refusal: null };
  });
}
