import type { World } from '../../world/world.js';
import { typeOf } from '../actors/index.js';
import { abilities } from './state.js';

/** Gives an actor a row for each ability of its type, or that it was given, that it does not have yet, and takes those away that it should not have. */
export function giveAbilities(world: World, row: number): void {
  const { table, list, of, gifts } = abilities.in(world);
  const actor = world.actors.handle(row);
  const wanted = typeOf(world, row).abilities.map((id) => list.findIndex((ability) => ability.id === id));
  for (const at of gifts.rowsOf(actor)) if (!wanted.includes(gifts.cells.ability[at])) wanted.push(gifts.cells.ability[at]);
  const present = new Set<number>();
  for (const at of table.rowsOf(actor)) {
    const index = of.ability[at];
    if (!wanted.includes(index)) {
      table.remove(at);
      continue;
    }
    present.add(index);
    // An edit may have made the store smaller, or begun one: then it is full.
    const most = list[index].stored?.most ?? 0;
    if (of.stored[at] > most || (of.stored[at] < most && of.refill[at] === 0)) {
      of.stored[at] = most;
      of.refill[at] = 0;
    }
  }
  for (const index of wanted) {
    if (present.has(index)) continue;
    table.insert({ actor, ability: index, stored: list[index].stored?.most ?? 0 });
  }
}
