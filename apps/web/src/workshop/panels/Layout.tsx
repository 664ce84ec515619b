/**
 * The three columns of the workshop and the panels of the left one: their borders can be dragged, and stay where they were
 * put. In a small window the side columns fold away, and open over the views.
 */
import clsx from 'clsx';
import { Fragment, useEffect, useState } from 'react';
import { Group, Panel, Separator, useDefaultLayout } from 'react-resizable-panels';
import { Afterwards } from '../../common/Afterwards.tsx';
import { useSessionState } from '../context.ts';
import { FitPanel } from '../fit/FitPanel.tsx';
import { RackPanel } from '../racks/RackPanel.tsx';
import { Spec } from '../Spec.tsx';
import { useRoom } from '../useRoom.ts';
import { PanelFrame } from './PanelFrame.tsx';
import { PANELS } from './index.ts';

/** A browser that keeps nothing has the usual sizes each time. */
const storage = {
  getItem: (key: string) => {
    try {
      return window.localStorage.getItem(key);
    } catch {
      return null;
    }
  },
  setItem: (key: string, value: string) => {
    try {
      window.localStorage.setItem(key, value);
    } catch {
      // Sizes are a convenience: without room for them nothing is lost.
    }
  },
};

const COLUMNS = ['left', 'views', 'right'];
const PANEL_IDS = PANELS.map(({ id }) => id);

/** The columns of the workshop round the views. */
export function Layout({ children }: { children: React.ReactNode }) {
  const columns = useDefaultLayout({ id: 'kadrel columns', panelIds: COLUMNS, storage });
  const isSmall = useRoom() === 'small';
  return (
    <div className="relative min-h-0">
      <Group className={clsx('h-full', isSmall && 'px-7')} orientation="horizontal" {...columns}>
        {!isSmall && (
          <Panel
            id="left"
            defaultSize="232px"
            minSize="160px"
            maxSize="40%"
            groupResizeBehavior="preserve-pixel-size"
          >
            <Afterwards>
              <LeftPanels />
            </Afterwards>
          </Panel>
        )}
        {!isSmall && <Separator className="panel-border w-px" title="Border of the parts" />}
        <Panel id="views" minSize="30%">
          {children}
        </Panel>
        {!isSmall && <Separator className="panel-border w-px" title="Border of the Spec" />}
        {!isSmall && (
          <Panel
            id="right"
            defaultSize="272px"
            minSize="220px"
            maxSize="40%"
            groupResizeBehavior="preserve-pixel-size"
          >
            <Afterwards>
              <RightSide />
            </Afterwards>
          </Panel>
        )}
      </Group>
      {isSmall && <FoldedSides />}
    </div>
  );
}

const SIDES = [
  { id: 'left', title: 'Parts', Body: LeftPanels },
  { id: 'right', title: 'Spec', Body: RightSide },
] as const;

/** Both sides as strips; one at a time opens over the views. */
function FoldedSides() {
  const [open, setOpen] = useState<'left' | 'right' | null>(null);
  const isFit = useSessionState(({ fit }) => fit.isOpen);
  const isRack = useSessionState((state) => state.isRackOpen);
  // The header opens the report and the racks, which are then to be seen.
  useEffect(() => {
    if (isFit || isRack) setOpen('right');
  }, [isFit, isRack]);
  return SIDES.map(({ id, title, Body }) => (
    <div
      key={id}
      className={clsx('absolute inset-y-0 z-20 flex', id === 'left' ? 'left-0' : 'right-0 flex-row-reverse')}
      onKeyDown={(event) => {
        if (event.key !== 'Escape' || open !== id || event.defaultPrevented) return;
        setOpen(null);
        event.stopPropagation();
      }}
    >
      <button
        type="button"
        aria-expanded={open === id}
        className={clsx(
          'h-full w-7 border-rule bg-paper font-semibold [writing-mode:vertical-rl] hover:bg-tint',
          id === 'left' ? 'rotate-180 border-l' : 'border-l',
          open === id && 'bg-tint text-plum',
        )}
        onClick={() => setOpen(open === id ? null : id)}
      >
        {id === 'right' && isFit ? 'Fit report' : id === 'right' && isRack ? 'Racks' : title}
      </button>
      {open === id && (
        <div className="h-full w-[min(288px,calc(100vw-64px))] border-r border-l border-rule shadow-lg">
          <Body />
        </div>
      )}
    </div>
  ));
}

/** The numbers of what is selected, how parts stand to one another, or the racks. */
function RightSide() {
  const isFit = useSessionState(({ fit }) => fit.isOpen);
  const isRack = useSessionState((state) => state.isRackOpen);
  if (isFit) return <FitPanel />;
  return isRack ? <RackPanel /> : <Spec />;
}

function LeftPanels() {
  const layout = useDefaultLayout({ id: 'kadrel panels', panelIds: PANEL_IDS, storage });
  return (
    <aside className="h-full bg-paper" aria-label="Parts, variables and ledger">
      <Group className="h-full" orientation="vertical" {...layout}>
        {PANELS.map((panel, i) => (
          <Fragment key={panel.id}>
            {i > 0 && <Separator className="panel-border h-px" title={`Border above ${panel.title}`} />}
            <PanelFrame panel={panel} />
          </Fragment>
        ))}
      </Group>
    </aside>
  );
}
