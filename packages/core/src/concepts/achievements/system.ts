import { everyAction } from '../../ruleset/actions.js';
import type { RulesetDocument } from '../../ruleset/rules.js';
import type { GameEvent } from '../../world/events.js';
import { World } from '../../world/world.js';
import { countsForWhom } from '../actors/index.js';
import { events } from './events.js';
import { MOST_COUNT } from './schema.js';
import { type Achievement, achievements } from './state.js';

export const CHAPTER = 'achievements';

export function hasAchievement(world: World, actor: number, index: number): boolean {
  const row = world.actors.rowOf(actor);
  return row >= 0 && achievements.in(world).cells[index].done.data[row] === 1;
}

export const isPlayer = (world: World, row: number): boolean =>
  row >= 0 && achievements.of(world.rules).players[world.actors.cells.type[row]];

export function count(world: World, event: GameEvent, { index, pattern, who, count: wanted }: Achievement): void {
  const cells = achievements.in(world).cells[index];
  for (const owner of countsForWhom(world, event, who)) {
    const row = world.actors.rowOf(owner);
    if (!isPlayer(world, row) || cells.done.data[row] === 1 || !pattern!.matches(world, event, owner)) continue;
    cells.count.data[row]++;
    if (cells.count.data[row] >= wanted) unlock(world, owner, index);
  }
}

/** Unlocks an achievement for a player, once: its state is in place before anything follows from it. */
export function unlock(world: World, actor: number, index: number): void {
  const row = world.actors.rowOf(actor);
  const { cells, list, entries } = achievements.in(world);
  if (!isPlayer(world, row) || cells[index].done.data[row] === 1) return;
  cells[index].done.data[row] = 1;
  cells[index].count.data[row] = list[index].count;
  cells[index].anew.data[row] = 0;
  if (entries[index].secret) showSecrets(world, row);
  const { id, label, text = '', points } = entries[index];
  world.follow(events.achievementUnlocked, { subject: actor, source: actor }, { achievement: id, label, text, points }, () =>
    list[index].then(world, World.alone(actor)),
  );
}

/**
 * Takes all achievements of a player back, with what was counted for them, and touches nothing else. They are locked until they
 * are earned anew: a condition has to come true once more, and what was before does not count.
 */
export function resetAchievements(world: World, actor: number): void {
  const row = world.actors.rowOf(actor);
  if (!isPlayer(world, row)) return;
  for (const { count: counted, done, since, anew } of achievements.in(world).cells) {
    counted.data[row] = done.data[row] = since.data[row] = 0;
    anew.data[row] = 1;
  }
  showSecrets(world, row);
  world.emit(events.achievementsReset, { subject: actor }, {});
}

/** Has the rows of secret ones be those that a player has. */
export function showSecrets(world: World, row: number): void {
  const { found, cells, entries } = achievements.in(world);
  const actor = world.actors.handle(row);
  for (const at of found.rowsOf(actor)) found.remove(at);
  entries.forEach(({ secret, label, text = '', points }, index) => {
    if (!secret || cells[index].done.data[row] !== 1) return;
    found.write(found.add(), { actor, achievement: index, label: world.textIndex(label), text: world.textIndex(text), points });
  });
}

/** Grants what was earned before there was the achievement, or before its count was lowered. */
export function lookBack(world: World, actor: number): void {
  const row = world.actors.rowOf(actor);
  if (!isPlayer(world, row)) return;
  const { list, cells } = achievements.in(world);
  for (const { index, backwards, count: wanted, pattern } of list) {
    const { count: counted, done, anew } = cells[index];
    if (done.data[row] === 1) continue;
    const before = backwards && anew.data[row] === 0 ? Math.floor(backwards.run(world, World.alone(actor))) : 0;
    counted.data[row] = Math.max(0, Math.min(MOST_COUNT, Math.max(counted.data[row], before)));
    if (counted.data[row] >= wanted && (backwards || pattern)) unlock(world, actor, index);
  }
}

/** Conditions that hold, and have held for as long as they should. */
export function lookAtConditions(world: World): void {
  const { kept, cells, players } = achievements.in(world);
  if (kept.length === 0) return;
  const types = world.actors.cells.type;
  for (let row = 0; row < world.actors.high; row++) {
    if (world.actors.live[row] === 0 || !players[types[row]]) continue;
    const actor = world.actors.handle(row);
    for (const { index, test, ticks } of kept) {
      const { done, since, anew } = cells[index];
      if (done.data[row] === 1) continue;
      if (test!(world, World.alone(actor)) === 0) since.data[row] = anew.data[row] = 0;
      else if (anew.data[row] === 0) {
        if (since.data[row] === 0) since.data[row] = world.tick;
        if (world.tick - since.data[row] >= ticks) unlock(world, actor, index);
      }
    }
  }
}

/** Whether an action somewhere unlocks an achievement: a zone's, a quest's, a reaction's. */
export const isUnlockedByAction = (document: RulesetDocument, id: string): boolean =>
  everyAction(document).some((action) => action.do === 'unlock' && action['achievement'] === id);
