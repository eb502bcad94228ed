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
      ...refundsAfterwards(entry, i),
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

/** What costs nothing to be given, and so may stand before a refund. */
const FREE = new Set(['wait', 'flourish', 'when', 'pick', 'talk']);

/** The price that comes back although what it was paid for has been given: who walks off then has both. */
function refundsAfterwards({ price: asked, refund = 0, refundUntil, then, label }: InteractionEntry, i: number): readonly Finding[] {
  if (!asked || refund === 0) return [];
  let waited = 0;
  let given: number | undefined;
  for (const { action } of placedActions(then, [])) {
    if (action.do === 'wait') waited += toMilliseconds(String(action['for']));
    else if (!FREE.has(action.do)) {
      given = waited;
      break;
    }
  }
  // What is given at once is over before anybody can walk off: only what takes a time is broken off.
  const lasts = placedActions(then, []).some(({ action }) => action.do === 'wait');
  if (given === undefined || (refundUntil !== undefined && toMilliseconds(refundUntil) <= given)) return [];
  if (given === 0 && !lasts) return [];
  const time = `${given / 1000}s`;
  return [
    {
      kind: 'refundsAfterwards',
      path: pointer([CHAPTER, i, refundUntil === undefined ? 'refund' : 'refundUntil']),
      message: `${label} gives back ${refund === 1 ? 'its price' : `${refund * 100} % of its price`} also to who walks off after it has given what it was paid for, at ${given / 1000} s: say until when it does.`,
      ...(given > 0 && {
        fix: {
          label: `Give back only before ${time}`,
          patch: [
            {
              op: refundUntil === undefined ? ('add' as const) : ('replace' as const),
              path: pointer([CHAPTER, i, 'refundUntil']),
              value: time,
            },
          ],
        },
      }),
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
