import { decode, encode } from '@msgpack/msgpack';
import { packed, packedList, packedMap } from './packed.js';

describe('MessagePack put together from packed values', () => {
  it('is what packing all at once comes to, however many there are', () => {
    for (const count of [0, 1, 15, 16, 255, 256, 65535, 65536]) {
      const values = Array.from({ length: count }, (_, i) => ({ i }));
      const list = packedList(values.map(packed));
      expect(list).withContext(String(count)).toEqual(encode(values));
      expect(decode(list)).withContext(String(count)).toEqual(values);
    }
    for (const count of [0, 15, 16, 300]) {
      const pairs = Array.from({ length: count }, (_, i) => [`name ${i}`, { i, gone: undefined }] as const);
      const map = packedMap(pairs.map(([name, value]) => [name, packed(value)]));
      expect(map)
        .withContext(String(count))
        .toEqual(encode(Object.fromEntries(pairs), { ignoreUndefined: true }));
    }
  });
});
