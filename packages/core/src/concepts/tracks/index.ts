import { defineConcept } from '../../world/concept.js';
import { partyIn } from '../../world/events.js';
import { divide, grow, loseByFall } from './award.js';
import { experienceOf, levelOf } from './levels.js';
import { compileTracks } from './compile.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { schema } from './schema.js';
import { tracksTable } from './tables.js';
import { tracks } from './state.js';
import { earn, partsKey, sound } from './system.js';
import { moved } from '../attributes/consequences.js';
import { trackChapter } from './schema.js';
import { awarding } from './actions.js';

export { tracks } from './state.js';
export { tracksTable } from './tables.js';
export { growthHolder, trackOfHolder } from './award.js';
export { levelOf, peakOf } from './levels.js';
export { tableOf, type Track } from './compile.js';
export { AMONG, HOW_SHARED, LOCALS, MOST_LEVELS, type Share, type TrackEntry } from './schema.js';

/** Tracks: experience that players earn, and the levels that it leads to. */
export const tracksConcept = defineConcept(tracks, {
  consequences: (rules) => trackChapter.of(rules).flatMap(({ growth = [] }) => growth.map(({ attribute }) => moved(attribute))),
  alsoCalled: { names: { xp: ['award'] } },
  sections: { tracks: { kind: 'chapter', title: 'Levels', entry: schema, forPlayers: true } },
  vocabulary: (ids) => ({
    functions: [
      {
        name: 'level',
        chapter: 'tracks',
        ids: ids('tracks'),
        amounts: 0,
        yields: 'amount',
        noun: 'level track',
        between: (rules, id) => ({ low: 1, high: trackChapter.find(rules, id)?.levels ?? Infinity }),
        read: (k) => (world, actor) => levelOf(world, actor, k),
      },
      {
        name: 'experience',
        chapter: 'tracks',
        ids: ids('tracks'),
        amounts: 0,
        yields: 'amount',
        noun: 'level track',
        read: (k) => (world, actor) => experienceOf(world, actor, k),
      },
    ],
  }),
  compileInParts: (context) => compileTracks(context, levelOf),
  tables: ({ entries, players }) => [tracksTable.under(entries, { present: { column: 'type', of: players } })],
  attach: (world, compiled) => ({
    ...compiled,
    cells: tracksTable.columnsIn(world, compiled.entries),
    parts: new Map(),
  }),
  events,
  actions: { award: awarding },
  findings,
  lifecycle: {
    actorSpawned: (world, row) => {
      const { cells, players } = tracks.in(world);
      if (!players[world.actors.cells.type[row]]) return;
      for (const { level, peak } of cells) level.data[row] = peak.data[row] = 1;
      grow(world, row, 0);
    },
    playerLoaded: (world, row) => sound(world, row, tracks.in(world).list.length),
    rulesAdopted: (world, before) => {
      const old = tracks.of(before.rules).list.length;
      world.actors.each((row) => sound(world, row, old));
    },
  },
  // Whoever fell may be gone when it is heard, and what was done to them with it.
  onAnnounce: (world, event) => {
    const { on, parts } = tracks.in(world);
    if (event.name !== 'actorDefeated') return;
    for (const { track, source } of on.get(event.name) ?? []) {
      const earner = partyIn(event, source.who);
      if (source.share?.how === 'help' && source.pattern.matches(world, event, earner))
        parts.set(partsKey(event, track.index, track.sources.indexOf(source)), divide(world, 1, earner, event.subject, source.share));
    }
  },
  onEvent: (world, event) => {
    const { on, parts } = tracks.in(world);
    for (const { track, source } of on.get(event.name) ?? []) earn(world, event, track.index, track.sources.indexOf(source));
    if (event.name === 'actorDefeated') loseByFall(world, event);
    for (const key of parts.keys()) if (key.startsWith(`${event.serial}/`)) parts.delete(key);
  },
  workbench: async () => (await import('../workbenches.js')).tracks,
  display: ({ entries, list }, rules) =>
    entries
      .map((entry, i) => ({ entry, track: list[i] }))
      .filter(({ entry }) => entry.see !== 'server')
      .map(({ entry, track }) => ({
        id: entry.id,
        label: entry.label,
        levels: entry.levels,
        see: entry.see,
        needs: Array.from({ length: entry.levels - 1 }, (_, i) => track.need(rules, i + 1)),
      })),
});
