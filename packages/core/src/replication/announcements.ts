import { z } from 'zod';
import type { Rules } from '../ruleset/rules.js';
import type { EventData, GameEvent } from '../world/events.js';
import type { World } from '../world/world.js';
import { heardBy, knownTo } from './hearing.js';
import type { Viewer } from './publisher.js';
import { speakerOf } from './speaker.js';

export { speakerOf } from './speaker.js';

/** An event as it is told: in words, with what it carries. */
export const announcement = z.strictObject({
  /** For who watches the truth the event's own number; a seat counts what it is told, from 1. */
  serial: z.int(),
  tick: z.int(),
  event: z.string(),
  /** The serial of what led to it; 0 where nothing did, or nothing that was told. */
  cause: z.int(),
  who: z.string(),
  text: z.string(),
  refusal: z.boolean(),
  data: z.record(z.string(), z.union([z.number(), z.string(), z.boolean()])),
});
export type Announcement = z.infer<typeof announcement>;

/** What led to something is remembered for this many announcements. */
const REMEMBERED = 256;

/** An event in one sentence. */
export function sentenceOf(rules: Rules, event: GameEvent): string {
  return rules.registry.events.get(event.name)?.sentence(event, speakerOf(rules)) ?? event.name;
}

/** Events in words, by the names of the fields that were told of: most viewers are told the same of one, and words take time. */
const spoken = new WeakMap<GameEvent, Map<string, Announcement>>();

function toAnnouncement(rules: Rules, event: GameEvent, data: EventData): Announcement {
  const told = spoken.get(event) ?? new Map<string, Announcement>();
  spoken.set(event, told);
  const fields = Object.keys(data).join();
  const known = told.get(fields);
  if (known) return known;
  const { serial, tick, name, cause, who } = event;
  const refusal = rules.registry.events.get(name)?.refusal === true;
  const made = { serial, tick, event: name, cause, who, text: sentenceOf(rules, { ...event, data }), refusal, data: { ...data } };
  told.set(fields, made);
  return made;
}

/**
 * Tells one client of events: who watches the truth of all of them, a seat of those that its actor may hear of, with those of
 * their fields that it may know, numbered as it hears them.
 */
export class Announcer {
  private told = 0;
  /** The numbers under which events were told, by their serials. */
  private readonly numbers = new Map<number, number>();

  /** What a viewer is told of a tick's events, in order. */
  tell(world: World, events: readonly GameEvent[], viewer: Viewer): readonly Announcement[] {
    if (viewer === 'truth') return events.map((event) => toAnnouncement(world.rules, event, event.data));
    return events.flatMap((event) => {
      if (!heardBy(world, event, viewer)) return [];
      const told = toAnnouncement(world.rules, event, knownTo(world, event, viewer));
      return [{ ...told, serial: this.number(event.serial), cause: this.numbers.get(event.cause) ?? 0 }];
    });
  }

  private number(serial: number): number {
    this.numbers.set(serial, ++this.told);
    for (const old of this.numbers.keys()) {
      if (this.numbers.size <= REMEMBERED) break;
      this.numbers.delete(old);
    }
    return this.told;
  }
}

/** What a viewer who has heard nothing yet is told of events. */
export function announcementsFor(world: World, events: readonly GameEvent[], viewer: Viewer): readonly Announcement[] {
  return new Announcer().tell(world, events, viewer);
}
