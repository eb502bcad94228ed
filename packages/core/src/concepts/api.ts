// What of the concepts others may call: the registry first, for whatever follows asks it.
export * from './index.js';
export * from './told.js';
export { type Answer, answerTo, type Asked } from './questions.js';
export { abilityEvidence, abilitySweep } from './abilities/evidence.js';
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
  type AbilityRefusal,
  refusalOf,
  refusalWords,
  type TargetEntry,
  TARGETS,
  useAbility,
  wrapText,
} from './abilities/index.js';
export { abilitiesNow, type AbilityNow, abilityNow } from './abilities/now.js';
export { type AchievementEntry, achievements } from './achievements/index.js';
export { actorEvidence } from './actors/evidence.js';
export { type ActorEntry, counts, KINDS, spawnActor, WHO, type Who } from './actors/index.js';
export { ARENA_FORMAT, arenaFromJson, arenaToJson, placedFromCsv, placedToCsv } from './arena/exchange.js';
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
} from './arena/index.js';
export { attributeEvidence, followEvidence } from './attributes/evidence.js';
export { ATTRIBUTE_COLUMNS, attributesFromCsv, attributesToCsv } from './attributes/exchange.js';
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
} from './attributes/index.js';
export { type ActorSource, sourceOf } from './attributes/source.js';
export * from './attributes/typescript.js';
export * from './attributes/why.js';
export { BEHAVIOURS, type BehaviourEntry } from './behaviours/index.js';
export { DAY, serverNow } from './calendar/index.js';
export { type CheckEntry, MOST_ROWS as MOST_CHECK_ROWS, MOST_RUN as MOST_CHECKS_RUN } from './checks/index.js';
export type { CheckResult, Failure as CheckFailure, Outcome as CheckOutcome, RowResult, RunResult } from './checks/run/result.js';
export { type ChapterCoverage, type Coverage, coverageOf, type EntryCoverage } from './checks/coverage.js';
export { Footprint } from './checks/run/footprint.js';
export { type CheckRan, checksRun, type ChecksWanted, KeptResults, runChecks } from './checks/run/kept-results.js';
export { isCalled } from './checks/run/called.js';
export { CheckSession, checksOf } from './checks/run/session.js';
export { type CheckBackground, type CheckQuestions, checkStory, type CheckStory } from './checks/workbench.js';
export type { Chain } from './checks/run/recorder.js';
export { wordsOfStep } from './checks/run/step-words.js';
export { ANYTHING, type HuntEntry, type May } from './hunts/index.js';
export { alwaysOf, type Found, type HuntGo, type HuntMistakes, huntsOf, Search } from './hunts/run/search.js';
export type { HuntQuestions, HuntTasks } from './hunts/workbench.js';
export { clipsFromCsv, clipsFromJson, clipsToCsv } from './clips/exchange.js';
export type { ClipEntry } from './clips/index.js';
export { containerEvidence } from './containers/evidence.js';
export { CONTENTS, type ContainerEntry, type ContentEntry, LIDS, TAKES, VISITORS } from './containers/index.js';
export { switchRefusal, membersOf } from './crews/index.js';
export { economyFacts, type EconomyFacts } from './days/evidence.js';
export { EconomyGames, type Game, MOST_DAYS, rulesForGames } from './days/games/game.js';
export { type Difference, differenceOf, type Estimate, estimate, type Outcome, outcomeOf } from './days/games/outcome.js';
export { type Plan, PLAN_IDS, type PlanId, PLANS } from './days/games/plans.js';
export { DELIVERIES, type DeliveryEntry } from './deliveries/index.js';
export { dialogueEvidence } from './dialogues/evidence.js';
export { type DialogueEntry, SPEAKERS } from './dialogues/index.js';
export { effectEvidence } from './effects/evidence.js';
export { applyEffect, type EffectEntry, endEffect, instancesOf, LIFETIMES, REASONS, STACKING } from './effects/index.js';
export { interactionEvidence } from './interactions/evidence.js';
export { type InteractionEntry, REMEMBERS, SERVES } from './interactions/index.js';
export { type EconomyRules } from './ledger/index.js';
export {
  lootEvidence,
  type LootEvidence,
  type LootLine,
  LootSampler,
  type Read,
  type Roller,
  type Sampled,
  type SampleResult,
  SHARES,
  SHARE_WORDS,
} from './loot/evidence/index.js';
export { lootFromCsv, lootToCsv } from './loot/exchange.js';
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
} from './loot/index.js';
export { pricesFromCsv, pricesToCsv } from './markets/exchange.js';
export { type MarketEntry } from './markets/index.js';
export { actorsWithin, type Ground, movement, placeActor, placeOf, stepBody } from './movement/index.js';
export { pickupEvidence } from './pickups/evidence.js';
export { GONE, type PickupEntry, SHAPES } from './pickups/index.js';
export { type QuestMove, type QuestWalk, WALKERS, walkQuest } from './quests/evidence.js';
export { questsFromCsv, questsToCsv } from './quests/exchange.js';
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
} from './quests/index.js';
export { reactionEvidence } from './reactions/evidence.js';
export type { ReactionEntry } from './reactions/index.js';
export { actorOfSeat, seatName, seatProblems, teamIds } from './seats/index.js';
export { costsFor, type ShownCost } from './seats/predicted-costs.js';
export { type PredictedUse, Prediction } from './seats/prediction.js';
export * from './seats/script/index.js';
export { MOST_TIERS, type OfferEntry, RESTOCKS, type ShopEntry } from './shops/index.js';
export { MOST_PINS, type SituationEntry } from './situations/index.js';
export { pinLabel } from './situations/situations.js';
export { spawnerEvidence } from './spawners/evidence.js';
export { type SpawnerEntry, WHENS } from './spawners/index.js';
export { AGAINST } from './stalls/index.js';
export { GIVEN } from './given.js';
export { ALLOWED, type StateEntry, stateOf } from './states/index.js';
export type { StatusEntry } from './statuses/index.js';
export { teamEvidence, type TeamEvidence } from './teams/evidence.js';
export { ASSIGNS, PATTERNS, SWITCHES, type TeamEntry, type TeamRules } from './teams/index.js';
export { trackEvidence, type TrackEvidence } from './tracks/evidence.js';
export { levelsFromCsv, levelsToCsv } from './tracks/exchange.js';
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
} from './tracks/index.js';
export { refusalWords as tradeRefusalWords } from './trade/events.js';
export { type TreeWalk, walkTree } from './trees/evidence.js';
export {
  type LearnRefusal,
  learnRefusal,
  returnRefusal,
  learnRefusalWords,
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
} from './trees/index.js';
export { zoneEvidence } from './zones/evidence.js';
export type { ZoneEntry } from './zones/index.js';
export { type Loss, Upgrade } from './seats/upgrade.js';
export type { AbilityQuestions } from './abilities/workbench.js';
export type { AttributeQuestions } from './attributes/workbench.js';
export type { EconomyQuestions, EconomyTasks } from './days/workbench.js';
export type { LootQuestions, LootTasks } from './loot/workbench.js';
export type { QuestQuestions } from './quests/workbench.js';
export type { TeamQuestions } from './teams/workbench.js';
export type { TrackQuestions } from './tracks/workbench.js';
export type { TreeQuestions } from './trees/workbench.js';
