/** What the selected part is made of: the numbers of its recipe, or the parts that it consists of. */
import {
  baseKind,
  definitionOf,
  fieldsOf,
  isBody,
  isGroup,
  linkedWith,
  sentenceCase,
  sizedKind,
  type ItemId,
  type Part,
} from '@kadrel/core';
import { useSession, useSessionState } from './context.ts';
import { BodyRecipe } from './BodyRecipe.tsx';
import { FieldRows } from './FieldRows.tsx';
import { PartList } from './PartList.tsx';
import { PatternRecipe } from './PatternRecipe.tsx';
import { Section } from './Section.tsx';

/** What a part is made of, with its numbers. */
export function Recipe({ part }: { part: Part }) {
  const document = useSessionState((state) => state.document);
  const { base } = definitionOf(document, part).recipe;
  return (
    <>
      <Linked part={part} />
      {base.kind === 'combine' && <Combination base={base} />}
      {base.kind === 'pattern' && (
        <PatternRecipe part={definitionOf(document, part)} base={base} isShared={part.recipe.base !== base} />
      )}
      {base.kind === 'group' && <GroupRecipe part={part} members={base.members} />}
      {base.kind === 'stretched' && (
        <Section title="Recipe">
          <p className="px-3.5 text-ink2">
            {sentenceCase(baseKind(base.of)!.stretched!)}, exact. Its sizes are set above.
          </p>
        </Section>
      )}
      {isBody(base) ? <BodyRecipe part={part} base={base} /> : <Sizes part={part} />}
    </>
  );
}

/** Who shares the recipe. */
function Linked({ part }: { part: Part }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const others = linkedWith(document, part).filter(({ id }) => id !== part.id);
  if (others.length === 0) return null;
  return (
    <Section title="Linked">
      <p className="px-3.5 text-ink2">
        {others.length === 1
          ? `Shares its recipe with ${others[0]!.name}`
          : `Shares its recipe with ${others.length} others`}
        ; a change to one changes all.
      </p>
      <div className="flex gap-1 px-2 pt-0.5">
        <button
          type="button"
          className="quiet"
          onClick={() => session.select([part.id, ...others.map(({ id }) => id)])}
        >
          Select them
        </button>
        <button
          type="button"
          className="quiet"
          onClick={() => void session.say('unlink', { parts: [part.id] })}
        >
          Unlink
        </button>
      </div>
    </Section>
  );
}

const COMBINATIONS = { union: 'Union of', subtract: 'Cut', intersect: 'Common part of' };

function Combination({ base }: { base: Extract<Part['recipe']['base'], { kind: 'combine' }> }) {
  return (
    <Section title="Recipe">
      <p className="px-3.5 pb-1 text-ink2">{COMBINATIONS[base.how]}</p>
      <PartList parts={base.operands} words={(i) => (base.how === 'subtract' && i > 0 ? 'less ' : '')} />
    </Section>
  );
}

/** More members than this are looked up in the tree. */
const MAX_LISTED = 12;

function GroupRecipe({ part, members }: { part: Part; members: readonly ItemId[] }) {
  const session = useSession();
  const openGroup = useSessionState((state) => state.openGroup);
  const isOpen = openGroup === part.id;
  return (
    <Section title={`Group of ${members.length}`}>
      <PartList parts={members.slice(0, MAX_LISTED)} />
      {members.length > MAX_LISTED && (
        <p className="px-3.5 text-ink2">and {members.length - MAX_LISTED} more</p>
      )}
      {isGroup(part) && (
        <div className="flex gap-1 px-2 pt-0.5">
          <button
            type="button"
            className="quiet"
            aria-pressed={isOpen}
            onClick={() => session.openGroup(isOpen ? null : part.id)}
          >
            {isOpen ? 'Close the group' : 'Open for work inside'}
          </button>
          <button
            type="button"
            className="quiet"
            onClick={() => void session.say('ungroup', { parts: [part.id] })}
          >
            Ungroup
          </button>
        </div>
      )}
    </Section>
  );
}

/** The sizes of a plain solid. */
function Sizes({ part }: { part: Part }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const { base } = definitionOf(document, part).recipe;
  const sized = sizedKind(base);
  if (!sized) return null;
  return (
    <Section title="Recipe">
      <FieldRows
        fields={fieldsOf(sized.kind.schema)}
        holder={sized.holder}
        change={(values) => session.say('change', { parts: [part.id], ...values })}
      />
    </Section>
  );
}
