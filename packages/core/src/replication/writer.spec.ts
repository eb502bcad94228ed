import { decode } from '@msgpack/msgpack';
import * as fc from 'fast-check';
import { FrameWriter } from './writer.js';

const written = (write: (writer: FrameWriter) => void) => {
  const writer = new FrameWriter();
  write(writer);
  return decode(writer.take());
};

describe('The frame writer', () => {
  it('writes whole numbers that any MessagePack reader reads', () => {
    const edges = [
      0,
      1,
      127,
      128,
      255,
      256,
      65535,
      65536,
      2 ** 31,
      2 ** 32 - 1,
      2 ** 32,
      2 ** 53,
      -1,
      -32,
      -33,
      -128,
      -129,
      -32768,
      -32769,
      -(2 ** 31),
      -(2 ** 31) - 1,
    ];
    for (const value of edges)
      expect(written((w) => w.int(value)))
        .withContext(String(value))
        .toBe(value);
    fc.assert(fc.property(fc.maxSafeInteger(), (value) => written((w) => w.int(value)) === value));
  });

  it('writes texts, lists and bytes', () => {
    fc.assert(fc.property(fc.string({ unit: 'grapheme', maxLength: 300 }), (text) => written((w) => w.text(text)) === text));
    fc.assert(
      fc.property(fc.array(fc.integer(), { maxLength: 100 }), (list) => {
        const read = written((w) => {
          w.list(list.length);
          list.forEach((value) => w.int(value));
        });
        expect(read).toEqual(list);
      }),
    );
    for (const length of [0, 10, 300, 70_000])
      expect(written((w) => w.binary(new Uint8Array(length).fill(7)))).toEqual(new Uint8Array(length).fill(7));
  });

  it('begins anew after what was taken', () => {
    const writer = new FrameWriter();
    writer.int(5);
    const first = writer.take();
    writer.text('north');
    expect([decode(first), decode(writer.take())]).toEqual([5, 'north']);
  });
});
