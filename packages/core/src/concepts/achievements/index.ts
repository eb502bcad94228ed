import { Possible } from '../../analysis/possible.js';
import type { CompileContext } from '../../ruleset/context.js';
import { reference } from '../../ruleset/fields.js';
import { grouped } from '../../ruleset/grouped.js';
import type { Finding } from '../../ruleset/problem.js';
import type { Pattern, Then } from '../../ruleset/registry.js';
import { everyAction } from '../../ruleset/actions.js';
import type { Rules, RulesetDocument } from '../../ruleset/rules.js';
import { defineConcept } from '../../world/concept.js';
import type { GameEvent } from '../../world/events.js';
import { World } from '../../world/world.js';
import { countsForWhom, playerKinds } from '../actors/index.js';
import { events } from './events.js';
import { achievementsTable, secretsFoundTable } from './tables.js';
import { type AchievementEntry, MOST_COUNT, schema } from './schema.js';
import { type Achievement, achievements, type CompiledAchievements } from './state.js';

export { achievements } from './state.js';
export { achievementsTable, secretsFoundTable } from './tables.js';
export type { AchievementEntry } from './schema.js';

const CHAPTER = 'achievements';
function compileOne(context: CompileContext, entry: AchievementEntry, index: number): Achievement {
  const path = [CHAPTER, index];
  const { on, if: wanted, holds, count } = entry;
  if (on !== undefined && wanted !== undefined)
    context.problem([...path, 'if'], `${entry.label} waits for one thing: an event that is counted, or a condition.`);
  if (on === undefined && wanted === undefined && !isUnlockedByAction(context.document, entry.id))
    context.problem(
      [...path, 'on'],
      `${entry.label} waits for nothing: say which event is counted, or which condition has to be so, or unlock it by an action.`,
    );
  if (holds !== undefined && wanted === undefined)
    context.problem([...path, 'holds'], 'Only a condition holds for a time: say which, or take the time out.');
  if (count > 1 && on === undefined) context.problem([...path, 'count'], 'Only an event is counted: a condition is met once.');
  return {
    index,
    id: entry.id,
    pattern: on && context.pattern(on as Pattern),
    who: (on as Pattern | undefined)?.who ?? 'subject',
    count,
    test: wanted === undefined ? undefined : context.condition(wanted),
    ticks: holds === undefined ? 0 : Math.max(1, context.ticks(holds)),
    backwards: entry.backwards === undefined ? undefined : context.amount(entry.backwards, [...path, 'backwards']),
    then: context.then(entry.then as Then, [...path, 'then']),
  };
}

/** Achievements: unlocked once per player, for ever. A second time is silent. */
export const achievementsConcept = defineConcept(achievements, {
  sections: {
    achievements: {
      kind: 'chapter',
      title: 'Achievements',
      entry: schema,
      secret: (entry) => (entry as AchievementEntry).secret,
    },
  },
  vocabulary: (ids) => ({
    functions: [
      {
        name: 'unlocked',
        chapter: CHAPTER,
        ids: ids(CHAPTER),
        amounts: 0,
        yields: 'condition',
        read: (index) => (world, actor) => (hasAchievement(world, actor, index) ? 1 : 0),
      },
    ],
  }),
  compile: (context) => {
    const entries = context.entries<AchievementEntry>(CHAPTER);
    const list = entries.map((entry, i) => compileOne(context, entry, i));
    const on = grouped(list, ({ pattern }) => pattern?.event);
    const players = playerKinds(context);
    return { entries, list, players, on, kept: list.filter(({ test }) => test) };
  },
  tables: ({ entries, players }) => [achievementsTable.under(entries, { present: { column: 'type', of: players } }), secretsFoundTable],
  attach: (world, compiled) => ({
    ...compiled,
    cells: achievementsTable.columnsIn(world, compiled.entries),
    found: secretsFoundTable.in(world),
    tellTimer: world.rules.registry.timer('achievements.look'),
  }),
  events,
  actions: {
    unlock: {
      label: 'unlock an achievement',
      sentence: 'unlock {achievement} for {to}',
      causes: ({ achievement }) => [{ event: 'achievementUnlocked', fields: { achievement } }],
      args: { achievement: reference(CHAPTER) },
      compile: (args, context) => {
        const index = context.index(CHAPTER, String(args['achievement']));
        return (world, actor) => unlock(world, actor, index);
      },
    },
    forgetAchievements: {
      label: 'take achievements back',
      sentence: 'take all achievements of {to} back',
      causes: () => [{ event: 'achievementsReset' }],
      args: {},
      compile: () => resetAchievements,
    },
  },
  findings,
  lifecycle: {
    // Players are loaded and rules edited between ticks, when nobody would hear of it: it is looked at in the next.
    playerLoaded: (world, row) => {
      showSecrets(world, row);
      world.setTimer(achievements.in(world).tellTimer, 1, world.actors.handle(row), 0);
    },
    rulesAdopted: (world) => {
      const { tellTimer, players } = achievements.in(world);
      const types = world.actors.cells.type;
      for (let row = 0; row < world.actors.high; row++) {
        if (world.actors.live[row] === 0 || !players[types[row]]) continue;
        showSecrets(world, row);
        world.setTimer(tellTimer, 1, world.actors.handle(row), 0);
      }
    },
  },
  hears: (world, event) => {
    for (const one of achievements.of(world.rules).on.get(event.name) ?? []) count(world, event, one);
  },
  timers: { look: (world, actor) => lookBack(world, actor) },
  systems: { thresholds: lookAtConditions },
  display: ({ entries }) => ({
    list: entries
      .filter(({ secret }) => !secret)
      .map(({ id, label, text = '', count: wanted, points, hud }) => ({ id, label, text, count: wanted, points, hud })),
    secrets: entries.filter(({ secret }) => secret).length,
  }),
});

export function hasAchievement(world: World, actor: number, index: number): boolean {
  const row = world.actors.rowOf(actor);
  return row >= 0 && achievements.in(world).cells[index].done.data[row] === 1;
}

const isPlayer = (world: World, row: number): boolean => row >= 0 && achievements.of(world.rules).players[world.actors.cells.type[row]];

function count(world: World, event: GameEvent, { index, pattern, who, count: wanted }: Achievement): void {
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
function showSecrets(world: World, row: number): void {
  const { found, cells, entries } = achievements.in(world);
  const actor = world.actors.handle(row);
  for (const at of found.rowsOf(actor)) found.remove(at);
  entries.forEach(({ secret, label, text = '', points }, index) => {
    if (!secret || cells[index].done.data[row] !== 1) return;
    found.write(found.add(), { actor, achievement: index, label: world.textIndex(label), text: world.textIndex(text), points });
  });
}

/** Grants what was earned before there was the achievement, or before its count was lowered. */
function lookBack(world: World, actor: number): void {
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
function lookAtConditions(world: World): void {
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
const isUnlockedByAction = (document: RulesetDocument, id: string): boolean =>
  everyAction(document).some((action) => action.do === 'unlock' && action['achievement'] === id);

/** Conditions that nobody can ever meet, and those that all meet from the start. */
function findings({ entries }: CompiledAchievements, rules: Rules): readonly Finding[] {
  const possible = new Possible(rules);
  return entries.flatMap(({ id, if: wanted, label }, i): Finding[] => {
    if (wanted === undefined) return [];
    if (possible.whoCan(`not (${wanted})`, ['player']).length === 0)
      return [
        {
          kind: 'unlockedAtOnce',
          path: `/achievements/${i}/if`,
          message: `${label} is unlocked as soon as somebody is there: “${wanted}” always holds. Ask for more.`,
        },
      ];
    return possible.whoCan(wanted, ['player']).length > 0 || isUnlockedByAction(rules.document, id)
      ? []
      : [
          {
            kind: 'neverUnlocked',
            path: `/achievements/${i}/if`,
            message: `Nobody can ever have ${label}: no player can meet “${wanted}”. Look at the bounds of what it reads.`,
          },
        ];
  });
}
