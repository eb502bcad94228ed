import { registry } from '../../../ruleset/registry.js';
import type { GameEvent } from '../../../world/events.js';
import type { Ran } from '../../../world/ran.js';

/** The fields of an event that name entries, with their chapters. */
const naming = new Map<string, readonly (readonly [field: string, chapter: string])[]>();

function namingFields(name: string): readonly (readonly [string, string])[] {
  let fields = naming.get(name);
  if (!fields) {
    const all = Object.entries(registry().events.get(name)?.fields ?? {});
    fields = all.flatMap(([field, { chapter }]) => (typeof chapter === 'string' ? [[field, chapter] as const] : []));
    naming.set(name, fields);
  }
  return fields;
}

interface PartField {
  readonly chapter: string;
  readonly entry: string;
  readonly field: string;
}
/** The field of an event that names a part of an entry, and where its entry is named; undefined where it is about none. */
const ofParts = new Map<string, PartField | undefined>();

function partField(name: string): PartField | undefined {
  if (!ofParts.has(name)) {
    const { arises, part } = registry().events.get(name) ?? {};
    const isAbout = part !== undefined && typeof arises === 'object' && arises.field !== undefined;
    ofParts.set(name, isAbout ? { chapter: arises.from, entry: arises.field!, field: part } : undefined);
  }
  return ofParts.get(name);
}

/** What came about of a part of an entry. */
export const partKey = (chapter: string, id: string, event: string, part: string): string => `${chapter}/${id}/${event}/${part}`;

/** What a check has run through: what happened, of which entries, and which actions were run. */
export class Footprint implements Ran {
  /** The names of all events that there were. */
  readonly events = new Set<string>();
  /** The entries that events told of, as chapter/id. */
  readonly entries = new Set<string>();
  /** The actions that were run, by their places: chapter/id and the way from there. */
  readonly places = new Set<string>();
  /** The parts of entries that something came about of: chapter/id/event/part. */
  readonly parts = new Set<string>();
  private readonly rules = new WeakMap<GameEvent, string>();

  noteRule(event: GameEvent, rule: string | undefined): void {
    if (rule !== undefined) this.rules.set(event, rule);
  }

  /** The rule that was at work as something was announced, as chapter/id; none for what no rule did. */
  ruleOf(event: GameEvent): string | undefined {
    return this.rules.get(event);
  }

  note(events: readonly GameEvent[]): void {
    for (const { name, data } of events) {
      this.events.add(name);
      for (const [field, chapter] of namingFields(name)) {
        const id = data[field];
        if (typeof id === 'string' && id !== '') this.entries.add(`${chapter}/${id}`);
      }
      const part = partField(name);
      if (part) this.parts.add(partKey(part.chapter, String(data[part.entry]), name, String(data[part.field])));
    }
  }
}
