export * from './possible.js';
export * from './wiring.js';
