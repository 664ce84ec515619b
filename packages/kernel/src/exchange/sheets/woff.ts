/** A WOFF file → the plain font that it holds. Source: W3C, WOFF File Format 1.0. */
import { unzlibSync } from 'fflate';

const WOFF_HEADER = 44;
const WOFF_ENTRY = 20;
const FONT_HEADER = 12;
const FONT_ENTRY = 16;

interface Table {
  readonly tag: number;
  readonly checksum: number;
  readonly data: Uint8Array;
}

/** The tables of the font, unpacked. */
export function plainFont(woff: Uint8Array): Uint8Array {
  const view = new DataView(woff.buffer, woff.byteOffset, woff.byteLength);
  const count = view.getUint16(12);
  const tables = Array.from({ length: count }, (_, i) => tableAt(woff, view, WOFF_HEADER + WOFF_ENTRY * i));
  const start = FONT_HEADER + FONT_ENTRY * count;
  const font = new Uint8Array(tables.reduce((sum, { data }) => sum + padded(data.length), start));
  writeHeader(new DataView(font.buffer), view.getUint32(4), count);
  let at = start;
  tables.forEach(({ tag, checksum, data }, i) => {
    const entry = new DataView(font.buffer, FONT_HEADER + FONT_ENTRY * i);
    [tag, checksum, at, data.length].forEach((value, k) => entry.setUint32(4 * k, value));
    font.set(data, at);
    at += padded(data.length);
  });
  return font;
}

/** Tables begin at whole words. */
const padded = (length: number) => Math.ceil(length / 4) * 4;

function tableAt(woff: Uint8Array, view: DataView, entry: number): Table {
  const [tag, offset, packed, length, checksum] = [0, 4, 8, 12, 16].map((at) =>
    view.getUint32(entry + at),
  ) as [number, number, number, number, number];
  const raw = woff.subarray(offset, offset + packed);
  return { tag, checksum, data: packed < length ? unzlibSync(raw) : raw };
}

/** How many tables there are, and the powers of two that readers search them by. */
function writeHeader(view: DataView, flavour: number, count: number): void {
  const exponent = Math.floor(Math.log2(count));
  const range = FONT_ENTRY * 2 ** exponent;
  view.setUint32(0, flavour);
  [count, range, exponent, FONT_ENTRY * count - range].forEach((value, i) =>
    view.setUint16(4 + 2 * i, value),
  );
}
