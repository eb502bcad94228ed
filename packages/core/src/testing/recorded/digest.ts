import type { World } from '../../index.js';

const finish = (value: number) => {
  let v = Math.imul(value ^ (value >>> 16), 0x85ebca6b);
  v = Math.imul(v ^ (v >>> 13), 0xc2b2ae35);
  return v ^ (v >>> 16);
};
const hex = (value: number) => (finish(value) >>> 0).toString(16).padStart(8, '0');

/** The digest of version 0.10.0, by which is told what was recorded with it. */
export class RecordedDigest {
  private a = 0x243f6a88;
  private b = 0x85a308d3;

  private word(value: number): void {
    this.a = Math.imul(this.a ^ value, 0x9e3779b1);
    this.a = (this.a << 13) | (this.a >>> 19);
    this.b = Math.imul(this.b + value, 0x85ebca6b) ^ this.a;
    this.b = (this.b << 17) | (this.b >>> 15);
  }

  bytes(values: Uint8Array): void {
    for (const value of values) this.word(value);
  }

  text(value: string): void {
    this.word(value.length);
    for (let i = 0; i < value.length; i++) this.word(value.charCodeAt(i));
  }

  /** All that makes a world what it is, table by table and column by column. */
  static of(world: World): string {
    const digest = new RecordedDigest();
    const numbers = (values: Float64Array | Int32Array | Uint8Array, high: number) => {
      const used = values.slice(0, high);
      for (const word of used instanceof Float64Array ? new Int32Array(used.buffer) : used) digest.word(word);
    };
    for (const word of [world.tick, world.seed]) digest.word(word);
    for (const text of world.snapshot().texts) digest.text(text);
    for (const [name, { high, live, generation, columns }] of world.tables) {
      digest.text(name);
      digest.word(high);
      numbers(live, high);
      numbers(generation, high);
      for (const { spec, data } of columns) if (spec.kind !== 'serial') numbers(data, high);
    }
    return digest.toString();
  }

  /** 16 hexadecimal digits. */
  toString(): string {
    return hex(this.a ^ this.b) + hex(this.b);
  }
}
