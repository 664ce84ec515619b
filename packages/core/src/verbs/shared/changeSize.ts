/** The sizes and choices of a part's recipe, as Change sets them. */
import { datumInPart } from '../../document/datum.ts';
import { definitionOf } from '../../document/items.ts';
import type { Part } from '../../document/schema.ts';
import { sizedKind } from '../../recipes/index.ts';
import { figureFault } from './drawing.ts';
import { refuse, refuseFor, type Refusal, type Drafting } from '../../statement/declare.ts';
import { changeFields, sizedBlanks, type Typed } from './recipeBlanks.ts';
import { rememberMade } from './reshape.ts';

/** Where a part is linked, that of what it is linked to. */
export function changeSize({ draft, context }: Drafting, part: Part, values: Typed): Refusal | undefined {
  const [first] = sizedBlanks(values);
  if (first === undefined) return undefined;
  const definition = definitionOf(draft, part);
  rememberMade(
    definition,
    datumInPart(part, (id) => context.boxOf(id)),
  );
  const { base } = definition.recipe;
  const without = (blank: string) => refuse('no-such-size', { name: part.name, blank }, blank);
  const sized = sizedKind(base);
  if (!sized) return without(first);
  const fault = changeFields({ ...sized, values, context, without });
  if (fault || base.kind !== 'profile') return fault;
  const wrong = figureFault(base.figure);
  return wrong && refuseFor(wrong, wrong.blank);
}
