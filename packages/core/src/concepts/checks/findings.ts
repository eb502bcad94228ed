import { atEach } from '../../analysis/each.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import { filled } from './run/rows.js';
import { Mistake } from './run/mistake.js';
import { unknownIn } from './run/names.js';
import type { Rules } from '../../ruleset/rules.js';
import { checkChapter, type CheckEntry, MOST_RUN } from './schema.js';

/** Checks that are so many that not all are run. */
export function tooMany(rules: Rules): readonly Finding[] {
  const all = checkChapter.of(rules);
  if (all.length <= MOST_RUN) return [];
  const message = `The first ${MOST_RUN} checks of a ruleset are run; this one and those behind it, ${all.length - MOST_RUN} in all, are not. Make rows of tables of them, or take some out.`;
  return [{ kind: 'notRun', path: pointer(['checks', MOST_RUN]), message }];
}

/** Checks that can't fail, and those that speak of what is not there, or is no longer. */
export const findings = atEach(checkChapter, (check, i, rules): readonly Finding[] => {
  const path = pointer(['checks', i]);
  if (expectsNothing(check))
    return [
      { kind: 'expectsNothing', path, message: `${check.label} can’t fail: it expects nothing. Add what should hold then, or always.` },
    ];
  try {
    const [first, ...others] = unknownIn(rules, filled(check, check.each && 0));
    if (!first) return [];
    const more =
      others.length === 0 ? '' : ` ${others.length === 1 ? 'One thing' : `${others.length} things`} more it speaks of is not there either.`;
    return [
      {
        kind: 'checksNothing',
        path,
        message: `${check.label} speaks of what is not there: ${first.message}${more} Write that, or take the check out.`,
      },
    ];
  } catch (error) {
    if (!(error instanceof Mistake)) throw error;
    // What is wrong with its table is said where it is run.
    return [];
  }
});

const expectsNothing = ({ stages, always = [] }: CheckEntry): boolean =>
  always.length === 0 && stages.every(({ then }) => then.length === 0);
