import type { PartyName } from '../../formula/index.js';
import { type AmountSource, amount, finite } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';
import { typeOf } from '../actors/index.js';
import { arena, spotsOf } from '../arena/index.js';
import { attachMovement, moveAll, pushOut } from './system.js';
import { bodiesTable } from './tables.js';
import { movement } from './state.js';
import { actorsNear, axis, face, headFor, isNewHeading, type Nearby, nearby, placeActor, push, sendTo, startPoint } from './places.js';
import { described } from '../../ruleset/described.js';

export { movement } from './state.js';
export { type Ground, onGrid, stepBody } from './ground.js';
export { bodyRadius } from './radius.js';
export { Spots } from './spots.js';
export { sendTo, headFor, headingCause, placeActor, placeOf, startPoint, face, facingOf, isHeading, actorsWithin } from './places.js';

const PARTIES: readonly PartyName[] = ['source', 'target'];

const AXES = [-1, 0, 1];

/** Movement: where bodies are, where they are heading, and what stops them. */
export const movementConcept = defineConcept(movement, {
  tables: () => [bodiesTable],
  attach: attachMovement,
  inputs: {
    move: {
      label: 'move in a direction',
      sentence: 'moves in the direction {x}, {y}',
      args: { x: axis(), y: axis() },
      examples: () => AXES.flatMap((x) => AXES.map((y) => ({ x, y }))),
      // Held keys send the same direction again and again: only a new one is worth a line.
      traced: (world, actor, { x, y }) => isNewHeading(world, world.actors.rowOf(actor), Number(x), Number(y)),
      run: (world, actor, { x, y }) => headFor(world, actor, Number(x), Number(y)),
    },
    moveTo: {
      label: 'move to a point',
      sentence: 'moves to {x}, {y}',
      args: { x: finite(), y: finite() },
      examples: spotsOf,
      traced: true,
      run: (world, actor, { x, y }) => sendTo(world, actor, Number(x), Number(y)),
    },
    stop: { label: 'stand still', sentence: 'stops', args: {}, traced: false, run: (world, actor) => headFor(world, actor, 0, 0) },
  },
  actions: {
    push: {
      label: 'push away or pull near',
      sentence: 'push {to} {distance} away from the source',
      args: { distance: described(amount(PARTIES), { begins: 60 }) },
      compile: (args, context, path) => {
        const distance = context.amount(args['distance'] as AmountSource, [...path, 'distance'], PARTIES);
        return (world, actor, parties) => push(world, actor, parties.source, distance.run(world, { ...parties, owner: actor }));
      },
    },
    place: {
      label: 'move at once to a point',
      sentence: 'put {to} at {x}, {y}',
      args: { x: amount(PARTIES), y: amount(PARTIES) },
      examples: spotsOf,
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
      sentence: '{who} within {nearby}',
      schema: nearby,
      matches: (to) => typeof to === 'object' && to !== null && 'nearby' in to,
      select: (to) => (world, parties) => actorsNear(world, parties.owner, to as Nearby),
    },
  },
  lifecycle: {
    actorSpawned: (world, row) => {
      // All others are put where they belong by whoever brings them in.
      const { width, height } = arena.of(world.rules);
      const { x, y } = typeOf(world, row).kind === 'player' ? startPoint(world, row) : { x: width / 2, y: height / 2 };
      placeActor(world, row, x, y);
      face(world, row, 1, 0);
    },
    actorLeaving: (world) => movement.in(world).near.spoil(),
    rulesAdopted: (world) => {
      world.actors.each((row) => pushOut(world, movement.in(world), row));
    },
  },
  systems: { movement: (world) => moveAll(world, movement.in(world)) },
});
