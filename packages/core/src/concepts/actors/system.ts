import type { CompileContext } from '../../ruleset/context.js';
import { type EventParty } from '../../world/event-fields.js';
import { type GameEvent } from '../../world/events.js';
import { removeOwned } from '../../world/saved.js';
import type { World } from '../../world/world.js';
import type { Who } from './relations.js';
import { type ActorEntry } from './schema.js';
import { actors } from './state.js';
import { events } from './events.js';

export function* rows(world: World): Iterable<number> {
  const { actors: table } = world;
  for (let row = 0; row < table.high; row++) if (table.live[row] === 1) yield row;
}

/** By kind of actor, whether it is one that players drive: they alone have what is kept. */
export const playerKinds = (context: CompileContext): readonly boolean[] =>
  context.entries<ActorEntry>('actors').map(({ kind }) => kind === 'player');

/** The handles of all actors, in table order. */
export function allActors(world: World): readonly number[] {
  return [...rows(world)].map((row) => world.actors.handle(row));
}

/** The handles of an actor's team with itself; an actor without a team is alone. */
/** Those for whom an event counts: who plays a part in it, or, whoever does, everybody. */
export function countsForWhom(world: World, event: GameEvent, who: EventParty | 'anyone'): readonly number[] {
  return who === 'anyone' ? allActors(world) : [event[who]];
}

export function teamOf(world: World, actor: number): readonly number[] {
  const row = world.actors.rowOf(actor);
  if (row < 0) return [];
  const team = world.actors.cells.team;
  return team[row] < 0 ? [actor] : [...rows(world)].filter((other) => team[other] === team[row]).map((other) => world.actors.handle(other));
}

/** The side that an actor is on: its team, or the wild ones, or its own; none for characters and props without a team. */
export function sideOf(world: World, row: number): number | undefined {
  const team = world.actors.cells.team[row];
  if (team >= 0) return team;
  const { kind } = typeOf(world, row);
  if (kind === 'foe') return -1;
  return kind === 'player' ? -2 - row : undefined;
}

/**
 * Whether one actor counts for another. `foes` are on another side, `allies` on the same one, `crew` in the same team,
 * `others` in no team with it, `anyone` is everybody. Teams are sides; foes without a team are one side together, a player
 * without one is alone on its own; characters and props without a team are on none. Nobody counts for itself.
 */
export function counts(world: World, own: number, other: number, who: Who): boolean {
  if (own === other) return false;
  if (who === 'anyone') return true;
  const team = world.actors.cells.team;
  const crew = team[own] >= 0 && team[own] === team[other];
  if (who === 'crew') return crew;
  if (who === 'others') return !crew;
  const mine = sideOf(world, own);
  const its = sideOf(world, other);
  if (mine === undefined || its === undefined) return false;
  return who === 'foes' ? mine !== its : mine === its;
}

/** The handle of the actor of a name; 0 where nobody is called so. */
export function actorCalled(world: World, name: string): number {
  for (const row of rows(world)) if (world.text(world.actors.cells.name[row]) === name) return world.actors.handle(row);
  return 0;
}

/** The compiled type of a live actor's row. */
export function typeOf(world: World, row: number): ActorEntry {
  return actors.in(world).types[world.actors.cells.type[row]];
}

/** Puts a new actor into the world and returns its handle. `type` and `team` are positions in their chapters, -1 for no team. */
export function spawnActor(world: World, type: number, team: number, name: string): number {
  const row = world.actors.add();
  world.actors.cells.type[row] = type;
  world.actors.cells.team[row] = team;
  world.actors.cells.name[row] = world.textIndex(name);
  world.rules.registry.lifecycle('actorSpawned', world, row);
  const actor = world.actors.handle(row);
  world.emit(events.actorSpawned, { subject: actor });
  return actor;
}

/** Takes an actor out of the world, with all it owns. */
export function removeActor(world: World, actor: number): void {
  const row = world.actors.rowOf(actor);
  if (row < 0) return;
  const name = world.nameOf(actor);
  world.rules.registry.lifecycle('actorLeaving', world, row);
  removeOwned(world, actor);
  world.actors.remove(row);
  world.emit(events.actorLeft, {}, { name });
}
