import { possibleUnder } from './possible.js';
import { placedActions } from '../../ruleset/actions.js';
import { circlesIn } from '../../ruleset/circles.js';
import type { Amount } from '../../ruleset/context.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Then } from '../../ruleset/registry.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import type { Look } from '../../world/concept.js';
import { CHAPTER, type CompiledAttributes } from './compile.js';
import { amountFindings } from './amounts.js';
import { neverHolding, neverSo } from './conditions.js';
import { comingToNothing } from './nothing.js';
import { actorChapter } from '../actors/schema.js';
import { effectChapter } from '../effects/schema.js';

export const findings: readonly Look<CompiledAttributes>[] = [
  crossingBounds,
  triggeringEachOther,
  neverCrossed,
  frozen,
  fallingAlong,
  (_, rules) => amountFindings(rules),
  (_, rules) => comingToNothing(rules),
  (_, rules) => neverSo(rules),
  (_, rules) => neverHolding(rules),
];

interface Range {
  readonly low: number;
  readonly high: number;
}

/** Between what an amount can move, as far as bounds tell. A formula that computes can come to anything: nothing is said of it. */
function rangeOf({ list }: CompiledAttributes, amount: Amount | undefined, depth = 0): Range | undefined {
  if (!amount) return { low: Infinity, high: Infinity };
  if (amount.constant !== undefined) return { low: amount.constant, high: amount.constant };
  const target = amount.bare && depth < 8 ? list.find((attribute) => attribute.id === amount.bare!.id) : undefined;
  if (!target) return undefined;
  const low = rangeOf({ list } as CompiledAttributes, target.min, depth + 1);
  const high = rangeOf({ list } as CompiledAttributes, target.max, depth + 1);
  return low && high && { low: low.low, high: high.high };
}

/** Bounds of which one can pass the other while a game runs. */
function crossingBounds(compiled: CompiledAttributes): readonly Finding[] {
  return compiled.list.flatMap((attribute, i): readonly Finding[] => {
    const low = rangeOf(compiled, attribute.min);
    const high = rangeOf(compiled, attribute.max);
    if (!low || !high || low.high <= high.low || (attribute.min.constant !== undefined && attribute.max?.constant !== undefined)) return [];
    const { label } = compiled.entries[i];
    const moving = attribute.max?.bare?.id;
    const k = compiled.list.findIndex((other) => other.id === moving);
    const fix =
      k >= 0 && attribute.min.constant !== undefined
        ? {
            label: `Give ${compiled.entries[k].label} the minimum ${attribute.min.constant}`,
            patch: [{ op: 'add' as const, path: pointer([CHAPTER, k, 'min']), value: attribute.min.constant }],
          }
        : undefined;
    return [
      {
        kind: 'crossingBounds',
        path: pointer([CHAPTER, i, attribute.max?.constant === undefined ? 'max' : 'min']),
        message: `The maximum of ${label} can fall to ${high.low}, below its minimum, which can be ${low.high}: it is then held at the minimum. Give the bound that moves a bound of its own.`,
        ...(fix && { fix }),
      },
    ];
  });
}

/** Thresholds that lie where the value never is. */
function neverCrossed(compiled: CompiledAttributes): readonly Finding[] {
  return compiled.entries.flatMap((entry, i) =>
    entry.thresholds.flatMap(({ from, to }, k): readonly Finding[] => {
      const { min, max, kind } = compiled.list[i];
      const [low, high] = [rangeOf(compiled, min)?.low, max ? rangeOf(compiled, max)?.high : Infinity];
      const field =
        typeof to === 'number' && low !== undefined && to < low
          ? 'to'
          : typeof from === 'number' && high !== undefined && from > high
            ? 'from'
            : undefined;
      if (field === undefined || (kind === 'stat' && low === undefined)) return [];
      const bound = field === 'to' ? `never below ${low}` : `never above ${high}`;
      return [
        {
          kind: 'neverCrossed',
          path: pointer([CHAPTER, i, 'thresholds', k, field]),
          message: `${entry.label} is ${bound}: it never gets to ${field === 'to' ? to : from}. Lay the threshold within its bounds.`,
        },
      ];
    }),
  );
}

/** Bases of stats that are worked out once, from what moves afterwards. */
function frozen({ entries, list }: CompiledAttributes, rules: Rules): readonly Finding[] {
  const possible = possibleUnder(rules);
  return entries.flatMap((entry, i): readonly Finding[] => {
    if (entry.kind !== 'stat' || typeof entry.start !== 'string') return [];
    const read = list[i].starts.flatMap((start) => start?.amount?.references ?? []);
    const moving = [...new Set(read.filter(({ chapter }) => chapter === CHAPTER).map(({ id }) => id))].filter((id) => possible.isMoved(id));
    if (moving.length === 0) return [];
    const names = moving.map((id) => labelOf(rules, CHAPTER, id).toLowerCase()).join(' and ');
    return [
      {
        kind: 'frozen',
        path: pointer([CHAPTER, i, 'start']),
        message: `${entry.label} is worked out once, as its actor comes, and does not follow ${names} after that. To have it follow, begin it at 0 and add “${entry.start}” by a lasting effect whose amount is live.`,
      },
    ];
  });
}

/** Pools that fall with their maximum as an effect ends, down to a life's end. */
function fallingAlong({ entries }: CompiledAttributes, rules: Rules): readonly Finding[] {
  const types = actorChapter.of(rules);
  const effects = effectChapter.of(rules);
  return entries.flatMap((entry, i): readonly Finding[] => {
    if (entry.follow !== 'along' || typeof entry.max !== 'string' || !types.some(({ life }) => life === entry.id)) return [];
    const raising = effects.find(
      ({ lifetime, modifiers }) => lifetime !== 'instant' && modifiers.some((one) => one.attribute === entry.max && isMore(one)),
    );
    if (!raising) return [];
    return [
      {
        kind: 'fallsAlong',
        path: pointer([CHAPTER, i, 'follow']),
        message: `${entry.label} moves along with its maximum: when ${raising.label} ends it can fall to its end, and fell whom it had protected. Have it keep its value, or its share.`,
        fix: { label: 'Let it keep its share', patch: [{ op: 'replace', path: pointer([CHAPTER, i, 'follow']), value: 'share' }] },
      },
    ];
  });
}

interface Raising {
  readonly label: string;
  readonly lifetime: string;
  readonly modifiers: readonly { readonly attribute: string; readonly operation: string; readonly amount: unknown }[];
}

const isMore = ({ operation, amount }: Raising['modifiers'][number]) =>
  typeof amount !== 'number' || (operation === 'times' ? amount > 1 : operation === 'atMost' ? false : amount > 0);

const RAISING = new Set(['heal', 'give', 'set']);
const LOWERING = new Set(['hurt', 'take', 'set']);

/** Thresholds whose consequences push each other back over their edges, tick after tick. */
function triggeringEachOther({ entries }: CompiledAttributes, rules: Rules): readonly Finding[] {
  const sides = entries.flatMap((entry, i) =>
    entry.thresholds.flatMap((threshold, k) =>
      (['enter', 'leave'] as const).map((side) => {
        const low = threshold.end === 'empty' || (threshold.end === undefined && threshold.from === undefined);
        const high = threshold.end === 'full' || (threshold.end === undefined && threshold.to === undefined);
        // A range at the lower end is entered by falling and left by rising; one in the middle is entered and left by both.
        const byFalling = side === 'enter' ? !high : !low;
        const byRising = side === 'enter' ? !low : !high;
        const list = threshold[side] as Then;
        return { name: `${entry.id}.${threshold.id}.${side}`, entry, i, k, side, byFalling, byRising, changes: changesOf(rules, list) };
      }),
    ),
  );
  type Side = (typeof sides)[number];
  const falls = (from: Side, to: Side) => to.byFalling && from.changes.some((c) => c.attribute === to.entry.id && LOWERING.has(c.how));
  const rises = (from: Side, to: Side) => to.byRising && from.changes.some((c) => c.attribute === to.entry.id && RAISING.has(c.how));
  const edges = new Map(
    sides.map((from) => [from.name, new Set(sides.filter((to) => falls(from, to) || rises(from, to)).map((to) => to.name))]),
  );
  const endless = circlesIn(edges).filter((circle) => {
    const steps = circle.map((name, i) => [name, circle[(i + 1) % circle.length]].map((each) => sides.find((side) => side.name === each)!));
    // What only falls comes to rest at the bottom: it takes both ways to go on for ever.
    return steps.some(([from, to]) => falls(from, to)) && steps.some(([from, to]) => rises(from, to));
  });
  return endless.map((circle) => {
    const first = sides.find((side) => side.name === circle[0])!;
    const words = circle.map((name) => {
      const { entry, k, side } = sides.find((each) => each.name === name)!;
      return `${side === 'enter' ? 'entering' : 'leaving'} ${entry.thresholds[k].id} of ${entry.label.toLowerCase()}`;
    });
    return {
      kind: 'thresholdLoop',
      path: pointer([CHAPTER, first.i, 'thresholds', first.k, first.side]),
      message: `These trigger each other, tick after tick: ${words.join(', then ')}. Give one a margin, or have it change something else.`,
    };
  });
}

interface ChangeMade {
  readonly attribute: string;
  readonly how: string;
}

/** What a list changes on its owner, also by the effects that it puts there. */
function changesOf(rules: Rules, list: Then, depth = 0): readonly ChangeMade[] {
  return placedActions(list, []).flatMap(({ action }): readonly ChangeMade[] => {
    if ((action.to ?? 'self') !== 'self') return [];
    if (typeof action['attribute'] === 'string') return [{ attribute: action['attribute'], how: action.do }];
    if (action.do !== 'apply' || depth > 3) return [];
    const effect = rules.chapters.get('effects')?.entries.find((entry) => entry.id === action['effect']) as
      { readonly onStart?: Then; readonly periodic?: { readonly then: Then } } | undefined;
    return [...(effect?.onStart ?? []), ...(effect?.periodic?.then ?? [])].flatMap((inner) => changesOf(rules, [inner], depth + 1));
  });
}
