/**
 * Four 32-bit lanes, each of which takes every fourth of the words written: multiplied and folded, which no two words do alike
 * to one lane. Fast, and the same on every little-endian machine, which all that run Node or a browser are. For telling worlds
 * apart, not for secrets.
 */
export class Hasher {
  private a = 0x243f6a88;
  private b = 0x85a308d3;
  private c = 0x13198a2e;
  private d = 0x03707344;

  word(value: number): void {
    const mixed = Math.imul(this.a ^ value, 0x9e3779b1);
    this.a = mixed ^ (mixed >>> 15);
  }

  /**
   * Words of a list, from one on.
   * @param count a multiple of four
   */
  words(values: Int32Array, from: number, count: number): void {
    let { a, b, c, d } = this;
    for (let i = from, end = from + count; i < end; i += 4) {
      a = Math.imul(a ^ values[i], 0x9e3779b1);
      b = Math.imul(b ^ values[i + 1], 0x85ebca6b);
      c = Math.imul(c ^ values[i + 2], 0xc2b2ae35);
      d = Math.imul(d ^ values[i + 3], 0x27d4eb2f);
      a ^= a >>> 15;
      b ^= b >>> 15;
      c ^= c >>> 15;
      d ^= d >>> 15;
    }
    this.a = a;
    this.b = b;
    this.c = c;
    this.d = d;
  }

  /** 16 hexadecimal digits. */
  digest(): string {
    const { a, b, c, d } = this;
    return hex(finish(finish(finish(a ^ 0x9e3779b1) + b) + c) ^ d) + hex(finish(finish(finish(d ^ 0x85ebca6b) + c) + b) ^ a);
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
