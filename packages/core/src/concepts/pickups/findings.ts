import { collect } from '../../analysis/collect.js';
import { possibleUnder } from '../attributes/possible.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import { placements } from '../arena/index.js';
import type { PickupEntry } from './schema.js';
import { type CompiledPickups } from './compile.js';
import { withoutUse } from './takers.js';

/** Pickups that nobody can take, and those that do nothing. */
export function findings(_: CompiledPickups, rules: Rules): readonly Finding[] {
  const possible = possibleUnder(rules);
  const entries = rules.document['pickups'] as readonly PickupEntry[];
  const impossible = (who: string | undefined, label: string, path: (string | number)[]): readonly Finding[] =>
    who === undefined || possible.whoCan(who).length > 0
      ? []
      : [
          {
            kind: 'nobodyMayTake',
            path: pointer(path),
            message: `Nobody can ever take ${label}: “${who}” holds for no kind of actor. Say another condition, or let anyone take it.`,
            fix: { label: 'Let anyone take it', patch: [{ op: 'remove', path: pointer(path) }] },
          },
        ];
  return [
    ...withoutUse(rules),
    ...entries.flatMap((entry, i) => [
      ...impossible(entry.who, entry.label.toLowerCase(), ['pickups', i, 'who']),
      ...(entry.then.length === 0 && !isAnswered(rules, entry.id)
        ? [
            {
              kind: 'takenForNothing',
              path: pointer(['pickups', i]),
              message: `Nothing happens to who takes ${entry.label.toLowerCase()}: say what it gives or does, or let a reaction answer its taking.`,
            },
          ]
        : []),
    ]),
    ...placements(rules, 'pickup').flatMap(({ index, thing }) =>
      impossible(thing.with?.who as string | undefined, `placed thing ${index}`, ['arena', 'placed', index, 'with', 'who']),
    ),
  ];
}

/** Whether anything waits for the taking of a pickup. */
const isAnswered = (rules: Rules, id: string) =>
  collect(rules).patterns.some(({ pattern: { on, pickup } }) => on === 'pickupTaken' && (pickup === undefined || pickup === id));
