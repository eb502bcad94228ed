import type { ColumnSpec, PerEntry, Visibility } from './columns.js';

/** A column as its table's definition says it: the name is its key. */
export interface ColumnDeclaration extends Omit<ColumnSpec, 'name' | 'see'> {
  /** `rules` for one whose viewers follow from the ruleset: they are said when its table is declared under rules. */
  readonly see: Visibility | PerEntry<Visibility> | 'rules';
}

export type Columns = Readonly<Record<string, ColumnDeclaration>>;

/** What a cell of a column means: a word where the column has words, yes or no for a flag, a number else. */
export type Value<D> = D extends { readonly words: readonly (infer W)[] } ? W : D extends { readonly kind: 'flag' } ? boolean : number;

/** A row's cells by name, as they are written. */
export type RowValues<C extends Columns> = { readonly [K in keyof C]?: Value<C[K]> | number };

/** As {@link RowValues}, of any table. */
export type CellValues = Readonly<Record<string, number | boolean | string>>;

/** Cells that are read and not written. */
export interface ReadonlyCells {
  readonly [row: number]: number;
  readonly length: number;
}

type ArrayOf<D> = D extends { readonly kind: 'number' } ? Float64Array : Int32Array;

/** The arrays of a table's columns by name. Who owns a row is only read here: an index follows it. */
export type Cells<C extends Columns, O extends keyof C> = {
  readonly [K in keyof C]: K extends O ? ReadonlyCells : ArrayOf<C[K]>;
};

/** The number under which a value stands in a cell. */
export function encoded({ words, name }: ColumnSpec, value: number | boolean | string): number {
  if (typeof value === 'number') return value;
  if (typeof value === 'boolean') return value ? 1 : 0;
  const at = words?.indexOf(value) ?? -1;
  if (at < 0) throw new Error(`${value} is no word of ${name}`);
  return at;
}

/** What a row that is given by the names of its columns has in one of them; 0 where it says nothing. */
export function wordOf(spec: ColumnSpec, values: CellValues): number {
  const value = values[spec.name];
  return value === undefined ? 0 : encoded(spec, value);
}
