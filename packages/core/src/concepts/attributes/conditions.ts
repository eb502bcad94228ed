import { collect } from '../../analysis/collect.js';
import { describedIn } from '../../analysis/described.js';
import { ANY, type Range } from '../../formula/index.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import { mentionsIn, placeOfMention } from '../../ruleset/mentions.js';
import { registry } from '../../ruleset/registry.js';
import type { Rules } from '../../ruleset/rules.js';
import { possibleUnder } from './possible.js';

/** Conditions that hold for no kind of actor, whatever happens; but for those that their own concept's findings look at. */
export function neverHolding(rules: Rules): readonly Finding[] {
  const possible = possibleUnder(rules);
  const { sections } = registry();
  const looked = new Set(describedIn(rules).flatMap(({ is, path }) => (is.ownFindings ? [pointer(path)] : [])));
  const found: Finding[] = [];
  for (const part of mentionsIn(rules)) {
    const section = sections.get(part.chapter);
    if (section?.ownConditions || (section?.kind === 'chapter' && section.tries)) continue;
    for (const mention of part.mentions) {
      const { mark, value, within } = mention;
      // What a pattern asks of its event is looked at with that.
      if (mark.kind !== 'formula' || mark.place.yields !== 'condition' || within.at(-1) === 'where') continue;
      const path = pointer(placeOfMention(part, mention));
      if (looked.has(path) || possible.mayFollow(value, () => ANY)) continue;
      found.push({
        kind: 'neverHolds',
        path,
        message: `“${value}” never holds: no kind of actor can ever meet it. Say another condition, or take it out.`,
      });
    }
  }
  return found;
}

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
