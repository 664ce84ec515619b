/** One face of the selected part: chosen by name or by a second click on the part, with its sizes. */
import { formatLengthWithUnit, formatMeasure, type Part } from '@kadrel/core';
import { useQuery } from '@tanstack/react-query';
import { facesOf, wordsOfFace } from '../session/faces.ts';
import { useSession, useSessionState } from './context.ts';
import { Labelled } from './Labelled.tsx';
import { Section } from './Section.tsx';

export function FaceFacts({ part }: { part: Part }) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const built = useSessionState((state) => state.built);
  const face = useSessionState((state) => state.face);
  const names = facesOf(built, part.id);
  const { data } = useQuery({
    queryKey: ['face', built.parts[part.id]?.key, face?.names],
    queryFn: () => session.faceFacts(face!),
    enabled: face !== null && face.part === part.id,
    // The key names the solid by what it is made of.
    staleTime: Infinity,
  });
  if (names.length === 0) return null;
  const [only] = face?.names ?? [];
  const rows: [string, string][] = data
    ? [
        ['Area', formatMeasure(data.area, 2, document.scene)],
        ['Border', formatLengthWithUnit(data.border, document.scene)],
      ]
    : [];
  return (
    <Section title="Face">
      <Labelled label="Selected">
        <select
          className="field"
          aria-label="Selected face"
          value={face && face.names.length > 1 ? SEVERAL : (only ?? '')}
          onChange={({ target }) =>
            session.selectFace(target.value === '' ? null : { part: part.id, names: [target.value] })
          }
        >
          <option value="">none; click the part again</option>
          {face && face.names.length > 1 && <option value={SEVERAL}>{face.names.length} faces</option>}
          {names.map((name) => (
            <option key={name} value={name}>
              {wordsOfFace(name, document)}
            </option>
          ))}
        </select>
      </Labelled>
      {face && (
        <dl className="grid grid-cols-[76px_1fr] gap-x-1.5 px-3.5 pt-1">
          {rows.map(([label, value]) => (
            <div key={label} className="contents">
              <dt className="text-ink2">{label}</dt>
              <dd className="num" data-testid={`face-${label.toLowerCase()}`}>
                {value}
              </dd>
            </div>
          ))}
        </dl>
      )}
    </Section>
  );
}

/** No face is called so: names have no blanks at their ends. */
const SEVERAL = ' several ';
