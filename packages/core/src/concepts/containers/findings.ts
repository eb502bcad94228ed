import { Possible } from '../../analysis/possible.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import type { ContainerEntry } from './schema.js';

const CHAPTER = 'containers';

/** Containers with nothing in them, with things that never are, and those that nobody may open. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  const possible = new Possible(rules);
  return (rules.document[CHAPTER] as readonly ContainerEntry[]).flatMap((entry, i): readonly Finding[] => [
    ...(entry.holds.length === 0 && entry.loot === undefined
      ? [
          {
            kind: 'empty',
            path: pointer([CHAPTER, i, 'holds']),
            message: `There is nothing in ${entry.label}: say what it holds, or which loot table.`,
          },
        ]
      : []),
    ...entry.holds.flatMap(({ chance, label }, k) =>
      typeof chance !== 'number' || chance > 0
        ? []
        : [
            {
              kind: 'neverThere',
              path: pointer([CHAPTER, i, 'holds', k, 'chance']),
              message: `${label} is never in ${entry.label}: its chance is ${chance}.`,
            },
          ],
    ),
    ...(entry.who === undefined || possible.whoCan(entry.who, ['player']).length > 0
      ? []
      : [
          {
            kind: 'offeredToNobody',
            path: pointer([CHAPTER, i, 'who']),
            message: `Nobody can ever open ${entry.label}: “${entry.who}” holds for no player.`,
            fix: { label: 'Let anyone open it', patch: [{ op: 'remove' as const, path: pointer([CHAPTER, i, 'who']) }] },
          },
        ]),
  ]);
}
