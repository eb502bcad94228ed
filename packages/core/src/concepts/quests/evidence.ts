import { collect, patternWords } from '../../analysis/collect.js';
import { wiringOf } from '../../analysis/wiring.js';
import { serverNow } from '../calendar/index.js';
import { patternOfOffer } from './compile.js';
import { quests } from './state.js';
import { type Standing, STANDINGS } from './tables.js';
import { rewardWords } from './log.js';
import { actorOfSeat } from '../seats/index.js';
import { sentenceOf } from '../../replication/announcements.js';
import { readRuleset } from '../../ruleset/compile.js';
import type { Pattern } from '../../ruleset/registry.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import type { GameEvent } from '../../world/events.js';
import type { Command } from '../../world/commands.js';
import { World } from '../../world/world.js';

/** What is done on a walk through a quest, by one of two divers of a crew. */
export type QuestMove =
  | { readonly do: 'accept' | 'decline' | 'abandon' | 'handIn'; readonly seat: string }
  | { readonly do: 'count'; readonly seat: string; readonly goal: string }
  | { readonly do: 'wait'; readonly seconds: number }
  | { readonly do: 'day' };

/** The two who walk. */
export const WALKERS = ['north', 'south'] as const;

export interface QuestWalk {
  readonly label: string;
  readonly text: string;
  readonly rewards: string;
  /** Where it comes from, in words. */
  readonly offers: readonly string[];
  readonly handIn: string;
  readonly next: string;
  readonly shared: boolean;
  readonly steps: readonly {
    readonly id: string;
    readonly label: string;
    readonly goals: readonly {
      readonly id: string;
      readonly line: string;
      readonly need: number;
      readonly optional: boolean;
      /** What it waits for, in words, and who can announce that. */
      readonly waits: string;
      readonly from: readonly string[];
    }[];
  }[];
  /** Where each of the two stands at the end of the walk. */
  readonly walkers: readonly {
    readonly seat: string;
    readonly standing: Standing | 'offered';
    readonly step: number;
    /** By goal. */
    readonly have: Readonly<Record<string, number>>;
    readonly secondsLeft: number;
    readonly again: number;
  }[];
  /** What happened on the way, in order. */
  readonly told: readonly { readonly seconds: number; readonly words: string; readonly refusal: boolean }[];
}

const TOLD = /^(quest|step|goal|nothingOffered|experienceGained|levelReached|pointsGained|flourish)/;

/** Plays a walk through a quest with two divers in an empty arena; undefined where the quest is not there. */
export function walkQuest(rules: Rules, id: string, moves: readonly QuestMove[]): QuestWalk | undefined {
  const index = quests.of(rules).list.findIndex((quest) => quest.id === id);
  if (index < 0) return undefined;
  // Nothing that stands in the arena gets in the way, and no other quest comes by itself.
  const arena = rules.document['arena'] as Readonly<Record<string, unknown>> | undefined;
  const alone = readRuleset({ ...rules.document, ...(arena && { arena: { ...arena, placed: [] } }), situations: [] }).rules ?? rules;
  const world = World.start(alone, 1);
  const events: GameEvent[] = [];
  const step = (...commands: readonly Command[]) => void events.push(...world.step(commands));
  const team = alone.chapters.get('teams')?.ids[0];
  step(...WALKERS.map((seat) => ({ kind: 'join', args: { seat, ...(team !== undefined && { team }) } })));
  events.length = 0;
  for (const move of moves) walkOn(world, id, index, move, step);
  return { ...pathOf(rules, world, index), walkers: WALKERS.map((seat) => standingOf(world, index, seat)), told: toldOf(alone, events) };
}

function walkOn(world: World, id: string, q: number, move: QuestMove, step: (...commands: readonly Command[]) => void): void {
  const poke = (seat: string, action: Readonly<Record<string, unknown>>): Command => ({ kind: 'poke', args: { seat, action } });
  const ask = (seat: string, what: string): Command => ({ kind: 'input', args: { seat, input: { do: what, quest: id } } });
  if (move.do === 'wait') for (let n = Math.round(move.seconds * world.rules.tickRate); n > 0; n--) step();
  else if (move.do === 'day') step(poke(WALKERS[0], { do: 'passTime', time: '86400s' }));
  else if (move.do === 'accept' || move.do === 'decline') {
    step(poke(move.seat, { do: 'offerQuest', quest: id }));
    const { standing } = standingOf(world, q, move.seat);
    if (standing === 'offered') step(ask(move.seat, `${move.do}Quest`));
    // On a walk it is begun also by who may not have it yet.
    else if (move.do === 'accept' && standing !== 'active' && standing !== 'ready') step(poke(move.seat, { do: 'startQuest', quest: id }));
  } else if (move.do === 'abandon') step(ask(move.seat, 'abandonQuest'));
  else if (move.do !== 'count') {
    if (standingOf(world, q, move.seat).standing === 'ready') step(poke(move.seat, { do: 'finishQuest', quest: id }));
  } else {
    const { list, entries } = quests.of(world.rules);
    const goal = entries[q].steps.flatMap(({ goals }) => goals).find((one) => one.id === move.goal);
    // One record is counted for one of them.
    const who = goal && goal.counts !== 'player' && !list[q].shared ? WALKERS : [move.seat];
    step(...who.map((seat) => poke(seat, { do: 'countGoal', quest: id, goal: move.goal, amount: 1 })));
  }
}

function standingOf(world: World, q: number, seat: string): QuestWalk['walkers'][number] {
  const { cells, list } = quests.in(world);
  const row = world.actors.rowOf(actorOfSeat(world, seat));
  if (row < 0) return { seat, standing: 'none', step: -1, have: {}, secondsLeft: 0, again: 0 };
  const own = cells[q];
  const have = list[q].steps.flatMap(({ goals }, s) => goals.map(({ id }, g) => [id, own.steps[s].goals[g].have.data[row]] as const));
  const again = own.again.data[row] - serverNow(world);
  return {
    seat,
    standing: own.offered.data[row] === 1 ? 'offered' : STANDINGS[own.standing.data[row]],
    step: own.steps.findIndex(({ standing }) => standing.data[row] === 1),
    have: Object.fromEntries(have),
    secondsLeft: own.left.data[row] / world.rules.tickRate,
    again: Math.max(0, again),
  };
}

/** The quest as a path: what does not depend on who walks it. */
function pathOf(rules: Rules, world: World, q: number): Omit<QuestWalk, 'walkers' | 'told'> {
  const quest = quests.of(rules).list[q];
  const entry = quests.of(rules).entries[q];
  const wires = wiringOf(rules).entries.find((one) => one.chapter === 'quests' && one.id === quest.id);
  const from = (path: string) => wires?.hears.find(({ place }) => place.path === path)?.from.map(({ label }) => label) ?? [];
  const led = collect(rules).actions.filter(
    ({ action }) => ['offerQuest', 'startQuest'].includes(action.do) && action['quest'] === quest.id,
  );
  return {
    label: quest.label,
    text: quest.text,
    rewards: rewardWords(world, actorOfSeat(world, WALKERS[0]), quests.of(world.rules).list[q].rewards),
    offers: [
      ...entry.offered.map((offer) => {
        const pattern = patternOfOffer(offer);
        if (pattern) return patternWords(rules, pattern);
        return offer.by === 'character' ? `${labelOf(rules, 'actors', offer.actor)}, when asked` : 'from the start';
      }),
      ...led.map(({ place }) => place.label),
      ...quests.of(rules).entries.flatMap(({ next, label }) => (next === quest.id ? [`after ${label}`] : [])),
    ],
    handIn: entry.handIn === undefined ? '' : labelOf(rules, 'actors', entry.handIn),
    next: entry.next === undefined ? '' : labelOf(rules, 'quests', entry.next),
    // Where there are no teams a crew is oneself.
    shared: entry.takenBy === 'everyone' || (entry.takenBy === 'crew' && rules.chapters.get('teams')!.ids.length > 0),
    steps: entry.steps.map((step, s) => ({
      id: step.id,
      label: step.label,
      goals: step.goals.map(({ id, line, count, optional, on, if: wanted }, g) => ({
        id,
        line,
        need: count,
        optional,
        waits: on === undefined ? `once ${wanted}` : patternWords(rules, on as Pattern),
        from: [...new Set(from(`/quests/${q}/steps/${s}/goals/${g}/on`))],
      })),
    })),
  };
}

function toldOf(rules: Rules, events: readonly GameEvent[]): QuestWalk['told'] {
  return events
    .filter(({ name }) => TOLD.test(name) && name !== 'goalCounted')
    .map((event) => ({
      seconds: event.tick / rules.tickRate,
      words: sentenceOf(rules, event),
      refusal: rules.registry.events.get(event.name)?.refusal === true,
    }));
}
