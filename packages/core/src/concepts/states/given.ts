import type { z } from 'zod';
import type { schema } from './schema.js';

/** The states that every actor has. A ruleset that writes one of these ids says it anew. */
export const GIVEN: readonly z.input<typeof schema>[] = [
  { id: 'idle', label: 'Idle', allows: ['move', 'use'] },
  { id: 'moving', label: 'Moving', allows: ['move', 'use'] },
  { id: 'casting', label: 'Casting' },
  { id: 'channelling', label: 'Channelling' },
  { id: 'recovering', label: 'Recovering', allows: ['move'] },
  { id: 'stunned', label: 'Stunned' },
  { id: 'down', label: 'Down', into: [] },
];
