/** The numbers of profiles, of bodies made from them, and of planes. */
import {
  boreOf,
  fieldsOf,
  formatLengthWithUnit,
  loftWays,
  rowsOfOpenings,
  rowsOfTiers,
  sizedKind,
  valueOf,
  type BodyBase,
  type BodyOf,
  type Num,
  type Part,
  type QuantityKind,
} from '@kadrel/core';
import { useSession, useSessionState } from './context.ts';
import { FieldRows, type Change } from './FieldRows.tsx';
import { Labelled } from './Labelled.tsx';
import { Quantity } from './NumberField.tsx';
import { PartList } from './PartList.tsx';
import { ProfileFacts } from './ProfileFacts.tsx';
import { Section } from './Section.tsx';
import { TableButton } from './TableButton.tsx';

/** What becomes of a surface afterwards says that it is one. */
const isClosedLater = ({ recipe }: Part) =>
  recipe.steps.some(({ kind }) => kind === 'thicken' || kind === 'close');

/** What a body from profiles is given by. */
export function BodyRecipe({ part, base }: { part: Part; base: BodyBase }) {
  const session = useSession();
  const change: Change = (values) => session.say('change', { parts: [part.id], ...values });
  const { kind, holder } = sizedKind(base)!;
  const fields = fieldsOf(kind.schema).filter(([key]) => key !== 'ends' || !isClosedLater(part));
  const title = base.kind === 'profile' ? `Profile · ${kind.inAWord ?? kind.kind}` : 'Recipe';
  return (
    <Section title={title}>
      <FieldRows fields={fields} holder={holder} change={change} />
      <BodyDetails part={part} base={base} />
      {'profiles' in base && (
        <>
          <p className="px-3.5 pt-1 text-ink2">Made from</p>
          <PartList parts={[...base.profiles]} />
        </>
      )}
    </Section>
  );
}

/** What is set by verbs of its own. */
function BodyDetails({ part, base }: { part: Part; base: BodyBase }) {
  switch (base.kind) {
    case 'loft':
      return <LoftStarts part={part} base={base} />;
    case 'revolve':
      return <Axis part={part} base={base} />;
    case 'wall':
      return (
        <TableButton
          words={counted(base.openings.length, 'opening')}
          verb="openings"
          typed={{ wall: part.id, openings: rowsOfOpenings(base.openings) }}
          blank="openings"
        />
      );
    case 'tiers':
      return (
        <TableButton
          words={counted(base.levels.length, 'level')}
          verb="levels"
          typed={{ part: part.id, levels: rowsOfTiers(base.levels) }}
          blank="levels"
        />
      );
    case 'profile':
      return <ProfileFacts part={part} figure={base.figure} />;
    default:
      return null;
  }
}

const counted = (count: number, word: string) => `${count} ${word}${count === 1 ? '' : 's'}…`;

/** Where the sides of a loft begin on each section. */
function LoftStarts({ part, base }: { part: Part; base: BodyOf<'loft'> }) {
  const session = useSession();
  const items = useSessionState((state) => state.document.items);
  const { sections, starts } = loftWays(base);
  return (
    <>
      <p className="px-3.5 pt-1 text-ink2">Starts, moved along each section</p>
      {sections.map((id, i) => (
        <Labelled key={id} label={items[id]?.name ?? `Section ${i + 1}`}>
          <Quantity
            label={`Start of section ${i + 1}`}
            kind="length"
            value={starts[i]!}
            now={valueOf(starts[i]!)}
            commit={(text) => session.say('start', { part: part.id, section: String(i + 1), by: text })}
          />
        </Labelled>
      ))}
    </>
  );
}

/** The line of a turned part, in the plane of its profile. */
function Axis({ part, base }: { part: Part; base: BodyOf<'revolve'> }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const bore = boreOf(document, base);
  const field = (label: string, kind: QuantityKind, value: Num, blank: string) => (
    <Labelled key={blank} label={label}>
      <Quantity
        label={label}
        kind={kind}
        value={value}
        now={valueOf(value)}
        commit={(text) => session.say('axis', { part: part.id, [blank]: text })}
      />
    </Labelled>
  );
  return (
    <>
      {field('Axis X', 'length', base.axis.point[0], 'x')}
      {field('Axis Y', 'length', base.axis.point[1], 'y')}
      {field('Axis angle', 'angle', base.axis.angle, 'angle')}
      {bore !== undefined && (
        <p className="px-3.5 text-ink2" data-testid="bore">
          {bore > 0 ? `Leaves a bore of ${formatLengthWithUnit(bore, document.scene)}` : 'Solid to its axis'}
        </p>
      )}
    </>
  );
}
