import { compileFormula, FormulaError } from '../../../formula/index.js';
import type { Rules } from '../../../ruleset/rules.js';
import { didYouMean } from '../../../ruleset/suggest.js';
import { walk } from '../../../ruleset/walk.js';
import { type CheckEntry, schema } from '../schema.js';
import { Mistake } from './mistake.js';

/** All that a check speaks of and that is not there, each with its place. */
export function unknownIn(rules: Rules, entry: CheckEntry): readonly Mistake[] {
  const mistakes: Mistake[] = [];
  walk(schema, entry, [], (mark, value, path) => {
    const at = path.join('/');
    if (mark.kind === 'reference') {
      const known = rules.chapters.get(mark.chapter)?.ids ?? [];
      if (!known.includes(value)) mistakes.push(new Mistake(at, `The ${mark.chapter} have no entry ${value}.${didYouMean(value, known)}`));
      return;
    }
    try {
      compileFormula(value, rules.vocabulary, mark.place);
    } catch (error) {
      if (!(error instanceof FormulaError)) throw error;
      mistakes.push(new Mistake(at, error.message));
    }
  });
  return mistakes;
}
