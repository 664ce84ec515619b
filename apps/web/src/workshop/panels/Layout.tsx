/** The three columns of the workshop and the panels of the left one: their borders can be dragged, and stay where they were put. */
import { Fragment } from 'react';
import { Group, Panel, Separator, useDefaultLayout } from 'react-resizable-panels';
import { Spec } from '../Spec.tsx';
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

export function Layout({ children }: { children: React.ReactNode }) {
  const columns = useDefaultLayout({ id: 'kadrel columns', panelIds: COLUMNS, storage });
  return (
    <Group className="min-h-0" orientation="horizontal" {...columns}>
      <Panel
        id="left"
        defaultSize="232px"
        minSize="160px"
        maxSize="40%"
        groupResizeBehavior="preserve-pixel-size"
      >
        <LeftPanels />
      </Panel>
      <Separator className="panel-border w-px" title="Border of the parts" />
      <Panel id="views" minSize="30%">
        {children}
      </Panel>
      <Separator className="panel-border w-px" title="Border of the Spec" />
      <Panel
        id="right"
        defaultSize="272px"
        minSize="220px"
        maxSize="40%"
        groupResizeBehavior="preserve-pixel-size"
      >
        <Spec />
      </Panel>
    </Group>
  );
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
