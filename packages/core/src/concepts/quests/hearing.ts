import type { GameEvent } from '../../world/events.js';
import { countsForWhom } from '../actors/index.js';
import { type World } from '../../world/world.js';
import { ACTIVE } from './tables.js';
import type { WaitingGoal } from './compile.js';
import { quests } from './state.js';
import { isPlayer, onePerRecord } from './record.js';
import { offer } from './course.js';
import { fail } from './steps.js';
import { advance } from './progress.js';

const waitsFor = (world: World, row: number, { quest, step }: WaitingGoal): boolean => {
  const { standing, at } = quests.in(world).cells[quest];
  return row >= 0 && standing.data[row] === ACTIVE && at.data[row] === step + 1;
};

/** Hears an event: for goals, for ways to fail, for offers – in this order, so that what an event begins does not count it. */
export function hear(world: World, event: GameEvent): void {
  const { goals, failures, offers } = quests.of(world.rules);
  // For whom it counts is settled first: what it completes does not have it count for the next step.
  const counted = (goals.get(event.name) ?? []).map((waiting) => ({ waiting, players: countsFor(world, event, waiting) }));
  for (const { waiting, players } of counted)
    for (const player of players)
      if (waitsFor(world, world.actors.rowOf(player), waiting)) advance(world, player, waiting.quest, waiting.goal, 1);
  for (const { quest, pattern, who } of failures.get(event.name) ?? []) {
    for (const actor of countsForWhom(world, event, who)) {
      const row = world.actors.rowOf(actor);
      if (isPlayer(world, row) && quests.in(world).cells[quest].standing.data[row] === ACTIVE && pattern.matches(world, event, actor))
        fail(world, actor, quest, 'event', event.source);
    }
  }
  for (const { quest, pattern, who } of offers.get(event.name) ?? []) {
    for (const actor of countsForWhom(world, event, who))
      if (isPlayer(world, world.actors.rowOf(actor)) && pattern.matches(world, event, actor)) offer(world, actor, quest, event.source);
  }
}

/** The players for whom what somebody did counts towards a goal. */
function countsFor(world: World, event: GameEvent, waiting: WaitingGoal): readonly number[] {
  const { pattern, who, counts } = waiting;
  // Whoever does it, it counts for each who waits for it.
  if (who === 'anyone') {
    const waits = (actor: number) => isPlayer(world, world.actors.rowOf(actor)) && waitsFor(world, world.actors.rowOf(actor), waiting);
    const actors = countsForWhom(world, event, who).filter((actor) => waits(actor) && pattern.matches(world, event, actor));
    const rows = actors.map((actor) => world.actors.rowOf(actor));
    return onePerRecord(world, rows, waiting.quest).map((at) => world.actors.handle(at));
  }
  const doer = event[who];
  const row = world.actors.rowOf(doer);
  if (!isPlayer(world, row)) return [];
  const team = world.actors.cells.team;
  const counted = (at: number) => counts === 'everyone' || (counts === 'crew' && team[at] >= 0 && team[at] === team[row]);
  // Whoever does it comes first: a record that they share is counted through them.
  const rows = waitsFor(world, row, waiting) ? [row] : [];
  if (counts !== 'player')
    for (let at = 0; at < world.actors.high; at++)
      if (at !== row && world.actors.live[at] === 1 && isPlayer(world, at) && counted(at) && waitsFor(world, at, waiting)) rows.push(at);
  if (rows.length === 0 || !pattern.matches(world, event, doer)) return [];
  return onePerRecord(world, rows, waiting.quest).map((at) => world.actors.handle(at));
}
