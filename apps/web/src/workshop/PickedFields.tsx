/** The fields of frames and directions: chosen from a list, or picked in the views. */
import { cameraOf, wordBlank } from '@kadrel/core';
import { isFramed } from '../session/frames.ts';
import { useSession, useSessionState } from './context.ts';
import { PickList, isAt, type FieldProps, type Option } from './PickList.tsx';

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
