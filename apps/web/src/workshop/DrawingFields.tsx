/** Fields of the statement bar for planes and regions. */
import { PLANES, definitionOf, isFlat, topParts, wordBlank } from '@kadrel/core';
import { useSession, useSessionState } from './context.ts';
import { PickList, type FieldProps, type Option } from './PickList.tsx';

const PLANE_WORDS: Readonly<Record<string, string>> = {
  plan: 'Plan: level, through the origin',
  front: 'Front: upright, along X',
  side: 'Side: upright, along Y',
};

/** The plane that is drawn on: it stays for what is drawn next, until another is chosen here. */
export function PlaneField(props: FieldProps) {
  const { id, blank, statement } = props;
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const value = statement.typed[id];
  const drawn = topParts(document).filter(({ recipe: { base } }) => isFlat(base));
  const options: Option[] = [
    ...Object.keys(PLANES).map((key) => ({ key, words: PLANE_WORDS[key] ?? key })),
    ...drawn.map((part) => ({
      key: part.id,
      words: part.recipe.base.kind !== 'profile' ? part.name : `The plane of ${part.name}`,
    })),
  ].map(({ key, words }) => ({
    key,
    words,
    choose: () => (id === 'on' ? session.setPlane(key, id) : session.setBlank(id, key)),
    isChosen: value === key,
  }));
  const isActive = statement.focus?.blank === id;
  return (
    <PickList
      {...props}
      shown={`${wordBlank(blank, value, document)}${isActive ? ' (or pick a flat face)' : ''}`}
      options={options}
    />
  );
}

/** Regions are clicked in the view; all of them is one word. */
export function RegionsField(props: FieldProps) {
  const { id, blank, statement } = props;
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const value = statement.typed[id];
  const profiles = (statement.typed.profiles as string[] | undefined) ?? [];
  const areProfiles = profiles.some(
    (part) =>
      document.items[part] && definitionOf(document, document.items[part]).recipe.base.kind === 'profile',
  );
  const isActive = statement.focus?.blank === id;
  const options: Option[] = [
    {
      key: 'all',
      words: 'All, by turns from the outside inward',
      choose: () => session.setBlank(id, 'all'),
      isChosen: value === 'all',
    },
    {
      key: 'pick',
      words: 'Picked: click in them…',
      choose: () => session.focus({ blank: id, axis: null }),
      isChosen: value !== 'all',
    },
  ];
  const hint = isActive && areProfiles ? ' (click in them)' : '';
  return <PickList {...props} shown={`${wordBlank(blank, value, document)}${hint}`} options={options} />;
}
