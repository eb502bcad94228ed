/**
 * MessagePack put together from values that are packed already: what is the same again is not packed again.
 *
 * Source of the codes: the MessagePack specification, format overview.
 */
import { encode } from '@msgpack/msgpack';

const pack = (value: unknown) => encode(value, { ignoreUndefined: true });

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const bytes = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return bytes;
}

/** The head of so many values or pairs: one byte for fewer than 16, otherwise a code and the number in 2 or 4 bytes. */
function head(count: number, few: number, code: number): Uint8Array {
  if (count < 16) return Uint8Array.of(few | count);
  if (count < 0x10000) return Uint8Array.of(code, count >> 8, count & 0xff);
  return Uint8Array.of(code + 1, count >>> 24, (count >> 16) & 0xff, (count >> 8) & 0xff, count & 0xff);
}

/** A list of packed values. */
export const packedList = (values: readonly Uint8Array[]): Uint8Array => joined([head(values.length, 0x90, 0xdc), ...values]);

/** A map from names to packed values. */
export const packedMap = (pairs: readonly (readonly [name: string, value: Uint8Array])[]): Uint8Array =>
  joined([head(pairs.length, 0x80, 0xde), ...pairs.flatMap(([name, value]) => [pack(name), value])]);

export { pack as packed };
