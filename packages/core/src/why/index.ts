export { abilitiesNow, type AbilityNow, abilityNow } from './abilities.js';
export * from './history.js';
export * from './why.js';
