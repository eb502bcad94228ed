import { describedInSection, sectionsDescribed } from '../../analysis/described.js';
import { numbersIn } from '../../analysis/numbers.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import { question, type Question } from '../../ruleset/questions.js';
import type { Rules } from '../../ruleset/rules.js';
import { attributeChapter } from './schema.js';

/** An amount that is written as a number, and where it stands. */
interface Written {
  readonly path: string;
  readonly value: number;
  readonly what: string;
  /** The attribute that it is an amount of. */
  readonly of?: string;
  /** Whether 0 means something. */
  readonly zero?: true;
  /** The action that does the opposite. */
  readonly opposite?: string;
}

/** Amounts that are below nothing, nothing at all, or a part of what is counted whole. */
export const amountFindings = (rules: Rules): readonly Finding[] => sectionsDescribed().flatMap((section) => inSection(rules, section));

const inSection: Question<readonly Finding[]> = question((rules, section) => written(rules, section).flatMap((one) => ofOne(rules, one)));

function written(rules: Rules, section: string): readonly Written[] {
  return describedInSection(rules, section).flatMap(({ value: amount, path, is, beside, says }) => {
    const sentence = is.amount;
    if (sentence === undefined) return [];
    const of = is.of === undefined ? undefined : beside[is.of];
    const { zero, opposite } = is;
    return numbersIn(amount).flatMap((value): readonly Written[] => {
      const what = says(sentence, value);
      if (what === undefined) return [];
      const more = { ...(typeof of === 'string' && { of }), ...(zero && { zero }), ...(opposite !== undefined && { opposite }) };
      return [{ path: pointer(path), value, what, ...more }];
    });
  });
}

function ofOne(rules: Rules, { path, value, what, of, zero, opposite }: Written): readonly Finding[] {
  const attribute = of === undefined ? undefined : attributeChapter.find(rules, of);
  const name = attribute ? ` ${attribute.label.toLowerCase()}` : '';
  const set = (to: number, label: string): Finding['fix'] => ({ label, patch: [{ op: 'replace', path, value: to }] });
  // What an action does begins with a verb, all else with whose it is.
  const said = `${/^[a-z]/.test(what) ? 'It ' : ''}${what}${name}`;
  if (value < 0)
    return [
      {
        kind: 'belowZero',
        path,
        message: `${said}: that is below 0, and an amount says how much. Write ${-value}${opposite === undefined ? '' : `, or have it ${opposite}`}.`,
        fix: set(-value, `Make it ${-value}`),
      },
    ];
  if (value === 0 && !zero) return [{ kind: 'nothingAtAll', path, message: `${said}: nothing happens. Say how much.` }];
  const whole = attribute && (attribute.kind === 'counter' || attribute.whole === true);
  if (!whole || Number.isInteger(value)) return [];
  return [
    {
      kind: 'partOfWhole',
      path,
      message: `${said}, which is counted in whole things: that comes to ${Math.round(value)}. Say a whole number, or count it in fractions.`,
      fix: set(Math.max(1, Math.round(value)), `Make it ${Math.max(1, Math.round(value))}`),
    },
  ];
}
