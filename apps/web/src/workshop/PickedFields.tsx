/** The fields of frames and directions: chosen from a list, or picked in the views. */
import { cameraOf, takenDocks, wordBlank, type DockPlace, type KadrelDocument } from '@kadrel/core';
import { dockIn, typedDock } from '../session/docks.ts';
import { isFramed } from '../session/frames.ts';
import { useSession, useSessionState } from './context.ts';
import { PickList, isAt, type FieldProps, type Option } from './PickList.tsx';

/** The axes that numbers refer to. */
export function FrameField(props: FieldProps) {
  const { id, blank, statement } = props;
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const kept = useSessionState((state) =>
    isFramed(statement.verb) ? state.frames[statement.verb] : undefined,
  );
  const set = (frame: unknown) => session.setFrame(frame);
  const pick = (how: 'feature' | 'points') => session.update((s) => ({ ...s, picking: { how, points: [] } }));
  const { picking } = statement;
  const words = wordBlank(blank, statement.typed[id], document);
  const shown = picking
    ? picking.how === 'feature'
      ? 'pick an edge or a face…'
      : `pick point ${picking.points.length + 1} of 3…`
    : kept === 'view'
      ? `View (${words})`
      : words;
  const options: Option[] = [
    { key: 'world', words: 'World', choose: () => set('world'), isChosen: kept === 'world' },
    { key: 'view', words: 'View: the one you work in', choose: () => set('view'), isChosen: kept === 'view' },
    { key: 'own', words: 'Own: the part’s', choose: () => set('own'), isChosen: kept === 'own' },
    { key: 'feature', words: 'Picked: a face, an edge or an axis…', choose: () => pick('feature') },
    { key: 'points', words: 'Picked: three points…', choose: () => pick('points') },
  ];
  return <PickList {...props} shown={shown} options={options} />;
}

/** A direction by its axis, or picked. */
export function DirectionField(props: FieldProps) {
  const { id, blank, statement } = props;
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const value = statement.typed[id];
  const options: Option[] = ['x', 'y', 'z', '-x', '-y', '-z'].map((axis) => ({
    key: axis,
    words: axis.toUpperCase().replace('-', '−'),
    choose: () => session.setBlank(id, axis),
    isChosen: value === axis,
  }));
  options.push({
    key: 'view',
    words: 'Into the view, as it looks now',
    choose: () => {
      const view = session.activeView();
      if (view) session.setBlank(id, [...cameraOf(view, 1, 1).toward.map((n) => 0 - n)]);
    },
  });
  const isActive = isAt(statement.focus, { blank: id, axis: null });
  return (
    <PickList
      {...props}
      shown={`${wordBlank(blank, value, document)}${isActive ? ' (or pick)' : ''}`}
      options={options}
    />
  );
}

/** More docks than this are found by clicking or by typing. */
const MAX_OFFERED = 200;

/** A dock: clicked in the views, or chosen from the list, where the free ones come first. */
export function DockField(props: FieldProps) {
  const { id, blank, statement } = props;
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const places = usePlaces();
  const value = statement.typed[id];
  const now = dockIn(value, places);
  const taken = takenDocks(document);
  const offered = [...places]
    .sort((a, b) => Number(taken(a.end)) - Number(taken(b.end)))
    .slice(0, MAX_OFFERED);
  const options: Option[] = offered.map((place) => ({
    key: `${place.end.of} ${place.end.dock} ${place.end.member ?? ''}`,
    words: `${wordsOf(place, document)}${taken(place.end) ? ' (joined)' : ''}`,
    choose: () => session.setBlank(id, typedDock(place)),
    isChosen: place === now,
  }));
  if (options.length === 0)
    options.push({
      key: 'none',
      words: 'There are no docks yet: make one',
      choose: () => session.start('dock'),
    });
  const isEmpty = value === undefined || value === '';
  return (
    <PickList {...props} shown={isEmpty ? 'pick…' : wordBlank(blank, value, document)} options={options} />
  );
}

function usePlaces(): readonly DockPlace[] {
  const session = useSession();
  useSessionState((state) => state.built);
  return session.docksNow().places;
}

const wordsOf = ({ part, dock, end }: DockPlace, { items }: KadrelDocument): string =>
  `${items[part]?.name ?? ''}${end.member === undefined ? '' : ` ${end.member}`} · ${dock.name}`;
