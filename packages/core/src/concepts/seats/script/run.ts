import { type Values, valuesOf } from '../../attributes/index.js';
import { actorOfSeat } from '../system.js';
import { sentenceOf } from '../../../replication/announcements.js';
import type { Rules } from '../../../ruleset/rules.js';
import type { GameEvent } from '../../../world/events.js';
import type { Command } from '../../../world/commands.js';
import { World } from '../../../world/world.js';
import { type Script, tickAt } from './schema.js';

export interface RunOptions {
  /** The last tick that is run. */
  readonly until: number;
  readonly seed?: number;
  /** Ticks between samples; none are taken where it is left out. */
  readonly every?: number;
}

/** What a run tells as it goes. Times are seconds from the start. */
export type RunRecord =
  | { readonly t: number; readonly event: GameEvent; readonly text: string }
  | { readonly t: number; readonly sample: Readonly<Record<string, Values>> };

/** The commands of a script by tick. Within a tick: seats taken, then inputs, then pokes, each in the script's order. */
export function commandsOf(script: Script, tickRate: number): ReadonlyMap<number, readonly Command[]> {
  const byTick = new Map<number, Command[]>();
  const put = (tick: number, command: Command) => void (byTick.get(tick)?.push(command) ?? byTick.set(tick, [command]));
  for (const { id, team, party, actor } of script.seats)
    put(1, { kind: 'join', args: { seat: id, ...(team && { team }), ...(party && { party }), ...(actor && { actor }) } });
  for (const { at, seat, ...input } of script.inputs) put(tickAt(at, tickRate), { kind: 'input', args: { seat, input } });
  for (const { at, seat, from, ...action } of script.pokes)
    put(tickAt(at, tickRate), { kind: 'poke', args: { ...(seat && { seat }), ...(from && { from }), action } });
  return byTick;
}

/** Plays a script without a server, as fast as it goes. Returns the world as it ends; `tell` hears of all on the way. */
export function runScript(rules: Rules, script: Script, options: RunOptions, tell: (record: RunRecord) => void = () => undefined): World {
  const world = World.start(rules, options.seed ?? 1);
  const commands = commandsOf(script, rules.tickRate);
  for (let tick = 1; tick <= options.until; tick++) {
    const t = tick / rules.tickRate;
    for (const event of world.step(commands.get(tick))) tell({ t, event, text: sentenceOf(rules, event) });
    if (options.every !== undefined && tick % options.every === 0) tell({ t, sample: valuesBySeat(world, script) });
  }
  return world;
}

export function valuesBySeat(world: World, script: Script): Record<string, Values> {
  return Object.fromEntries(script.seats.map(({ id }) => [id, valuesOf(world, actorOfSeat(world, id))]));
}
