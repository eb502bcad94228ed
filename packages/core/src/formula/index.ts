export * from './parser.js';
export * from './compile.js';
export { compileFormula } from './formula.js';
export { MATH_FUNCTIONS } from './functions.js';
export { type Lookup, meansTheSame } from './lookup.js';
export * from './text.js';
export * from './ranges.js';
