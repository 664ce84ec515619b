/** The numbers of profiles, of bodies made from them, and of planes. */
import {
  boreOf,
  formatLengthWithUnit,
  loftWays,
  rowsOfOpenings,
  rowsOfTiers,
  valueOf,
  type BodyBase,
  type BodyOf,
  type Figure,
  type Num,
  type Part,
  type QuantityKind,
} from '@kadrel/core';
import { useSession, useSessionState } from './context.ts';
import { Choice } from './Choice.tsx';
import { Labelled } from './Labelled.tsx';
import { Count, Quantity } from './NumberField.tsx';
import { PartList } from './PartList.tsx';
import { ProfileFacts } from './ProfileFacts.tsx';
import { Section } from './Section.tsx';
import { TableButton } from './TableButton.tsx';

/** Numbers by what they are called, with the blank of Change that sets them. */
const NUMBERS: Readonly<Record<string, readonly (readonly [label: string, key: string, blank: string])[]>> = {
  raise: [
    ['Height', 'height', 'height'],
    ['Below', 'down', 'down'],
    ['Draft', 'draft', 'draft'],
  ],
  revolve: [['Angle', 'angle', 'angle']],
  wall: [
    ['Thickness', 'thickness', 'thickness'],
    ['Height', 'height', 'height'],
  ],
  sweep: [['Twist', 'twist', 'twist']],
  wedge: [['Top', 'top', 'top']],
  cap: [
    ['Diameter', 'diameter', 'diameter'],
    ['Height', 'height', 'height'],
  ],
  plane: [['Sheet', 'size', 'sheet']],
  rectangle: [
    ['Width', 'width', 'width'],
    ['Height', 'height', 'height'],
    ['Corners', 'round', 'round'],
  ],
  circle: [['Diameter', 'diameter', 'diameter']],
  ellipse: [
    ['Width', 'width', 'width'],
    ['Height', 'height', 'height'],
  ],
  polygon: [['Width', 'size', 'width']],
  arc: [
    ['Radius', 'radius', 'radius'],
    ['From', 'first', 'first'],
    ['Sweep', 'sweep', 'sweep'],
  ],
  text: [
    ['Height', 'height', 'height'],
    ['Spacing', 'spacing', 'spacing'],
  ],
};
const ANGLES: ReadonlySet<string> = new Set(['draft', 'angle', 'first', 'sweep', 'twist']);

const CHOICES: Readonly<
  Record<string, readonly [label: string, key: string, choices: Readonly<Record<string, string>>]>
> = {
  revolve: ['Half', 'half', { whole: 'all', left: 'left', right: 'right' }],
  loft: ['Flanks', 'flanks', { smooth: 'smooth', ruled: 'straight' }],
  sweep: ['Corners', 'corners', { square: 'square', round: 'round' }],
  text: ['Aligned', 'align', { left: 'left', centre: 'middle', right: 'right' }],
  polygon: ['Measured', 'across', { corners: 'corners', flats: 'flats', side: 'side' }],
};

/** What can be a surface instead of a body. */
const isOpenable = (
  base: BodyBase,
): base is BodyOf<'raise'> | BodyOf<'revolve'> | BodyOf<'loft'> | BodyOf<'sweep'> =>
  base.kind === 'raise' || base.kind === 'revolve' || base.kind === 'loft' || base.kind === 'sweep';

/** What becomes of a surface afterwards says that it is one. */
const isClosedLater = ({ recipe }: Part) =>
  recipe.steps.some(({ kind }) => kind === 'thicken' || kind === 'close');

type Change = (values: Record<string, unknown>) => Promise<boolean>;

export function BodyRecipe({ part, base }: { part: Part; base: BodyBase }) {
  const session = useSession();
  const change: Change = (values) => session.say('change', { parts: [part.id], ...values });
  const holder = base.kind === 'profile' ? base.figure : base;
  return (
    <Section title={base.kind === 'profile' ? `Profile · ${FIGURE_WORDS[base.figure.kind]}` : 'Recipe'}>
      {holder.kind === 'wedge' && <WedgeSize base={holder} change={change} />}
      {holder.kind === 'polygon' && (
        <Labelled label="Sides">
          <Count label="Sides" count={holder.sides} commit={(text) => change({ sides: text })} />
        </Labelled>
      )}
      <Numbers holder={holder} change={change} />
      <OneChoice holder={holder} change={change} />
      {base.kind === 'sweep' && (
        <Labelled label="End size">
          <Quantity
            label="End size"
            kind="number"
            value={base.scale ?? 1}
            now={base.scale ?? 1}
            commit={(text) => change({ scale: text })}
          />
        </Labelled>
      )}
      {base.kind === 'loft' && <LoftWays part={part} base={base} change={change} />}
      {isOpenable(base) && !isClosedLater(part) && (
        <Choice
          label="Ends"
          chosen={base.ends ?? 'capped'}
          choices={{ capped: 'closed body', open: 'open surface' }}
          choose={(ends) => void change({ ends })}
        />
      )}
      {base.kind === 'revolve' && <Axis part={part} base={base} />}
      {base.kind === 'wall' && <WallSide part={part} base={base} change={change} />}
      {base.kind === 'tiers' && (
        <TableButton
          words={`${base.levels.length} level${base.levels.length === 1 ? '' : 's'}…`}
          verb="levels"
          typed={{ part: part.id, levels: rowsOfTiers(base.levels) }}
          blank="levels"
        />
      )}
      {'profiles' in base && (
        <>
          <p className="px-3.5 pt-1 text-ink2">Made from</p>
          <PartList parts={[...base.profiles]} />
        </>
      )}
      {base.kind === 'profile' && <ProfileFacts part={part} figure={base.figure} />}
    </Section>
  );
}

const FIGURE_WORDS: Readonly<Record<Figure['kind'], string>> = {
  traverse: 'traverse',
  rectangle: 'rectangle',
  circle: 'circle',
  ellipse: 'ellipse',
  polygon: 'polygon',
  arc: 'arc',
  curve: 'curve',
  text: 'text',
  paths: 'curves',
};

function Numbers({ holder, change }: { holder: { readonly kind: string }; change: Change }) {
  const numbers = holder as unknown as Readonly<Record<string, Num>>;
  return (NUMBERS[holder.kind] ?? []).map(([label, key, blank]) => {
    const value = numbers[key] ?? 0;
    const kind: QuantityKind = ANGLES.has(key) ? 'angle' : 'length';
    return (
      <Labelled key={key} label={label}>
        <Quantity
          label={label}
          kind={kind}
          value={value}
          now={valueOf(value)}
          commit={(text) => change({ [blank]: text })}
        />
      </Labelled>
    );
  });
}

function OneChoice({ holder, change }: { holder: { readonly kind: string }; change: Change }) {
  const found = CHOICES[holder.kind];
  if (!found) return null;
  const [label, key, choices] = found;
  const chosen = (holder as unknown as Readonly<Record<string, string>>)[key]!;
  return (
    <Choice
      label={label}
      chosen={chosen}
      choices={choices}
      choose={(choice) => void change({ [key]: choice })}
    />
  );
}

function WedgeSize({ base, change }: { base: BodyOf<'wedge'>; change: Change }) {
  return (['Length', 'Width', 'Height'] as const).map((label, axis) => (
    <Labelled key={label} label={label}>
      <Quantity
        label={label}
        kind="length"
        value={base.size[axis]!}
        now={valueOf(base.size[axis]!)}
        commit={(text) => change({ size: [0, 1, 2].map((i) => (i === axis ? text : 'now')) })}
      />
    </Labelled>
  ));
}

const SIDE_WORDS = {
  left: 'left',
  right: 'right',
  centred: 'centred',
  outside: 'outside',
  inside: 'inside',
} as const;

function WallSide({ part, base, change }: { part: Part; base: BodyOf<'wall'>; change: Change }) {
  return (
    <>
      <Labelled label="Stands">
        <select
          className="field"
          aria-label="Where the wall stands"
          value={base.side}
          onChange={(event) => void change({ side: event.target.value })}
        >
          {Object.entries(SIDE_WORDS).map(([side, words]) => (
            <option key={side} value={side}>
              {words}
            </option>
          ))}
        </select>
      </Labelled>
      <TableButton
        words={`${base.openings.length} opening${base.openings.length === 1 ? '' : 's'}…`}
        verb="openings"
        typed={{ wall: part.id, openings: rowsOfOpenings(base.openings) }}
        blank="openings"
      />
    </>
  );
}

/** Whether a loft comes back to its first section, and where its sides begin on each. */
function LoftWays({ part, base, change }: { part: Part; base: BodyOf<'loft'>; change: Change }) {
  const session = useSession();
  const items = useSessionState((state) => state.document.items);
  const { sections, starts, closed } = loftWays(base);
  return (
    <>
      {sections.length > 2 && (
        <Choice
          label="Round"
          chosen={closed ? 'yes' : 'no'}
          choices={{ no: 'ends at the last', yes: 'back to the first' }}
          choose={(closed) => void change({ closed })}
        />
      )}
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
