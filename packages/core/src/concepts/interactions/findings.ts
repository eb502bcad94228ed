import { Possible } from '../../analysis/possible.js';
import { placedActions } from '../../ruleset/actions.js';
import { toMilliseconds } from '../../ruleset/fields.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import { placements } from '../arena/index.js';
import type { InteractionEntry } from './schema.js';

const CHAPTER = 'interactions';

/** Prices that nobody can pay, offers that are made to nobody, and lists that wait longer than their visit is said to take. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  const possible = new Possible(rules);
  const entries = rules.document[CHAPTER] as readonly InteractionEntry[];
  return [
    ...entries.flatMap((entry, i) => [
      ...price(possible, entry.price, entry.label, [CHAPTER, i, 'price', 'amount']),
      ...offer(possible, entry, i),
      ...waits(entry, i),
    ]),
    ...placements(rules, 'actor').flatMap(({ index, thing }) =>
      (thing.with?.asks ?? []).flatMap((own, k) =>
        price(possible, own.price as InteractionEntry['price'], own.interaction, [
          'arena',
          'placed',
          index,
          'with',
          'asks',
          k,
          'price',
          'amount',
        ]),
      ),
    ),
  ];
}

function price(possible: Possible, asked: InteractionEntry['price'], label: string, path: (string | number)[]): readonly Finding[] {
  if (typeof asked?.amount !== 'number' || possible.canHave(asked.attribute, asked.amount)) return [];
  return [
    {
      kind: 'unaffordable',
      path: pointer(path),
      message: `${label} asks ${asked.amount} ${asked.attribute}, and no player can ever have that much: nothing gives it, or it never gets so high.`,
    },
  ];
}

function offer(possible: Possible, { who, label }: InteractionEntry, i: number): readonly Finding[] {
  if (who === undefined || possible.whoCan(who, ['player']).length > 0) return [];
  return [
    {
      kind: 'offeredToNobody',
      path: pointer([CHAPTER, i, 'who']),
      message: `${label} is offered to nobody: “${who}” holds for no player.`,
      fix: { label: 'Offer it to anyone', patch: [{ op: 'remove', path: pointer([CHAPTER, i, 'who']) }] },
    },
  ];
}

/** A visit lasts until its list is done: one that waits longer than it is busy keeps others off for longer than is said. */
function waits({ busy, then, label }: InteractionEntry, i: number): readonly Finding[] {
  const waited = placedActions(then, [])
    .filter(({ action }) => action.do === 'wait')
    .reduce((sum, { action }) => sum + toMilliseconds(String(action['for'])), 0);
  if (busy === undefined || waited <= toMilliseconds(busy)) return [];
  return [
    {
      kind: 'waitsTooLong',
      path: pointer([CHAPTER, i, 'busy']),
      message: `${label} waits ${waited / 1000} s in all and is busy for ${busy}: others are told a time that is too short.`,
      fix: {
        label: `Be busy for ${waited / 1000} s`,
        patch: [{ op: 'replace', path: pointer([CHAPTER, i, 'busy']), value: `${waited / 1000}s` }],
      },
    },
  ];
}
