import { formatMeasure, type Num, type Part } from '@kadrel/core';
import { measuresOf } from '../session/built.ts';
import { ColourField } from './ColourField.tsx';
import { useSession, useSessionState } from './context.ts';
import { Labelled, Length } from './Labelled.tsx';
import { NumberField } from './NumberField.tsx';
import { Section } from './Section.tsx';

/** What the parts have in common; a number typed here is given to all of them. */
export function ManyParts({ parts }: { parts: readonly Part[] }) {
  const session = useSession();
  const built = useSessionState((state) => state.built);
  const scene = useSessionState((state) => state.document.scene);
  const ids = parts.map((part) => part.id);
  const colour = parts.every((part) => part.colour === parts[0]!.colour) ? parts[0]!.colour : undefined;
  const volumes = ids.map((id) => measuresOf({ built }, id)?.volume);
  const sum = volumes.every((v) => v !== undefined) ? volumes.reduce((a, b) => a + b, 0) : undefined;
  const common = (of: (part: Part) => Num | undefined): Num | undefined => {
    const values = parts.map(of);
    return values.every((v) => v !== undefined && JSON.stringify(v) === JSON.stringify(values[0]))
      ? values[0]
      : undefined;
  };
  const areBoxes = parts.every(({ recipe: { base } }) => base.kind === 'box');
  const areRound = parts.every(({ recipe: { base } }) => base.kind === 'cylinder');
  const row = (label: string, value: Num | undefined, commit: (text: string) => Promise<boolean>) =>
    value === undefined ? (
      <Labelled key={label} label={label}>
        <NumberField
          label={label}
          shown=""
          raw=""
          placeholder="several"
          check={(text) => session.quantityFault(text, 'length', 0)}
          commit={commit}
        />
      </Labelled>
    ) : (
      <Length key={label} label={label} value={value} commit={commit} />
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
