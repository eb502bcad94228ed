import { collect } from '../../analysis/collect.js';
import { describedInSection, sectionsDescribed } from '../../analysis/described.js';
import { ANY, type Range } from '../../formula/index.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import { mentionsInSection, placeOfMention } from '../../ruleset/mentions.js';
import { question, type Question } from '../../ruleset/questions.js';
import { registry } from '../../ruleset/registry.js';
import type { Rules } from '../../ruleset/rules.js';
import { possibleUnder } from './possible.js';

/** Whether a condition may hold for anybody at some time: many entries say the same. */
const mayHold: Question<boolean> = question((rules, condition) => possibleUnder(rules).mayFollow(condition, () => ANY));

/** Conditions that hold for no kind of actor, whatever happens; but for those that their own concept's findings look at. */
export const neverHolding = (rules: Rules): readonly Finding[] =>
  sectionsDescribed().flatMap((section) => (registry().sections.get(section)!.ownConditions ? [] : neverHoldingIn(rules, section)));

const neverHoldingIn: Question<readonly Finding[]> = question((rules, section) => {
  const looked = new Set(describedInSection(rules, section).flatMap(({ is, path }) => (is.ownFindings ? [pointer(path)] : [])));
  return mentionsInSection(rules, section).flatMap((part) =>
    part.mentions.flatMap((mention): readonly Finding[] => {
      const { mark, value, within } = mention;
      // What a pattern asks of its event is looked at with that.
      if (mark.kind !== 'formula' || mark.place.yields !== 'condition' || within.at(-1) === 'where') return [];
      const path = pointer(placeOfMention(part, mention));
      if (looked.has(path) || mayHold(rules, value)) return [];
      return [
        {
          kind: 'neverHolds',
          path,
          message: `“${value}” never holds: no kind of actor can ever meet it. Say another condition, or take it out.`,
        },
      ];
    }),
  );
});

const UPWARDS = new Set(['heal', 'give', 'refund', 'receive']);
const DOWNWARDS = new Set(['hurt', 'take', 'cost', 'pay']);
/** Amounts of a change that are signed as the change is. */
const SIGNED = new Set(['asked', 'given', 'lost']);

/** Events whose condition holds for none of them. */
export function neverSo(rules: Rules): readonly Finding[] {
  const possible = possibleUnder(rules);
  return collect(rules).patterns.flatMap(({ pattern, place }): readonly Finding[] => {
    const { where, how } = pattern as typeof pattern & { readonly how?: string };
    if (where === undefined) return [];
    const amounts = (name: string): Range => {
      if (how === undefined || !SIGNED.has(name)) return ANY;
      return UPWARDS.has(how) ? { low: 0, high: Infinity } : DOWNWARDS.has(how) ? { low: -Infinity, high: 0 } : ANY;
    };
    if (possible.mayFollow(where, amounts)) return [];
    const signed = how !== undefined && DOWNWARDS.has(how) && /event\./.test(where);
    return [
      {
        kind: 'neverSo',
        path: `${place.path}/where`,
        message: `“${where}” never holds here: what waits for it never comes.${signed ? ` What is lost is below 0, as in event.asked < -5.` : ''} Say another condition.`,
      },
    ];
  });
}
