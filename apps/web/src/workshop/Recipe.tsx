/** What the selected part is made of: the numbers of its recipe, or the parts that it consists of. */
import { definitionOf, isBody, isGroup, linkedWith, type ItemId, type Num, type Part } from '@kadrel/core';
import { useSession, useSessionState } from './context.ts';
import { BodyRecipe } from './BodyRecipe.tsx';
import { Choice } from './Choice.tsx';
import { Labelled, Length } from './Labelled.tsx';
import { Count } from './NumberField.tsx';
import { PartList } from './PartList.tsx';
import { PatternRecipe } from './PatternRecipe.tsx';
import { Section } from './Section.tsx';

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
          <p className="px-3.5 text-ink2">{STRETCHED[base.of.kind]}, exact. Its sizes are set above.</p>
        </Section>
      )}
      {isBody(base) ? <BodyRecipe part={part} base={base} /> : <Sizes part={part} />}
    </>
  );
}

const STRETCHED = {
  box: 'A box, stretched aslant',
  cylinder: 'An elliptic cylinder',
  sphere: 'An ellipsoid',
  cone: 'An elliptic cone',
  tube: 'An elliptic tube',
  torus: 'A stretched torus',
  prism: 'A stretched prism',
};

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
          Make independent
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
const MOST_LISTED = 12;

function GroupRecipe({ part, members }: { part: Part; members: readonly ItemId[] }) {
  const session = useSession();
  const openGroup = useSessionState((state) => state.openGroup);
  const isOpen = openGroup === part.id;
  return (
    <Section title={`Group of ${members.length}`}>
      <PartList parts={members.slice(0, MOST_LISTED)} />
      {members.length > MOST_LISTED && (
        <p className="px-3.5 text-ink2">and {members.length - MOST_LISTED} more</p>
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

const PRISM_WIDTH = { corners: 'Corners', flats: 'Flats', side: 'Side' };

/** The sizes of a plain solid, by name. */
function Sizes({ part }: { part: Part }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const { base } = definitionOf(document, part).recipe;
  const set = (values: Record<string, unknown>) => session.say('change', { parts: [part.id], ...values });
  const rows: (readonly [string, Num, (text: string) => Promise<boolean>])[] = [];
  if (base.kind === 'box')
    (['Length', 'Width', 'Height'] as const).forEach((label, axis) =>
      rows.push([
        label,
        base.size[axis]!,
        (text) => set({ size: [0, 1, 2].map((i) => (i === axis ? text : 'now')) }),
      ]),
    );
  const row = (label: string, value: Num, blank: string) =>
    rows.push([label, value, (text) => set({ [blank]: text })]);
  if ('diameter' in base) row('Diameter', base.diameter, 'diameter');
  if (base.kind === 'cone') row('Top', base.top, 'top');
  if (base.kind === 'tube') row('Bore', base.bore, 'bore');
  if (base.kind === 'torus') row('Thickness', base.thickness, 'thickness');
  if (base.kind === 'prism') row(PRISM_WIDTH[base.across], base.size, 'width');
  if ('height' in base) row('Height', base.height, 'height');
  if (rows.length === 0) return null;
  return (
    <Section title="Recipe">
      {base.kind === 'prism' && <PrismSides base={base} set={set} />}
      {rows.map(([label, value, commit]) => (
        <Length key={label} label={label} value={value} commit={commit} />
      ))}
    </Section>
  );
}

/** How many sides a prism has, and what its width says. */
function PrismSides({
  base,
  set,
}: {
  base: Extract<Part['recipe']['base'], { kind: 'prism' }>;
  set: (values: Record<string, unknown>) => Promise<boolean>;
}) {
  return (
    <>
      <Labelled label="Sides">
        <Count label="Sides" count={base.sides} commit={(text) => set({ sides: text })} />
      </Labelled>
      <Choice
        label="Measured"
        chosen={base.across}
        choices={{ corners: 'corners', flats: 'flats', side: 'side' }}
        choose={(across) => void set({ across })}
      />
    </>
  );
}
