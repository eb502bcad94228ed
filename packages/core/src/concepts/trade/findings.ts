import { collect } from '../../analysis/collect.js';
import { isEmpty } from '../../analysis/entries.js';
import { numbersIn } from '../../analysis/numbers.js';
import type { Finding } from '../../ruleset/problem.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import type { PartJson } from './system.js';

/** Trades that give nothing for what they take, and those that give more of something than they take of it. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  return collect(rules).actions.flatMap(({ action, place: { path } }): readonly Finding[] => {
    if (action.do !== 'trade') return [];
    const { pays = [], gets = [], then } = action as { pays?: readonly PartJson[]; gets?: readonly PartJson[]; then?: unknown };
    if (gets.length === 0 && isEmpty(then))
      return [{ kind: 'doesNothing', path, message: 'This takes what is paid and gives nothing for it: say what one gets.' }];
    return gained(rules, pays, gets, path);
  });
}

function gained(rules: Rules, pays: readonly PartJson[], gets: readonly PartJson[], path: string): readonly Finding[] {
  if (pays.length !== 1) return [];
  const [{ attribute, amount }] = pays;
  const [least] = numbersIn(amount);
  return gets.flatMap((one, k): readonly Finding[] =>
    one.attribute === attribute && least > 0 && numbersIn(one.amount).some((given) => given > least)
      ? [
          {
            kind: 'gainEachTime',
            path: `${path}/gets/${k}/amount`,
            message: `This takes ${String(amount)} ${labelOf(rules, 'attributes', attribute).toLowerCase()} and gives ${String(one.amount)} of it: a gain each time, without end. Say other amounts, or another attribute.`,
          },
        ]
      : [],
  );
}
