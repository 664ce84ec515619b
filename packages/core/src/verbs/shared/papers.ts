/** The paper of a sheet, as statements say it. */
import { MAX_PAPER_MM } from '../../document/sheet.ts';
import { valueOf, type Num } from '../../recipes/numbers.ts';
import { PAPER_SIZES, type Paper, type PaperSize } from '../../sheets/paper.ts';
import { optional, refuse, type Refusal } from '../../statement/declare.ts';

/** Smaller paper has no room for a frame, mm. */
const MIN_PAPER_MM = 40;

const ofOwnSize = { positive: true, paper: true, askedBy: ['paper', 'own'] } as const;

/** Of paper of its own size. */
export const OWN_PAPER = {
  width: optional('length', 'wide', 'Of paper of its own size: from left to right.', ofOwnSize),
  height: optional('length', 'high', 'Of paper of its own size: from below upwards.', ofOwnSize),
};

interface PaperSaid {
  readonly paper: string;
  /** Which way paper of a usual size lies. */
  readonly turned: string | undefined;
  readonly width: Num | undefined;
  readonly height: Num | undefined;
}

/** mm. A width or a height means paper of its own size. Refused where one of them is missing, too small or too large. */
export function paperSaid({ paper, turned, width, height }: PaperSaid): Paper | Refusal {
  if (isOwn({ paper, width, height })) return ownPaper(width, height);
  const size = PAPER_SIZES[paper as PaperSize];
  return turned === 'upright'
    ? { width: size.width, height: size.height }
    : { width: size.height, height: size.width };
}

/** Whether paper of its own size is said. */
export const isOwn = ({ paper, width, height }: Partial<Omit<PaperSaid, 'turned'>>): boolean =>
  paper === 'own' || width !== undefined || height !== undefined;

function ownPaper(width: Num | undefined, height: Num | undefined): Paper | Refusal {
  if (width === undefined) return refuse('missing.paper-side', { side: 'width' }, 'width');
  if (height === undefined) return refuse('missing.paper-side', { side: 'height' }, 'height');
  const paper = { width: valueOf(width), height: valueOf(height) };
  for (const side of ['width', 'height'] as const)
    if (paper[side] < MIN_PAPER_MM || paper[side] > MAX_PAPER_MM)
      return refuse('paper-size', { side, from: MIN_PAPER_MM, to: MAX_PAPER_MM }, side);
  return paper;
}
