export * from './concept.js';
export * from './events.js';
export * from './table.js';
export * from './hash.js';
export * from './world.js';
export * from './players.js';
export * from './stored.js';
export * from './kept.js';
