export { ARENA_FORMAT, arenaFromJson, arenaToJson, placedFromCsv, placedToCsv } from './arena.js';
export { clipsFromCsv, clipsFromJson, clipsToCsv } from './clips.js';
export { ATTRIBUTE_COLUMNS, attributesFromCsv, attributesToCsv, type TableProblem, type TableReading } from './table.js';
export * from './typescript.js';
export * from './schema.js';
export { levelsFromCsv, levelsToCsv } from './levels.js';
export { questsFromCsv, questsToCsv } from './quests.js';
export { lootFromCsv, lootToCsv } from './loot.js';
export { pricesFromCsv, pricesToCsv } from './prices.js';
