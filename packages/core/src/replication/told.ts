import { rowInHandle } from '../world/columns.js';
import type { TableDefinition } from '../world/define-table.js';
import { type EntryTable, partName } from '../world/entry-table.js';
import type { Columns } from '../world/rows.js';
import type { ChangeListener, Copy, CopyValue } from './copy.js';

/** What a seat is told of a cell: entries by id, texts as they are, a word where the column has words, yes or no for a flag. */
export type ToldValue<D> = D extends { readonly words: readonly (infer W)[] }
  ? W
  : D extends { readonly kind: 'flag' }
    ? boolean
    : D extends { readonly kind: 'entry' | 'text' }
      ? string
      : number;

/** A row as a seat was told of it; undefined what it was told nothing of. */
export type ToldRow<C extends Columns> = { readonly [K in keyof C]: ToldValue<C[K]> | undefined };

/** A table as a seat's copy has it, by the same names and types as the world's. */
export interface ToldTable<C extends Columns> {
  /** The rows that something was told of, ascending. */
  rows(): readonly number[];
  /** The rows that belong to the actor in a row of the actors, ascending. */
  rowsOf(actor: number): readonly number[];
  /** What was told of a row: nothing at all where it is not known. */
  row(at: number): ToldRow<C>;
  /** What was told of the rows that belong to the actor in a row of the actors, ascending. */
  ownedBy(actor: number): readonly ToldRow<C>[];
  /** What was told of all rows that something was told of, ascending. */
  all(): readonly ToldRow<C>[];
  /** Hears of each change of a column's values once a frame, with old and new. Returns how to stop. */
  on(column: keyof C & string, listener: ChangeListener): () => void;
}

type RowView = new (cells: Readonly<Record<string, CopyValue>>) => object;

const NOTHING = Object.create(null) as Readonly<Record<string, CopyValue>>;
const CELLS = Symbol('cells');
const views = new WeakMap<object, RowView>();

/** A class whose instances show the cells that were told in the words of a definition. */
function viewOf(defined: Columns): RowView {
  const known = views.get(defined);
  if (known) return known;
  class View {
    readonly [CELLS]: Readonly<Record<string, CopyValue>>;
    constructor(cells: Readonly<Record<string, CopyValue>>) {
      this[CELLS] = cells;
    }
  }
  for (const [name, { kind, words }] of Object.entries(defined)) {
    const shown = (value: CopyValue | undefined): unknown => {
      if (value === undefined || typeof value === 'string') return value;
      if (words) return words[value];
      return kind === 'flag' ? value === 1 : value;
    };
    Object.defineProperty(View.prototype, name, {
      enumerable: true,
      get(this: View) {
        return shown(this[CELLS][name]);
      },
    });
  }
  views.set(defined, View);
  return View;
}

/** A table as a copy was told of it. */
export function toldTable<C extends Columns, O extends keyof C & string>(
  copy: Copy,
  { name, owner, defined }: TableDefinition<C, O>,
): ToldTable<C> {
  const View = viewOf(defined);
  const row = (at: number) => new View(copy.cells(name, at) ?? NOTHING) as ToldRow<C>;
  const rowsOf = (actor: number) => copy.rows(name).filter((at) => rowInHandle(Number(copy.value(name, at, owner ?? '') ?? 0)) === actor);
  return {
    rows: () => copy.rows(name),
    rowsOf,
    row,
    ownedBy: (actor) => rowsOf(actor).map(row),
    all: () => copy.rows(name).map(row),
    on: (column, listener) => copy.subscribe(name, column, listener),
  };
}

/** A table with columns for each entry as a seat's copy has it: numbers by the id of the entry. */
export interface ToldEntries<P extends string> {
  /** What was told of an entry in a row, or of one of its parts; undefined where nothing was. */
  value(row: number, id: string, part?: P): number | undefined;
  /** Hears of each change of an entry's values once a frame, with old and new. Returns how to stop. */
  on(id: string, listener: ChangeListener): () => void;
}

/** What a copy has to know of a table with columns for each entry. */
export type ToldParts<P extends string> = Pick<EntryTable<never, undefined, P>, 'name' | 'parts'>;

export function toldEntries<P extends string>(copy: Copy, { name }: ToldParts<P>): ToldEntries<P> {
  return {
    value: (row, id, part) => {
      const value = copy.value(name, row, part === undefined ? id : partName(id, part));
      return typeof value === 'number' ? value : undefined;
    },
    on: (id, listener) => copy.subscribe(name, id, listener),
  };
}

/** A row of a table as a seat was told of it. */
export type ToldRowOf<D extends { readonly defined: Columns }> = ToldRow<D['defined']>;
