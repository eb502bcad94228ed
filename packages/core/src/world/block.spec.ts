import * as fc from 'fast-check';
import { Block } from './block.js';
import { Hasher } from './hash.js';
import { Table } from './table.js';

/** Two tables, one of which has a row for each of the other's, and one that stays empty. */
class Tables {
  readonly ropes = new Table({
    name: 'ropes',
    columns: [
      { name: 'kind', kind: 'int', see: 'everyone' },
      { name: 'length', kind: 'number', see: 'everyone' },
    ],
  });
  readonly knots = new Table(
    {
      name: 'knots',
      extends: 'ropes',
      columns: [
        { name: 'hold', kind: 'number', see: 'everyone' },
        { name: 'told', kind: 'serial', see: 'server' },
      ],
    },
    this.ropes,
  );
  readonly idle = new Table({ name: 'idle', columns: [{ name: 'since', kind: 'tick', see: 'everyone' }] });
  readonly block = new Block([this.ropes, this.knots, this.idle]);

  play(deeds: readonly Deed[]): this {
    for (const { adds, row, value } of deeds) {
      if (adds) this.knots.write(this.ropes.insert({ kind: row, length: value }), { hold: value / 2 });
      else if (row < this.ropes.high) this.ropes.remove(row);
    }
    return this;
  }

  contents() {
    return structuredClone([this.ropes, this.knots, this.idle].map((table) => table.content()));
  }

  digest(): string {
    const hasher = new Hasher();
    for (const table of [this.ropes, this.knots, this.idle]) table.digest(hasher);
    return hasher.digest();
  }
}

interface Deed {
  readonly adds: boolean;
  readonly row: number;
  readonly value: number;
}
const deed = fc.record<Deed>({ adds: fc.boolean(), row: fc.nat(30), value: fc.integer() });
const deeds = fc.array(deed, { maxLength: 90 });

describe('The block of a world', () => {
  it('gives its tables back what they were, whatever came of them since, and they go on from there', () => {
    fc.assert(
      fc.property(deeds, deeds, (before, after) => {
        const tables = new Tables().play(before);
        const [contents, copy] = [tables.contents(), tables.block.copy()];
        tables.play(after).block.restore(copy);
        expect(tables.contents()).toEqual(contents);
        expect(tables.play(after).contents()).toEqual(new Tables().play(before).play(after).contents());
        expect(tables.ropes.count).toBe(tables.ropes.rows().length);
      }),
    );
  });

  it('makes copies that nothing changes any more', () => {
    const tables = new Tables().play([{ adds: true, row: 1, value: 4 }]);
    const copy = tables.block.copy();
    const bytes = copy.bytes.slice();
    tables.ropes.write(0, { length: 7 });
    tables.block.restore(tables.block.copy());
    expect(copy.bytes).toEqual(bytes);
  });

  it('fills tables of others from a copy, by the names of tables and columns', () => {
    const tables = new Tables().play(Array.from({ length: 40 }, (_, row) => ({ adds: true, row, value: row })));
    const other = new Table({
      name: 'knots',
      columns: [
        { name: 'slack', kind: 'number', see: 'everyone' },
        { name: 'hold', kind: 'number', see: 'everyone' },
      ],
    });
    new Block([other]).restore(tables.block.copy());
    expect([other.high, other.cells['hold'][39], other.cells['slack'][39]]).toEqual([40, 19.5, 0]);
  });

  it('keeps to itself what a table has that grows while others are looked at', () => {
    const tables = new Tables().play([{ adds: true, row: 1, value: 4 }]);
    tables.block.copy();
    const { length } = tables.ropes.cells as { length: Float64Array };
    for (let i = 0; i < 100; i++) tables.idle.insert({ since: i });
    length[0] = 9;
    tables.block.copy();
    expect([tables.ropes.cells['length'][0], tables.idle.cells['since'][99]]).toEqual([9, 99]);
  });
});

describe('The digest of tables', () => {
  it('is the same for the same content, however much room there is', () => {
    fc.assert(
      fc.property(deeds, fc.nat(200), (all, room) => {
        const tables = new Tables();
        tables.ropes.reserve(room);
        expect(tables.play(all).digest()).toBe(new Tables().play(all).digest());
      }),
    );
  });

  it('is another with any cell that is another, but for the numbers of what was told', () => {
    const rows = Array.from({ length: 21 }, (_, row) => ({ adds: true, row, value: row }));
    const seen = new Set([new Tables().play(rows).digest()]);
    const [ropes, knots] = [['kind', 'length'], ['hold']];
    for (let row = 0; row < rows.length; row++) {
      for (const name of [...ropes, ...knots]) {
        const tables = new Tables().play(rows);
        (ropes.includes(name) ? tables.ropes : tables.knots).write(row, { [name]: -1 });
        seen.add(tables.digest());
      }
      const without = new Tables().play(rows);
      without.ropes.remove(row);
      seen.add(without.digest());
    }
    expect(seen.size).toBe(1 + rows.length * 4);
    const told = new Tables().play(rows);
    told.knots.write(3, { told: 12 });
    expect(seen.has(told.digest())).toBeTrue();
  });
});
