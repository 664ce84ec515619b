import type { Failure, Measures } from '@kadrel/kernel';
import {
  AXES,
  boxSize,
  carry,
  datumInPart,
  definitionOf,
  formatLength,
  formatMeasure,
  isFlat,
  vectorOf,
  worldFromPart,
  type KadrelDocument,
  type Num,
  type Part,
  type QuantityKind,
  type Scene,
  type Vec3,
} from '@kadrel/core';
import { measuresOf } from '../session/built.ts';
import { AlignPanel } from './AlignPanel.tsx';
import { Choice } from './Choice.tsx';
import { ColourField } from './ColourField.tsx';
import { useSession, useSessionState } from './context.ts';
import { DatumPad } from './DatumPad.tsx';
import { PlaceFacts } from './PlaceFacts.tsx';
import { SectionFacts } from './SectionFacts.tsx';
import { ManyParts } from './ManyParts.tsx';
import { Quantity } from './NumberField.tsx';
import { Recipe } from './Recipe.tsx';
import { DockList } from './DockList.tsx';
import { TracedFacts } from './TracedFacts.tsx';
import { TakenFacts } from './racks/TakenFacts.tsx';
import { Section } from './Section.tsx';
import { SheetSpec } from './sheets/SheetSpec.tsx';
import { Steps } from './Steps.tsx';

/** The exact numbers of what is selected, or of the sheet that is open. */
export function Spec() {
  const sheet = useSessionState(({ openSheet, document }) =>
    openSheet === null ? undefined : document.sheets[openSheet],
  );
  return sheet ? <SheetSpec sheet={sheet} /> : <PartSpec />;
}

function PartSpec() {
  const document = useSessionState((state) => state.document);
  const selection = useSessionState((state) => state.selection);
  const parts = selection.flatMap((id) => document.items[id] ?? []);
  const [only] = parts;
  return (
    <aside className="flex h-full flex-col overflow-y-auto bg-paper" aria-label="Spec">
      <h2 className="panel-title">
        <span className="truncate" title={parts.length === 1 ? only!.name : undefined}>
          Spec{parts.length === 1 ? ` · ${only!.name}` : parts.length > 1 ? ` · ${parts.length} parts` : ''}
        </span>
        {parts.length === 1 && <span className="font-normal text-ink2">exact</span>}
      </h2>
      <AlignPanel />
      {parts.length === 0 && <p className="px-3.5 text-ink2">Select a part to read and set its numbers.</p>}
      {parts.length === 1 && <OnePart part={only!} document={document} />}
      {parts.length > 1 && <ManyParts parts={parts} />}
    </aside>
  );
}

function OnePart({ part, document }: { part: Part; document: KadrelDocument }) {
  const session = useSession();
  const built = useSessionState((state) => state.built);
  const measures = measuresOf({ built }, part.id);
  const pose = worldFromPart(document, part.id);
  const { base } = definitionOf(document, part).recipe;
  const inPart = datumInPart(part, () => measures?.box, base);
  const place = inPart && carry(pose, inPart);
  const isTop = part.parent === null;
  return (
    <>
      <DatumPad part={part} />
      {place && (
        <Triple
          label="Place"
          blank="at"
          part={part}
          kind="length"
          values={place}
          formulas={part.datum === 'own' && isTop ? part.placement.origin : undefined}
        />
      )}
      <Triple
        label="Turn"
        blank="turn"
        part={part}
        kind="angle"
        values={vectorOf(part.placement.turn)}
        formulas={part.placement.turn}
      />
      {measures && base.kind !== 'section' && <Overall part={part} values={boxSize(measures.box)} />}
      <Resets part={part} />
      <TakenFacts part={part} />
      <TracedFacts part={part} />
      <Recipe part={part} />
      {base.kind === 'section' && <SectionFacts part={part} />}
      <Steps part={part} />
      <DockList part={part} />
      <Section title="Colour">
        <div className="flex items-center gap-2 px-3.5">
          <ColourField
            colour={part.colour}
            commit={(colour) => void session.say('change', { parts: [part.id], colour })}
          />
        </div>
        {!isFlat(base) && (
          <Choice
            label="Cut faces"
            heard="How its cut faces are drawn"
            chosen={part.cutFill ?? 'plane'}
            choices={CUT_FILL_WORDS}
            choose={(cutFill) => void session.say('change', { parts: [part.id], cutFill })}
          />
        )}
      </Section>
      {/* What a profile measures stands with its recipe. */}
      {!isFlat(base) && <Facts part={part} />}
      {!isFlat(base) && <PlaceFacts part={part} />}
    </>
  );
}

/** Short, since they stand side by side. */
const CUT_FILL_WORDS = { plane: 'plane', hatched: 'hatched', plain: 'filled' } as const;

/** Overall size in the part's own frame; a number typed here resizes the part about its datum. */
function Overall({ part, values }: { part: Part; values: Vec3 }) {
  const session = useSession();
  const commit = (axis: number, text: string) =>
    session.say('resize', {
      parts: [part.id],
      in: 'own',
      about: 'own',
      to: [0, 1, 2].map((i) => (i === axis ? text : 'now')),
    });
  return (
    <div className="grid grid-cols-[44px_1fr_1fr_1fr] items-start gap-1.5 px-3.5 py-[3px]">
      <span className="pt-1">Size</span>
      {values.map((n, axis) => (
        <Quantity
          key={axis}
          label={`Overall ${AXES[axis]!.toUpperCase()}`}
          axis={AXES[axis]}
          kind="length"
          value={n}
          now={n}
          commit={(text) => commit(axis, text)}
        />
      ))}
    </div>
  );
}

/** Back to zero, or to what was made: each by itself. */
function Resets({ part }: { part: Part }) {
  const session = useSession();
  const button = (
    what: string,
    { words, isUseful }: { readonly words: string; readonly isUseful: boolean },
  ) => (
    <button
      type="button"
      className="quiet text-[12px] disabled:opacity-40"
      disabled={!isUseful}
      onClick={() => void session.say('reset', { parts: [part.id], what })}
    >
      {words}
    </button>
  );
  return (
    <div className="flex items-center gap-1 px-2 pt-0.5" role="group" aria-label="Reset">
      <span className="px-1.5 text-[12px] text-ink2">Reset</span>
      {button('place', { words: 'place', isUseful: true })}
      {button('turn', { words: 'turn', isUseful: vectorOf(part.placement.turn).some((n) => n !== 0) })}
      {button('size', { words: 'size', isUseful: part.made !== undefined })}
    </div>
  );
}

interface TripleProps {
  readonly label: string;
  readonly blank: 'at' | 'turn';
  readonly part: Part;
  readonly kind: QuantityKind;
  readonly values: Vec3;
  readonly formulas: readonly Num[] | undefined;
}

function Triple({ label, blank, part, kind, values, formulas }: TripleProps) {
  const session = useSession();
  const commit = (axis: number, text: string) =>
    session.say('change', { parts: [part.id], [blank]: [0, 1, 2].map((i) => (i === axis ? text : 'now')) });
  return (
    <div className="grid grid-cols-[44px_1fr_1fr_1fr] items-start gap-1.5 px-3.5 py-[3px]">
      <span className="pt-1">{label}</span>
      {values.map((value, axis) => (
        <Quantity
          key={axis}
          label={`${label} ${AXES[axis]!.toUpperCase()}`}
          axis={AXES[axis]}
          kind={kind}
          value={formulas ? formulas[axis]! : value}
          now={value}
          commit={(text) => commit(axis, text)}
        />
      ))}
    </div>
  );
}

/** Whether nothing leaks out, and if not, why. */
function watertightWords({ watertight, closed, touching }: Measures): string {
  if (watertight) return 'yes';
  if (!closed) return 'no, it is open';
  return touching ? 'no, solids only touch' : 'no';
}

/** Why it cannot be built, or what it is shown without. */
const FailureWords = ({ step, reason, remedy }: Pick<Failure, 'step' | 'reason' | 'remedy'>) => (
  <p role="alert" className="px-3.5 pb-1 text-bad">
    {step !== null && `Shown without step ${step + 1}. `}
    {reason} {remedy}
  </p>
);

type FactRow = readonly [label: string, value: React.ReactNode];

/** Of drawn things: they have neither faces nor a middle of what they enclose. */
const drawnRows = ({ area, edges }: Measures, scene: Scene): readonly FactRow[] => [
  ['Kind', edges === 0 ? 'nothing that is seen' : 'drawn, no solid'],
  ['Area', formatMeasure(area, 2, scene)],
  ['Curves', String(edges)],
];

function builtRows(document: KadrelDocument, part: Part, measures: Measures): readonly FactRow[] {
  const { scene } = document;
  const centroid = carry(worldFromPart(document, part.id), measures.centroid);
  return [
    // An open surface encloses nothing: it has no volume to tell.
    measures.solids === 0
      ? ['Kind', 'open surface, no solid']
      : ['Volume', formatMeasure(measures.volume, 3, scene)],
    ['Area', formatMeasure(measures.area, 2, scene)],
    ['Centroid', centroid.map((n) => formatLength(n, scene)).join('  ')],
    [
      'Watertight',
      <b key="w" className={measures.watertight ? 'font-semibold text-ok' : 'font-semibold text-bad'}>
        {watertightWords(measures)}
      </b>,
    ],
    ['Faces, edges', `${measures.faces}, ${measures.edges}`],
    ['Solids', String(measures.solids)],
  ];
}

function Facts({ part }: { part: Part }) {
  const built = useSessionState((state) => state.built);
  const document = useSessionState((state) => state.document);
  const failure = built.failures.find((f) => f.part === part.id);
  const measures = measuresOf({ built }, part.id);
  const notices = built.notices.filter((notice) => notice.part === part.id);
  if (!measures)
    return (
      <Section title="Facts">
        {failure ? <FailureWords {...failure} /> : <p className="px-3.5 text-ink3">Being built…</p>}
      </Section>
    );
  const rows =
    measures.faces === 0 ? drawnRows(measures, document.scene) : builtRows(document, part, measures);
  return (
    <Section title="Facts">
      {failure && <FailureWords {...failure} />}
      <dl>
        {rows.map(([label, value]) => (
          <div key={label} className="flex justify-between gap-2 px-3.5 py-[3px]">
            <dt>{label}</dt>
            <dd className="num text-right" data-testid={`fact-${label.toLowerCase()}`}>
              {value}
            </dd>
          </div>
        ))}
      </dl>
      {notices.map(({ words }) => (
        <p key={words} className="px-3.5 pt-1 text-ink3">
          {words}
        </p>
      ))}
    </Section>
  );
}
