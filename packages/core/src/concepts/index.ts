import { registerConcepts } from '../ruleset/registry.js';
import { abilities } from './abilities/index.js';
import { actors } from './actors/index.js';
import { arena } from './arena/index.js';
import { attributes } from './attributes/index.js';
import { curves } from './curves/index.js';
import { effects } from './effects/index.js';
import { flourishes } from './flourishes/index.js';
import { movement } from './movement/index.js';
import { pickups } from './pickups/index.js';
import { seats } from './seats/index.js';
import { sequences } from './sequences/index.js';
import { situations } from './situations/index.js';
import { statuses } from './statuses/index.js';
import { teams } from './teams/index.js';

/** Every concept, in the order in which their systems run within a phase and their tables stand. One line adds one. */
export const concepts = registerConcepts([
  teams,
  curves,
  actors,
  statuses,
  attributes,
  effects,
  abilities,
  arena,
  movement,
  pickups,
  seats,
  sequences,
  flourishes,
  situations,
] as never[]).concepts;
