/** How large the paper is shown, and where. */
import type { Paper, Vec2 } from '@kadrel/core';
import { useEffect, useLayoutEffect, useState, type CSSProperties, type RefObject } from 'react';

/** Room round the paper when all of it is shown, px. */
const RIM_PX = 16;
const MIN_PX_PER_MM = 0.2;
const MAX_PX_PER_MM = 80;

interface Shown {
  readonly pixelsPerMm: number;
  /** Upper left corner of the paper in its area, px. */
  readonly corner: Vec2;
}

export interface Zoom {
  readonly pixelsPerMm: number;
  readonly style: CSSProperties;
  /** On the paper, mm, from a pixel of the page. */
  placeOf(pixel: Vec2): Vec2;
  shift(by: Vec2): void;
  by(factor: number): void;
  fit(): void;
}

export function useZoom(host: RefObject<HTMLDivElement | null>, paper: Paper): Zoom {
  const [shown, setShown] = useState<Shown>({ pixelsPerMm: 1, corner: [0, 0] });
  const fit = () => {
    if (host.current) setShown(wholePaper(host.current, paper));
  };
  // eslint-disable-next-line react-hooks/exhaustive-deps -- whenever the paper is another
  useLayoutEffect(fit, [paper.width, paper.height]);
  useEffect(() => {
    const area = host.current;
    if (!area) return;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const { left, top } = area.getBoundingClientRect();
      const at: Vec2 = [event.clientX - left, event.clientY - top];
      setShown((before) => zoomed(before, at, Math.exp(-event.deltaY / 400)));
    };
    area.addEventListener('wheel', onWheel, { passive: false });
    return () => area.removeEventListener('wheel', onWheel);
  }, [host]);
  const { pixelsPerMm, corner } = shown;
  return {
    pixelsPerMm,
    style: {
      width: paper.width * pixelsPerMm,
      height: paper.height * pixelsPerMm,
      transform: `translate(${corner[0]}px, ${corner[1]}px)`,
    },
    placeOf([x, y]) {
      const { left, top } = host.current!.getBoundingClientRect();
      return [(x - left - corner[0]) / pixelsPerMm, paper.height - (y - top - corner[1]) / pixelsPerMm];
    },
    shift: ([x, y]) =>
      setShown((before) => ({ ...before, corner: [before.corner[0] + x, before.corner[1] + y] })),
    by(factor) {
      const { clientWidth, clientHeight } = host.current!;
      setShown((before) => zoomed(before, [clientWidth / 2, clientHeight / 2], factor));
    },
    fit,
  };
}

function wholePaper({ clientWidth, clientHeight }: HTMLElement, { width, height }: Paper): Shown {
  const pixelsPerMm = Math.max(
    MIN_PX_PER_MM,
    Math.min((clientWidth - 2 * RIM_PX) / width, (clientHeight - 2 * RIM_PX) / height),
  );
  return {
    pixelsPerMm,
    corner: [(clientWidth - width * pixelsPerMm) / 2, (clientHeight - height * pixelsPerMm) / 2],
  };
}

function zoomed({ pixelsPerMm, corner }: Shown, at: Vec2, factor: number): Shown {
  const next = Math.min(MAX_PX_PER_MM, Math.max(MIN_PX_PER_MM, pixelsPerMm * factor));
  const by = next / pixelsPerMm;
  return { pixelsPerMm: next, corner: [at[0] - (at[0] - corner[0]) * by, at[1] - (at[1] - corner[1]) * by] };
}
