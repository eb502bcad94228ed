import type { ColumnSpec, TableSpec } from './columns.js';
import type { TableRules } from './define-table.js';
import type { Column, Table } from './table.js';
import { sameList } from '../ruleset/recording.js';
import type { World } from './world.js';

/** The columns that an entry of a ruleset has in a table, by what they are to the entry: one, none, a list, or parts with their own. */
export type ColumnShape = ColumnSpec | undefined | readonly ColumnShape[] | { readonly [part: string]: ColumnShape };

/** The same shape with the columns of a world's table. */
export type ColumnsOf<S> = S extends ColumnSpec
  ? Column
  : S extends readonly (infer Item)[]
    ? readonly ColumnsOf<Item>[]
    : { readonly [K in keyof S]: ColumnsOf<S[K]> };

/** What a concept says of a table that has columns for each entry of a chapter. */
export interface EntryTableDeclaration<E, S extends ColumnShape, P extends string> extends Omit<TableSpec, 'columns'> {
  /** The columns of an entry beside the one that has its own id: what is behind the id in their names. */
  readonly parts?: readonly P[];
  readonly columns: (entry: E) => S;
}

export interface EntryTable<E extends object, S extends ColumnShape, P extends string = never> {
  readonly name: string;
  readonly parts: readonly P[];
  /** The table for these entries: what its concept declares. */
  under(entries: readonly E[], rules?: Pick<TableRules, 'present'>): TableSpec;
  in(world: World): Table;
  /** By entry, what its columns are: under their names it is kept what a player has there. */
  shapes(entries: readonly E[]): readonly S[];
  /** By entry, its columns in the table of a world. */
  columnsIn(world: World, entries: readonly E[]): readonly ColumnsOf<S>[];
}

/** Defines a table with columns for each entry of a chapter: what an entry has there is said once, as a shape of columns. */
export function defineEntryTable<E extends object, const S extends ColumnShape, const P extends string = never>(
  declaration: EntryTableDeclaration<E, S, P>,
): EntryTable<E, S, P> {
  const { columns, parts = [], ...rest } = declaration;
  // Worlds come and go by the hundred under the same rules, and most entries are the same from one edit to the next.
  const known = new WeakMap<readonly E[], readonly S[]>();
  const ofEntries = new WeakMap<E, S>();
  const shapeOf = (entry: E): S => {
    if (!ofEntries.has(entry)) ofEntries.set(entry, columns(entry));
    return ofEntries.get(entry)!;
  };
  const shapes = (entries: readonly E[]): readonly S[] => {
    let of = known.get(entries);
    if (!of) known.set(entries, (of = entries.map(shapeOf)));
    return of;
  };
  const listed = new WeakMap<E, { readonly present: TableRules['present']; readonly columns: readonly ColumnSpec[] }>();
  const columnsOf = (entry: E, present: TableRules['present']): readonly ColumnSpec[] => {
    const before = listed.get(entry);
    if (before && isSame(before.present, present)) return before.columns;
    const all = [...leaves(shapeOf(entry))].map((column) => (present ? { ...column, present } : column));
    listed.set(entry, { present, columns: all });
    return all;
  };
  const planned = new WeakMap<readonly E[], readonly Planned[]>();
  const plannedEach = new WeakMap<E, Planned>();
  const planOf = (entry: E): Planned => {
    const counted = { count: 0 };
    const plan = plannedEach.get(entry) ?? { plan: planFor(shapeOf(entry), counted), count: counted.count };
    plannedEach.set(entry, plan);
    return plan;
  };
  const plansOf = (entries: readonly E[]): readonly Planned[] => {
    let plans = planned.get(entries);
    if (!plans) planned.set(entries, (plans = entries.map(planOf)));
    return plans;
  };
  return {
    name: rest.name,
    parts,
    under: (entries, { present } = {}) => ({ ...rest, columns: entries.flatMap((entry) => columnsOf(entry, present)) }),
    in: (world) => world.table(rest.name),
    shapes,
    columnsIn: (world, entries) => {
      const all = world.table(rest.name).columns;
      let at = 0;
      // The shape stays what it is; only its leaves are others, which stand in the order in which the table was made of them.
      const filled = plansOf(entries).map(({ plan, count }) => {
        at += count;
        return built(all, at - count, plan) as ColumnsOf<S>;
      });
      if (at !== all.length) throw new Error(`Table ${rest.name} is of other entries`);
      return filled;
    },
  };
}

const isSame = (one: TableRules['present'], other: TableRules['present']): boolean =>
  one === other || (one?.column === other?.column && sameList(one?.of, other?.of ?? []) === one?.of);

const isColumn = (shape: object): shape is ColumnSpec => 'name' in shape && 'kind' in shape && 'see' in shape;

function* leaves(shape: ColumnShape): Generator<ColumnSpec> {
  if (shape === undefined) return;
  if (isColumn(shape)) yield shape;
  else for (const part of Object.values(shape)) yield* leaves(part);
}

/** A shape as it is filled for each world anew: which of its entry's columns a leaf is. */
type Plan = number | undefined | readonly Plan[] | { readonly parts: readonly string[]; readonly plans: readonly Plan[] };

interface Planned {
  readonly plan: Plan;
  /** How many columns the entry has. */
  readonly count: number;
}

function planFor(shape: ColumnShape, counted: { count: number }): Plan {
  if (shape === undefined) return undefined;
  if (isColumn(shape)) return counted.count++;
  if (Array.isArray(shape)) return shape.map((part: ColumnShape) => planFor(part, counted));
  return { parts: Object.keys(shape), plans: Object.values(shape).map((part: ColumnShape) => planFor(part, counted)) };
}

function built(columns: readonly Column[], from: number, plan: Plan): unknown {
  if (typeof plan === 'number') return columns[from + plan];
  if (plan === undefined) return undefined;
  if (!('parts' in plan)) return plan.map((part) => built(columns, from, part));
  // Worlds come and go by the hundred, with thousands of columns each.
  const { parts, plans } = plan;
  const filled: Record<string, unknown> = {};
  for (let i = 0; i < parts.length; i++) {
    const part = plans[i];
    filled[parts[i]] = typeof part === 'number' ? columns[from + part] : built(columns, from, part);
  }
  return filled;
}

/** The name of a column that an entry has beside the one of its own id. A dot is no part of an id. */
export const partName = (id: string, part: string): string => `${id}.${part}`;

/** Names of an entry's column, now and before: by what its id, and those that it had, make of them. */
export function columnNames(
  { id, formerly = [] }: { readonly id: string; readonly formerly?: readonly string[] },
  name: (id: string) => string = (own) => own,
): Pick<ColumnSpec, 'name' | 'formerly'> {
  return { name: name(id), ...(formerly.length > 0 && { formerly: formerly.map(name) }) };
}
