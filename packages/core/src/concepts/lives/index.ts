import type { TableOf } from '../../world/define-table.js';
import { z } from 'zod';
import { finite, reference } from '../../ruleset/fields.js';
import type { Then } from '../../ruleset/registry.js';
import type { Rules } from '../../ruleset/rules.js';
import { defineConcept } from '../../world/concept.js';
import type { GameEvent } from '../../world/events.js';
import { World } from '../../world/world.js';
import { type ActorEntry, actors, removeActor, typeOf } from '../actors/index.js';
import { attributes, lowOf, poolsRest, restart, restPools } from '../attributes/index.js';
import { endEffectsOf } from '../effects/index.js';
import { headFor, placeActor, placeOf, startPoint } from '../movement/index.js';
import { enterState, isDown, leaveState, states } from '../states/index.js';
import { Names } from './names.js';
import { valuesOfKinds } from './capacity.js';
import { bringIn, compilePlaced, followPopulation, populate } from './population.js';
import { events } from './events.js';
import { livesTable, harmTable } from './tables.js';
import { type Life, lives } from './state.js';

export { lives } from './state.js';
export { bringIn } from './population.js';
export { MOST_ACTORS, MOST_VALUES } from './capacity.js';

/** Who hurt somebody longer ago than this had no part in its fall, in seconds. */
const HELP_WINDOW = 10;

/** Lives: who falls when a pool is empty, who did it and who helped, and how it comes back. */
export const livesConcept = defineConcept(lives, {
  compile: (context) => ({
    placed: compilePlaced(context),
    values: valuesOfKinds(context),
    list: context.entries<ActorEntry>('actors').map((entry, i): Life => {
      const list = (field: 'onSpawn' | 'onDefeat') => {
        const actions = entry[field] as Then | undefined;
        return actions === undefined || actions.length === 0 ? undefined : context.then(actions, ['actors', i, field]);
      };
      if (entry.life !== undefined) {
        const pool = context.index('attributes', entry.life);
        const target = context.entries<{ label: string; kind: string }>('attributes')[pool];
        if (target && target.kind !== 'pool')
          context.problem(['actors', i, 'life'], `${target.label} is not a pool: nobody falls at its bottom.`);
        if (!entry.attributes.some(({ attribute }) => attribute === entry.life))
          context.problem(['actors', i, 'life'], `${entry.label} does not have ${entry.life}: add it to its attributes.`);
      }
      return {
        pool: entry.life === undefined ? -1 : context.index('attributes', entry.life),
        onSpawn: list('onSpawn'),
        onDefeat: list('onDefeat'),
        after: entry.respawn === undefined ? 0 : Math.max(1, context.ticks(entry.respawn.after)),
        atStart: entry.respawn?.at !== 'place',
        goes: entry.respawn === undefined && entry.kind !== 'player',
      };
    }),
  }),
  tables: () => [livesTable, harmTable],
  attach: (world, compiled) => ({ ...compiled, table: livesTable.in(world), harm: harmTable.in(world), names: new Names() }),
  events,
  selectors: {
    helpers: {
      schema: z.literal('helpers'),
      matches: (to) => to === 'helpers',
      select:
        () =>
        (world, { owner, source }) =>
          helpersOf(world, owner, source),
    },
  },
  actions: {
    fell: {
      label: 'fell at once',
      sentence: 'fell {to} at once',
      causes: () => [{ event: 'actorDefeated' }],
      args: {},
      compile: () => (world, actor, parties) => defeat(world, actor, parties.source === actor ? 0 : parties.source),
    },
    summon: {
      label: 'bring an actor in',
      sentence: 'bring {actor} in at {to}',
      causes: () => [{ event: 'actorSpawned' }, { event: 'arenaFull' }],
      args: {
        actor: reference('actors'),
        x: finite().optional(),
        y: finite().optional(),
        /** The team that it is on; none where nothing is said. */
        team: reference('teams').optional(),
      },
      compile: (args, context) => {
        const type = context.index('actors', String(args['actor']));
        const team = args['team'] === undefined ? -1 : context.index('teams', String(args['team']));
        return (world, actor) => {
          const here = placeOf(world, world.actors.rowOf(actor));
          bringIn(world, type, team, { x: Number(args['x'] ?? here.x), y: Number(args['y'] ?? here.y) });
        };
      },
    },
    revive: {
      label: 'bring back at once',
      sentence: 'bring {to} back at once',
      causes: () => [{ event: 'actorReturned' }],
      args: {},
      compile: () => comeBack,
    },
  },
  lifecycle: {
    worldStarted: populate,
    rulesAdopted: followPopulation,
    actorSpawned: (world, row) => {
      const life = lives.in(world).list[world.actors.cells.type[row]];
      life.onSpawn?.(world, World.alone(world.actors.handle(row)));
    },
    poolEmptied: (world, row, pool, cause) => {
      const { list, table } = lives.in(world);
      const actor = world.actors.handle(row);
      if (list[world.actors.cells.type[row]].pool !== pool || isDown(world, row) || poolsRest(world, row)) return;
      restPools(world, actor, true);
      table.cells.emptied[row] = cause;
    },
    poolRaised: (world, row, pool) => {
      if (lives.in(world).list[world.actors.cells.type[row]].pool === pool) restPools(world, world.actors.handle(row), false);
    },
  },
  witness: (world, event) => {
    if (event.name === 'actorLeft') lives.in(world).names.leave(world, String(event.data['name']));
    else noteHarm(world, event);
  },
  systems: { timers: returnAll, thresholds: fellEmpty },
});

/** The same rules, under which nobody falls: for asking how a pool goes on that somebody falls at the bottom of. */
export function withoutFalls(rules: Rules): Rules {
  const compiled = lives.of(rules);
  const list = compiled.list.map((life) => ({ ...life, pool: -1 }));
  return { ...rules, compiled: new Map([...rules.compiled, [lives.id, { ...compiled, list }]]) };
}

/** Notes where an actor belongs: there it comes back to. */
export function settleAt(world: World, row: number, x: number, y: number, { listed = 0, made = 0 } = {}): void {
  const { table } = lives.in(world);
  const cells = { homeX: x, homeY: y, placed: 1, listed, made };
  table.write(row, cells);
}

/** The point that an actor belongs to: where it was put, or where its team begins. */
export function homeOf(world: World, row: number): { readonly x: number; readonly y: number } {
  const { table } = lives.in(world);
  return table.cells.placed[row] === 1 ? { x: table.cells.homeX[row], y: table.cells.homeY[row] } : startPoint(world, row);
}

/** Whoever lowers a pool that somebody falls at the bottom of has a part in its fall. */
function noteHarm(world: World, event: GameEvent): void {
  if (event.name !== 'attributeChanged' || event.data['how'] !== 'hurt' || event.source === 0 || event.source === event.subject) return;
  const { list, harm } = lives.in(world);
  const row = world.actors.rowOf(event.subject);
  const lost = -Number(event.data['given']);
  if (row < 0 || lost <= 0) return;
  const { pool } = list[world.actors.cells.type[row]];
  if (pool < 0 || world.rules.chapters.get('attributes')!.ids[pool] !== event.data['attribute']) return;
  if (!world.lookThrough(harm.count)) return;
  const at = harmRow(world, harm, event.subject, event.source);
  harm.cells.amount[at] += lost;
  harm.cells.tick[at] = world.tick;
  harm.cells.cause[at] = event.serial;
}

/** The row of what one did to another: that which there is, or one that is too old to count any more, or a new one. */
function harmRow(world: World, harm: TableOf<typeof harmTable>, of: number, who: number): number {
  const { actor, by, tick } = harm.cells;
  const oldest = world.tick - HELP_WINDOW * world.rules.tickRate;
  let free = -1;
  for (let row = 0; row < harm.high; row++) {
    if (harm.live[row] === 0) continue;
    if (actor[row] === of && by[row] === who) return row;
    if (free < 0 && tick[row] < oldest) free = row;
  }
  const cells = { actor: of, by: who, amount: 0 };
  if (free < 0) return harm.insert(cells);
  harm.write(free, cells);
  return free;
}

interface Harm {
  readonly by: number;
  readonly cause: number;
  readonly row: number;
}

/** Who hurt an actor within the window, the last one first. */
function harmTo(world: World, of: number): readonly Harm[] {
  const { harm } = lives.in(world);
  const { by, tick, cause } = harm.cells;
  const oldest = world.tick - HELP_WINDOW * world.rules.tickRate;
  const recent = harm.rowsOf(of).filter((row) => tick[row] >= oldest);
  return recent.map((row): Harm => ({ by: by[row], cause: cause[row], row })).sort((a, b) => b.cause - a.cause);
}

/** What each of those did who hurt an actor within the window, in table order. */
export function harmShares(world: World, of: number): readonly { readonly by: number; readonly amount: number }[] {
  const { harm } = lives.in(world);
  const amount = harm.cells.amount;
  return harmTo(world, of)
    .filter(({ by }) => world.actors.rowOf(by) >= 0)
    .map(({ by, row }) => ({ by, amount: amount[row] }))
    .sort((a, b) => world.actors.rowOf(a.by) - world.actors.rowOf(b.by));
}

/** Those who had a part in an actor's fall without having done it. */
function helpersOf(world: World, actor: number, did: number): readonly number[] {
  return harmTo(world, actor)
    .map(({ by }) => by)
    .filter((by) => by !== did && world.actors.rowOf(by) >= 0)
    .sort((a, b) => world.actors.rowOf(a) - world.actors.rowOf(b));
}

/** Fells everybody whose life is at its bottom, or has been since the last time: what refilled it meanwhile does not save. */
function fellEmpty(world: World): void {
  const { list, table } = lives.in(world);
  if (!list.some((life) => life.pool >= 0)) return;
  const { live, high } = world.actors;
  const type = world.actors.cells.type;
  const stats = attributes.in(world);
  const fallen: number[] = [];
  for (let row = 0; row < high; row++) {
    const pool = live[row] === 1 ? list[type[row]].pool : -1;
    if (pool < 0 || isDown(world, row)) continue;
    const actor = world.actors.handle(row);
    if (poolsRest(world, row) || stats.cells[pool].value.data[row] <= lowOf(world, stats.compiled.list[pool], actor)) fallen.push(actor);
  }
  for (const actor of world.turns.sort(fallen, (one) => one)) {
    const [last] = harmTo(world, actor);
    const row = world.actors.rowOf(actor);
    // What follows from another's fall may have taken this one away.
    if (row < 0) continue;
    const emptied = poolsRest(world, row) ? table.cells.emptied[row] : 0;
    restPools(world, actor, false);
    world.since(emptied || (last?.cause ?? 0), () => defeat(world, actor, last?.by ?? 0));
  }
}

/** Fells an actor: it is down, nothing is on it any more, and what follows from its fall follows. */
function defeat(world: World, actor: number, by: number): void {
  const row = world.actors.rowOf(actor);
  if (row < 0 || isDown(world, row)) return;
  const { list, table } = lives.in(world);
  const life = list[world.actors.cells.type[row]];
  if (!enterState(world, actor, states.in(world).down)) return;
  headFor(world, actor, 0, 0);
  endEffectsOf(world, actor, 'ownerGone');
  table.cells.falls[row]++;
  table.cells.returns[row] = life.after === 0 ? 0 : world.tick + life.after;
  const helpers = helpersOf(world, actor, by).length;
  world.follow(events.actorDefeated, { subject: actor, source: by, target: by }, { type: typeOf(world, row).id, helpers }, () =>
    life.onDefeat?.(world, { owner: actor, source: by, target: actor }),
  );
  // Whoever a spawner made does not come back by itself: its spawner makes another.
  if (life.goes || table.cells.made[row] > 0) removeActor(world, actor);
}

function returnAll(world: World): void {
  const { table } = lives.in(world);
  const returns = table.cells.returns;
  for (let row = 0; row < table.high; row++)
    if (returns[row] !== 0 && returns[row] <= world.tick && table.live[row] === 1) comeBack(world, world.actors.handle(row));
}

/** Brings one that is down back: where it belongs, with what it begins with. */
function comeBack(world: World, actor: number): void {
  const row = world.actors.rowOf(actor);
  if (row < 0 || !isDown(world, row)) return;
  const { list, table, harm } = lives.in(world);
  const life = list[world.actors.cells.type[row]];
  table.cells.returns[row] = 0;
  for (const at of harm.rowsOf(actor)) harm.remove(at);
  restart(world, row);
  if (life.atStart) {
    const { x, y } = homeOf(world, row);
    placeActor(world, row, x, y);
  }
  leaveState(world, actor, states.in(world).down);
  world.follow(
    events.actorReturned,
    { subject: actor, source: actor },
    { type: actors.in(world).types[world.actors.cells.type[row]].id },
    () => life.onSpawn?.(world, World.alone(actor)),
  );
}
