import type { ColumnSpec, PerEntry, TableSpec, Visibility } from './columns.js';
import type { Cells, Columns, RowValues } from './rows.js';
import type { Table } from './table.js';
import type { World } from './world.js';

/** A table whose columns are known: its cells have names and types. */
export interface TypedTable<C extends Columns, O extends keyof C & string = never> extends Table {
  /** The arrays of the columns, as they are now: they are others once a row was added. Who owns a row is written by {@link write}. */
  readonly cells: Cells<C, O>;
  insert(values: RowValues<C>): number;
  write(row: number, values: RowValues<C>): void;
  keep(wanted: readonly RowValues<C>[]): void;
}

/** The table that a definition is of, in a world. */
export type TableOf<D extends { in(world: World): unknown }> = ReturnType<D['in']>;

/** The cells of a row of a table, as they are inserted. */
export type RowOf<D extends { in(world: World): { keep(wanted: readonly never[]): void } }> = Parameters<
  ReturnType<D['in']>['keep']
>[0][number];

/** What a concept says of one of its tables. */
export interface TableDeclaration<C extends Columns, O extends keyof C & string> extends Omit<TableSpec, 'columns' | 'owner'> {
  readonly columns: C;
  /** The `actor` column that leads to the owning actor. */
  readonly owner?: O;
}

/** What the rules say of a table: who sees the columns of which the definition leaves it to them, and which rows have values in it. */
export interface TableRules {
  readonly see?: Visibility | PerEntry<Visibility>;
  readonly present?: PerEntry<boolean>;
}

/** A table as its concept defines it, once: the names and types of its cells follow from this wherever somebody reads or writes them. */
export interface TableDefinition<C extends Columns = Columns, O extends keyof C & string = never> extends TableSpec {
  /** The columns as they are defined. */
  readonly defined: C;
  /** The table under rules: what its concept declares. */
  under(rules: TableRules): TableSpec;
  /** The table of a world. */
  in(world: World): TypedTable<C, O>;
}

/**
 * Defines a table: each column once, with what it holds, who may see it, and its words where its numbers stand for some.
 * From this follow the types of rows and arrays, here and in a seat's copy.
 */
export function defineTable<const C extends Columns, const O extends keyof C & string = never>(
  declaration: TableDeclaration<C, O>,
): TableDefinition<C, O> {
  const { columns, ...rest } = declaration;
  const under = ({ see, present }: TableRules): TableSpec => ({
    ...rest,
    columns: Object.entries(columns).map(([name, column]): ColumnSpec => {
      const seen = column.see === 'rules' ? see : column.see;
      if (seen === undefined) throw new Error(`Who sees ${name} of ${rest.name} has to be said under rules`);
      return { name, ...column, see: seen, ...(present && { present }) };
    }),
  });
  // Whoever runs a rule asks for its tables many times before anybody asks for another world's.
  let specs: readonly ColumnSpec[] | undefined;
  let before: World | undefined;
  let table: TypedTable<C, O> | undefined;
  return {
    ...rest,
    defined: columns,
    get columns() {
      return (specs ??= under({}).columns);
    },
    under,
    in: (world) => {
      if (world !== before || table === undefined) [before, table] = [world, world.table(rest.name) as TypedTable<C, O>];
      return table;
    },
  };
}
