import type { Rules } from '../ruleset/rules.js';
import { collect } from './collect.js';

export const isEmpty = (list: unknown): boolean => !Array.isArray(list) || list.length === 0;

/** Whether anything hears of an event about an entry: then that is what it does. */
export function isHeard(rules: Rules, names: readonly string[], field: string, id: string): boolean {
  return collect(rules).patterns.some(({ pattern }) => {
    const asked: unknown = pattern[field as keyof typeof pattern];
    return names.includes(pattern.on) && (asked === undefined || asked === id);
  });
}
