import { GIVEN as states } from './states/given.js';

/** Entries that every ruleset has behind its own, by chapter, apart from the concepts: whoever shows a document needs no more of them. */
export const GIVEN = { states } as const;
