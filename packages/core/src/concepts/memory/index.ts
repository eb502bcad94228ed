import { defineConcept } from '../../world/concept.js';
import { memoryTable } from './tables.js';
import { memory } from './state.js';

export { memory } from './state.js';
export { EVERYBODY, nameNumber, type Recalled, recall, remember, forgetThing } from './system.js';

/**
 * Memory: what the world around players remembers of them by name, so that leaving and coming back is no way round it.
 * A row says that a party (or everybody) did something at a place: how often, and until when that counts.
 */
export const memoryConcept = defineConcept(memory, {
  tables: () => [memoryTable],
  attach: (world) => ({ table: memoryTable.in(world), index: { version: -1, rows: new Map() } }),
});
