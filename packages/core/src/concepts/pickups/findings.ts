import { atEach } from '../../analysis/each.js';
import { isHeard } from '../../analysis/entries.js';
import { possibleUnder } from '../attributes/possible.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import { placements } from '../arena/index.js';
import type { Look } from '../../world/concept.js';
import { pickupChapter } from './schema.js';
import { type CompiledPickups } from './compile.js';
import { withoutUse } from './takers.js';

/** Pickups that nobody can take, and those that do nothing. */
export const findings: readonly Look<CompiledPickups>[] = [
  (_, rules) => withoutUse(rules),
  (_, rules) => ofEach(rules),
  (_, rules) =>
    placements(rules, 'pickup').flatMap(({ index, thing }) =>
      impossible(rules, thing.with?.who as string | undefined, `placed thing ${index}`, ['arena', 'placed', index, 'with', 'who']),
    ),
];

const ofEach = atEach(pickupChapter, (entry, i, rules) => [
  ...impossible(rules, entry.who, entry.label.toLowerCase(), ['pickups', i, 'who']),
  ...(entry.then.length === 0 && !isHeard(rules, ['pickupTaken'], 'pickup', entry.id)
    ? [
        {
          kind: 'takenForNothing',
          path: pointer(['pickups', i]),
          message: `Nothing happens to who takes ${entry.label.toLowerCase()}: say what it gives or does, or let a reaction answer its taking.`,
        },
      ]
    : []),
]);

const impossible = (rules: Rules, who: string | undefined, label: string, path: (string | number)[]): readonly Finding[] =>
  who === undefined || possibleUnder(rules).whoCan(who).length > 0
    ? []
    : [
        {
          kind: 'nobodyMayTake',
          path: pointer(path),
          message: `Nobody can ever take ${label}: “${who}” holds for no kind of actor. Say another condition, or let anyone take it.`,
          fix: { label: 'Let anyone take it', patch: [{ op: 'remove', path: pointer(path) }] },
        },
      ];
