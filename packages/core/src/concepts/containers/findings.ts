import { possibleUnder } from '../attributes/possible.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import { containerChapter } from './schema.js';
import { lacking, lacks, nameOf, namesOf, playersIn } from '../attributes/lacking.js';

const CHAPTER = 'containers';

/** Containers with nothing in them, with things that never are, and those that nobody may open. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  const possible = possibleUnder(rules);
  const ofEach = containerChapter.of(rules).flatMap((entry, i): readonly Finding[] => [
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
  return [...ofEach, ...lackedByPlayers(rules), ...chances(rules)];
}

/** What is in a container and is nothing to players, who lack it. */
function lackedByPlayers(rules: Rules): readonly Finding[] {
  return containerChapter.of(rules).flatMap(({ label, holds }, i) =>
    holds.flatMap(({ gives }, k): readonly Finding[] => {
      const without = gives === undefined ? [] : playersIn(rules).filter((type) => lacks(type, gives));
      if (gives === undefined || without.length === 0) return [];
      const message = `${label} gives ${nameOf(rules, gives)}, and ${namesOf(without)} lacks it: it stays in there. Let them have it.`;
      return [lacking(rules, without, gives, pointer([CHAPTER, i, 'holds', k, 'gives']), message)];
    }),
  );
}

/** Chances from 0 to 1 that are written as percent. */
function chances(rules: Rules): readonly Finding[] {
  return containerChapter.of(rules).flatMap(({ holds }, i) =>
    holds.flatMap(({ label, chance }, k): readonly Finding[] => {
      if (typeof chance !== 'number' || (chance >= 0 && chance <= 1)) return [];
      const path = pointer([CHAPTER, i, 'holds', k, 'chance']);
      const meant = chance > 1 && chance <= 100 ? Math.round(chance * 10) / 1000 : chance < 0 ? 0 : 1;
      return [
        {
          kind: 'chanceBeyond',
          path,
          message: `A chance is from 0 to 1, and ${chance} is ${chance < 0 ? 'never' : `always: for ${chance} % write ${meant}`}. It is the chance of ${label.toLowerCase()}.`,
          fix: { label: `Make it ${meant}`, patch: [{ op: 'replace', path, value: meant }] },
        },
      ];
    }),
  );
}
