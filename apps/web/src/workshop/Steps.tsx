/** The steps of a part after its base: each with its number, and out of the way when it is not wanted. */
import {
  definitionOf,
  deviationOfStep,
  formatLengthWithUnit,
  numberOfStep,
  titleOfStep,
  valueOf,
  type KadrelDocument,
  type Part,
  type RecipeStep,
} from '@kadrel/core';
import clsx from 'clsx';
import { imprintsOf } from '../session/faces.ts';
import { useSession, useSessionState } from './context.ts';
import { Labelled } from './Labelled.tsx';
import { Quantity } from './NumberField.tsx';
import { Section } from './Section.tsx';

export function Steps({ part }: { part: Part }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const { steps } = definitionOf(document, part).recipe;
  const failed = useSessionState(
    ({ built }) => built.failures.find((failure) => failure.part === part.id)?.step,
  );
  if (steps.length === 0) return null;
  return (
    <Section title="Steps">
      {steps.map((step, i) => {
        const number = numberOfStep(step);
        return (
          <div key={i}>
            <div className="flex items-center justify-between px-3.5 text-ink2">
              <span className={clsx('truncate', failed === i && 'text-bad')}>
                {i + 1}. {wordsOf(step, document)}
                {failed === i && ' – cannot be done'}
              </span>
              {step.kind === 'emboss' && valueOf(step.depth) === 0 && <MarkedFaces part={part} />}
              <button
                type="button"
                className="quiet shrink-0"
                aria-label={`Take out step ${i + 1}`}
                onClick={() => void session.say('step', { part: part.id, step: String(i + 1), out: 'yes' })}
              >
                Take out
              </button>
            </div>
            {number && (
              <Labelled label={number.label}>
                <Quantity
                  label={`${number.label} of step ${i + 1}`}
                  kind={number.kind}
                  value={number.value}
                  now={valueOf(number.value)}
                  commit={(text) => session.say('step', { part: part.id, step: String(i + 1), depth: text })}
                />
              </Labelled>
            )}
            {step.kind === 'resample' && <Deviation part={part} step={i} />}
          </div>
        );
      })}
    </Section>
  );
}

/** Selects what an imprint marked on the part. */
function MarkedFaces({ part }: { part: Part }) {
  const session = useSession();
  const built = useSessionState((state) => state.built);
  const names = imprintsOf(built, part.id);
  if (names.length === 0) return null;
  return (
    <button
      type="button"
      className="quiet ml-auto"
      aria-label="Select the marked faces"
      onClick={() => session.selectFace({ part: part.id, names })}
    >
      Select
    </button>
  );
}

function wordsOf(step: RecipeStep, { items }: KadrelDocument): string {
  const names = 'profiles' in step ? step.profiles.map((id) => items[id]?.name).join(', ') : '';
  return titleOfStep(step, names);
}

function Deviation({ part, step }: { part: Part; step: number }) {
  const document = useSessionState((state) => state.document);
  const found = deviationOfStep(document, part.id, step);
  if (!found) return null;
  return (
    <p className="px-3.5 text-ink2">
      Departs by at most <span className="num">{formatLengthWithUnit(found.deviation, document.scene)}</span>;{' '}
      <span className="num">{found.before}</span> curves became <span className="num">{found.after}</span>
    </p>
  );
}
