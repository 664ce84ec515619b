/** Prebuilt solids as a file: MessagePack (msgpack.org), with typed arrays as its extensions. */
import { ExtensionCodec, decode, encode } from '@msgpack/msgpack';
import type { PrebuiltSolids } from './prebuilt.ts';

/** By the number of the extension, from 1. Their numbers stand as in memory, the lowest byte first. */
const ARRAYS = [Float32Array, Float64Array, Uint32Array];

const codec = new ExtensionCodec();
ARRAYS.forEach((TypedArray, i) =>
  codec.register({
    type: i + 1,
    encode: (value) =>
      value instanceof TypedArray ? new Uint8Array(value.buffer, value.byteOffset, value.byteLength) : null,
    // Copied, since numbers cannot begin at any byte.
    decode: (bytes) => new TypedArray(Uint8Array.from(bytes).buffer),
  }),
);

export const writePrebuilt = (solids: PrebuiltSolids): Uint8Array =>
  encode(solids, { extensionCodec: codec, ignoreUndefined: true });

/** Throws RangeError and DecodeError where it is damaged. @param bytes as `writePrebuilt` has made them */
export const readPrebuilt = (bytes: Uint8Array): PrebuiltSolids =>
  decode(bytes, { extensionCodec: codec }) as PrebuiltSolids;
