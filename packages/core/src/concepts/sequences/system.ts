import type { AmountSource } from '../../ruleset/fields.js';
import { type Then } from '../../ruleset/registry.js';
import { NO_RULE } from '../../world/budget.js';
import type { World } from '../../world/world.js';
import { sequences } from './state.js';

export const PARTIES = ['source', 'target'] as const;

export const MOST_BRANCHES = 20;

export interface Branch {
  readonly weight: AmountSource;
  readonly then: Then;
}

export function resume(world: World, handle: number): void {
  const { table, resumeTimer } = sequences.in(world);
  const row = table.rowOf(handle);
  if (row < 0) return;
  const { cells } = table;
  const [owner, source, target, scope] = [cells.owner[row], cells.source[row], cells.target[row], cells.scope[row]];
  const [piece, luck, repeated, cause] = [cells.piece[row], cells.luck[row], cells.repeated[row], cells.cause[row]];
  // Where the tick has no steps left it goes on at the next one.
  if (!world.goesOn(NO_RULE)) return void world.setTimer(resumeTimer, 1, owner, handle);
  table.remove(row);
  // An edit may have taken out what was still to be done.
  const rest = world.rules.pieces.get(piece);
  if (rest)
    world.since(cause, () =>
      rest(world, { owner, source, target, scope, ...(luck !== 0 && { luck }), ...(repeated !== 0 && { repeated: true }) }),
    );
}

/** Stops every list that waits and belongs to something that has ended. */
export function endWaits(world: World, scope: number): void {
  const { table } = sequences.in(world);
  const scopes = table.cells.scope;
  for (const row of table.rows()) if (scopes[row] === scope) table.remove(row);
}

/** What lists that wait belong to, each once; those that stand for themselves are left out. */
export function scopesWaiting(world: World): readonly number[] {
  const { table } = sequences.in(world);
  const scopes = table.rows().map((row) => table.cells.scope[row]);
  return [...new Set(scopes.filter((scope) => scope !== 0))];
}

/** Whether a list that belongs to something still waits. */
export function isWaiting(world: World, scope: number): boolean {
  const { table } = sequences.in(world);
  const scopes = table.cells.scope;
  for (const row of table.rows()) if (scopes[row] === scope) return true;
  return false;
}
