import { isKnown } from '../../ruleset/visible.js';
import type { Rules } from '../../ruleset/rules.js';
import { World } from '../../world/world.js';
import { ABANDONED, ACTIVE, DECLINED, DONE, FAILED, NONE, OFFERED, READY } from './tables.js';
import type { Quest, Reward } from './compile.js';
import { quests } from './state.js';

/** What a quest gives to an actor, as it stands today, but for what no seat may know of. */
export function rewardWords(world: World, actor: number, rewards: readonly Reward[]): string {
  return rewards
    .filter(({ chapter, id }) => isKnown(world.rules, chapter, id))
    .map(({ words, amount, range }) => {
      if (range !== undefined) return `${range} ${words}`;
      return amount ? `${Math.round(amount.run(world, World.alone(actor)) * 10) / 10} ${words}` : words;
    })
    .join(', ');
}

/** The position of a quest's current step for a player; -1 for none. */
export function currentStep(world: World, row: number, q: number): number {
  return quests.in(world).cells[q].at.data[row] - 1;
}

/** Whether somebody who turned one down, gave it up or failed in it may take it up by themselves. */
export function mayTakeUp({ atStart, retry, repeats }: Quest, standing: number): boolean {
  if (!atStart) return false;
  if (standing === FAILED) return retry;
  return standing === DECLINED || standing === ABANDONED || (standing === DONE && repeats !== 'once');
}

/** Writes what seats are told of a quest: its row in the log, and the lines of its current step. */
export function show(world: World, row: number, q: number): void {
  const { cells, list, log } = quests.in(world);
  const quest = list[q];
  const { standing, times, again, until, offered, row: at } = cells[q];
  const now = offered.data[row] === 1 ? OFFERED : standing.data[row];
  const actor = world.actors.handle(row);
  if (now === NONE) {
    if (at.data[row] > 0) log.remove(at.data[row] - 1);
    at.data[row] = 0;
  } else {
    if (at.data[row] === 0) at.data[row] = log.add() + 1;
    const current = currentStep(world, row, q);
    log.write(at.data[row] - 1, {
      actor,
      quest: q,
      id: world.textIndex(quest.id),
      label: world.textIndex(quest.label),
      text: world.textIndex(quest.text),
      rewards: world.textIndex(rewardWords(world, actor, quest.rewards)),
      standing: now,
      step: world.textIndex(current < 0 ? '' : quests.of(world.rules).entries[q].steps[current].label),
      times: times.data[row],
      until: now === ACTIVE && quest.limit > 0 ? until.data[row] : 0,
      again: again.data[row],
      may: now === ACTIVE || now === READY ? Number(quest.abandon) : Number(mayTakeUp(quest, now)),
    });
  }
  showLines(world, row, q);
}

/** Has the lines told be those of the current step, or the one that says to whom to return. */
function showLines(world: World, row: number, q: number): void {
  const { cells, list, lines } = quests.in(world);
  const { id, steps, handInLine } = list[q];
  const standing = cells[q].standing.data[row];
  const current = standing === ACTIVE ? currentStep(world, row, q) : -1;
  const actor = world.actors.handle(row);
  steps.forEach((step, s) =>
    step.goals.forEach(({ line, need, optional }, g) => {
      const { have, row: at } = cells[q].steps[s].goals[g];
      // A quest that is to be handed in says so where its last line stood.
      const returns = standing === READY && s === steps.length - 1 && g === 0;
      if (s !== current && !returns) {
        if (at.data[row] > 0) lines.remove(at.data[row] - 1);
        at.data[row] = 0;
        return;
      }
      if (at.data[row] === 0) at.data[row] = lines.add() + 1;
      lines.write(at.data[row] - 1, {
        actor,
        quest: q,
        id: world.textIndex(id),
        order: g,
        line: world.textIndex(returns ? handInLine : line),
        have: returns ? 0 : Math.min(need, have.data[row]),
        need: returns ? 1 : need,
        optional: returns ? 0 : Number(optional),
      });
    }),
  );
}

/** Has the log say what it says under edited rules. Where the quests are the same, only what they give may be told otherwise. */
export function followLog(world: World, before: Rules): void {
  const { list, cells, players } = quests.in(world);
  if (list !== quests.of(before).list) return showAll(world);
  const mayBeOther = ({ chapter, id, amount }: Reward) =>
    (amount !== undefined && amount.constant === undefined) || isKnown(before, chapter, id) !== isKnown(world.rules, chapter, id);
  const others = list.filter(({ rewards }) => rewards.some(mayBeOther));
  for (const row of world.actors.rows())
    if (players[world.actors.cells.type[row]]) for (const { index } of others) if (cells[index].row.data[row] > 0) show(world, row, index);
}

/** Writes everything anew: what stood there was of other rules. */
function showAll(world: World): void {
  const { cells, log, lines, players } = quests.in(world);
  for (const table of [log, lines]) for (const row of table.rows()) table.remove(row);
  const types = world.actors.cells.type;
  for (let row = 0; row < world.actors.high; row++) {
    if (world.actors.live[row] === 0 || !players[types[row]]) continue;
    cells.forEach(({ row: at, steps, standing, offered }, q) => {
      at.data[row] = 0;
      for (const { goals } of steps) for (const goal of goals) goal.row.data[row] = 0;
      if (standing.data[row] !== NONE || offered.data[row] === 1) show(world, row, q);
    });
  }
}
