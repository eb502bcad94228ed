import * as fc from 'fast-check';
import { ROW_MASK } from './columns.js';
import { Table } from './table.js';

const actors = () => new Table({ name: 'actors', columns: [{ name: 'x', kind: 'number', see: 'everyone' }] });
const add = (table: Table, x: number) => {
  const row = table.add();
  table.write(row, { x });
};

describe('A table', () => {
  it('gives rows their numbers back, under new handles', () => {
    const table = actors();
    const first = table.handle(table.add());
    table.remove(0);
    const second = table.handle(table.add());
    expect(first & ROW_MASK).toBe(second & ROW_MASK);
    expect(first).not.toBe(second);
    expect(table.rowOf(first)).toBe(-1);
    expect(table.rowOf(second)).toBe(0);
    expect(table.rowOf(0)).toBe(-1);
  });

  it('never takes a handle of nobody for somebody', () => {
    const table = actors();
    for (let i = 0; i < 5000; i++) {
      const row = table.add();
      expect(table.handle(row)).toBeGreaterThan(0);
      table.remove(row);
    }
  });

  it('clears the cells of rows that go', () => {
    const table = actors();
    add(table, 7);
    table.remove(0);
    expect(table.cells.x[0]).toBe(0);
    table.remove(0);
    expect(table.count).toBe(0);
  });

  it('has extensions that live and die with its rows, however many there are', () => {
    const table = actors();
    const bodies = new Table({ name: 'bodies', extends: 'actors', columns: [{ name: 'y', kind: 'int', see: 'everyone' }] }, table);
    for (let y = 0; y < 100; y++) bodies.write(table.add(), { y });
    expect([bodies.live[99], bodies.cells.y[99], bodies.high]).toEqual([1, 99, 100]);
    table.remove(40);
    expect([bodies.live[40], bodies.cells.y[40]]).toEqual([0, 0]);
    expect(() => bodies.add()).toThrowError(/come with those of actors/);
    expect(bodies.nearColumn('x')).toBe(table.column('x'));
  });

  it('knows its columns by name, and no others', () => {
    expect(actors().column('x').spec.name).toBe('x');
    expect(() => actors().column('y')).toThrowError('Table actors has no column y');
  });

  it('is the same after restoring what it was, whatever happened in between', () => {
    const deed = fc.record({ adds: fc.boolean(), row: fc.nat(20), value: fc.integer() });
    const play = (table: Table, deeds: { adds: boolean; row: number; value: number }[]) => {
      for (const { adds, row, value } of deeds) {
        if (adds) add(table, value);
        else if (row < table.high) table.remove(row);
      }
      return table;
    };
    fc.assert(
      fc.property(fc.array(deed, { maxLength: 40 }), fc.array(deed, { maxLength: 40 }), (before, after) => {
        const table = play(actors(), before);
        const content = structuredClone(table.content());
        play(table, after);
        table.restore(content);
        expect(table.content()).toEqual(content);
        // The rows that are given out next are the same as if nothing had been.
        expect(play(table, after).content()).toEqual(play(play(actors(), before), after).content());
      }),
    );
  });
});
