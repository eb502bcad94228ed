import type { Amount, CompileContext, CompiledPattern, CompiledThen } from '../../ruleset/context.js';
import type { AmountSource } from '../../ruleset/fields.js';
import { grouped } from '../../ruleset/grouped.js';
import type { Pattern, Then } from '../../ruleset/registry.js';
import type { AttributeEntry, Operation } from '../attributes/index.js';
import type { EffectEntry, Reason } from './schema.js';

const CHAPTER = 'effects';
const PARTIES = ['source'] as const;

export interface Modifier {
  readonly attribute: number;
  readonly operation: Operation;
  readonly amount: Amount;
  /** The number of an amount that is asked again and again; 0 for one taken once. */
  readonly live: number;
}

/** An effect as worlds run it. */
export interface Effect {
  readonly id: string;
  readonly lifetime: EffectEntry['lifetime'];
  /** Seconds; none where it has no end of its own. */
  readonly lasts: Amount | undefined;
  readonly uses: number;
  readonly usedBy: CompiledPattern | undefined;
  readonly stacking: EffectEntry['stacking'];
  readonly most: number | undefined;
  readonly perSource: boolean;
  readonly strength: Amount | undefined;
  readonly modifiers: readonly Modifier[];
  readonly grants: readonly number[];
  readonly periodic: { readonly ticks: number; readonly atOnce: boolean; readonly then: CompiledThen } | undefined;
  readonly blockedBy: Others;
  readonly ends: Others;
  readonly onStart: CompiledThen | undefined;
  readonly onStack: CompiledThen | undefined;
  readonly onEnd: readonly { readonly reason: Reason | 'any'; readonly then: CompiledThen }[];
}

interface Others {
  readonly statuses: readonly number[];
  readonly effects: readonly number[];
}

export interface CompiledEffects {
  readonly entries: readonly EffectEntry[];
  readonly list: readonly Effect[];
  /** By event: the effects that it may use up. */
  readonly usedBy: ReadonlyMap<string, readonly number[]>;
  /** Effects that grant a status, by status. */
  readonly granting: readonly (readonly number[])[];
  readonly anyPeriodic: boolean;
}

export function* compileEffects(context: CompileContext): Generator<void, CompiledEffects> {
  const entries = context.entries<EffectEntry>(CHAPTER);
  const list = yield* context.each('effects', entries, (entry, i) => compileOne(context, entry, i));
  const usedBy = grouped(list.keys(), (i) => list[i].usedBy?.event);
  const granting: number[][] = context.entries('statuses').map(() => []);
  list.forEach(({ grants }, i) => new Set(grants).forEach((status) => granting[status]?.push(i)));
  return { entries, list, usedBy, granting, anyPeriodic: list.some((effect) => effect.periodic) };
}

function compileOne(context: CompileContext, entry: EffectEntry, i: number): Effect {
  const path = [CHAPTER, i];
  checkShape(context, entry, path);
  const then = (list: Then | undefined, ...at: (string | number)[]) =>
    list === undefined || list.length === 0 ? undefined : context.then(list, [...path, ...at]);
  const others = (part: EffectEntry['ends']): Others => ({
    statuses: (part?.statuses ?? []).map((id) => context.index('statuses', id)),
    effects: (part?.effects ?? []).map((id) => context.index(CHAPTER, id)),
  });
  return {
    id: entry.id,
    lifetime: entry.lifetime,
    lasts: entry.lasts === undefined ? undefined : context.seconds(entry.lasts, [...path, 'lasts'], PARTIES),
    uses: entry.used?.times ?? 0,
    usedBy: entry.used && context.pattern(entry.used.by as Pattern),
    stacking: entry.stacking,
    most: entry.most,
    perSource: entry.per === 'source',
    strength: entry.strength === undefined ? undefined : context.amount(entry.strength, [...path, 'strength'], PARTIES),
    modifiers: entry.modifiers.map((modifier, k) => compileModifier(context, modifier, [...path, 'modifiers', k])),
    grants: entry.grants.map((status) => context.index('statuses', status)),
    periodic: entry.periodic && {
      ticks: Math.max(1, context.ticks(entry.periodic.every)),
      atOnce: entry.periodic.atOnce === true,
      then: context.then(entry.periodic.then, [...path, 'periodic', 'then']),
    },
    blockedBy: others(entry.blocked),
    ends: others(entry.ends),
    onStart: then(entry.onStart, 'onStart'),
    onStack: then(entry.onStack, 'onStack'),
    onEnd: entry.onEnd.map((end, k) => ({ reason: end.reason, then: context.then(end.then, [...path, 'onEnd', k, 'then']) })),
  };
}

function compileModifier(
  context: CompileContext,
  modifier: EffectEntry['modifiers'][number],
  path: readonly (string | number)[],
): Modifier {
  const attribute = context.index('attributes', modifier.attribute);
  const target = context.fields<AttributeEntry, 'kind' | 'label'>('attributes', modifier.attribute, 'kind', 'label');
  if (target && target.kind !== 'stat')
    context.problem(
      [...path, 'attribute'],
      `${target.label} is a ${target.kind}: modifiers are for stats. Modify the stat that is its maximum, or hurt and heal it.`,
    );
  const amount = context.amount(modifier.amount as AmountSource, [...path, 'amount'], PARTIES);
  const reads = amount.references.some((r) => r.chapter === 'attributes' && r.party === null && r.id === modifier.attribute);
  if (modifier.live && reads)
    context.problem(
      [...path, 'amount'],
      `This goes in a circle: ${modifier.attribute} needs this amount, which needs ${modifier.attribute}. Take the amount once at start, or read another value.`,
    );
  if (modifier.live && typeof modifier.amount === 'object')
    context.problem([...path, 'live'], 'Luck is drawn once, when the effect starts: an amount of luck can’t be kept live.');
  const live = modifier.live && amount.constant === undefined ? context.keepAmount([...path, 'amount'], amount) : 0;
  return { attribute, operation: modifier.operation, amount, live };
}

/** What does not go together. */
function checkShape(context: CompileContext, entry: EffectEntry, path: readonly (string | number)[]): void {
  const { lifetime, lasts, used, label } = entry;
  const say = (field: string, message: string) => context.problem([...path, field], message);
  if (lifetime === 'timed' && lasts === undefined) say('lasts', 'This is missing: a timed effect lasts for some time.');
  if (isNothing(lasts)) say('lasts', 'An effect lasts longer than nothing.');
  if ((lifetime === 'instant' || lifetime === 'lasting') && lasts !== undefined)
    say(
      'lasts',
      `An effect that is ${lifetime === 'instant' ? 'over at once' : 'lasting'} has no time: make ${label} timed, or take the time out.`,
    );
  if (lifetime === 'untilUsed' && !used) say('used', 'This is missing: say which event uses it up.');
  if (lifetime !== 'untilUsed' && used)
    say('used', `Only an effect that lasts until used is used up: make ${label} one, or take this out.`);
  if (lifetime === 'instant') {
    for (const field of ['modifiers', 'grants'] as const)
      if (entry[field].length > 0) say(field, `An instant effect leaves nothing behind. Make ${label} timed or lasting.`);
    if (entry.periodic) say('periodic', `An instant effect does nothing again and again. Make ${label} timed or lasting.`);
    if (entry.onEnd.length > 0) say('onEnd', `An instant effect does not end: say what follows when it starts.`);
  }
  if (entry.periodic && context.ticks(entry.periodic.every) < 1)
    context.problem([...path, 'periodic', 'every'], 'An interval is longer than nothing.');
  if (entry.stacking === 'once' && entry.most !== undefined) say('most', 'One at a time is one: take the most out.');
  if (entry.stacking === 'extend' && (lifetime === 'lasting' || (lifetime === 'untilUsed' && lasts === undefined)))
    say('stacking', `${label} has no time that could be extended.`);
  if (entry.strength !== undefined && entry.stacking !== 'strongest') say('strength', 'Strength matters where only the strongest counts.');
  if (entry.onStack && entry.stacking !== 'refresh' && entry.stacking !== 'extend')
    say('onStack', `Nothing is stacked where each is ${entry.stacking === 'once' ? 'refused' : 'an instance of its own'}.`);
}

function isNothing(lasts: EffectEntry['lasts']): boolean {
  return lasts === 0 || (typeof lasts === 'number' && lasts < 0) || (typeof lasts === 'string' && /^0+(\.0+)?(ms|s)$/.test(lasts));
}
