import type { FormulaFunction, Parties } from '../../formula/index.js';
import { clamp, LARGEST_AMOUNT, toGrid } from '../../math/grid.js';
import type { Amount } from '../../ruleset/context.js';
import type { Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import type { Attribute, CompiledAttributes } from './compile.js';
import { OPERATIONS, type Operation } from './schema.js';
import { columnsOf } from './tables.js';

/** The attributes' grip on a world. */
export interface Attributes {
  readonly compiled: CompiledAttributes;
  readonly table: Table;
  readonly modifiers: Table;
  readonly heads: Table;
}

export function attachAttributes(world: World, compiled: CompiledAttributes): Attributes {
  return { compiled, table: world.table('attributes'), modifiers: world.table('modifiers'), heads: world.table('modifierHeads') };
}

/** An actor's lower bound of an attribute. What is counted in whole numbers has whole bounds, also where its author's are broken. */
export function lowOf(world: World, { min, whole }: Attribute, actor: number): number {
  const low = valueOf(world, min, actor);
  return whole ? Math.ceil(low) : low;
}

/** An actor's upper bound; never below the lower one. */
export function highOf(world: World, { max, whole }: Attribute, actor: number, low: number): number {
  if (!max) return LARGEST_AMOUNT;
  const high = valueOf(world, max, actor);
  const end = whole ? Math.floor(high) : high;
  return end < low ? low : end;
}

function valueOf(world: World, amount: Amount, actor: number): number {
  return amount.constant ?? amount.run(world, ownerOnly(actor));
}

/** Parties with one and the same actor as owner; reused, since formulas are called thousands of times a tick. */
const scratch = { owner: 0, source: 0, target: 0 };
export function ownerOnly(actor: number): Parties {
  scratch.owner = actor;
  return scratch;
}

export function has(world: World, attribute: Attribute, row: number): boolean {
  return attribute.present[world.actors.column('type').data[row]] === true;
}

/** The parts that a value is made of. */
export interface Sums {
  readonly add: number;
  readonly percent: number;
  readonly times: number;
}

/** Sums an actor's modifiers of one attribute, smallest amounts first: the order of coming and going leaves no trace. */
export function sumModifiers(a: Attributes, row: number, index: number): Sums {
  const amounts: [number[], number[], number[]] = [[], [], []];
  const { modifiers } = a;
  const [attribute, operation, amount, next] = ['attribute', 'operation', 'amount', 'next'].map((name) => modifiers.column(name).data);
  for (let at = a.heads.columns[0].data[row]; at !== 0; at = next[at - 1])
    if (attribute[at - 1] === index) amounts[operation[at - 1]].push(amount[at - 1]);
  const sorted = amounts.map((list) => list.sort((x, y) => x - y));
  return {
    add: sorted[0].reduce((sum, x) => sum + x, 0),
    percent: sorted[1].reduce((sum, x) => sum + x, 0),
    times: sorted[2].reduce((product, x) => product * x, 1),
  };
}

/** The value before its bounds: `(base + add) x (1 + percent) x times`. Percents are authored as 40 for +40 %. */
export function combine(base: number, { add, percent, times }: Sums): number {
  return (base + add) * (1 + percent / 100) * times;
}

/** Recomputes an actor's stats and maxima, in the order in which they follow from each other, and keeps pools in bounds. */
export function settle(world: World, a: Attributes, row: number): void {
  const { list, order } = a.compiled;
  const actor = world.actors.handle(row);
  for (const index of order) {
    const attribute = list[index];
    if (!has(world, attribute, row)) continue;
    const low = lowOf(world, attribute, actor);
    const high = highOf(world, attribute, actor, low);
    const cell = a.table.column(attribute.id).data;
    if (attribute.max && attribute.max.constant === undefined) a.table.column(columnsOf.max(attribute.id)).data[row] = high;
    if (attribute.kind === 'stat') {
      const base = a.table.column(columnsOf.base(attribute.id)).data[row];
      const value = a.heads.columns[0].data[row] === 0 ? base : combine(base, sumModifiers(a, row, index));
      cell[row] = toGrid(clamp(attribute.whole ? Math.floor(value + 0.5) : value, low, high));
    } else cell[row] = clamp(cell[row], low, high);
  }
}

/** Gives a newly spawned actor its first values. */
export function startValues(world: World, a: Attributes, row: number, only?: ReadonlySet<number>): void {
  const { list, order } = a.compiled;
  const type = world.actors.column('type').data[row];
  const actor = world.actors.handle(row);
  for (const index of order) {
    const attribute = list[index];
    if (!has(world, attribute, row) || (only && !only.has(index))) continue;
    const start: FormulaFunction | undefined = (attribute.starts[type] ?? attribute.max)?.run;
    const value = start ? start(world, ownerOnly(actor)) : 0;
    const column = attribute.kind === 'stat' ? columnsOf.base(attribute.id) : attribute.id;
    a.table.column(column).data[row] = attribute.whole ? Math.floor(value) : value;
    // A later start may read this one's value: bounds and stats have to stand before it is asked.
    settle(world, a, row);
  }
}

/** What a change to a pool or counter came to. Over and under are lost, never stored. */
export interface Change {
  readonly from: number;
  readonly to: number;
  readonly asked: number;
  readonly given: number;
  readonly lost: number;
}

/** Changes a pool or counter, or a stat's base, by an amount, within its bounds. Rows without the attribute stay as they are. */
export function changeBy(world: World, a: Attributes, row: number, index: number, asked: number): Change {
  const attribute = a.compiled.list[index];
  const actor = world.actors.handle(row);
  const column = a.table.column(attribute.kind === 'stat' ? columnsOf.base(attribute.id) : attribute.id);
  const from = column.data[row];
  if (!has(world, attribute, row)) return { from, to: from, asked, given: 0, lost: asked };
  const wanted = attribute.whole ? (asked < 0 ? Math.ceil(asked - 0.5) : Math.floor(asked + 0.5)) : asked;
  const low = lowOf(world, attribute, actor);
  const high = highOf(world, attribute, actor, low);
  const to = attribute.kind === 'stat' ? toGrid(from + wanted) : toGrid(clamp(from + wanted, low, high));
  column.data[row] = to;
  if (to < from && attribute.refill && attribute.refill.pause > 0)
    a.table.column(columnsOf.rests(attribute.id)).data[row] = world.tick + attribute.refill.pause;
  settle(world, a, row);
  const given = toGrid(to - from);
  return { from, to, asked: wanted, given, lost: toGrid(wanted - given) };
}

/** Adds a modifier to an actor. `holder` is whatever took it on, to be named when it ends. */
export function addModifier(
  a: Attributes,
  row: number,
  actor: number,
  index: number,
  operation: Operation,
  amount: number,
  holder: number,
): void {
  const { modifiers, heads } = a;
  const at = modifiers.add();
  const first = heads.columns[0].data;
  const cells: Record<string, number> = {
    actor,
    attribute: index,
    operation: OPERATIONS.indexOf(operation),
    amount,
    holder,
    next: first[row],
  };
  for (const [name, value] of Object.entries(cells)) modifiers.column(name).data[at] = value;
  first[row] = at + 1;
}

/** Takes an actor's modifiers of one holder away. The caller settles the actor. */
export function removeModifiers(a: Attributes, row: number, holder: number): void {
  const { modifiers, heads } = a;
  const holders = modifiers.column('holder').data;
  const next = modifiers.column('next').data;
  const first = heads.columns[0].data;
  let before = -1;
  for (let at = first[row]; at !== 0;) {
    const following = next[at - 1];
    if (holders[at - 1] === holder) {
      if (before < 0) first[row] = following;
      else next[before] = following;
      modifiers.remove(at - 1);
    } else before = at - 1;
    at = following;
  }
}

/** Builds the lists of modifiers anew, after rows went without being taken out of them. */
export function relinkModifiers(world: World, a: Attributes): void {
  const { modifiers, heads } = a;
  const first = heads.columns[0].data.fill(0);
  const actor = modifiers.column('actor').data;
  const next = modifiers.column('next').data;
  for (let at = modifiers.high - 1; at >= 0; at--) {
    if (modifiers.live[at] === 0) continue;
    const row = world.actors.rowOf(actor[at]);
    if (row < 0) continue;
    next[at] = first[row];
    first[row] = at + 1;
  }
}
