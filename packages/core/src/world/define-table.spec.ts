import { encode } from '@msgpack/msgpack';
import * as fc from 'fast-check';
import { Copy, defineEntryTable, defineTable, columnNames, partName, Table, toldTable } from '../index.js';

const WORDS = ['closed', 'opening', 'open'] as const;
const lids = defineTable({
  name: 'lids',
  owner: 'keeper',
  columns: {
    keeper: { kind: 'actor', see: 'everyone' },
    lid: { kind: 'int', words: WORDS, see: 'everyone' },
    locked: { kind: 'flag', see: 'rules' },
    until: { kind: 'tick', see: 'everyone' },
    weight: { kind: 'number', see: 'owner', decimals: 1 },
  },
});
const table = () => new Table(lids.under({ see: 'owner' }));
/** The handle of an actor in a row, as if it were the first there. */
const actor = (row: number) => (1 << 20) | row;

describe('A table by its definition', () => {
  it('has its columns in order, with who sees those that are left to the rules', () => {
    const { columns } = lids.under({ see: 'team', present: { column: 'type', of: [true] } });
    expect(columns.map(({ name, see }) => [name, see])).toEqual([
      ['keeper', 'everyone'],
      ['lid', 'everyone'],
      ['locked', 'team'],
      ['until', 'everyone'],
      ['weight', 'owner'],
    ]);
    expect(columns.every(({ present }) => present?.column === 'type')).toBeTrue();
  });

  it('can’t be declared without the rules that it leaves something to', () => {
    expect(() => lids.columns).toThrowError('Who sees locked of lids has to be said under rules');
  });

  it('takes words and flags for what they are, and leaves the rest zero', () => {
    const of = table();
    const row = of.insert({ keeper: actor(3), lid: 'opening', locked: true });
    expect(Object.values(of.cells).map((cells) => cells[row])).toEqual([actor(3), 1, 1, 0, 0]);
    of.write(row, { lid: 'open', locked: false, weight: 2.5 });
    expect(Object.values(of.cells).map((cells) => cells[row])).toEqual([actor(3), 2, 0, 0, 2.5]);
  });

  it('refuses a word that its column does not have', () => {
    expect(() => table().insert({ lid: 'ajar' })).toThrowError('ajar is no word of lid');
  });

  it('has its arrays at hand after it has grown', () => {
    const of = table();
    const { cells } = of;
    for (let until = 0; until < 100; until++) of.insert({ until });
    expect(cells['until'].length).toBeGreaterThanOrEqual(100);
    expect(cells['until'][99]).toBe(99);
  });

  it('keeps rows that are wanted under their numbers, and brings in the others in order', () => {
    const of = table();
    for (const until of [1, 2, 3]) of.insert({ until });
    of.keep([{ until: 4 }, { until: 3 }, { until: 1 }, { until: 5 }]);
    expect(of.rows().map((row) => [row, of.cells['until'][row]])).toEqual([
      [0, 1],
      [1, 4],
      [2, 3],
      [3, 5],
    ]);
    of.keep([]);
    expect(of.count).toBe(0);
  });
});

describe('The index of what belongs to whom', () => {
  interface Deed {
    readonly do: 'insert' | 'remove' | 'hand' | 'restore';
    readonly row: number;
    readonly owner: number;
  }
  const deeds = fc.array(
    fc.record<Deed>({ do: fc.constantFrom('insert', 'insert', 'remove', 'hand', 'restore'), row: fc.nat(30), owner: fc.nat(4) }),
    { maxLength: 60 },
  );
  /** Handles of two actors that came into one row one after the other, of others, and of nobody. */
  const OWNERS = [0, actor(0), actor(7), (2 << 20) | 7, actor(40)];

  it('says what a search of all rows would, whatever came, went and changed hands', () => {
    fc.assert(
      fc.property(deeds, (all) => {
        const of = table();
        for (const { do: what, row, owner } of all) {
          if (what === 'insert') of.insert({ keeper: OWNERS[owner] });
          else if (what === 'restore') of.restore(of.content());
          else if (of.live[row] === 1 && what === 'remove') of.remove(row);
          else if (of.live[row] === 1) of.write(row, { keeper: OWNERS[owner] });
          for (const one of OWNERS.slice(1)) expect(of.rowsOf(one)).toEqual(of.rows().filter((at) => of.ownerOf(at) === one));
        }
      }),
    );
  });

  it('goes through what comes behind meanwhile, and leaves out what goes', () => {
    const of = table();
    for (const until of [1, 2, 3]) of.insert({ keeper: actor(1), until });
    const met: number[] = [];
    of.eachOf(actor(1), (row) => {
      met.push(of.cells['until'][row]);
      if (row === 0) {
        of.remove(0);
        of.remove(1);
        of.insert({ keeper: actor(1), until: 4 });
        of.insert({ keeper: actor(1), until: 5 });
        of.insert({ keeper: actor(1), until: 6 });
      }
    });
    // Rows 0 and 1 are free again and taken: what lies ahead is met, what lies behind is not.
    expect(met).toEqual([1, 4, 3, 6]);
  });

  it('is asked of tables alone whose rows belong to somebody', () => {
    expect(() => new Table({ name: 'loose', columns: [] }).rowsOf(1)).toThrowError('Rows of loose belong to nobody');
  });
});

describe('A table with columns for each entry', () => {
  const grown = defineEntryTable({
    name: 'grown',
    parts: ['level'],
    columns: (entry: { id: string; formerly?: string[]; steps: string[] }) => ({
      have: { ...columnNames(entry), kind: 'number', see: 'owner' },
      level: { ...columnNames(entry, (id) => partName(id, 'level')), kind: 'int', see: 'owner' },
      most: entry.steps.length > 1 ? { ...columnNames(entry, (id) => partName(id, 'most')), kind: 'int', see: 'server' } : undefined,
      steps: entry.steps.map((step) => ({ ...columnNames(entry, (id) => partName(id, step)), kind: 'flag', see: 'server' }) as const),
    }),
  });
  const entries = [
    { id: 'hull', formerly: ['keel'], steps: ['one'] },
    { id: 'air', steps: ['one', 'two'] },
  ];

  it('has them in the order of their shape, entry by entry, and none where there is none', () => {
    expect(grown.under(entries).columns.map(({ name }) => name)).toEqual([
      'hull',
      'hull.level',
      'hull.one',
      'air',
      'air.level',
      'air.most',
      'air.one',
      'air.two',
    ]);
  });

  it('remembers what they were called when their entry had another id', () => {
    expect(grown.under(entries).columns.map(({ formerly }) => formerly?.[0])).toEqual([
      'keel',
      'keel.level',
      'keel.one',
      ...Array<undefined>(5),
    ]);
  });
});

describe('A row as a seat is told of it', () => {
  const copy = () => {
    const spec = lids.under({ see: 'owner' });
    const columns = spec.columns.map(({ name, kind, decimals }, column) => ({
      column,
      name,
      kind,
      ...(kind === 'number' && { decimals }),
    }));
    return new Copy({ tickRate: 20, tables: [{ table: 0, name: 'lids', owner: 'keeper', columns }], entries: {}, display: {} });
  };

  it('has the words, the flags and the types of the world’s, and nothing of what was not told', () => {
    const seat = copy();
    // A table, no removals, then four columns with a row each: the keeper, its lid, that it is locked, its weight.
    seat.applyDecoded([1, 0, 5, [encode([0, 0, 4, 0, 1, 2, actor(3), 1, 1, 2, 2, 2, 1, 2, 1, 4, 1, 2, 25])], 0]);
    const told = seat.of(lids);
    const { keeper, lid, locked, until, weight } = told.row(2);
    expect([keeper, lid, locked, until, weight]).toEqual([actor(3), 'open', true, undefined, 2.5]);
    expect([told.rows(), told.rowsOf(3), told.rowsOf(2)]).toEqual([[2], [2], []]);
    expect(toldTable(seat, lids).row(7).lid).toBeUndefined();
  });
});
