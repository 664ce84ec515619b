import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { formatLengthWithUnit, mmPerPixel } from '@kadrel/core';
import { useEffect, useRef, useState } from 'react';
import type { Display } from '../session/store.ts';
import { shownGridStep } from '../viewport/picture.ts';
import { STANDARD_VIEWS, viewName } from '../viewport/view.ts';
import type { Viewport } from '../viewport/viewport.ts';
import { useSession, useSessionState } from './context.ts';

const DISPLAY_WORDS: Readonly<Record<Display, string>> = {
  edges: 'shaded, edges',
  shaded: 'shaded',
  wire: 'wire',
};

/** The name of the view and how it is shown; opens the view's menu. */
export function ViewCaption({ viewport }: { viewport: Viewport }) {
  const session = useSession();
  const display = useSessionState((state) => state.display);
  const scene = useSessionState((state) => state.document.scene);
  const name = useRef<HTMLElement>(null);
  const grid = useRef<HTMLSpanElement>(null);
  const [projection, setProjection] = useState(viewport.view.projection);
  useEffect(
    () =>
      viewport.onCamera((camera) => {
        if (name.current) name.current.textContent = viewName(camera.state) ?? 'View';
        if (grid.current)
          grid.current.textContent = `grid ${formatLengthWithUnit(shownGridStep(scene.grid, mmPerPixel(camera)), { ...scene, trailingZeros: false })}`;
      }),
    [viewport, scene],
  );
  const project = () => {
    const next = projection === 'perspective' ? 'parallel' : 'perspective';
    setProjection(next);
    viewport.setProjection(next);
  };
  const item = (key: string, words: string, work: () => void, isOn = false) => (
    <MenuItem key={key}>
      <button type="button" className="menu-item" onClick={work}>
        <span className="w-3 text-plum" aria-hidden>
          {isOn ? '•' : ''}
        </span>
        {words}
        {isOn && <span className="sr-only">, chosen</span>}
      </button>
    </MenuItem>
  );
  return (
    <>
      <div className="absolute top-1.5 left-1.5" onPointerDown={(event) => event.stopPropagation()}>
        <Menu>
          <MenuButton className="quiet inline-flex items-baseline gap-1.5">
            <b ref={name} className="font-semibold" />
            <small className="text-[11px] text-ink2">
              {projection} · {DISPLAY_WORDS[display]}
            </small>
          </MenuButton>
          <MenuItems anchor={{ to: 'bottom start', gap: 4 }} className="menu w-48">
            {STANDARD_VIEWS.map((view) => item(view.name, view.name, () => viewport.look(view)))}
            <div className="my-1 border-t border-rule" />
            {(Object.keys(DISPLAY_WORDS) as Display[]).map((key) =>
              item(key, DISPLAY_WORDS[key], () => session.set({ display: key }), display === key),
            )}
            <div className="my-1 border-t border-rule" />
            {item('projection', projection === 'perspective' ? 'parallel' : 'perspective', project)}
            {item('fit', 'Fit to the selection', () => viewport.fit('selection'))}
            {item('all', 'Fit to everything', () => viewport.fit('all'))}
            {item('previous', 'Previous view', () => viewport.previousView())}
          </MenuItems>
        </Menu>
      </div>
      <span ref={grid} className="pointer-events-none absolute right-24 bottom-3 text-[11px] text-ink2" />
    </>
  );
}
