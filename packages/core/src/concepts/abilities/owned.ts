import type { World } from '../../world/world.js';
import { typeOf } from '../actors/index.js';
import { abilities } from './index.js';

/** Gives an actor a row for each ability of its type, or that it was given, that it does not have yet, and takes those away that it should not have. */
export function giveAbilities(world: World, row: number): void {
  const { table, list, of, gifts } = abilities.in(world);
  const actor = world.actors.handle(row);
  const wanted = typeOf(world, row).abilities.map((id) => list.findIndex((ability) => ability.id === id));
  const { actor: whose, ability: given } = gifts.cells;
  for (let at = 0; at < gifts.high; at++)
    if (gifts.live[at] === 1 && whose[at] === actor && !wanted.includes(given[at])) wanted.push(given[at]);
  const present = new Set<number>();
  for (let at = 0; at < table.high; at++) {
    if (table.live[at] === 0 || of.actor[at] !== actor) continue;
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
