/** The numbers of a pattern, and its members. */
import {
  countAlong,
  countOf,
  memberLabel,
  pitchOf,
  spanOf,
  valueOf,
  type LayoutOf,
  type Num,
  type Part,
  type PatternBase,
  type QuantityKind,
  type Spacing,
} from '@kadrel/core';
import clsx from 'clsx';
import { X } from 'lucide-react';
import { Choice } from './Choice.tsx';
import { useSession, useSessionState } from './context.ts';
import { Labelled } from './Labelled.tsx';
import { Count, Quantity } from './NumberField.tsx';
import { PartList } from './PartList.tsx';
import { Section } from './Section.tsx';
import { membersLeft } from './tree.ts';

const TITLES = { along: 'Row', around: 'Ring', grid: 'Grid', path: 'On a path', reflection: 'Mirrored pair' };

interface PatternProps {
  readonly part: Part;
  readonly base: PatternBase;
  /** What a linked part is linked to. */
  readonly isShared: boolean;
}

export function PatternRecipe({ part, base, isShared }: PatternProps) {
  const session = useSession();
  const { layout } = base;
  const set = (values: Record<string, unknown>) => session.say('pattern', { parts: [part.id], ...values });
  return (
    <Section title={TITLES[layout.kind]}>
      {layout.kind === 'grid' && <GridRows layout={layout} set={set} />}
      {layout.kind !== 'grid' && layout.kind !== 'reflection' && <RowNumbers layout={layout} set={set} />}
      <p className="px-3.5 pt-1 text-ink2">Repeats</p>
      <PartList parts={base.sources} />
      {!isShared && <Members part={part} base={base} />}
    </Section>
  );
}

type Set = (values: Record<string, unknown>) => Promise<boolean>;

function RowNumbers({
  layout,
  set,
}: {
  layout: LayoutOf<'along'> | LayoutOf<'around'> | LayoutOf<'path'>;
  set: Set;
}) {
  const count = layout.kind === 'along' ? countAlong(layout) : valueOf(layout.count);
  // What is given by variables is shown so, and kept.
  const shownCount = layout.kind === 'along' && layout.fit ? count : layout.count;
  const kind = layout.kind === 'around' ? 'angle' : 'length';
  const { spacing } = layout;
  return (
    <>
      <Labelled label={layout.kind === 'along' && layout.fit ? 'In all, as fit' : 'In all'}>
        <Count label="In all" count={shownCount} commit={(text) => set({ count: text })} />
      </Labelled>
      <SpacingRows spacing={spacing ?? undefined} count={count} kind={kind} set={set} />
      {layout.kind === 'around' && (
        <Labelled label="Rising by">
          <Quantity
            label="Rising by"
            kind="length"
            value={layout.rise}
            now={valueOf(layout.rise)}
            commit={(text) => set({ rise: text })}
          />
        </Labelled>
      )}
      {layout.kind === 'along' && (
        <Choice
          label="Standing"
          chosen={layout.centred ? 'centred' : 'from'}
          choices={{ from: 'from it', centred: 'centred' }}
          choose={(centred) => void set({ centred })}
        />
      )}
      {layout.kind !== 'along' && (
        <Choice
          label="Facing"
          chosen={layout.attitude}
          choices={{ turning: 'with it', keeping: 'as the first' }}
          choose={(attitude) => void set({ attitude })}
        />
      )}
    </>
  );
}

/** Both ways of telling a spacing; the one that is kept when the count changes stands out. */
function SpacingRows({
  spacing,
  count,
  kind,
  set,
}: {
  spacing: Spacing | undefined;
  count: number;
  kind: QuantityKind;
  set: Set;
}) {
  if (!spacing) return <p className="px-3.5 py-1 text-ink2">Shared out over the whole path.</p>;
  const isPitch = 'pitch' in spacing;
  const row = (
    label: string,
    blank: 'pitch' | 'span',
    { value, isKept }: { readonly value: Num; readonly isKept: boolean },
  ) => (
    <Labelled label={label} isStrong={isKept} title={isKept ? 'Kept when the count changes' : undefined}>
      <Quantity
        label={label}
        kind={kind}
        value={value}
        now={valueOf(value)}
        commit={(text) => set({ [blank]: text })}
      />
    </Labelled>
  );
  return (
    <>
      {row('Every', 'pitch', { value: isPitch ? spacing.pitch : pitchOf(spacing, count), isKept: isPitch })}
      {row('Across', 'span', { value: isPitch ? spanOf(spacing, count) : spacing.span, isKept: !isPitch })}
    </>
  );
}

const GRID_WORDS = ['Columns', 'Rows', 'Levels'] as const;

function GridRows({ layout: { rows, stagger }, set }: { layout: LayoutOf<'grid'>; set: Set }) {
  const three = (i: number, text: string) => [0, 1, 2].map((k) => (k === i ? text : 'now'));
  return (
    <>
      <div className="grid grid-cols-[56px_44px_1fr_1fr] gap-x-1.5 px-3.5 text-[11px] text-ink2">
        <span />
        <span>count</span>
        <span>every</span>
        <span>across</span>
      </div>
      {rows.map(({ count, spacing }, i) => {
        const isPitch = 'pitch' in spacing;
        const pitch = isPitch ? spacing.pitch : pitchOf(spacing, valueOf(count));
        const span = isPitch ? spanOf(spacing, valueOf(count)) : spacing.span;
        return (
          <div
            key={GRID_WORDS[i]}
            className="grid grid-cols-[56px_44px_1fr_1fr] items-start gap-1.5 px-3.5 py-[3px]"
          >
            <span className="pt-1">{GRID_WORDS[i]}</span>
            <Count label={GRID_WORDS[i]!} count={count} commit={(text) => set({ counts: three(i, text) })} />
            <Quantity
              label={`${GRID_WORDS[i]} every`}
              kind="length"
              value={pitch}
              now={valueOf(pitch)}
              commit={(text) => set({ pitches: three(i, text) })}
            />
            <Quantity
              label={`${GRID_WORDS[i]} across`}
              kind="length"
              value={span}
              now={valueOf(span)}
              commit={(text) => set({ spans: three(i, text) })}
            />
          </div>
        );
      })}
      <Choice
        label="Each 2nd row"
        chosen={stagger === 0 ? 'no' : 'half'}
        choices={{ no: 'in line', half: 'by half' }}
        choose={(choice) => void set({ stagger: choice })}
      />
    </>
  );
}

/** Left-out members listed before the rest is only counted. */
const MAX_LISTED = 24;

function Members({ part, base }: { part: Part; base: PatternBase }) {
  const session = useSession();
  const member = useSessionState((state) => (state.member?.part === part.id ? state.member.label : null));
  const isOmitting = useSessionState((state) => state.omitting === part.id);
  const { layout, omitted } = base;
  const labels = omitted.map((key) => memberLabel(layout, key));
  return (
    <>
      <p className="px-3.5 pt-1 text-ink2">
        <span className="num">{membersLeft(base)}</span> of <span className="num">{countOf(layout)}</span>{' '}
        members
      </p>
      {member !== null && (
        <div className="flex items-center gap-1 px-2" role="group" aria-label={`Member ${member}`}>
          <span className="px-1.5">
            Member <span className="num">{member}</span>
          </span>
          <button
            type="button"
            className="quiet"
            onClick={() => void session.say('omit', { part: part.id, members: member })}
          >
            Leave out
          </button>
          <button
            type="button"
            className="quiet"
            title="Make it a part of its own"
            onClick={() => void session.say('free', { part: part.id, members: member })}
          >
            Free
          </button>
        </div>
      )}
      {labels.length > 0 && (
        <div className="flex flex-wrap items-center gap-1 px-3.5 py-0.5" role="group" aria-label="Left out">
          <span className="text-ink2">Left out</span>
          {labels.slice(0, MAX_LISTED).map((label) => (
            <button
              key={label}
              type="button"
              className="num inline-flex items-center gap-0.5 rounded border border-rule px-1 hover:border-plum"
              aria-label={`Put member ${label} back`}
              title="Put it back"
              onClick={() => void session.say('omit', { part: part.id, members: label, state: 'back' })}
            >
              {label}
              <X size={11} aria-hidden />
            </button>
          ))}
          {labels.length > MAX_LISTED && <span>and {labels.length - MAX_LISTED} more</span>}
        </div>
      )}
      <div className="flex flex-wrap gap-1 px-2 pt-0.5">
        <button
          type="button"
          className={clsx('quiet', isOmitting && 'bg-tint text-plum')}
          aria-pressed={isOmitting}
          title="Each click on a member leaves it out, or puts it back"
          onClick={() => session.set({ omitting: isOmitting ? null : part.id })}
        >
          {isOmitting ? 'Done leaving out' : 'Leave out by clicking'}
        </button>
        <button
          type="button"
          className="quiet"
          title="Into parts of their own"
          onClick={() => void session.say('dissolve', { parts: [part.id] })}
        >
          Dissolve
        </button>
      </div>
    </>
  );
}
