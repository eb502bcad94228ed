export { containerEvidence } from './containers.js';
export { dialogueEvidence } from './dialogues.js';
export { interactionEvidence } from './interactions.js';
export { pickupEvidence } from './pickups.js';
export { reactionEvidence } from './reactions.js';
export { spawnerEvidence } from './spawners.js';
export { zoneEvidence } from './zones.js';
