export * from './table.js';
export * from './typescript.js';
export * from './schema.js';
