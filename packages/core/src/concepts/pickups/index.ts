import { z } from 'zod';
import type { FormulaFunction } from '../../formula/index.js';
import type { CompiledThen } from '../../ruleset/context.js';
import { condition, duration, entryFields, finite, reference } from '../../ruleset/fields.js';
import { actionList } from '../../ruleset/registry.js';
import { defineConcept } from '../../world/concept.js';
import type { Table } from '../../world/table.js';
import { World } from '../../world/world.js';
import { arena } from '../arena/index.js';
import { headingCause, placeOf } from '../movement/index.js';
import { bodyRadius } from '../movement/system.js';

export const SHAPES = ['circle', 'diamond', 'capsule', 'square', 'triangle'] as const;

const schema = z.strictObject({
  ...entryFields(),
  radius: finite().min(1, 'A radius is 1 to 200.').max(200, 'A radius is 1 to 200.').default(10),
  /** How it is drawn. */
  shape: z.enum(SHAPES, `One of ${SHAPES.join(', ')} is expected.`).default('circle'),
  /** Who may take it; anyone where nothing is said. Bare names belong to the one who touches it. */
  who: condition().optional(),
  then: actionList().default([]),
  /** How long after it was taken another lies in its place. */
  returns: duration().optional(),
});
export type PickupEntry = z.infer<typeof schema>;

interface Pickup {
  readonly id: string;
  readonly label: string;
  readonly radius: number;
  readonly shape: PickupEntry['shape'];
  readonly who: FormulaFunction | undefined;
  readonly then: CompiledThen;
  readonly returns: number;
}

interface Pickups {
  readonly list: readonly Pickup[];
  readonly table: Table;
  readonly returnTimer: number;
}

/** Pickups: things that lie in the arena and are taken by touch. One taker each; gone for all the moment they are taken. */
export const pickups = defineConcept<readonly Pickup[], Pickups>({
  id: 'pickups',
  sections: { pickups: { kind: 'chapter', title: 'Pickups', entry: schema } },
  compile: (context) =>
    context.entries<PickupEntry>('pickups').map((entry, i) => ({
      id: entry.id,
      label: entry.label,
      radius: entry.radius,
      shape: entry.shape,
      who: entry.who === undefined ? undefined : context.condition(entry.who),
      then: context.then(entry.then, ['pickups', i, 'then']),
      returns: entry.returns === undefined ? 0 : Math.max(1, context.ticks(entry.returns)),
    })),
  tables: () => [
    {
      name: 'pickups',
      columns: [
        { name: 'pickup', kind: 'entry', chapter: 'pickups', see: 'everyone' },
        { name: 'x', kind: 'number', see: 'everyone', decimals: 1 },
        { name: 'y', kind: 'number', see: 'everyone', decimals: 1 },
        // One more than its place in the arena's list; 0 for one that was not placed there.
        { name: 'placed', kind: 'int', see: 'server' },
      ],
    },
  ],
  attach: (world, list) => ({ list, table: world.table('pickups'), returnTimer: world.rules.registry.timer('pickups.return') }),
  events: {
    pickupAppeared: {
      label: 'a pickup appears',
      see: 'everyone',
      sentence: (e, speak) => `${speak.label('pickups', String(e.data['pickup']))} appears`,
    },
    pickupTaken: {
      label: 'a pickup is taken',
      see: 'everyone',
      carries: { entries: { pickup: 'pickups' } },
      announced: true,
      sentence: (e, speak) => `${e.who} takes ${speak.label('pickups', String(e.data['pickup'])).toLowerCase()}`,
    },
  },
  actions: {
    spawn: {
      label: 'put a pickup down',
      sentence: 'put {pickup} down at {to}',
      args: { pickup: reference('pickups'), x: finite().optional(), y: finite().optional() },
      compile: (args, context) => {
        const index = context.index('pickups', String(args['pickup']));
        return (world, actor) => {
          const here = placeOf(world, world.actors.rowOf(actor));
          layDown(world, index, Number(args['x'] ?? here.x), Number(args['y'] ?? here.y), 0);
        };
      },
    },
  },
  timers: { return: (world, _actor, placed) => layPlaced(world, placed) },
  lifecycle: {
    worldStarted: (world) => arena.of(world.rules).placed.forEach((_, i) => layPlaced(world, i)),
    rulesAdopted: followArena,
  },
  systems: { overlaps: takeTouched },
  display: (list) => list.map(({ id, label, radius, shape }) => ({ id, label, radius, shape })),
});

function layDown(world: World, index: number, x: number, y: number, placed: number): void {
  const { table, list } = pickups.in(world);
  const row = table.add();
  table.column('pickup').data[row] = index;
  table.column('x').data[row] = x;
  table.column('y').data[row] = y;
  table.column('placed').data[row] = placed;
  world.emit('pickupAppeared', {}, { pickup: list[index].id, x, y });
}

function layPlaced(world: World, placed: number): void {
  const thing = arena.of(world.rules).placed[placed];
  if (!thing) return;
  const index = world.rules.chapters.get('pickups')!.ids.indexOf(thing.pickup);
  layDown(world, index, thing.x, thing.y, placed + 1);
}

/** The first actor in table order that touches a pickup and may take it, takes it. */
function takeTouched(world: World): void {
  const { table, list } = pickups.in(world);
  if (table.high === 0) return;
  const [kinds, xs, ys] = ['pickup', 'x', 'y'].map((name) => table.column(name).data);
  for (let row = 0; row < table.high; row++) {
    if (table.live[row] === 0) continue;
    const pickup = list[kinds[row]];
    for (let who = 0; who < world.actors.high; who++) {
      if (world.actors.live[who] === 0) continue;
      const at = placeOf(world, who);
      const reach = pickup.radius + bodyRadius(world, who);
      const dx = at.x - xs[row];
      const dy = at.y - ys[row];
      if (dx * dx + dy * dy > reach * reach) continue;
      const taker = world.actors.handle(who);
      if (pickup.who && pickup.who(world, World.alone(taker)) === 0) continue;
      take(world, row, pickup, taker);
      break;
    }
  }
}

function take(world: World, row: number, pickup: Pickup, taker: number): void {
  const { table, returnTimer } = pickups.in(world);
  const placed = table.column('placed').data[row];
  // Gone before anything follows from it: whatever the actions do, nobody gets it twice.
  table.remove(row);
  if (pickup.returns > 0 && placed > 0) world.setTimer(returnTimer, pickup.returns, 0, placed - 1);
  // What brought the taker here is what led to it.
  world.since(headingCause(world, world.actors.rowOf(taker)), () =>
    world.follow('pickupTaken', { subject: taker, source: taker }, { pickup: pickup.id }, () => pickup.then(world, World.alone(taker))),
  );
}

/** Under edited rules the arena is laid out anew where its list of placed things was edited. */
function followArena(world: World, before: World): void {
  const then = arena.of(before.rules).placed;
  const now = arena.of(world.rules).placed;
  if (JSON.stringify(then) === JSON.stringify(now)) return;
  const { table } = pickups.in(world);
  const placed = table.column('placed').data;
  for (let row = 0; row < table.high; row++) if (table.live[row] === 1 && placed[row] > 0) table.remove(row);
  now.forEach((_, i) => layPlaced(world, i));
}
