import { z } from 'zod';
import type { PartyName } from '../../formula/index.js';
import { toGrid } from '../../math/grid.js';
import { type AmountSource, amount, finite } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';
import type { World } from '../../world/world.js';
import { actors, teamOf } from '../actors/index.js';
import { arena } from '../arena/index.js';
import { attachMovement, bodyRadius, type Movement, moveAll, pushOut } from './system.js';

const PARTIES: readonly PartyName[] = ['source', 'target'];
const axis = () => finite().min(-1, 'A direction goes from -1 to 1.').max(1, 'A direction goes from -1 to 1.');

const nearby = z.strictObject({
  nearby: finite().min(0, 'A radius is not negative.'),
  who: z.enum(['anyone', 'others', 'crew'], 'One of anyone, others, crew is expected.').optional(),
});
type Nearby = z.infer<typeof nearby>;

/** Movement: where bodies are, where they are heading, and what stops them. */
export const movement = defineConcept<undefined, Movement>({
  id: 'movement',
  tables: () => [
    {
      name: 'bodies',
      extends: 'actors',
      columns: [
        { name: 'x', kind: 'number', see: 'everyone', decimals: 1 },
        { name: 'y', kind: 'number', see: 'everyone', decimals: 1 },
        // The direction asked for; a body on its way to a goal takes it from there.
        { name: 'headingX', kind: 'number', see: 'server', decimals: 3 },
        { name: 'headingY', kind: 'number', see: 'server', decimals: 3 },
        { name: 'goalX', kind: 'number', see: 'server', decimals: 1 },
        { name: 'goalY', kind: 'number', see: 'server', decimals: 1 },
        { name: 'toGoal', kind: 'flag', see: 'server' },
        // The serial of the input that set it moving.
        { name: 'cause', kind: 'int', see: 'server' },
      ],
    },
  ],
  attach: attachMovement,
  inputs: {
    move: {
      args: { x: axis(), y: axis() },
      // Held keys send the same direction again and again: only a new one is worth a line.
      traced: (world, actor, { x, y }) => isNewHeading(world, world.actors.rowOf(actor), Number(x), Number(y)),
      run: (world, actor, { x, y }) => head(world, actor, Number(x), Number(y)),
    },
    moveTo: {
      args: { x: finite(), y: finite() },
      traced: true,
      run: (world, actor, { x, y }) => {
        const row = world.actors.rowOf(actor);
        const { table } = movement.in(world);
        const { width, height } = arena.of(world.rules);
        head(world, actor, 0, 0);
        const inside = (value: number, most: number) => toGrid(Math.min(most, Math.max(0, value)));
        table.column('goalX').data[row] = inside(Number(x), width);
        table.column('goalY').data[row] = inside(Number(y), height);
        table.column('toGoal').data[row] = 1;
      },
    },
    stop: { args: {}, traced: false, run: (world, actor) => head(world, actor, 0, 0) },
  },
  actions: {
    place: {
      label: 'move at once to a point',
      sentence: 'put {to} at {x}, {y}',
      args: { x: amount(PARTIES), y: amount(PARTIES) },
      compile: (args, context, path) => {
        const [x, y] = ['x', 'y'].map((key) => context.amount(args[key] as AmountSource, [...path, key], PARTIES));
        return (world, actor, parties) => {
          const own = { ...parties, owner: actor };
          placeActor(world, world.actors.rowOf(actor), x.run(world, own), y.run(world, own));
        };
      },
    },
  },
  selectors: {
    nearby: {
      schema: nearby,
      matches: (to) => typeof to === 'object' && to !== null && 'nearby' in to,
      select: (to) => (world, parties) => actorsNear(world, parties.owner, to as Nearby),
    },
  },
  lifecycle: {
    actorSpawned: (world, row) => {
      const { x, y } = startPoint(world, row);
      placeActor(world, row, x, y);
    },
    rulesAdopted: (world) => {
      for (let row = 0; row < world.actors.high; row++) if (world.actors.live[row] === 1) pushOut(world, movement.in(world), row);
    },
  },
  systems: { movement: (world) => moveAll(world, movement.in(world)) },
});

function head(world: World, actor: number, x: number, y: number): void {
  const row = world.actors.rowOf(actor);
  const { table } = movement.in(world);
  table.column('headingX').data[row] = toGrid(x);
  table.column('headingY').data[row] = toGrid(y);
  table.column('toGoal').data[row] = 0;
  if (world.cause !== 0) table.column('cause').data[row] = world.cause;
}

function isNewHeading(world: World, row: number, x: number, y: number): boolean {
  const { table } = movement.in(world);
  return table.column('headingX').data[row] !== toGrid(x) || table.column('headingY').data[row] !== toGrid(y);
}

/** The serial of the input that set an actor moving, for what it runs into; 0 where none did. */
export function headingCause(world: World, row: number): number {
  return movement.in(world).table.column('cause').data[row];
}

/** Puts an actor somewhere, out of walls and inside the arena. */
export function placeActor(world: World, row: number, x: number, y: number): void {
  const { table } = movement.in(world);
  table.column('x').data[row] = toGrid(x);
  table.column('y').data[row] = toGrid(y);
  pushOut(world, movement.in(world), row);
}

/** Where an actor stands. */
export function placeOf(world: World, row: number): { readonly x: number; readonly y: number } {
  const { table } = movement.in(world);
  return { x: table.column('x').data[row], y: table.column('y').data[row] };
}

/** The team's start points in turn, then those for everybody, then the middle. */
function startPoint(world: World, row: number): { x: number; y: number } {
  const { starts, width, height } = arena.of(world.rules);
  const team = world.rules.chapters.get('teams')?.ids[actors.in(world).table.column('team').data[row]];
  const own = starts.filter((start) => start.team !== undefined && start.team === team);
  const fit = own.length > 0 ? own : starts.filter((start) => start.team === undefined);
  if (fit.length === 0) return { x: width / 2, y: height / 2 };
  const mates = Math.max(0, teamOf(world, world.actors.handle(row)).length - 1);
  return fit[mates % fit.length];
}

/** Actors whose body touches a circle around one, that one left out; `others` are those not of its team. */
function actorsNear(world: World, centre: number, { nearby: radius, who = 'anyone' }: Nearby): readonly number[] {
  const own = world.actors.rowOf(centre);
  if (own < 0) return [];
  const at = placeOf(world, own);
  const team = world.actors.column('team').data;
  const found: number[] = [];
  for (let row = 0; row < world.actors.high; row++) {
    if (world.actors.live[row] === 0 || row === own) continue;
    const crew = team[row] >= 0 && team[row] === team[own];
    if ((who === 'crew' && !crew) || (who === 'others' && crew)) continue;
    const { x, y } = placeOf(world, row);
    const reach = radius + bodyRadius(world, row);
    if ((x - at.x) * (x - at.x) + (y - at.y) * (y - at.y) <= reach * reach) found.push(world.actors.handle(row));
  }
  return found;
}
