/** Paper and scales. */

/** Width and height upright, mm. Source: ISO 216, A series. */
export const PAPER_SIZES = {
  a4: { words: 'A4', width: 210, height: 297 },
  a3: { words: 'A3', width: 297, height: 420 },
  a2: { words: 'A2', width: 420, height: 594 },
  a1: { words: 'A1', width: 594, height: 841 },
  a0: { words: 'A0', width: 841, height: 1189 },
} as const;
/** One of the sizes of ISO 216. */
export type PaperSize = keyof typeof PAPER_SIZES;

/** A paper, mm. */
export interface Paper {
  readonly width: number;
  readonly height: number;
}

/** Sizes to choose from, in words; any other one is told by its width and height. */
export const PAPER_CHOICES: Readonly<Record<string, string>> = {
  ...Object.fromEntries(Object.entries(PAPER_SIZES).map(([id, { words }]) => [id, words])),
  own: 'paper of its own size',
};

/** The usual size that a paper is of, whichever way it lies; undefined where it is of its own. */
export function paperSizeOf({ width, height }: Paper): PaperSize | undefined {
  const [short, long] = [Math.min(width, height), Math.max(width, height)];
  return (Object.keys(PAPER_SIZES) as PaperSize[]).find(
    (id) => PAPER_SIZES[id].width === short && PAPER_SIZES[id].height === long,
  );
}

/** What a sheet of paper is called: “A3”, or its size. */
export function paperWords(paper: Paper): string {
  const size = paperSizeOf(paper);
  return size ? PAPER_SIZES[size].words : `${paper.width} × ${paper.height}`;
}

/** From the rim of the paper to the frame, mm: more on the left, where sheets are filed. Source: ISO 5457, from memory. */
export const MARGINS = { left: 20, other: 10 } as const;

/** In the lower right corner of the frame, mm. Width by ISO 7200, height by common practice. */
export const TITLE_BLOCK = { width: 180, height: 36 } as const;

/** Enlargements and reductions that drawings keep to. Source: ISO 5455: 1, 2 and 5 times a power of ten. */
export const SCALES: readonly number[] = [
  50,
  20,
  10,
  5,
  2,
  1,
  ...[2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000].map((n) => 1 / n),
];

const MIN_SCALE = 1e-6;
const MAX_SCALE = 1e4;

/** `1:50` or `2:1` → mm on paper for one mm of the model; undefined for anything else. */
export function readScale(text: string): number | undefined {
  const found = /^\s*(\d+(?:\.\d+)?)\s*[:/]\s*(\d+(?:\.\d+)?)\s*$/.exec(text);
  if (!found) return undefined;
  const scale = Number(found[1]) / Number(found[2]);
  return scale >= MIN_SCALE && scale <= MAX_SCALE ? scale : undefined;
}

/** `1:50`, `2:1`. */
export function formatScale(scale: number): string {
  const short = (n: number) => String(Number(n.toPrecision(12)));
  return scale >= 1 ? `${short(scale)}:1` : `1:${short(1 / scale)}`;
}
