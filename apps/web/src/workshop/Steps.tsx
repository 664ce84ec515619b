/** The steps of a part after its base: each with its depth, and out of the way when it is not wanted. */
import { definitionOf, valueOf, type Part } from '@kadrel/core';
import { useSession, useSessionState } from './context.ts';
import { Labelled } from './Labelled.tsx';
import { Quantity } from './NumberField.tsx';
import { Section } from './Section.tsx';

export function Steps({ part }: { part: Part }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const { steps } = definitionOf(document, part).recipe;
  if (steps.length === 0) return null;
  const names = (ids: readonly string[]) => ids.map((id) => document.items[id]?.name).join(', ');
  return (
    <Section title="Steps">
      {steps.map((step, i) => {
        const depth = valueOf(step.depth);
        const words = depth === 0 ? 'marked' : depth > 0 ? 'embossed' : 'engraved';
        return (
          <div key={i}>
            <div className="flex items-center justify-between px-3.5 text-ink2">
              <span className="truncate">
                {i + 1}. {names(step.profiles)}, {words}
              </span>
              <button
                type="button"
                className="quiet"
                onClick={() => void session.say('step', { part: part.id, step: String(i + 1), out: 'yes' })}
              >
                Take out
              </button>
            </div>
            <Labelled label="Depth">
              <Quantity
                label={`Depth of step ${i + 1}`}
                kind="length"
                value={step.depth}
                now={depth}
                commit={(text) => session.say('step', { part: part.id, step: String(i + 1), depth: text })}
              />
            </Labelled>
          </div>
        );
      })}
    </Section>
  );
}
