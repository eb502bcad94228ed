/**
 * Two 32-bit lanes of multiply-and-rotate mixing over all words written to it: fast, and the same on every
 * little-endian machine, which all that run Node or a browser are. For telling worlds apart, not for secrets.
 */
export class Hasher {
  private a = 0x243f6a88;
  private b = 0x85a308d3;

  word(value: number): void {
    this.a = Math.imul(this.a ^ value, 0x9e3779b1);
    this.a = (this.a << 13) | (this.a >>> 19);
    this.b = Math.imul(this.b + value, 0x85ebca6b) ^ this.a;
    this.b = (this.b << 17) | (this.b >>> 15);
  }

  numbers(values: Float64Array | Int32Array | Uint8Array, length: number): void {
    if (values instanceof Float64Array) {
      const words = new Int32Array(values.buffer, values.byteOffset, length * 2);
      for (let i = 0; i < words.length; i++) this.word(words[i]);
    } else for (let i = 0; i < length; i++) this.word(values[i]);
  }

  text(value: string): void {
    this.word(value.length);
    for (let i = 0; i < value.length; i++) this.word(value.charCodeAt(i));
  }

  /** 16 hexadecimal digits. */
  digest(): string {
    return hex(finish(this.a ^ this.b)) + hex(finish(this.b));
  }
}

function finish(value: number): number {
  let v = value ^ (value >>> 16);
  v = Math.imul(v, 0x85ebca6b);
  v ^= v >>> 13;
  v = Math.imul(v, 0xc2b2ae35);
  return v ^ (v >>> 16);
}

const hex = (value: number) => (value >>> 0).toString(16).padStart(8, '0');

/** A 32-bit number for a text, for use as the purpose of a roll. */
export function hashText(text: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return finish(h);
}

/**
 * The random number of (seed, purpose, whose, how manieth): from 0 (included) to 1 (excluded), 53 bits. A function of its
 * arguments alone, so that a roll added in one place changes no other.
 */
export function rollOf(seed: number, purpose: number, whose: number, nth: number): number {
  return rollOfStream(streamOf(seed, purpose, whose), nth);
}

/** What all rolls of one purpose and owner have in common, so that who rolls often mixes it once: a 32-bit number. */
export function streamOf(seed: number, purpose: number, whose: number): number {
  const h = finish(finish(seed ^ 0x9e3779b9) ^ purpose);
  return Math.imul(finish(Math.imul(h, 0x9e3779b1) + whose), 0x85ebca6b);
}

/** The nth random number of a stream. */
export function rollOfStream(stream: number, nth: number): number {
  const h = finish(stream + nth);
  const high = h >>> 5;
  const low = finish(h ^ 0x2545f491) >>> 6;
  return (high * 67108864 + low) / 9007199254740992;
}
