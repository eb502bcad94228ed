import { changed } from '../abilities/gifts.js';
import { abilityNumbersTable } from '../abilities/tables.js';
import type { Copy } from '../../replication/index.js';

/** So much of an attribute. */
export interface ShownCost {
  readonly attribute: string;
  readonly amount: number;
}

/**
 * What an ability costs an actor, as far as a copy was told: what its player has learned is counted in, by the same
 * arithmetic as the server's.
 * @param row the actor's row
 * @param costs as a display is told of them: before anything was learned
 */
export function costsFor(copy: Copy, row: number, ability: string, costs: readonly ShownCost[]): readonly ShownCost[] {
  let [add, percent] = [0, 0];
  for (const learned of copy.of(abilityNumbersTable).ownedBy(row)) {
    if (learned.ability !== ability || learned.number !== 'costs') continue;
    if (learned.change === 'add') add += learned.amount ?? 0;
    else percent += learned.amount ?? 0;
  }
  return costs.map(({ attribute, amount }) => ({ attribute, amount: changed(amount, add, percent) }));
}
