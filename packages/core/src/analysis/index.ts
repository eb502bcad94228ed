export * from './findings.js';
export * from './wiring.js';
