export * from './run.js';
export * from './schema.js';
