/** The paper itself, as it is written to files. */
import type { Sheet, SheetPicture } from '@kadrel/core';
import clsx from 'clsx';
import { useRef } from 'react';
import type { Caught } from '../../session/onSheet.ts';
import { useSession, useSessionState } from '../context.ts';
import { CatchMark, PaperMarks } from './PaperMarks.tsx';
import { usePaperHand } from './usePaperHand.ts';
import { useZoom } from './useZoom.ts';

interface PaperProps {
  readonly sheet: Sheet;
  readonly picture: SheetPicture;
  readonly catches: readonly Caught[];
}

const KEYS =
  'Arrows go from point to point while a dimension is told, and the space bar takes one; else they move what is selected. Plus and minus zoom, Home shows all.';

export function Paper({ sheet, picture, catches }: PaperProps) {
  const session = useSession();
  const statement = useSessionState((state) => state.statement);
  const selected = useSessionState((state) => state.sheetEntry);
  const svg = useRef<SVGSVGElement>(null);
  const zoom = useZoom(svg, sheet.paper);
  const { isPicking, handlers } = usePaperHand({ session, sheet, statement, selected, catches, zoom, svg });
  return (
    <div
      role="application"
      aria-label={`Paper of ${sheet.name}`}
      aria-description={KEYS}
      tabIndex={0}
      data-testid="paper"
      className={clsx(
        'relative min-h-0 flex-1 touch-none overflow-hidden select-none',
        isPicking ? 'cursor-crosshair' : 'cursor-default',
      )}
      {...handlers}
    >
      <svg
        ref={svg}
        className="absolute bg-white shadow-md"
        viewBox={`0 0 ${sheet.paper.width} ${sheet.paper.height}`}
        aria-hidden
      >
        <PaperMarks picture={picture} selected={selected} />
        <g className="pointer-events-none opacity-60" data-preview />
        <CatchMark />
      </svg>
    </div>
  );
}
