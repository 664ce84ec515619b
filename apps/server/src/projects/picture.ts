import { crc32, inflateSync } from 'node:zlib';
import { HttpStatus } from '@nestjs/common';
import { Problem } from '../common/problem.ts';

const MAX_BYTES = 2_000_000;
/** Wide enough for the card of a project on any screen. */
const MAX_SIDE = 2048;
const SIGNATURE = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
/** Bits of one pixel by colour type. Source: Portable Network Graphics (PNG) Specification, W3C, 11.2.1. */
const SAMPLES: Readonly<Record<number, number>> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };

/** The bytes of a whole PNG of the size that it states. Throws a Problem for anything else. @param body as it came */
export function pictureIn(body: unknown): Buffer {
  if (!(body instanceof Uint8Array)) throw new Problem(HttpStatus.UNSUPPORTED_MEDIA_TYPE, NO_PICTURE);
  // A thread gets the bytes without what makes them a buffer.
  const bytes = Buffer.from(body.buffer, body.byteOffset, body.byteLength);
  if (!bytes.subarray(0, 8).equals(SIGNATURE))
    throw new Problem(HttpStatus.UNSUPPORTED_MEDIA_TYPE, NO_PICTURE);
  if (bytes.length > MAX_BYTES) throw new Problem(HttpStatus.PAYLOAD_TOO_LARGE, 'A picture is at most 2 MB.');
  if (!isWhole(bytes)) throw new Problem(HttpStatus.UNPROCESSABLE_ENTITY, DAMAGED);
  return bytes;
}
const NO_PICTURE = 'A picture is a PNG file.';
const DAMAGED = `This picture is damaged, or larger than ${MAX_SIDE} by ${MAX_SIDE}.`;

interface Chunk {
  readonly type: string;
  readonly data: Buffer;
}

/** Chunks with right checksums from the header to the end, and pixels as many as the header says. */
function isWhole(bytes: Buffer): boolean {
  const chunks = chunksOf(bytes);
  const [header] = chunks ?? [];
  if (!chunks || header?.type !== 'IHDR' || chunks.at(-1)?.type !== 'IEND') return false;
  const length = pixelBytes(header.data);
  if (length === undefined) return false;
  const packed = Buffer.concat(chunks.filter(({ type }) => type === 'IDAT').map(({ data }) => data));
  try {
    return inflateSync(packed, { maxOutputLength: length + 1 }).length === length;
  } catch {
    // Not packed as it should be, or more than it says.
    return false;
  }
}

/** Undefined where a chunk is cut off or its checksum is wrong, or something follows the end. */
function chunksOf(bytes: Buffer): Chunk[] | undefined {
  const chunks: Chunk[] = [];
  let at = SIGNATURE.length;
  while (at + 12 <= bytes.length) {
    const length = bytes.readUInt32BE(at);
    const end = at + 12 + length;
    if (end > bytes.length || crc32(bytes.subarray(at + 4, end - 4)) !== bytes.readUInt32BE(end - 4))
      return undefined;
    chunks.push({ type: bytes.toString('latin1', at + 4, at + 8), data: bytes.subarray(at + 8, end - 4) });
    at = end;
  }
  return at === bytes.length ? chunks : undefined;
}

/** How many bytes the unpacked rows have; undefined for sizes and kinds that are not taken. */
function pixelBytes(header: Buffer): number | undefined {
  if (header.length !== 13) return undefined;
  const [width, height] = [header.readUInt32BE(0), header.readUInt32BE(4)];
  const [depth, colour, , , interlace] = [...header.subarray(8)] as [number, number, number, number, number];
  const samples = SAMPLES[colour];
  const isSize = [width, height].every((side) => side > 0 && side <= MAX_SIDE);
  if (!isSize || samples === undefined || ![1, 2, 4, 8, 16].includes(depth) || interlace !== 0)
    return undefined;
  return height * (1 + Math.ceil((width * samples * depth) / 8));
}
