/** A panel of the workshop: its title folds it away, and its lower border can be dragged. */
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Panel, usePanelRef } from 'react-resizable-panels';
import type { Session } from '../../session/store.ts';
import { useSession, useSessionState } from '../context.ts';
import type { PanelDeclaration } from './index.ts';

/** Of a title, px: what is left of a folded panel. */
const TITLE_PX = 32;
const MIN_PX = 84;

/** The frame of a panel. */
export function PanelFrame({
  panel: { id, title, count, faults, share, isFoldedWhenEmpty, Body },
}: {
  panel: PanelDeclaration;
}) {
  const panel = usePanelRef();
  const held = useSessionState(count);
  const isFolded = isFoldedWhenEmpty === true && held === 0;
  const [isOpen, setIsOpen] = useState(!isFolded);
  const heldBefore = useRef(held);
  // What first comes into it is to be seen.
  useEffect(() => {
    if (isFoldedWhenEmpty && heldBefore.current === 0 && held > 0) panel.current?.expand();
    heldBefore.current = held;
  }, [isFoldedWhenEmpty, held, panel]);
  const toggle = () => (isOpen ? panel.current?.collapse() : panel.current?.expand());
  return (
    <Panel
      id={id}
      panelRef={panel}
      collapsible
      collapsedSize={`${TITLE_PX}px`}
      minSize={`${MIN_PX}px`}
      defaultSize={isFolded ? `${TITLE_PX}px` : `${share}%`}
      onResize={({ inPixels }) => setIsOpen(inPixels > TITLE_PX + 1)}
    >
      <section className="flex h-full flex-col overflow-hidden" aria-label={title}>
        <h2>
          <button type="button" className="panel-title w-full" aria-expanded={isOpen} onClick={toggle}>
            <span className="inline-flex items-center gap-1">
              {title} {isOpen ? <ChevronDown size={12} /> : <ChevronRight size={12} />}
            </span>
            <span className="num font-normal">
              {faults && <Faults of={faults} />} {held}
            </span>
          </button>
        </h2>
        {isOpen && <Body />}
      </section>
    </Panel>
  );
}

/** How many things in a panel are wrong, where any are. */
function Faults({ of }: { readonly of: (session: Session) => number }) {
  const session = useSession();
  useSessionState((state) => state.document);
  useSessionState((state) => state.built);
  useSessionState((state) => state.fit.report);
  const faults = of(session);
  if (faults === 0) return null;
  return (
    <span className="num rounded-full bg-bad px-1.5 text-[11px] font-semibold text-ground">
      {faults}
      <span className="sr-only"> {faults === 1 ? 'fault' : 'faults'}</span>
    </span>
  );
}
