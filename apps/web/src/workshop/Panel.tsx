/** A panel at a button of the screen: a region of its own, that stands where there is room, and is never cut off. */
import { PopoverPanel } from '@headlessui/react';
import clsx from 'clsx';
import { useLayoutEffect, useRef, type CSSProperties, type ReactNode } from 'react';

/** Between the button and its panel, and between that and the rim of the window, px. */
const GAP_PX = 8;

interface PanelProps {
  readonly label: string;
  readonly className?: string;
  /** At most this share of the height of the window. */
  readonly share?: number;
  readonly children: ReactNode | ((bag: { close: () => void }) => ReactNode);
}

export function Panel({ label, className, share = 1, children }: PanelProps) {
  return (
    <PopoverPanel as="section" aria-label={label} className={clsx('menu fixed overflow-auto', className)}>
      {({ close }) => (
        <>
          <Placed share={share} />
          {typeof children === 'function' ? children({ close: () => close() }) : children}
        </>
      )}
    </PopoverPanel>
  );
}

/** Puts the panel that it stands in beside its button, and again when the window changes. */
function Placed({ share }: { share: number }) {
  const mark = useRef<HTMLSpanElement>(null);
  useLayoutEffect(() => {
    const place = () => {
      const panel = mark.current?.parentElement;
      const button = panel?.previousElementSibling;
      if (!panel || !button) return;
      const where = besideButton(button.getBoundingClientRect(), panel.offsetWidth);
      Object.assign(panel.style, { ...where, maxHeight: `min(${where.maxHeight}px, ${share * 100}vh)` });
    };
    place();
    window.addEventListener('resize', place);
    return () => window.removeEventListener('resize', place);
  }, [share]);
  return <span ref={mark} hidden />;
}

type Place = CSSProperties & { readonly maxHeight: number };

/** Above a button in the lower half of the window, below one in the upper half; never beyond its right rim. */
function besideButton({ left, top, bottom }: DOMRect, width: number): Place {
  const { innerWidth, innerHeight } = window;
  const x = Math.max(GAP_PX, Math.min(left, innerWidth - width - GAP_PX));
  return top > innerHeight / 2
    ? { left: `${x}px`, bottom: `${innerHeight - top + GAP_PX}px`, maxHeight: top - 2 * GAP_PX }
    : { left: `${x}px`, top: `${bottom + GAP_PX}px`, maxHeight: innerHeight - bottom - 2 * GAP_PX };
}
