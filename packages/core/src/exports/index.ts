export * from './table.js';
export * from './typescript.js';
