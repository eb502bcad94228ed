import { z } from 'zod';
import type { Rules } from '../ruleset/rules.js';
import type { GameEvent } from '../world/events.js';
import type { Visibility } from '../world/table.js';
import type { World } from '../world/world.js';
import type { Viewer } from './publisher.js';
import { speakerOf } from './speaker.js';

export { speakerOf } from './speaker.js';

/** An event as it is told: in words, with what it carries. */
export const announcement = z.strictObject({
  serial: z.int(),
  tick: z.int(),
  event: z.string(),
  cause: z.int(),
  who: z.string(),
  text: z.string(),
  refusal: z.boolean(),
  data: z.record(z.string(), z.union([z.number(), z.string(), z.boolean()])),
});
export type Announcement = z.infer<typeof announcement>;

/** An event in one sentence. */
export function sentenceOf(rules: Rules, event: GameEvent): string {
  return rules.registry.events.get(event.name)?.sentence(event, speakerOf(rules)) ?? event.name;
}

export function toAnnouncement(rules: Rules, event: GameEvent): Announcement {
  return {
    serial: event.serial,
    tick: event.tick,
    event: event.name,
    cause: event.cause,
    who: event.who,
    text: sentenceOf(rules, event),
    refusal: rules.registry.events.get(event.name)?.refusal === true,
    data: event.data as Record<string, number | string | boolean>,
  };
}

/** Those of a tick's events that a viewer is told, in order. Who watches the truth is told all. */
export function announcementsFor(world: World, events: readonly GameEvent[], viewer: Viewer): readonly Announcement[] {
  const { rules } = world;
  if (viewer === 'truth') return events.map((event) => toAnnouncement(rules, event));
  return events.filter((event) => mayHear(world, event, viewer)).map((event) => asTold(rules, toAnnouncement(rules, event)));
}

/** An announcement without what no seat is told of. */
function asTold(rules: Rules, announcement: Announcement): Announcement {
  const { withheld } = rules.registry.events.get(announcement.event) ?? {};
  if (!withheld) return announcement;
  return { ...announcement, data: Object.fromEntries(Object.entries(announcement.data).filter(([field]) => !withheld.includes(field))) };
}

function mayHear(world: World, event: GameEvent, viewer: Exclude<Viewer, 'truth'>): boolean {
  const spec = world.rules.registry.events.get(event.name);
  if (!spec) return false;
  if (!(typeof spec.announced === 'function' ? spec.announced(event.data) : spec.announced)) return false;
  const see = typeof spec.see === 'string' ? spec.see : spec.see(event.data, (chapter, id) => seeOfEntry(world.rules, chapter, id));
  if (see === 'everyone') return true;
  if (see === 'server' || event.subject === 0) return false;
  if (event.subject === viewer.actor) return true;
  const row = world.actors.rowOf(event.subject);
  return see === 'team' && row >= 0 && viewer.team >= 0 && world.actors.column('team').data[row] === viewer.team;
}

function seeOfEntry(rules: Rules, chapter: string, id: string): Visibility {
  const entry = rules.chapters.get(chapter)?.entries.find((e) => e.id === id) as { see?: Visibility } | undefined;
  return entry?.see ?? 'server';
}
