import { defineTable } from '../../world/define-table.js';
import { columnNames, defineEntryTable, partName } from '../../world/entry-table.js';
import type { AchievementEntry } from './schema.js';

/** What a player has done towards each achievement, and which are unlocked. */
export const achievementsTable = defineEntryTable({
  name: 'achievements',
  title: 'Achievements',
  extends: 'actors',
  parts: ['done'],
  columns: (achievement: AchievementEntry) => {
    const { label, count, secret } = achievement;
    const see = secret ? 'server' : 'owner';
    return {
      count: { ...columnNames(achievement), kind: 'int', see, saved: true, label: `${label}, counted`, range: [0, count] },
      done: {
        ...columnNames(achievement, (id) => partName(id, 'done')),
        kind: 'flag',
        see,
        saved: true,
        label,
        words: ['locked', 'unlocked'],
      },
      /** A condition that held is not kept: it has to hold anew. */
      since: { ...columnNames(achievement, (id) => partName(id, 'since')), kind: 'tick', see: 'server' },
      /** It was taken back: what was so before does not earn it again. */
      anew: {
        ...columnNames(achievement, (id) => partName(id, 'anew')),
        kind: 'flag',
        see: 'server',
        saved: true,
        label: `${label}, taken back`,
        words: ['no', 'yes'],
      },
    };
  },
});

/** Secret ones that somebody has: what is told of them is written out, for their ids are told to nobody. */
export const secretsFoundTable = defineTable({
  name: 'secretsFound',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'owner' },
    achievement: { kind: 'entry', chapter: 'achievements', see: 'server' },
    label: { kind: 'text', see: 'owner' },
    text: { kind: 'text', see: 'owner' },
    points: { kind: 'int', see: 'owner' },
  },
});
