import { roundTo } from '../../math/grid.js';
import { movedPositions, positionOf, type Rules } from '../../ruleset/rules.js';
import type { World } from '../../world/world.js';
import { adoptCrossings, restPool } from './crossings.js';
import { relinkModifiers } from './modifiers.js';
import { beginning, has, settle, startValues } from './values.js';
import { attributes } from './state.js';

/** An actor's present value of an attribute; 0 where it has gone or never had it. */
export function readAttribute(world: World, actor: number, index: number): number {
  const row = world.actors.rowOf(actor);
  return row < 0 ? 0 : attributes.in(world).cells[index].value.data[row];
}

/** The value of an attribute of who is in a row, by its id; 0 where nobody is, or nothing has that id. */
export function valueInRow(world: World, row: number, id: string): number {
  return row < 0 ? 0 : (attributes.in(world).cells[positionOf(world.rules, 'attributes', id)]?.value.data[row] ?? 0);
}

/** Has an actor's pools neither refill nor drain, since it is about to fall; or go on. */
export function restPools(world: World, actor: number, rests: boolean): void {
  restPool(world, attributes.in(world), actor, rests);
}

/** Whether an actor is about to fall. */
export function poolsRest(world: World, row: number): boolean {
  return attributes.in(world).rests.cells.rests[row] === 1;
}

/** The values of an actor by attribute, with the decimals their author gives them. */
export type Values = Readonly<Record<string, number>>;

/** The same rules, under which no pool refills or drains by itself: for setting something up. */
export function withoutRefill(rules: Rules): Rules {
  const compiled = attributes.of(rules);
  const list = compiled.list.map((attribute) =>
    attribute.refill ? { ...attribute, refill: { ...attribute.refill, every: Infinity } } : attribute,
  );
  return { ...rules, compiled: new Map([...rules.compiled, [attributes.id, { ...compiled, list }]]) };
}

/** An actor's attributes by id; none where it has gone. */
export function valuesOf(world: World, actor: number): Values {
  const row = world.actors.rowOf(actor);
  if (row < 0) return {};
  const { compiled, cells } = attributes.in(world);
  return Object.fromEntries(
    compiled.list.flatMap((attribute, i) =>
      has(world, attribute, row) ? [[attribute.id, roundTo(cells[i].value.data[row], attribute.decimals)]] : [],
    ),
  );
}

/** Under edited rules a stat's base follows the author's change, unless something in the game had moved it. */
export function adopted(world: World, before: World): void {
  const now = attributes.in(world);
  const then = attributes.in(before);
  relinkModifiers(world, now);
  adoptCrossings(now, then);
  const { list } = now.compiled;
  const oldOf = new Map(movedPositions(before.rules, world.rules, 'attributes').map((now, k) => [now, k]));
  for (let row = 0; row < world.actors.high; row++) {
    if (world.actors.live[row] === 0) continue;
    const anew = new Set<number>();
    const oldType = before.actors.cells.type[row];
    list.forEach((attribute, i) => {
      const k = oldOf.get(i) ?? -1;
      const old = then.compiled.list[k];
      if (!old || old.kind !== attribute.kind || !old.present[oldType]) return void anew.add(i);
      if (attribute.kind !== 'stat') return;
      // A start of luck is not asked again: what was drawn stays.
      const start = old.starts[oldType];
      const drawn = start.amount !== undefined && start.amount.constant === undefined && start.amount.references.length === 0;
      if (!drawn && beginning(before, old, start, row) === then.cells[k].own.data[row]) anew.add(i);
    });
    startValues(world, now, row, anew);
    settle(world, now, row, true);
  }
}
