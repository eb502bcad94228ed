import { registerConcepts } from '../ruleset/registry.js';
import { abilitiesConcept } from './abilities/index.js';
import { actorsConcept } from './actors/index.js';
import { arenaConcept } from './arena/index.js';
import { attributesConcept } from './attributes/index.js';
import { behavioursConcept } from './behaviours/index.js';
import { clipsConcept } from './clips/index.js';
import { curvesConcept } from './curves/index.js';
import { deliveriesConcept } from './deliveries/index.js';
import { effectsConcept } from './effects/index.js';
import { flourishesConcept } from './flourishes/index.js';
import { memoryConcept } from './memory/index.js';
import { zonesConcept } from './zones/index.js';
import { interactionsConcept } from './interactions/index.js';
import { dialoguesConcept } from './dialogues/index.js';
import { containersConcept } from './containers/index.js';
import { spawnersConcept } from './spawners/index.js';
import { calendarConcept } from './calendar/index.js';
import { questsConcept } from './quests/index.js';
import { achievementsConcept } from './achievements/index.js';
import { crewsConcept } from './crews/index.js';
import { tracksConcept } from './tracks/index.js';
import { treesConcept } from './trees/index.js';
import { reactionsConcept } from './reactions/index.js';
import { offersConcept } from './offers/index.js';
import { daysConcept } from './days/index.js';
import { ledgerConcept } from './ledger/index.js';
import { marketsConcept } from './markets/index.js';
import { shopsConcept } from './shops/index.js';
import { stallsConcept } from './stalls/index.js';
import { tradeConcept } from './trade/index.js';
import { lootConcept } from './loot/index.js';
import { livesConcept } from './lives/index.js';
import { movementConcept } from './movement/index.js';
import { pickupsConcept } from './pickups/index.js';
import { seatsConcept } from './seats/index.js';
import { sequencesConcept } from './sequences/index.js';
import { checksConcept } from './checks/index.js';
import { huntsConcept } from './hunts/index.js';
import { situationsConcept } from './situations/index.js';
import { statesConcept } from './states/index.js';
import { statusesConcept } from './statuses/index.js';
import { teamsConcept } from './teams/index.js';

/** Every concept, in the order in which their systems run within a phase and their tables stand. One line adds one. */
export const concepts = registerConcepts([
  teamsConcept,
  curvesConcept,
  actorsConcept,
  statusesConcept,
  statesConcept,
  attributesConcept,
  effectsConcept,
  arenaConcept,
  movementConcept,
  clipsConcept,
  abilitiesConcept,
  deliveriesConcept,
  livesConcept,
  behavioursConcept,
  memoryConcept,
  calendarConcept,
  crewsConcept,
  pickupsConcept,
  lootConcept,
  zonesConcept,
  seatsConcept,
  sequencesConcept,
  dialoguesConcept,
  interactionsConcept,
  containersConcept,
  offersConcept,
  ledgerConcept,
  tradeConcept,
  marketsConcept,
  shopsConcept,
  daysConcept,
  stallsConcept,
  spawnersConcept,
  tracksConcept,
  treesConcept,
  questsConcept,
  achievementsConcept,
  reactionsConcept,
  flourishesConcept,
  situationsConcept,
  checksConcept,
  huntsConcept,
] as never[]).concepts;
