import { toGrid } from '../../math/grid.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import type { GameEvent } from '../../world/events.js';
import type { World } from '../../world/world.js';
import { hasAttribute, attributes, readAttribute } from '../attributes/index.js';
import { isTold } from '../../ruleset/visible.js';
import { ledger } from './state.js';

/** At most so many lines a day and player; what comes after joins the last. */
export const MOST_LINES = 40;

export const OTHER = 'Other';

/** Who sees amounts of a player's money: nobody where the money itself is the server's alone. */
export function ofMoney(rules: Rules): 'owner' | 'server' {
  const { economy } = ledger.of(rules);
  return economy && !isTold(rules, 'attributes', economy.currency) ? 'server' : 'owner';
}

/** The id of the money; none where there is no economy. */
export const moneyOf = (world: World): string => ledger.of(world.rules).economy?.currency ?? '';

/** A player's money of a day counts from when they come, whatever they had before: no line of the account tells where that is from. */
export function openAccounts(world: World): void {
  const { economy, account, players, currency } = ledger.in(world);
  if (!economy) return;
  const types = world.actors.cells.type;
  for (let row = 0; row < world.actors.high; row++) {
    if (world.actors.live[row] === 0 || !players[types[row]] || account.here[row] === 1) continue;
    account.known[row] = account.here[row] = 1;
    account.opening[row] = toGrid(readAttribute(world, world.actors.handle(row), currency) - account.owed[row]);
  }
}

/** Where a change of money came from: the entry that led to it, or who gave or took it. */
export function sourceOf(world: World, event: GameEvent): string {
  const led = world.causingEvent;
  const fields = led && world.rules.registry.events.get(led.name)?.carries?.entries;
  for (const [field, chapter] of Object.entries(fields ?? {})) {
    const id = led!.data[field];
    // What only the server knows by name is no word in a player's account.
    if (typeof id === 'string' && id !== '' && chapter !== 'attributes' && isTold(world.rules, chapter, id))
      return labelOf(world.rules, chapter, id);
  }
  if (event.source !== 0 && event.source !== event.subject && event.by !== '') return event.by;
  return led?.name === 'poked' ? 'A poke' : OTHER;
}

export const isPlayerRow = (world: World, row: number): boolean =>
  row >= 0 && world.actors.live[row] === 1 && ledger.of(world.rules).players[world.actors.cells.type[row]];

/** Writes a line of today's account; one of the same source and direction is added to. */
export function noteLine(world: World, actor: number, source: string, amount: number): void {
  const { lines, account } = ledger.in(world);
  const row = world.actors.rowOf(actor);
  if (amount === 0 || !isPlayerRow(world, row)) return;
  const today = account.days[row] + 1;
  const { day: days, label: labels, amount: amounts, times } = lines.cells;
  let count = 0;
  let last = -1;
  const label = world.textIndex(source);
  for (const at of lines.rowsOf(actor)) {
    if (days[at] !== today) continue;
    count++;
    last = at;
    if (labels[at] !== label || Math.sign(amounts[at]) !== Math.sign(amount)) continue;
    amounts[at] = toGrid(amounts[at] + amount);
    times[at]++;
    return;
  }
  if (count >= MOST_LINES) {
    amounts[last] = toGrid(amounts[last] + amount);
    times[last]++;
    labels[last] = world.textIndex(OTHER);
    return;
  }
  lines.insert({ actor, day: today, label, amount, times: 1 });
}

export interface Line {
  readonly label: string;
  readonly amount: number;
  readonly times: number;
}

/** The lines of a day of somebody's account, in the order in which they were begun. */
export function linesOf(world: World, actor: number, day: number): readonly Line[] {
  const { lines } = ledger.in(world);
  const { day: days, label: labels, amount: amounts, times } = lines.cells;
  const rows = lines.rowsOf(actor).filter((at) => days[at] === day);
  return rows.map((at) => ({ label: world.text(labels[at]), amount: amounts[at], times: times[at] }));
}

/** Forgets the lines of days before one. */
export function forgetLines(world: World, actor: number, before: number): void {
  const { lines } = ledger.in(world);
  for (const at of lines.rowsOf(actor)) if (lines.cells.day[at] < before) lines.remove(at);
}

/** What somebody has of the currency. */
export function purseOf(world: World, actor: number): number {
  const { currency } = ledger.in(world);
  return currency >= 0 && hasAttribute(world, attributes.of(world.rules).list[currency], world.actors.rowOf(actor))
    ? readAttribute(world, actor, currency)
    : 0;
}

/** Why somebody may no longer trade: they are ruined, or have reached the goal; nothing where they may. */
export function closedFor(world: World, actor: number): 'ruined' | 'over' | undefined {
  const row = world.actors.rowOf(actor);
  const { account, economy } = ledger.in(world);
  if (row < 0 || !economy) return undefined;
  if (account.ruined[row] === 1) return 'ruined';
  return account.goal[row] > 0 ? 'over' : undefined;
}
