import type { Rules } from '../ruleset/rules.js';
import { isWaitedFor } from './net.js';

export const isEmpty = (list: unknown): boolean => !Array.isArray(list) || list.length === 0;

/** Whether anything hears of an event about an entry: then that is what it does. */
export function isHeard(rules: Rules, names: readonly string[], field: string, id: string): boolean {
  return names.some((name) => isWaitedFor(rules, name, field, id));
}
