// Concepts come first: they register themselves, and everything else asks the registry.
export * from './concepts/index.js';
export * from './concepts/told.js';
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
export { type ActorSource, sourceOf } from './concepts/attributes/source.js';
export { applyEffect, type EffectEntry, endEffect, instancesOf, LIFETIMES, REASONS, STACKING } from './concepts/effects/index.js';
export { MOST_PINS, type SituationEntry } from './concepts/situations/index.js';
export {
  type AbilityEntry,
  type AbilityView,
  CAST_PHASES,
  type CastPhase,
  CHARGES,
  type GroupEntry,
  CHANGEABLE,
  CHANGES,
  NUMBERS as ABILITY_NUMBERS,
  type Refusal,
  refusalOf,
  refusalWords,
  type TargetEntry,
  TARGETS,
  useAbility,
  wrapText,
} from './concepts/abilities/index.js';
export { type ActorEntry, counts, KINDS, spawnActor, WHO, type Who } from './concepts/actors/index.js';
export {
  type Arena,
  crossing,
  isInSight,
  kindOfPlaced,
  PLACEABLE,
  type Placeable,
  type Placed,
  type PlacedAs,
  placements,
  type Wall,
} from './concepts/arena/index.js';
export { BEHAVIOURS, type BehaviourEntry } from './concepts/behaviours/index.js';
export type { ClipEntry } from './concepts/clips/index.js';
export { DELIVERIES, type DeliveryEntry } from './concepts/deliveries/index.js';
export { actorsWithin, type Ground, movement, placeActor, placeOf, stepBody } from './concepts/movement/index.js';
export { ALLOWED, GIVEN as GIVEN_STATES, type StateEntry, stateOf } from './concepts/states/index.js';
export { CONTENTS, type ContainerEntry, type ContentEntry, LIDS, TAKES, VISITORS } from './concepts/containers/index.js';
export { type DialogueEntry, SPEAKERS } from './concepts/dialogues/index.js';
export { type InteractionEntry, REMEMBERS, SERVES } from './concepts/interactions/index.js';
export { GONE, type PickupEntry, SHAPES } from './concepts/pickups/index.js';
export {
  type AlwaysJson,
  amountWords,
  loot,
  type LootEntryJson,
  type LootTableJson,
  MOST_LOOT,
  openTable,
  percent,
  ROLLED,
} from './concepts/loot/index.js';
export { type EconomyRules } from './concepts/ledger/index.js';
export { type MarketEntry } from './concepts/markets/index.js';
export { MOST_TIERS, type OfferEntry, RESTOCKS, type ShopEntry } from './concepts/shops/index.js';
export { AGAINST } from './concepts/stalls/index.js';
export { refusalWords as tradeRefusalWords } from './concepts/trade/events.js';
export type { ReactionEntry } from './concepts/reactions/index.js';
export { type SpawnerEntry, WHENS } from './concepts/spawners/index.js';
export type { ZoneEntry } from './concepts/zones/index.js';
export { actorOfSeat, seatName, seatProblems, teamIds } from './concepts/seats/index.js';
export { type AchievementEntry, achievements } from './concepts/achievements/index.js';
export { DAY, serverNow } from './concepts/calendar/index.js';
export {
  BEGINS,
  COUNTS,
  OFFERED as QUEST_OFFERED,
  OFFERED_BY,
  type QuestEntry,
  quests,
  REPEATS,
  type Standing,
  STANDINGS,
  stretch,
} from './concepts/quests/index.js';
export {
  AMONG,
  HOW_SHARED,
  levelOf,
  LOCALS as TRACK_LOCALS,
  MOST_LEVELS,
  type Share,
  tableOf,
  tracks,
  type TrackEntry,
} from './concepts/tracks/index.js';
export {
  type Hindrance,
  hindrance,
  hindranceBack,
  hindranceWords,
  isLegal,
  legalPart,
  type Means,
  MOST_NODES,
  MOST_RANKS,
  type Needs,
  needsByPosition,
  type NodeEntry,
  NODE_LOCALS,
  ranksOf,
  renameNode,
  RESPECS,
  type Shape,
  spentOn,
  type TreeEntry,
  trees,
} from './concepts/trees/index.js';
export type { StatusEntry } from './concepts/statuses/index.js';
export { ASSIGNS, PATTERNS, SWITCHES, type TeamEntry, type TeamRules } from './concepts/teams/index.js';
export { hindranceToSwitch, membersOf } from './concepts/crews/index.js';
export * from './analysis/index.js';
export * from './evidence/index.js';
export * from './exports/index.js';
export * from './formula/index.js';
export { clamp, LARGEST_AMOUNT, roundTo, toGrid } from './math/grid.js';
export { exp, log, pow } from './math/power.js';
export * from './lab/index.js';
export * from './prediction/index.js';
export * from './replication/index.js';
export * from './ruleset/index.js';
export * from './script/index.js';
export * from './why/index.js';
export * from './world/index.js';
