export { actorEvidence } from './actors.js';
export { abilityEvidence, abilitySweep } from './abilities.js';
export { attributeEvidence, followEvidence } from './attributes.js';
export {
  containerEvidence,
  dialogueEvidence,
  interactionEvidence,
  pickupEvidence,
  reactionEvidence,
  spawnerEvidence,
  zoneEvidence,
} from './scenes/index.js';
export { evidenceCsv } from './csv.js';
export { effectEvidence } from './effects.js';
export { pinLabel } from './situations.js';
export {
  EVIDENCE_SECONDS,
  type Evidence,
  type Pin,
  type PinAction,
  type ProposedSituation,
  type Series,
  type Span,
  type Sweep,
  type SweepPoint,
} from './types.js';
export { trackEvidence, type TrackEvidence } from './tracks.js';
export { type TreeWalk, walkTree } from './trees.js';
export { teamEvidence, type TeamEvidence } from './teams.js';
export { type QuestMove, type QuestWalk, WALKERS, walkQuest } from './quests.js';
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
} from './loot/index.js';
export { economyFacts, type EconomyFacts } from './economy.js';
