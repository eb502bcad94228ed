import { compileFormula, FormulaError, type Lookup, meansTheSame } from '../../../formula/index.js';
import { positionIn } from '../../../ruleset/positions.js';
import type { Rules } from '../../../ruleset/rules.js';
import { didYouMean } from '../../../ruleset/suggest.js';
import { walk } from '../../../ruleset/walk.js';
import { type CheckEntry, schema } from '../schema.js';
import { Mistake } from './mistake.js';

/** What a check speaks of, all of which was there. */
interface Spoken {
  readonly references: readonly (readonly [chapter: string, id: string])[];
  readonly lookups: readonly Lookup[];
}

/** Checks are the same objects as long as no edit touches them. */
const known = new WeakMap<CheckEntry, Spoken>();
const NO_IDS: readonly string[] = [];
const NOTHING: readonly Mistake[] = [];

/** All that a check speaks of and that is not there, each with its place. */
export function unknownIn(rules: Rules, entry: CheckEntry): readonly Mistake[] {
  const { vocabulary, chapters } = rules;
  const idsOf = (chapter: string) => chapters.get(chapter)?.ids ?? NO_IDS;
  const isThere = (chapter: string, id: string) => positionIn(idsOf(chapter), id) >= 0;
  const before = known.get(entry);
  if (before?.references.every(([chapter, id]) => isThere(chapter, id)) && before.lookups.every((one) => meansTheSame(vocabulary, one)))
    return NOTHING;
  const mistakes: Mistake[] = [];
  const references: (readonly [string, string])[] = [];
  const lookups: Lookup[] = [];
  walk(schema, entry, [], (mark, value, path) => {
    const at = path.join('/');
    if (mark.kind === 'reference') {
      references.push([mark.chapter, value]);
      if (!isThere(mark.chapter, value))
        mistakes.push(new Mistake(at, `The ${mark.chapter} have no entry ${value}.${didYouMean(value, idsOf(mark.chapter))}`));
      return;
    }
    try {
      lookups.push(...compileFormula(value, vocabulary, mark.place).lookups);
    } catch (error) {
      if (!(error instanceof FormulaError)) throw error;
      mistakes.push(new Mistake(at, error.message));
    }
  });
  if (mistakes.length === 0) known.set(entry, { references, lookups });
  return mistakes;
}
