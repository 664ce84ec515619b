/** The field of the statement bar for edges and faces: rules and names in a list, or clicks in the views. */
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react';
import { EDGE_RULES, partNamed, wordBlank, type KadrelDocument } from '@kadrel/core';
import { factsOfPart, type Built } from '../session/built.ts';
import { listIn, toggled } from '../session/chosen.ts';
import { namesOfPlaces, runsFrom, wordsOfPlace, type SelectedPlace } from '../session/places.ts';
import type { Entry } from '../session/statement.ts';
import { useSession, useSessionState } from './context.ts';
import { commitsByEnter, isAt, useFocusedButton, type FieldProps } from './PickList.tsx';

/** Faces, edges and corners that are gathered. */
export function ChosenField({ id, blank, statement, isBad }: FieldProps) {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const built = useSessionState((state) => state.built);
  const entry: Entry = { blank: id, axis: null };
  const isActive = isAt(statement.focus, entry) && statement.phase !== 'working';
  const button = useFocusedButton({ isActive });
  const value = statement.typed[id];
  const chosen = listIn(value).map(keyOf);
  const words = wordBlank(blank, value, document);
  const part = typeof statement.typed.part === 'string' ? statement.typed.part : undefined;
  const names = part === undefined ? [] : namesOf(built, { type: blank.type, part, document });
  // What runs on from what is chosen; and what is no longer there, or was clicked, so that it can be taken out.
  const listed = new Set([...Object.keys(EDGE_RULES), ...names.map(({ key }) => key)]);
  const held = listIn(value) as SelectedPlace[];
  const runs = blank.type === 'edges' ? runsFrom(held).map(({ run }) => run) : [];
  const others = [...runs, ...held].filter((one) => !listed.has(keyOf(one)));
  return (
    <Listbox
      value={chosen}
      multiple
      disabled={statement.phase === 'working'}
      onChange={(next: string[]) => session.setBlank(id, listAfter(value, next))}
    >
      <ListboxButton
        ref={button}
        className="blank"
        data-blank={id}
        data-active={isActive}
        data-bad={isBad}
        aria-label={`${blank.label}: ${chosen.length === 0 ? 'none chosen' : words}`}
        title={blank.about}
        onFocus={() => !isActive && session.focus(entry)}
        onKeyDownCapture={statement.phase === 'open' ? commitsByEnter(session, button) : undefined}
      >
        {chosen.length === 0 ? <span className="text-ink3">click {blank.type}…</span> : words}
      </ListboxButton>
      <ListboxOptions
        modal={false}
        anchor={{ to: 'bottom start', gap: 6 }}
        className="menu max-h-80 min-w-56 overflow-auto"
      >
        {blank.type === 'edges' &&
          Object.entries(EDGE_RULES).map(([rule, ruleWords]) => (
            <Choice key={rule} value={rule} words={ruleWords} />
          ))}
        {others.map((one) => (
          <Choice key={keyOf(one)} value={keyOf(one)} words={wordsOfPlace(one, document)} />
        ))}
        {names.map(({ key, words: nameWords }) => (
          <Choice key={key} value={key} words={nameWords} />
        ))}
        {names.length === 0 && (
          <p className="px-3 py-1.5 text-ink2">Click in the view, or choose the part first.</p>
        )}
      </ListboxOptions>
    </Listbox>
  );
}

/** What stands in the blank once a choice was ticked or unticked. */
function listAfter(value: unknown, next: readonly string[]): unknown[] {
  const list = listIn(value);
  const gone = list.find((one) => !next.includes(keyOf(one)));
  if (gone !== undefined) return list.filter((one) => one !== gone);
  const fresh = next.find((key) => !list.some((one) => keyOf(one) === key))!;
  const run = runsFrom(list as SelectedPlace[]).find((one) => keyOf(one.run) === fresh);
  return run ? list.map((one) => (one === run.from ? run.run : one)) : toggled(value, fresh);
}

const Choice = ({ value, words }: { value: string; words: string }) => (
  <ListboxOption value={value} className="menu-item data-selected:font-semibold data-selected:text-plum">
    {words}
  </ListboxOption>
);

const keyOf = (one: unknown): string => (typeof one === 'string' ? one : JSON.stringify(one));

interface Asked {
  readonly type: string;
  readonly part: string;
  readonly document: KadrelDocument;
}

/** Faces, and for edges what runs around each of them and where two of them meet. */
function namesOf(built: Built, { type, part, document }: Asked): { key: string; words: string }[] {
  const id = partNamed(document, part)?.id;
  const snaps = id === undefined ? undefined : factsOfPart({ built }, id)?.snaps;
  if (!snaps) return [];
  const { faces, edges, corners } = namesOfPlaces(snaps);
  const named = (keys: readonly string[]) => keys.map((key) => ({ key, words: wordsOfPlace(key, document) }));
  if (type === 'faces') return named(faces);
  if (type === 'places') return [...named(corners), ...named(edges), ...named(faces)];
  return [
    ...faces.map((name) => ({
      key: `around ${name}`,
      words: `all edges around ${wordsOfPlace(name, document)}`,
    })),
    ...named(edges),
  ];
}
