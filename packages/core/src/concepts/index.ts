import { registerConcepts } from '../ruleset/registry.js';
import { abilities } from './abilities/index.js';
import { actors } from './actors/index.js';
import { arena } from './arena/index.js';
import { attributes } from './attributes/index.js';
import { behaviours } from './behaviours/index.js';
import { clips } from './clips/index.js';
import { curves } from './curves/index.js';
import { deliveries } from './deliveries/index.js';
import { effects } from './effects/index.js';
import { flourishes } from './flourishes/index.js';
import { memory } from './memory/index.js';
import { zones } from './zones/index.js';
import { interactions } from './interactions/index.js';
import { dialogues } from './dialogues/index.js';
import { containers } from './containers/index.js';
import { spawners } from './spawners/index.js';
import { calendar } from './calendar/index.js';
import { quests } from './quests/index.js';
import { achievements } from './achievements/index.js';
import { crews } from './crews/index.js';
import { tracks } from './tracks/index.js';
import { trees } from './trees/index.js';
import { reactions } from './reactions/index.js';
import { reach } from './reach/index.js';
import { days } from './days/index.js';
import { ledger } from './ledger/index.js';
import { markets } from './markets/index.js';
import { shops } from './shops/index.js';
import { stalls } from './stalls/index.js';
import { trade } from './trade/index.js';
import { loot } from './loot/index.js';
import { lives } from './lives/index.js';
import { movement } from './movement/index.js';
import { pickups } from './pickups/index.js';
import { seats } from './seats/index.js';
import { sequences } from './sequences/index.js';
import { situations } from './situations/index.js';
import { states } from './states/index.js';
import { statuses } from './statuses/index.js';
import { teams } from './teams/index.js';

/** Every concept, in the order in which their systems run within a phase and their tables stand. One line adds one. */
export const concepts = registerConcepts([
  teams,
  curves,
  actors,
  statuses,
  states,
  attributes,
  effects,
  arena,
  movement,
  clips,
  abilities,
  deliveries,
  lives,
  behaviours,
  memory,
  calendar,
  crews,
  pickups,
  loot,
  zones,
  seats,
  sequences,
  dialogues,
  interactions,
  containers,
  reach,
  ledger,
  trade,
  markets,
  shops,
  days,
  stalls,
  spawners,
  tracks,
  trees,
  quests,
  achievements,
  reactions,
  flourishes,
  situations,
] as never[]).concepts;
