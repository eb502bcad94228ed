import * as fc from 'fast-check';
import { areSurelySame, nextOther } from './memory.js';

describe('Words of memory', () => {
  it('are found to be others where they are first, in any stretch and at any length', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1500 }),
        fc.array(fc.nat(1500), { maxLength: 4 }),
        fc.nat(1500),
        fc.nat(1500),
        (length, others, one, other) => {
          const [from, to] = [Math.min(one, other, length), Math.min(Math.max(one, other), length)];
          // Not at the beginning of its buffer, as the words of a table are not.
          const before = new Int32Array(new ArrayBuffer((length + 3) * 4), 12, length).map((_, i) => i * 7);
          const now = before.slice();
          for (const at of others) if (at < length) now[at] ^= 1 << 30;
          const expected = others.filter((at) => at >= from && at < to && now[at] !== before[at]);
          expect(nextOther(before, now, from, to)).toBe(Math.min(to, ...expected));
          const isSame = before.every((word, i) => word === now[i]);
          expect(isSame || !areSurelySame(before, now)).toBeTrue();
        },
      ),
    );
  });
});
