// Concepts come first: they register themselves, and everything else asks the registry.
export * from './concepts/index.js';
export {
  ATTRIBUTE_KINDS,
  type AttributeEntry,
  FOLLOWS,
  HOWS,
  ICONS,
  type ThresholdEntry,
  changeAttribute,
  OPERATIONS,
  type Operation,
  readAttribute,
  type Values,
  valuesOf,
} from './concepts/attributes/index.js';
export { applyEffect, type EffectEntry, endEffect, instancesOf, LIFETIMES, REASONS, STACKING } from './concepts/effects/index.js';
export { MOST_PINS, type SituationEntry } from './concepts/situations/index.js';
export type { AbilityEntry } from './concepts/abilities/index.js';
export { type ActorEntry, KINDS, spawnActor } from './concepts/actors/index.js';
export type { Arena } from './concepts/arena/index.js';
export { movement, placeActor, placeOf } from './concepts/movement/index.js';
export type { PickupEntry } from './concepts/pickups/index.js';
export { actorOfSeat, seatName, seatProblems, teamIds } from './concepts/seats/index.js';
export type { StatusEntry } from './concepts/statuses/index.js';
export { PATTERNS, type TeamEntry } from './concepts/teams/index.js';
export * from './evidence/index.js';
export * from './exports/index.js';
export * from './formula/index.js';
export { clamp, LARGEST_AMOUNT, roundTo, toGrid } from './math/grid.js';
export { exp, log, pow } from './math/power.js';
export * from './replication/index.js';
export * from './ruleset/index.js';
export * from './script/index.js';
export * from './why/index.js';
export * from './world/index.js';
