export * from './history.js';
export * from './why.js';
