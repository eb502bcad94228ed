import { CHANGEABLE, CHANGES, changed } from '../concepts/abilities/gifts.js';
import type { Copy } from '../replication/index.js';

/** So much of an attribute. */
export interface ShownCost {
  readonly attribute: string;
  readonly amount: number;
}

const COSTS = CHANGEABLE.indexOf('costs');
const ADD = CHANGES.indexOf('add');

/**
 * What an ability costs an actor, as far as a copy was told: what its player has learned is counted in, by the same
 * arithmetic as the server's.
 * @param row the actor's row
 * @param costs as a display is told of them: before anything was learned
 */
export function costsFor(copy: Copy, row: number, ability: string, costs: readonly ShownCost[]): readonly ShownCost[] {
  let [add, percent] = [0, 0];
  const value = (at: number, column: string) => copy.value('abilityNumbers', at, column);
  for (const at of copy.rows('abilityNumbers')) {
    if ((Number(value(at, 'actor')) & 0xfffff) !== row || value(at, 'ability') !== ability || value(at, 'number') !== COSTS) continue;
    if (value(at, 'change') === ADD) add += Number(value(at, 'amount'));
    else percent += Number(value(at, 'amount'));
  }
  return costs.map(({ attribute, amount }) => ({ attribute, amount: changed(amount, add, percent) }));
}
