import { RulesetCompiler, type Reading } from '../../../ruleset/compiler.js';
import { positionOf, type Rules, type RulesetDocument } from '../../../ruleset/rules.js';
import { didYouMean } from '../../../ruleset/suggest.js';
import type { Change } from '../schema.js';
import { Mistake } from './mistake.js';

type Holder = Record<string, unknown> | unknown[];

/** A copy of a value with something else at a place in it. @throws Mistake where there is no such place */
function withAt(value: unknown, keys: readonly string[], put: unknown, path: string): unknown {
  const [key, ...rest] = keys;
  if (key === undefined) return put;
  if (typeof value !== 'object' || value === null) throw new Mistake(path, `There is nothing at ${key}.`);
  if (Array.isArray(value)) {
    const index = value.findIndex((item, i) => String(i) === key || (item as { readonly id?: unknown } | null)?.id === key);
    if (index < 0) throw new Mistake(path, `There is no ${key} in the list.`);
    return value.map((item: unknown, i) => (i === index ? withAt(item, rest, put, path) : item));
  }
  const holder = value as Exclude<Holder, unknown[]>;
  if (rest.length > 0 && !(key in holder)) throw new Mistake(path, `There is no ${key}.${didYouMean(key, Object.keys(holder))}`);
  return { ...holder, [key]: withAt(holder[key], rest, put, path) };
}

/** Reads rules with some of their entries changed: what a check changes is compiled, and nothing else is compiled again. */
export class ChangedRules {
  private readonly compiler = new RulesetCompiler();

  /** @throws Mistake where a change is of what is not there */
  read(rules: Rules, changes: readonly Change[]): Reading {
    let document: RulesetDocument = rules.document;
    changes.forEach((change, i) => {
      const path = `changes/${i}`;
      const [chapter, id] = Object.entries(change).find(([key]) => key !== 'at' && key !== 'value') as [string, string];
      const position = positionOf(rules, chapter, id);
      const entries = document[chapter] as readonly unknown[];
      if (position < 0 || position >= entries.length)
        throw new Mistake(
          `${path}/${chapter}`,
          `The ${chapter} have no entry ${id}.${didYouMean(id, rules.chapters.get(chapter)?.ids ?? [])}`,
        );
      const changed = withAt(entries[position], change.at.split('/'), change.value, `${path}/at`);
      document = { ...document, [chapter]: entries.map((entry, k) => (k === position ? changed : entry)) };
    });
    return this.compiler.read(document);
  }
}
