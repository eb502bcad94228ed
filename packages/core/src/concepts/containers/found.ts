import type { Rules } from '../../ruleset/rules.js';
import { type Drop, giveTo, loot, type LootTable } from '../loot/index.js';
import { pickups } from '../pickups/index.js';
import type { Content } from './compile.js';

/** What a thing from a loot table is called among the contents of a container: a dot is no part of an id. */
export const foundName = (table: LootTable, drop: Drop): string => `${table.id}.${drop.id}`;

/** Derived from the rules alone, and kept for as long as they are. */
const known = new WeakMap<Rules, ReadonlyMap<string, Content>>();

/** All that loot tables can put into containers, by name. */
export function foundOf(rules: Rules): ReadonlyMap<string, Content> {
  let found = known.get(rules);
  if (!found) {
    const { list } = loot.of(rules);
    const all = list.flatMap((table) =>
      [...table.always, ...table.entries].map((drop) => [foundName(table, drop), contentOf(rules, table, drop)] as const),
    );
    known.set(rules, (found = new Map(all)));
  }
  return found;
}

function contentOf(rules: Rules, table: LootTable, drop: Drop): Content {
  const pickup = drop.what === 'pickup' ? pickups.of(rules).list[drop.index] : undefined;
  return {
    id: foundName(table, drop),
    label: drop.label,
    named: drop.named,
    gives: drop.what === 'gives' ? drop.index : -1,
    amount: undefined,
    chance: undefined,
    luck: 0,
    then: (world, parties) => {
      if (drop.what === 'effect' || drop.what === 'ability') giveTo(world, drop, 1, parties.owner, parties.target);
      // What would lie there does to its taker what it does to whoever touches it.
      pickup?.then(world, { owner: parties.owner, source: parties.owner, target: parties.owner });
      drop.then?.(world, parties);
    },
  };
}
