/** Dragging something out of a panel into the views. */
import { useEffect, useRef, type PointerEvent } from 'react';
import { CLICK_PX } from '../../viewport/situation.ts';
import { useSession } from '../context.ts';

/** What a row must listen to so that it can be dragged out: once it moves, `take` begins the statement that the views then fill. */
export function useDragOut(take: () => void) {
  const session = useSession();
  const end = useRef<(() => void) | null>(null);
  useEffect(() => () => end.current?.(), []);
  function onPointerDown(event: PointerEvent<HTMLElement>): void {
    if (event.button !== 0) return;
    const { clientX, clientY, currentTarget } = event;
    const stop = new AbortController();
    // The row may go while it is dragged.
    end.current = () => {
      stop.abort();
      session.set({ isCarrying: false });
    };
    const move = (now: globalThis.PointerEvent) => {
      const isFar = Math.hypot(now.clientX - clientX, now.clientY - clientY) >= CLICK_PX;
      if (!isFar || session.store.getState().isCarrying) return;
      session.set({ isCarrying: true });
      take();
    };
    const up = ({ target }: globalThis.PointerEvent) => {
      stop.abort();
      end.current = null;
      if (!session.store.getState().isCarrying) return;
      session.set({ isCarrying: false });
      // Let go where no view is: nothing is taken. On its own row it is as good as a click.
      const isOnRow = target instanceof Node && currentTarget.contains(target);
      const isInView = target instanceof Element && target.closest('[data-pane]') !== null;
      if (!isOnRow && !isInView) session.leave();
    };
    window.addEventListener('pointermove', move, { signal: stop.signal });
    window.addEventListener('pointerup', up, { signal: stop.signal });
    window.addEventListener('pointercancel', up, { signal: stop.signal });
    // A finger would keep what follows for itself.
    if (event.currentTarget.hasPointerCapture(event.pointerId))
      event.currentTarget.releasePointerCapture(event.pointerId);
  }
  return { onPointerDown, onDragStart: (event: React.DragEvent) => event.preventDefault() };
}
