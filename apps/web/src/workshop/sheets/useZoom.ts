/** How large the paper is shown, and where. */
import type { Paper, Vec2 } from '@kadrel/core';
import { useEffect, useLayoutEffect, useMemo, useRef, type RefObject } from 'react';

/** Room round the paper when all of it is shown, px. */
const RIM_PX = 16;
const MIN_PX_PER_MM = 0.2;
const MAX_PX_PER_MM = 80;

interface Shown {
  readonly pixelsPerMm: number;
  /** Upper left corner of the paper in its area, px. */
  readonly corner: Vec2;
}

/** Moved by hand, never by React. */
export interface Zoom {
  readonly pixelsPerMm: () => number;
  /** On the paper, mm, from a pixel of the page. */
  readonly placeOf: (pixel: Vec2) => Vec2;
  readonly shift: (by: Vec2) => void;
  readonly by: (factor: number) => void;
  readonly fit: () => void;
}

/** @param sheet the drawing within its area */
export function useZoom(sheet: RefObject<SVGSVGElement | null>, paper: Paper): Zoom {
  const shown = useRef<Shown>({ pixelsPerMm: 1, corner: [0, 0] });
  const zoom = useMemo(() => zoomOf(sheet, paper, shown), [sheet, paper]);
  useLayoutEffect(() => zoom.fit(), [zoom]);
  useEffect(() => {
    const area = sheet.current?.parentElement;
    if (!area) return;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const { left, top } = area.getBoundingClientRect();
      zoom.about([event.clientX - left, event.clientY - top], Math.exp(-event.deltaY / 400));
    };
    area.addEventListener('wheel', onWheel, { passive: false });
    return () => area.removeEventListener('wheel', onWheel);
  }, [sheet, zoom]);
  return zoom;
}

function zoomOf(sheet: RefObject<SVGSVGElement | null>, paper: Paper, shown: { current: Shown }) {
  const area = () => sheet.current!.parentElement!;
  const show = (next: Shown) => {
    shown.current = next;
    const { style } = sheet.current!;
    style.width = `${paper.width * next.pixelsPerMm}px`;
    style.height = `${paper.height * next.pixelsPerMm}px`;
    style.transform = `translate(${next.corner[0]}px, ${next.corner[1]}px)`;
  };
  const about = (at: Vec2, factor: number) => show(zoomed(shown.current, at, factor));
  return {
    about,
    pixelsPerMm: () => shown.current.pixelsPerMm,
    placeOf: ([x, y]: Vec2): Vec2 => {
      const { left, top } = area().getBoundingClientRect();
      const { pixelsPerMm, corner } = shown.current;
      return [(x - left - corner[0]) / pixelsPerMm, paper.height - (y - top - corner[1]) / pixelsPerMm];
    },
    shift: ([x, y]: Vec2) => {
      const { pixelsPerMm, corner } = shown.current;
      show({ pixelsPerMm, corner: [corner[0] + x, corner[1] + y] });
    },
    by: (factor: number) => about([area().clientWidth / 2, area().clientHeight / 2], factor),
    fit: () => show(wholePaper(area(), paper)),
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
