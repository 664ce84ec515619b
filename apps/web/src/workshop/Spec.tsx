import {
  AXES,
  boxSize,
  carry,
  datumInPart,
  formatAngle,
  formatLength,
  formatMeasure,
  vectorOf,
  worldFromPart,
  type Axis,
  type BoxPoint,
  type KadrelDocument,
  type Num,
  type Part,
  type QuantityKind,
  type Vec3,
} from '@kadrel/core';
import clsx from 'clsx';
import { useEffect, useId, useRef, useState } from 'react';
import { factsOfPart } from '../session/store.ts';
import { exactMm, exactNumber } from '../session/statement.ts';
import { useSession, useSessionState } from './context.ts';

/** The exact numbers of what is selected. */
export function Spec() {
  const document = useSessionState((state) => state.document);
  const selection = useSessionState((state) => state.selection);
  const parts = selection.flatMap((id) => document.items[id] ?? []);
  const [only] = parts;
  return (
    <aside className="flex min-h-0 flex-col overflow-y-auto border-l border-rule bg-paper" aria-label="Spec">
      <h2 className="panel-title">
        <span className="truncate">
          Spec{parts.length === 1 ? ` · ${only!.name}` : parts.length > 1 ? ` · ${parts.length} parts` : ''}
        </span>
        {parts.length === 1 && <span className="font-normal text-ink2">exact</span>}
      </h2>
      {parts.length === 0 && <SceneFacts document={document} />}
      {parts.length === 1 && <OnePart part={only!} document={document} />}
      {parts.length > 1 && <ManyParts parts={parts} />}
    </aside>
  );
}

function SceneFacts({ document }: { document: KadrelDocument }) {
  const variables = Object.entries(document.variables).sort(([a], [b]) => a.localeCompare(b));
  return (
    <>
      <p className="px-3.5 text-ink2">Select a part to read and set its numbers.</p>
      {variables.length > 0 && (
        <Section title="Variables">
          {variables.map(([name, text]) => (
            <VariableRow key={name} name={name} text={text} />
          ))}
        </Section>
      )}
    </>
  );
}

function VariableRow({ name, text }: { name: string; text: string }) {
  const session = useSession();
  return (
    <div className="grid grid-cols-[1fr_110px] items-center gap-2 px-3.5 py-0.5">
      <span className="num truncate">{name}</span>
      <NumberField
        label={`Variable ${name}`}
        shown={text}
        raw={text}
        check={() => undefined}
        commit={(value) => session.say('variable', { name, value })}
      />
    </div>
  );
}

function Section({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section className="mt-2 border-t border-rule pb-1" aria-label={title}>
      <h3 className="panel-title">{title}</h3>
      {children}
    </section>
  );
}

const LEVELS: readonly (readonly [BoxPoint[2], string])[] = [
  [1, 'top'],
  [0, 'mid'],
  [-1, 'under'],
];
const SIDES = {
  x: { '-1': 'left', '0': 'middle', '1': 'right' },
  y: { '-1': 'front', '0': 'middle', '1': 'back' },
} as const;

const datumWords = ([x, y, z]: BoxPoint): string => {
  const sides = [SIDES.y[`${y}`], SIDES.x[`${x}`]]
    .filter((word, _, all) => word !== 'middle' || all.every((w) => w === 'middle'))
    .slice(0, x === 0 && y === 0 ? 1 : 2);
  return `${sides.join(' ')}, ${LEVELS.find(([level]) => level === z)![1]}`;
};

function DatumPad({ part }: { part: Part }) {
  const session = useSession();
  const isOwn = part.datum === 'own';
  const point: BoxPoint = part.datum === 'own' ? [-1, -1, -1] : part.datum;
  const set = (datum: string) => void session.say('change', { parts: [part.id], datum });
  const at = (x: BoxPoint[0], y: BoxPoint[1], z: BoxPoint[2]) => `${x} ${y} ${z}`;
  return (
    <div className="flex items-center gap-3.5 px-3.5 pb-2">
      <div
        role="group"
        aria-label="Datum in plan"
        className="grid size-[66px] shrink-0 grid-cols-3 rounded border border-rule bg-sheet p-1"
      >
        {([1, 0, -1] as const).map((y) =>
          ([-1, 0, 1] as const).map((x) => {
            const isChosen = !isOwn && point[0] === x && point[1] === y;
            return (
              <button
                key={`${x}${y}`}
                type="button"
                aria-pressed={isChosen}
                aria-label={`Datum ${datumWords([x, y, point[2]])}`}
                title={datumWords([x, y, point[2]])}
                className="flex items-center justify-center"
                onClick={() => set(at(x, y, point[2]))}
              >
                <span
                  className={clsx(
                    'size-2 rounded-full border',
                    isChosen ? 'size-2.5 border-plum bg-plum' : 'border-ink3',
                  )}
                />
              </button>
            );
          }),
        )}
      </div>
      <div className="min-w-0">
        <p className="mb-1.5 text-ink2">
          Datum:{' '}
          {isOwn
            ? part.recipe.base.kind === 'box'
              ? 'its own origin, the least corner'
              : 'its own origin'
            : datumWords(point)}
        </p>
        <div
          role="group"
          aria-label="Datum level"
          className="inline-flex overflow-hidden rounded border border-rule"
        >
          {LEVELS.map(([z, word]) => (
            <button
              key={word}
              type="button"
              aria-pressed={!isOwn && point[2] === z}
              className={clsx('px-2 py-0.5', !isOwn && point[2] === z ? 'bg-ink text-paper' : 'text-ink2')}
              onClick={() => set(at(point[0], point[1], z))}
            >
              {word}
            </button>
          ))}
          <button
            type="button"
            aria-pressed={isOwn}
            className={clsx('px-2 py-0.5', isOwn ? 'bg-ink text-paper' : 'text-ink2')}
            onClick={() => set('own')}
          >
            own
          </button>
        </div>
      </div>
    </div>
  );
}

function OnePart({ part, document }: { part: Part; document: KadrelDocument }) {
  const session = useSession();
  const built = useSessionState((state) => state.built);
  const facts = factsOfPart({ built }, part.id);
  const pose = worldFromPart(document, part.id);
  const inPart = datumInPart(part, () => facts?.measures.box);
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
      {facts && <Overall values={boxSize(facts.measures.box)} />}
      <Recipe part={part} />
      <Section title="Colour">
        <div className="flex items-center gap-2 px-3.5">
          <ColourField
            colour={part.colour}
            commit={(colour) => void session.say('change', { parts: [part.id], colour })}
          />
        </div>
      </Section>
      <Facts part={part} />
    </>
  );
}

/** Overall size in the part's own frame: read, not set; the recipe below sets it. */
function Overall({ values }: { values: Vec3 }) {
  const scene = useSessionState((state) => state.document.scene);
  return (
    <div className="grid grid-cols-[44px_1fr_1fr_1fr] items-center gap-1.5 px-3.5 py-[3px]">
      <span>Size</span>
      {values.map((n, i) => (
        <output
          key={i}
          className="num truncate px-1.5 text-right text-ink2"
          aria-label={`Overall ${AXES[i]!.toUpperCase()}`}
        >
          {formatLength(n, scene)}
        </output>
      ))}
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

function Recipe({ part }: { part: Part }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const { base } = part.recipe;
  const set = (values: Record<string, unknown>) => session.say('change', { parts: [part.id], ...values });
  if (base.kind === 'combine') {
    const words = { union: 'Union of', subtract: 'Cut', intersect: 'Common part of' }[base.how];
    return (
      <Section title="Recipe">
        <p className="px-3.5 pb-1 text-ink2">{words}</p>
        <ul>
          {base.operands.map((id, i) => (
            <li key={id}>
              <button type="button" className="quiet ml-1.5 text-left" onClick={() => session.select([id])}>
                {base.how === 'subtract' && i > 0 ? 'less ' : ''}
                <span className="underline decoration-rule underline-offset-2">
                  {document.items[id]?.name}
                </span>
              </button>
            </li>
          ))}
        </ul>
      </Section>
    );
  }
  const rows: readonly (readonly [string, Num, (text: string) => Promise<boolean>])[] =
    base.kind === 'box'
      ? (['Length', 'Width', 'Height'] as const).map((label, axis) => [
          label,
          base.size[axis]!,
          (text: string) => set({ size: [0, 1, 2].map((i) => (i === axis ? text : 'now')) }),
        ])
      : [
          ['Diameter', base.diameter, (text) => set({ diameter: text })],
          ['Height', base.height, (text) => set({ height: text })],
        ];
  return (
    <Section title="Recipe">
      {rows.map(([label, value, commit]) => (
        <div key={label} className="grid grid-cols-[76px_1fr] items-start gap-1.5 px-3.5 py-[3px]">
          <span className="pt-1">{label}</span>
          <Quantity
            label={label}
            kind="length"
            value={value}
            now={typeof value === 'number' ? value : value.value}
            commit={commit}
          />
        </div>
      ))}
    </Section>
  );
}

function Facts({ part }: { part: Part }) {
  const built = useSessionState((state) => state.built);
  const document = useSessionState((state) => state.document);
  const failure = built.failures.find((f) => f.part === part.id);
  const measures = factsOfPart({ built }, part.id)?.measures;
  const { scene } = document;
  if (failure)
    return (
      <Section title="Facts">
        <p role="alert" className="px-3.5 text-bad">
          {failure.reason} {failure.remedy}
        </p>
      </Section>
    );
  if (!measures)
    return (
      <Section title="Facts">
        <p className="px-3.5 text-ink3">Being built…</p>
      </Section>
    );
  const centroid = carry(worldFromPart(document, part.id), measures.centroid);
  const rows: readonly (readonly [string, React.ReactNode])[] = [
    ['Volume', formatMeasure(measures.volume, 3, scene)],
    ['Area', formatMeasure(measures.area, 2, scene)],
    ['Centroid', centroid.map((n) => formatLength(n, scene)).join('  ')],
    [
      'Watertight',
      <b key="w" className={measures.watertight ? 'font-semibold text-ok' : 'font-semibold text-bad'}>
        {measures.watertight ? 'yes' : 'no'}
      </b>,
    ],
    ['Faces, edges', `${measures.faces}, ${measures.edges}`],
    ['Solids', String(measures.solids)],
  ];
  return (
    <Section title="Facts">
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
    </Section>
  );
}

/** What the parts have in common; a number typed here is given to all of them. */
function ManyParts({ parts }: { parts: readonly Part[] }) {
  const session = useSession();
  const built = useSessionState((state) => state.built);
  const scene = useSessionState((state) => state.document.scene);
  const ids = parts.map((part) => part.id);
  const colour = parts.every((part) => part.colour === parts[0]!.colour) ? parts[0]!.colour : undefined;
  const volumes = ids.map((id) => factsOfPart({ built }, id)?.measures.volume);
  const sum = volumes.every((v) => v !== undefined) ? volumes.reduce((a, b) => a + b, 0) : undefined;
  const common = (of: (part: Part) => Num | undefined): Num | undefined => {
    const values = parts.map(of);
    return values.every((v) => v !== undefined && JSON.stringify(v) === JSON.stringify(values[0]))
      ? values[0]
      : undefined;
  };
  const areBoxes = parts.every(({ recipe: { base } }) => base.kind === 'box');
  const areRound = parts.every(({ recipe: { base } }) => base.kind === 'cylinder');
  const row = (label: string, value: Num | undefined, commit: (text: string) => Promise<boolean>) => (
    <div key={label} className="grid grid-cols-[76px_1fr] items-start gap-1.5 px-3.5 py-[3px]">
      <span className="pt-1">{label}</span>
      {value === undefined ? (
        <NumberField
          label={label}
          shown=""
          raw=""
          placeholder="several"
          check={(text) => session.quantityFault(text, 'length', 0)}
          commit={commit}
        />
      ) : (
        <Quantity
          label={label}
          kind="length"
          value={value}
          now={typeof value === 'number' ? value : value.value}
          commit={commit}
        />
      )}
    </div>
  );
  return (
    <>
      {areBoxes && (
        <Section title="Recipe, all">
          {(['Length', 'Width', 'Height'] as const).map((label, axis) =>
            row(
              label,
              common(({ recipe: { base } }) => (base.kind === 'box' ? base.size[axis] : undefined)),
              (text) =>
                session.say('change', {
                  parts: ids,
                  size: [0, 1, 2].map((i) => (i === axis ? text : 'now')),
                }),
            ),
          )}
        </Section>
      )}
      {areRound && (
        <Section title="Recipe, all">
          {row(
            'Diameter',
            common(({ recipe: { base } }) => (base.kind === 'cylinder' ? base.diameter : undefined)),
            (text) => session.say('change', { parts: ids, diameter: text }),
          )}
          {row(
            'Height',
            common(({ recipe: { base } }) => (base.kind === 'cylinder' ? base.height : undefined)),
            (text) => session.say('change', { parts: ids, height: text }),
          )}
        </Section>
      )}
      <Section title="Colour">
        <div className="px-3.5">
          <ColourField
            colour={colour}
            commit={(next) => void session.say('change', { parts: ids, colour: next })}
          />
        </div>
      </Section>
      <Section title="Facts">
        <div className="flex justify-between px-3.5 py-[3px]">
          <span>Volume, sum</span>
          <span className="num">{sum === undefined ? '…' : formatMeasure(sum, 3, scene)}</span>
        </div>
      </Section>
    </>
  );
}

function ColourField({ colour, commit }: { colour: string | undefined; commit: (colour: string) => void }) {
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const input = field.current;
    if (!input) return;
    // The browser's picker says `change` once, when it is closed; React's own event comes with every shade.
    const onChange = () => commit(input.value);
    input.addEventListener('change', onChange);
    return () => input.removeEventListener('change', onChange);
  }, [commit]);
  return (
    <label className="inline-flex items-center gap-2">
      <input
        ref={field}
        key={colour}
        type="color"
        aria-label="Colour"
        className="h-6 w-10 rounded border border-rule bg-sheet"
        defaultValue={colour ?? '#cccccc'}
      />
      <span className="num text-ink2">{colour ?? 'several'}</span>
    </label>
  );
}

interface QuantityProps {
  readonly label: string;
  readonly axis?: Axis;
  readonly kind: QuantityKind;
  readonly value: Num;
  readonly now: number;
  readonly commit: (text: string) => Promise<boolean>;
}

/** A number that takes units, arithmetic, variables and `now`; one with a formula shows it. */
function Quantity({ label, axis, kind, value, now, commit }: QuantityProps) {
  const session = useSession();
  const scene = useSessionState((state) => state.document.scene);
  const isFormula = typeof value === 'object';
  const shown = isFormula
    ? value.formula
    : kind === 'angle'
      ? formatAngle(value)
      : formatLength(value, scene);
  const raw = isFormula ? value.formula : kind === 'angle' ? String(value) : exactMm(value);
  return (
    <NumberField
      label={label}
      {...(axis ? { axis } : {})}
      shown={shown}
      raw={raw}
      isFormula={isFormula}
      check={(text) => session.quantityFault(text, kind, now)}
      commit={commit}
    />
  );
}

interface NumberFieldProps {
  readonly label: string;
  readonly axis?: Axis;
  readonly shown: string;
  readonly raw: string;
  readonly isFormula?: boolean;
  readonly placeholder?: string;
  readonly check: (text: string) => string | undefined;
  readonly commit: (text: string) => Promise<boolean>;
}

/** A text is committed by Enter, or when the field is left; a bad one keeps its text and says why. */
function NumberField({
  label,
  axis,
  shown,
  raw,
  isFormula = false,
  placeholder,
  check,
  commit,
}: NumberFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState<string | undefined>();
  const id = useId();
  const send = () => {
    if (typed === null) return;
    if (typed.trim() === '' || typed === shown || typed === raw) {
      setTyped(null);
      setFault(undefined);
      return;
    }
    const wrong = check(typed);
    setFault(wrong);
    if (wrong === undefined)
      void commit(typed).then((done) => {
        if (done) setTyped(null);
        else setFault('This was refused; the statement above says why.');
      });
  };
  return (
    <div className="min-w-0">
      <span className="relative block">
        {axis && (
          <b
            aria-hidden
            className="pointer-events-none absolute top-[3px] left-1.5 text-[12px]"
            style={{ color: `var(--${axis})` }}
          >
            {axis.toUpperCase()}
          </b>
        )}
        <input
          className={clsx(
            'field num text-right',
            axis && 'pl-4!',
            isFormula && typed === null && 'text-plum',
          )}
          aria-label={label}
          aria-invalid={fault !== undefined}
          aria-describedby={fault ? id : undefined}
          title={exactNumber(raw) === undefined ? raw : undefined}
          placeholder={placeholder}
          value={typed ?? shown}
          autoComplete="off"
          spellCheck={false}
          onFocus={(event) => event.currentTarget.select()}
          onChange={(event) => {
            setTyped(event.target.value);
            setFault(undefined);
          }}
          onBlur={send}
          onKeyDown={(event) => {
            if (event.key === 'Enter') send();
            if (event.key !== 'Escape') return;
            setTyped(null);
            setFault(undefined);
          }}
        />
      </span>
      {fault && (
        <p id={id} role="alert" className="mt-0.5 text-[11px] text-bad">
          {fault}
        </p>
      )}
    </div>
  );
}
