import { LAY_STEPS } from '../../world/budget.js';
import { defineConcept } from '../../world/concept.js';
import type { Column, Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import type { Aim } from '../abilities/aim.js';
import { type AbilityEntry, abilities } from '../abilities/index.js';
import { events as livesEvents } from '../lives/events.js';
import { placeOf } from '../movement/index.js';
import { landAll, layArea } from './areas.js';
import { flyAll, launchProjectiles } from './projectiles.js';
import { events } from './events.js';

export { DELIVERIES, type DeliveryEntry } from './schema.js';

/** At most so many projectiles are under way in an arena, and as many areas. */
export const MOST_SENT = 2000;

const FLYING = ['ability', 'user', 'x', 'y', 'wayX', 'wayY', 'speed', 'ends', 'pierce', 'target', 'cause'] as const;
const GROUND = ['ability', 'user', 'x', 'y', 'radius', 'lands', 'ends', 'pulse', 'met', 'cause'] as const;
type Columns<N extends readonly string[]> = Readonly<Record<N[number], Column>>;

/** The deliveries' grip on a world. */
export interface Deliveries {
  readonly projectiles: Table;
  readonly flying: Columns<typeof FLYING>;
  readonly strikes: Table;
  readonly areas: Table;
  readonly ground: Columns<typeof GROUND>;
}

/** Deliveries: what abilities send on its way. Projectiles fly and meet whom they are for; areas land where they were aimed. */
export const deliveries = defineConcept<undefined, Deliveries>({
  id: 'deliveries',
  tables: (_, rules) => {
    const see = {
      column: 'ability',
      of: (rules.chapters.get('abilities')!.entries as unknown as readonly AbilityEntry[]).map((a) => a.see),
    };
    const shared = [
      { name: 'ability', kind: 'entry', chapter: 'abilities', see },
      { name: 'user', kind: 'actor', see },
      { name: 'x', kind: 'number', see, decimals: 1 },
      { name: 'y', kind: 'number', see, decimals: 1 },
    ] as const;
    const server = 'server' as const;
    return [
      {
        name: 'projectiles',
        owner: 'user',
        columns: [
          ...shared,
          // The direction that it flies in, of length 1, and how far it gets a second.
          { name: 'wayX', kind: 'number', see, decimals: 3 },
          { name: 'wayY', kind: 'number', see, decimals: 3 },
          { name: 'speed', kind: 'number', see, decimals: 1 },
          { name: 'ends', kind: 'tick', see: server },
          // How many more it goes through.
          { name: 'pierce', kind: 'int', see: server },
          { name: 'target', kind: 'actor', see: server },
          { name: 'cause', kind: 'serial', see: server },
        ],
      },
      {
        // Whom each has met: nobody is met twice.
        name: 'strikes',
        hidden: true,
        columns: [
          { name: 'projectile', kind: 'int', see: server },
          { name: 'target', kind: 'actor', see: server },
        ],
      },
      {
        name: 'areas',
        owner: 'user',
        columns: [
          ...shared,
          { name: 'radius', kind: 'number', see, decimals: 1 },
          { name: 'lands', kind: 'tick', see },
          { name: 'ends', kind: 'tick', see },
          { name: 'pulse', kind: 'tick', see: server },
          // Whether it has caught anybody yet.
          { name: 'met', kind: 'flag', see: server },
          { name: 'cause', kind: 'serial', see: server },
        ],
      },
    ];
  },
  attach: (world) => {
    const columns = <N extends readonly string[]>(table: Table, names: N) =>
      Object.fromEntries(names.map((name) => [name, table.column(name)])) as Columns<N>;
    const [projectiles, areas] = [world.table('projectiles'), world.table('areas')];
    return { projectiles, flying: columns(projectiles, FLYING), strikes: world.table('strikes'), areas, ground: columns(areas, GROUND) };
  },
  events,
  systems: {
    abilities: (world) => {
      flyAll(world);
      landAll(world);
    },
  },
});

/**
 * Whether another projectile or area of an ability has room in a table, and the tick has steps left for it. Where there is no
 * room, that is said.
 */
export function isRoomFor(world: World, table: Table, index: number): boolean {
  const { id, rule } = abilities.of(world.rules).list[index];
  if (!world.spend(LAY_STEPS, rule)) return false;
  if (table.count < MOST_SENT) return true;
  world.emit(livesEvents.arenaFull, {}, { ability: id });
  return false;
}

/** Sends an ability on its way to where it was aimed. */
export function launch(world: World, index: number, user: number, aim: Aim): void {
  const { deliver, target } = abilities.of(world.rules).list[index];
  const row = world.actors.rowOf(user);
  if (row < 0 || !deliver) return;
  const here = placeOf(world, row);
  const goal = world.actors.rowOf(aim.target) < 0 || target.at === 'self' ? aim : placeOf(world, world.actors.rowOf(aim.target));
  if (deliver.by === 'area')
    return layArea(world, index, deliver, user, ...(target.at === 'self' ? ([here.x, here.y] as const) : ([goal.x, goal.y] as const)));
  if (target.at === 'direction' || target.at === 'cone') return launchProjectiles(world, index, deliver, user, aim, aim.target);
  const dx = goal.x - here.x;
  const dy = goal.y - here.y;
  const length = Math.sqrt(dx * dx + dy * dy);
  launchProjectiles(world, index, deliver, user, length === 0 ? { x: 1, y: 0 } : { x: dx / length, y: dy / length }, aim.target);
}
