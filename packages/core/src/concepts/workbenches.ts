/**
 * What the workbench asks of each concept that has questions, tasks, evidence or files. They are loaded together, once the first of
 * them is asked for and never by a game: a module for each by itself has a bundler cut all that they share into small files.
 */
export { workbench as abilities } from './abilities/workbench.js';
export { workbench as actors } from './actors/workbench.js';
export { workbench as arena } from './arena/workbench.js';
export { workbench as attributes } from './attributes/workbench.js';
export { workbench as checks } from './checks/workbench.js';
export { workbench as clips } from './clips/workbench.js';
export { workbench as containers } from './containers/workbench.js';
export { workbench as days } from './days/workbench.js';
export { workbench as dialogues } from './dialogues/workbench.js';
export { workbench as effects } from './effects/workbench.js';
export { workbench as hunts } from './hunts/workbench.js';
export { workbench as interactions } from './interactions/workbench.js';
export { workbench as loot } from './loot/workbench.js';
export { workbench as markets } from './markets/workbench.js';
export { workbench as pickups } from './pickups/workbench.js';
export { workbench as quests } from './quests/workbench.js';
export { workbench as reactions } from './reactions/workbench.js';
export { workbench as spawners } from './spawners/workbench.js';
export { workbench as teams } from './teams/workbench.js';
export { workbench as tracks } from './tracks/workbench.js';
export { workbench as trees } from './trees/workbench.js';
export { workbench as zones } from './zones/workbench.js';
