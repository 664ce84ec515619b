import { crc32, deflateSync } from 'node:zlib';
import { Problem } from '../common/problem.ts';
import { pictureIn } from './picture.ts';

const chunk = (type: string, data: Buffer): Buffer => {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const ends = Buffer.alloc(8);
  ends.writeUInt32BE(data.length, 0);
  ends.writeUInt32BE(crc32(body), 4);
  return Buffer.concat([ends.subarray(0, 4), body, ends.subarray(4)]);
};

/** Grey, of a size, with so many rows. */
function png(width: number, height: number, rows = height): Buffer {
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header[8] = 8;
  const pixels = deflateSync(Buffer.alloc(rows * (width + 1)));
  const signature = Buffer.from('89504e470d0a1a0a', 'hex');
  return Buffer.concat([
    signature,
    chunk('IHDR', header),
    chunk('IDAT', pixels),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

const flipped = (bytes: Buffer, at: number) => {
  const copy = Buffer.from(bytes);
  copy[at]! ^= 1;
  return copy;
};

test('a whole picture is taken', () => {
  expect(pictureIn(png(30, 20))).toEqual(png(30, 20));
});

test.each([
  ['text', Buffer.from('hello'), 415],
  ['nothing', undefined, 415],
  ['the first bytes alone', Buffer.from('89504e470d0a1a0a', 'hex'), 422],
  ['cut off', png(30, 20).subarray(0, -5), 422],
  ['followed by something', Buffer.concat([png(30, 20), Buffer.from('<script>')]), 422],
  ['with a bit flipped', flipped(png(30, 20), 45), 422],
  ['with fewer rows than it says', png(30, 20, 19), 422],
  ['that unpacks to more than it says', png(30, 20, 5000), 422],
  ['too wide', png(4000, 2), 422],
  ['too many bytes', Buffer.concat([png(2, 2), Buffer.alloc(2_000_000)]), 413],
])('a picture %s is not', (_, bytes, status) => {
  let refusal: unknown;
  try {
    pictureIn(bytes);
  } catch (error) {
    refusal = error;
  }
  expect(refusal).toBeInstanceOf(Problem);
  expect((refusal as Problem).getStatus()).toBe(status);
});
