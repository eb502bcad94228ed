import { z } from 'zod';
import { sentenceOf } from './announcements.js';
import type { Rules } from '../ruleset/rules.js';
import type { GameEvent } from '../world/events.js';

/** One link of a chain of causes. */
export const causeSchema = z.strictObject({ serial: z.int(), tick: z.int(), event: z.string(), text: z.string() });
export type Cause = Readonly<z.infer<typeof causeSchema>>;

/** An event with the rules whose words it is told in. It is put into words only when somebody asks. */
interface Remembered {
  readonly event: GameEvent;
  readonly rules: Rules;
}

/** Longest chain that is told. */
const LONGEST_CHAIN = 12;

/** The latest events of a world with their causes: what answers which event did it. Not part of the world's state. */
export class History {
  private readonly all = new Map<number, Remembered>();

  constructor(private readonly most = 6000) {}

  note(rules: Rules, events: readonly GameEvent[]): void {
    for (const event of events) this.all.set(event.serial, { event, rules });
    // Serials come in order: the first in the map is the oldest.
    for (const serial of this.all.keys()) {
      if (this.all.size <= this.most) break;
      this.all.delete(serial);
    }
  }

  /** The event of a serial and all that led to it, the event itself first, the input or beginning last. */
  chain(serial: number): readonly Cause[] {
    const links: Cause[] = [];
    for (let at = this.all.get(serial); at && links.length < LONGEST_CHAIN; at = this.all.get(at.event.cause)) {
      const { event, rules } = at;
      links.push({ serial: event.serial, tick: event.tick, event: event.name, text: sentenceOf(rules, event) });
    }
    return links;
  }

  /** The latest events of a kind, newest first, each with what led to it. */
  latest(isMeant: (event: GameEvent) => boolean, most: number): readonly (readonly Cause[])[] {
    return [...this.all.values()]
      .filter(({ event }) => isMeant(event))
      .slice(-most)
      .reverse()
      .map(({ event }) => this.chain(event.serial));
  }
}
