import { toMilliseconds } from '../../../ruleset/fields.js';

/** A time span in words: `1.5 s`. */
export const asTime = (text: string): string => `${toMilliseconds(text) / 1000} s`;
