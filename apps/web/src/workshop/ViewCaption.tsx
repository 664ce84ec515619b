import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import {
  cuttersOf,
  formatLengthWithUnit,
  mmPerPixel,
  verbNamed,
  wordBlank,
  type SectionView,
} from '@kadrel/core';
import { useEffect, useRef, useState } from 'react';
import type { Pane } from '../viewport/pane.ts';
import { shownGridStep } from '../viewport/grid.ts';
import type { Display } from '../viewport/picture.ts';
import { STANDARD_VIEWS, viewName } from '../viewport/standard.ts';
import { fitView, look } from '../viewport/viewing.ts';
import { useSession, useSessionState } from './context.ts';

const DISPLAY_WORDS: Readonly<Record<Display, string>> = {
  edges: 'shaded, edges',
  shaded: 'shaded',
  facing: 'shaded, facing',
  wire: 'wire',
};

/** The plane that is drawn on, as every view names it. */
function usePlaneWords(): string {
  const document = useSessionState((state) => state.document);
  const plane = useSessionState((state) => state.plane);
  return wordBlank(verbNamed('traverse')!.blanks.on!, plane, document);
}

/** The section planes that cut in a view, by their names, and how many do not, though they should. */
function useCutWords(view: SectionView): string {
  const document = useSessionState((state) => state.document);
  const { cutting, leftOut } = cuttersOf(document, view);
  if (cutting.length === 0) return '';
  const more = leftOut.length === 0 ? '' : ` (${leftOut.length} more cannot be shown at once)`;
  return ` · cut by ${cutting.map(({ name }) => name).join(', ')}${more}`;
}

interface CaptionProps {
  readonly pane: Pane;
  readonly isFour: boolean;
  readonly toggle: () => void;
}

/** The name of the view and how it is shown; opens the view's menu. A double click fills the area, and back. */
export function ViewCaption({ pane, isFour, toggle }: CaptionProps) {
  const scene = useSessionState((state) => state.document.scene);
  const plane = usePlaneWords();
  const cutBy = useCutWords(pane.name);
  const name = useRef<HTMLElement>(null);
  const grid = useRef<HTMLSpanElement>(null);
  const [display, setDisplay] = useState<Display>(pane.display);
  const [projection, setProjection] = useState(pane.travel.view.projection);
  useEffect(
    () =>
      pane.onCamera((camera) => {
        if (name.current) name.current.textContent = viewName(camera.state) ?? 'View';
        if (grid.current)
          grid.current.textContent = `grid ${formatLengthWithUnit(shownGridStep(scene.grid, mmPerPixel(camera)), { ...scene, trailingZeros: false })}`;
        setProjection(camera.state.projection);
      }),
    [pane, scene],
  );
  return (
    <>
      <div
        className="absolute top-1.5 left-1.5"
        data-caption
        onDoubleClick={() => {
          pane.stage.panes.activate(pane);
          toggle();
        }}
      >
        <Menu>
          <MenuButton className="quiet inline-flex items-baseline gap-1.5">
            <b ref={name} className="font-semibold" />
            <small className="text-[11px] text-ink2">
              {projection} · {DISPLAY_WORDS[display]} · draws on {plane}
              {cutBy}
            </small>
          </MenuButton>
          <ViewMenu {...{ pane, isFour, toggle, projection, display, setDisplay }} />
        </Menu>
      </div>
      {display === 'facing' && (
        <p className="pointer-events-none absolute top-9 left-3.5 flex items-center gap-1.5 text-[11px] text-ink2">
          <span className="size-2.5 rounded-xs bg-[#1f7a78]" aria-hidden />
          teal is the inside; the outside has the part’s colour
        </p>
      )}
      <span ref={grid} className="pointer-events-none absolute right-24 bottom-3 text-[11px] text-ink2" />
    </>
  );
}

interface MenuProps extends CaptionProps {
  readonly projection: string;
  readonly display: Display;
  readonly setDisplay: (display: Display) => void;
}

function ViewMenu({ pane, isFour, toggle, projection, display, setDisplay }: MenuProps) {
  const session = useSession();
  const views = useSessionState((state) => state.document.views);
  const isOn = (chosen?: Display) => chosen !== undefined && chosen === display;
  const item = (words: string, work: () => void, chosen?: Display) => (
    <MenuItem key={words}>
      <button
        type="button"
        className="menu-item"
        onClick={() => {
          pane.stage.panes.activate(pane);
          work();
        }}
      >
        <span className="w-3 text-plum" aria-hidden>
          {isOn(chosen) ? '•' : ''}
        </span>
        {words}
        {isOn(chosen) && <span className="sr-only">, chosen</span>}
      </button>
    </MenuItem>
  );
  const kept = Object.entries(views).sort(([a], [b]) => a.localeCompare(b));
  const rule = <div className="my-1 border-t border-rule" />;
  return (
    <MenuItems
      modal={false}
      anchor={{ to: 'bottom start', gap: 4 }}
      className="menu max-h-[80vh] w-52 overflow-auto"
    >
      {STANDARD_VIEWS.map((view) => item(view.name, () => look(pane, view)))}
      {rule}
      {kept.map(([key, view]) => item(`“${key}”`, () => pane.travel.go(view)))}
      {item('Keep this view…', () => session.start('keep-view', { view: pane.travel.view }))}
      {rule}
      {(Object.keys(DISPLAY_WORDS) as Display[]).map((key) =>
        item(
          DISPLAY_WORDS[key],
          () => {
            setDisplay(key);
            pane.display = key;
            pane.invalidate();
          },
          key,
        ),
      )}
      {rule}
      {item(projection === 'perspective' ? 'parallel' : 'perspective', () =>
        pane.travel.go({
          ...pane.travel.view,
          projection: projection === 'perspective' ? 'parallel' : 'perspective',
        }),
      )}
      {item(isFour ? 'Only this view' : 'Four views', toggle)}
      {item('Fit to the selection', () => fitView(pane, 'selection'))}
      {item('Fit to everything', () => fitView(pane, 'all'))}
      {item('Previous view', () => pane.travel.back())}
      {item('Next view', () => pane.travel.forth())}
    </MenuItems>
  );
}
