import type { Operation } from 'fast-json-patch';
import type { SOUND } from './sound.js';

/** A mistake that people make: what is other than in a sound ruleset, and what they have to be told. */
export interface Mistake {
  /** In which of the sound rulesets it is made. */
  readonly in: keyof typeof SOUND;
  readonly what: string;
  readonly made: readonly Operation[];
  /** Where it has to be told: there or below. */
  readonly at: string;
  /** What has to be said. */
  readonly says: string | RegExp;
}

/** Sets a value, whether there was one or not. */
export const put = (path: string, value: unknown): Operation => ({ op: 'add', path, value });
export const drop = (path: string): Operation => ({ op: 'remove', path });

/** A mistake of one change, told where it was made. */
export function mistake(
  within: Mistake['in'],
  what: string,
  made: Operation | readonly Operation[],
  says: string | RegExp,
  at?: string,
): Mistake {
  const all = Array.isArray(made) ? (made as readonly Operation[]) : [made as Operation];
  return { in: within, what, made: all, at: at ?? all[0].path, says };
}
