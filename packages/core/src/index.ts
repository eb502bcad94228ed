// Concepts come first: they register themselves, and everything else asks the registry.
import './concepts/index.js';
export * from './concepts/api.js';
export * from './analysis/index.js';
export * from './formula/index.js';
export { clamp, LARGEST_AMOUNT, roundTo, toGrid } from './math/grid.js';
export { exp, log, pow } from './math/power.js';
export * from './replication/index.js';
export * from './ruleset/index.js';
export * from './world/index.js';
export * from './ruleset/json-schema.js';
export * from './workbench/index.js';
