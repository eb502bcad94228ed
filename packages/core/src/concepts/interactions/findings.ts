import { type Possible, possibleUnder } from '../attributes/possible.js';
import { placedActions } from '../../ruleset/actions.js';
import { toMilliseconds } from '../../ruleset/fields.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import { placements } from '../arena/index.js';
import type { InteractionEntry } from './schema.js';
import { isHeard } from '../../analysis/entries.js';
import { actorChapter } from '../actors/schema.js';
import { isOfAttribute, lackedByPlayers, lacks, nameOf } from '../attributes/lacking.js';
import { interactionChapter } from './schema.js';

const CHAPTER = 'interactions';

/** Prices that nobody can pay, offers that are made to nobody, and lists that wait longer than their visit is said to take. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  const possible = possibleUnder(rules);
  const entries = rules.document[CHAPTER] as readonly InteractionEntry[];
  return [
    ...doesNothing(rules),
    ...lackedByPlayers(rules, CHAPTER, ['then', 'onBreak']),
    ...ofTargets(rules),
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

/** Interactions from which nothing follows. */
function doesNothing(rules: Rules): readonly Finding[] {
  return interactionChapter.of(rules).flatMap(({ id, label, then }, i): readonly Finding[] =>
    then.length > 0 || isHeard(rules, ['visitBegan', 'visitEnded'], 'interaction', id)
      ? []
      : [
          {
            kind: 'doesNothing',
            path: pointer([CHAPTER, i, 'then']),
            message: `Nothing happens to who asks for ${label}: say what does.`,
          },
        ],
  );
}

/** What an interaction does to the character that offers it, and that lacks it. */
function ofTargets(rules: Rules): readonly Finding[] {
  return interactionChapter.of(rules).flatMap((entry, i) => {
    const offering = actorChapter.of(rules).filter(({ interactions }) => interactions.includes(entry.id));
    return placedActions(entry.then, [CHAPTER, i, 'then']).flatMap(({ action, path }): readonly Finding[] => {
      const attribute = String(action['attribute']);
      const without = offering.filter((type) => lacks(type, attribute));
      if (!isOfAttribute(action.do) || action.to !== 'target' || without.length === 0 || without.length < offering.length) return [];
      return [
        {
          kind: 'lacksAttribute',
          path: pointer([...path, 'to']),
          message: `This is for ${without.map(({ label }) => label.toLowerCase()).join(' and ')}, which lacks ${nameOf(rules, attribute)}: target is who offers ${entry.label}, and self its visitor.`,
          fix: { label: 'Have it be for the visitor', patch: [{ op: 'remove', path: pointer([...path, 'to']) }] },
        },
      ];
    });
  });
}
