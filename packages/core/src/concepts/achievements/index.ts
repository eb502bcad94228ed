import { findings } from './findings.js';
import { reference } from '../../ruleset/fields.js';
import { grouped } from '../../ruleset/grouped.js';
import { defineConcept } from '../../world/concept.js';
import { playerKinds } from '../actors/index.js';
import { invariants } from './invariants.js';
import { events } from './events.js';
import { achievementsTable, secretsFoundTable } from './tables.js';
import { type AchievementEntry, schema } from './schema.js';
import { achievements } from './state.js';
import { CHAPTER, count, hasAchievement, lookAtConditions, lookBack, resetAchievements, showSecrets, unlock } from './system.js';
import { compileOne } from './compile.js';

export { achievements } from './state.js';
export { achievementsTable, secretsFoundTable } from './tables.js';
export type { AchievementEntry } from './schema.js';
export { hasAchievement, unlock, resetAchievements } from './system.js';

/** Achievements: unlocked once per player, for ever. A second time is silent. */
export const achievementsConcept = defineConcept(achievements, {
  sections: {
    achievements: {
      kind: 'chapter',
      title: 'Achievements',
      entry: schema,
      forPlayers: true,
      ownConditions: true,
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
        noun: 'achievement',
        read: (index) => (world, actor) => (hasAchievement(world, actor, index) ? 1 : 0),
      },
    ],
  }),
  *compileInParts(context) {
    const entries = context.entries<AchievementEntry>(CHAPTER);
    const list = yield* context.each('achievements', entries, (entry, i) => compileOne(context, entry, i));
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
  invariants,
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
  onEvent: (world, event) => {
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
