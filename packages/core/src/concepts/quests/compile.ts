import type { FormulaFunction } from '../../formula/index.js';
import type { Amount, CompileContext, CompiledPattern, CompiledThen } from '../../ruleset/context.js';
import type { AmountSource } from '../../ruleset/fields.js';
import { grouped } from '../../ruleset/grouped.js';
import type { Path } from '../../ruleset/problem.js';
import type { Pattern, Then } from '../../ruleset/registry.js';
import { playerKinds } from '../actors/index.js';
import type { GoalEntry, QuestEntry } from './schema.js';

export interface Goal {
  readonly id: string;
  readonly line: string;
  readonly pattern: CompiledPattern | undefined;
  readonly who: NonNullable<Pattern['who']>;
  readonly need: number;
  readonly test: FormulaFunction | undefined;
  readonly counts: GoalEntry['counts'];
  readonly optional: boolean;
  readonly then: CompiledThen;
}

export interface Step {
  readonly id: string;
  readonly goals: readonly Goal[];
  /** Whether any of them is a condition. */
  readonly asks: boolean;
  readonly then: CompiledThen;
}

/** A part of what a quest gives, as it is shown before it is accepted. */
export interface Reward {
  readonly chapter: string;
  readonly id: string;
  /** What it is; behind an amount where there is one. */
  readonly words: string;
  readonly amount?: Amount;
  /** A range, where the amount is left to luck. */
  readonly range?: string;
}

export interface Quest {
  readonly index: number;
  readonly id: string;
  readonly label: string;
  readonly text: string;
  /** Whether it is offered to whoever is in the arena, and by which kinds of actor. */
  readonly atStart: boolean;
  readonly characters: readonly number[];
  readonly atOnce: boolean;
  readonly test: FormulaFunction | undefined;
  readonly takenBy: QuestEntry['takenBy'];
  /** Whether all who share it have one record of it. */
  readonly shared: boolean;
  readonly repeats: QuestEntry['repeats'];
  /** Seconds of the server's time until it can be had again. */
  readonly after: number;
  readonly retry: boolean;
  readonly steps: readonly Step[];
  /** The kind of actor who takes it back; -1 for none. */
  readonly handIn: number;
  readonly handInLine: string;
  readonly limit: number;
  readonly abandon: boolean;
  readonly onStart: CompiledThen;
  readonly then: CompiledThen;
  readonly onFail: CompiledThen;
  readonly rewards: readonly Reward[];
  readonly next: number;
}

interface Waiting {
  readonly quest: number;
  readonly pattern: CompiledPattern;
  readonly who: NonNullable<Pattern['who']>;
}
export interface WaitingGoal extends Waiting {
  readonly step: number;
  readonly goal: number;
  readonly counts: GoalEntry['counts'];
}

export interface CompiledQuests {
  readonly entries: readonly QuestEntry[];
  readonly list: readonly Quest[];
  readonly players: readonly boolean[];
  /** Those that are offered from the start. */
  readonly first: readonly Quest[];
  /** Those to be looked at in every tick: for a condition, or for their time. */
  readonly watched: readonly number[];
  /** What waits for an event of a name: goals, offers, ways to fail. */
  readonly goals: ReadonlyMap<string, readonly WaitingGoal[]>;
  readonly offers: ReadonlyMap<string, readonly Waiting[]>;
  readonly failures: ReadonlyMap<string, readonly Waiting[]>;
}

const byEvent = <T extends Waiting>(waiting: readonly T[]): ReadonlyMap<string, readonly T[]> =>
  grouped(waiting, ({ pattern }) => pattern.event);

const waitFor = (context: CompileContext, quest: number, pattern: Pattern): Waiting => ({
  quest,
  pattern: context.pattern(pattern),
  who: pattern.who ?? 'subject',
});

/** The event that an offer waits for; nothing where it is asked for. */
export function patternOfOffer(offer: QuestEntry['offered'][number]): Pattern | undefined {
  if (offer.by === 'zone') return { on: 'zoneEntered', zone: offer.zone };
  if (offer.by === 'pickup') return { on: 'pickupTaken', pickup: offer.pickup };
  return offer.by === 'event' ? (offer.event as Pattern) : undefined;
}

export function* compileQuests(context: CompileContext): Generator<void, CompiledQuests> {
  const entries = context.entries<QuestEntry>('quests');
  const list = yield* context.each('quests', entries, (entry, i) => compileQuest(context, entry, i));
  const waiting = yield* context.each('waiting', entries, (entry, i) => waitingIn(context, entry, i));
  return {
    entries,
    list,
    players: playerKinds(context),
    first: list.filter(({ atStart }) => atStart),
    watched: list.filter(({ steps, limit }) => limit > 0 || steps.some(({ asks }) => asks)).map(({ index }) => index),
    goals: byEvent(waiting.flatMap(({ goals }) => goals)),
    offers: byEvent(waiting.flatMap(({ offers }) => offers)),
    failures: byEvent(waiting.flatMap(({ failures }) => failures)),
  };
}

/** What a quest waits for: to be offered, to be done, and to fail. */
function waitingIn(context: CompileContext, { steps, offered, fails }: QuestEntry, quest: number) {
  const goals = steps.flatMap((step, s) =>
    step.goals.flatMap(({ on, counts }, goal) =>
      on === undefined ? [] : [{ ...waitFor(context, quest, on as Pattern), step: s, goal, counts }],
    ),
  );
  const offers = offered.flatMap((offer) => {
    const pattern = patternOfOffer(offer);
    return pattern ? [waitFor(context, quest, pattern)] : [];
  });
  return { goals, offers, failures: fails.map((pattern) => waitFor(context, quest, pattern as Pattern)) };
}

function compileQuest(context: CompileContext, entry: QuestEntry, index: number): Quest {
  const path: Path = ['quests', index];
  const labelOf = (chapter: string, id: string) => context.fields<{ label: string }, 'label'>(chapter, id, 'label')?.label ?? id;
  if (entry.repeats === 'after' && entry.after === undefined)
    context.problem([...path, 'after'], 'This is missing: say how long after it was done it can be had again.');
  if (entry.repeats !== 'after' && entry.after !== undefined)
    context.problem([...path, 'after'], 'Only what repeats after a time has one: have it repeat after it, or take the time out.');
  if (entry.next === entry.id) context.problem([...path, 'next'], `${entry.label} cannot come next after itself: have it repeat.`);
  const ids = new Map<string, string>();
  const taken = (id: string, what: string, at: Path) => {
    const before = ids.get(`${what} ${id}`);
    if (before !== undefined) context.problem(at, `${entry.label} has a ${what} ${id} already, at ${before}.`);
    ids.set(`${what} ${id}`, at.slice(2).join('/'));
  };
  entry.steps.forEach((step, s) => {
    taken(step.id, 'step', [...path, 'steps', s, 'id']);
    if (step.goals.every(({ optional }) => optional))
      context.problem([...path, 'steps', s, 'goals'], `${step.label} is done at once: one of its goals at least is not optional.`);
    step.goals.forEach(({ id, on, if: wanted, count, counts }, g) => {
      const at = [...path, 'steps', s, 'goals', g];
      taken(id, 'goal', [...at, 'id']);
      if ((on === undefined) === (wanted === undefined))
        context.problem([...at, on ? 'if' : 'on'], 'A goal waits for one thing: an event that is counted, or a condition.');
      if (count > 1 && on === undefined) context.problem([...at, 'count'], 'Only an event is counted: a condition is met once.');
      if (counts !== 'player' && on === undefined)
        context.problem([...at, 'counts'], 'Only what happens counts for others: a condition is asked of each player.');
    });
  });
  if (entry.takenBy === 'player' && entry.record !== undefined)
    context.problem([...path, 'record'], `Nobody shares ${entry.label}: say who takes it together in takenBy, or take this out.`);
  const shared = entry.takenBy !== 'player' && entry.record !== 'own';
  const then = (actions: unknown, ...at: readonly (string | number)[]) =>
    context.then(actions as Then, [...path, ...at], undefined, undefined, shared);
  const character = (id: string | undefined) => (id === undefined ? -1 : context.index('actors', id));
  return {
    index,
    id: entry.id,
    label: entry.label,
    text: entry.text,
    atStart: entry.offered.some(({ by }) => by === 'start'),
    characters: entry.offered.flatMap((offer) => (offer.by === 'character' ? [character(offer.actor)] : [])),
    atOnce: entry.begins === 'atOnce',
    test: entry.if === undefined ? undefined : context.condition(entry.if),
    takenBy: entry.takenBy,
    shared,
    repeats: entry.repeats,
    after: entry.after === undefined ? 0 : context.ticks(entry.after) / context.tickRate,
    retry: entry.retry,
    steps: entry.steps.map((step, s) => ({
      id: step.id,
      asks: step.goals.some((goal) => goal.if !== undefined),
      then: then(step.then, 'steps', s, 'then'),
      goals: step.goals.map((goal, g) => ({
        id: goal.id,
        line: goal.line,
        pattern: goal.on && context.pattern(goal.on as Pattern),
        who: (goal.on as Pattern | undefined)?.who ?? 'subject',
        need: goal.count,
        test: goal.if === undefined ? undefined : context.condition(goal.if),
        counts: goal.counts,
        optional: goal.optional,
        then: then(goal.then, 'steps', s, 'goals', g, 'then'),
      })),
    })),
    handIn: character(entry.handIn),
    handInLine: entry.handIn === undefined ? '' : `Return to: ${labelOf('actors', entry.handIn)}`,
    limit: entry.limit === undefined ? 0 : Math.max(1, context.ticks(entry.limit)),
    abandon: entry.abandon,
    onStart: then(entry.onStart, 'onStart'),
    then: then(entry.then, 'then'),
    onFail: then(entry.onFail, 'onFail'),
    rewards: (entry.then as Then).flatMap((action, k) => rewardOf(context, action, [...path, 'then', k], labelOf)),
    next: entry.next === undefined ? -1 : context.index('quests', entry.next),
  };
}

/** What an action gives to whoever has done the quest; nothing where it gives them nothing that they would ask for. */
function rewardOf(
  context: CompileContext,
  { do: name, to = 'self', once, ...args }: Then[number],
  path: Path,
  labelOf: (chapter: string, id: string) => string,
): readonly Reward[] {
  // What follows once is for one of those who share it: nobody is promised it.
  if (to !== 'self' || once) return [];
  const one = (chapter: string, argument: string, before = ''): Reward => {
    const id = String(args[argument]);
    return { chapter, id, words: `${before}${labelOf(chapter, id)}` };
  };
  const counted = (reward: Reward): readonly Reward[] => {
    const source = args['amount'] as AmountSource;
    if (typeof source === 'object') return [{ ...reward, range: source.random.join(' to ') }];
    return [{ ...reward, amount: context.amount(source, [...path, 'amount'], ['source', 'target']) }];
  };
  switch (name) {
    case 'give':
      return counted(one('attributes', 'attribute'));
    case 'award':
      return counted(one('tracks', 'track'));
    case 'givePoints':
      return counted(one('trees', 'tree', 'points of '));
    case 'unlock':
      return [one('achievements', 'achievement')];
    case 'apply':
      return [one('effects', 'effect')];
    default:
      return [];
  }
}
