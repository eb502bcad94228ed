import { carriedBy, type Carried, type EventField, type EventFields, type EventParty } from './event-fields.js';
import type { Visibility } from './columns.js';

/** What an event tells besides its parties: ids, amounts and texts. */
export type EventData = Readonly<Record<string, number | string | boolean>>;

/** Something that happened, announced after the state it speaks of was in place. */
export interface GameEvent {
  /** Counts all events of a world, from 1. */
  readonly serial: number;
  readonly tick: number;
  readonly name: string;
  /** The serial of the event or input that led to this one; 0 where nothing did. */
  readonly cause: number;
  /** How many causes stand behind it, up to the first of this tick. */
  readonly depth: number;
  /** Handles of the actors involved, 0 for none. */
  readonly subject: number;
  readonly source: number;
  readonly target: number;
  /** What the subject and source are called, also after they have gone. */
  readonly who: string;
  readonly by: string;
  readonly data: EventData;
}

/** The actor that plays a part in an event; where anyone may, the one that it is about. */
export const partyIn = (event: GameEvent, who: EventParty | 'anyone'): number => (who === 'anyone' ? event.subject : event[who]);

export interface EventParties {
  readonly subject?: number;
  readonly source?: number;
  readonly target?: number;
}

/** Gives the words for what an event speaks of. */
export interface Speaker {
  /** The label of an entry by its id, or the id where it has gone; `Something` where who is told may not know which. */
  label(chapter: string, id: unknown): string;
  /** Ticks in words: `3.2 s`. */
  time(ticks: number): string;
}

/** What a concept says of an event that it announces. */
export interface EventDeclaration {
  readonly label: string;
  /** When it is announced, and what is in place by then, in a sentence. */
  readonly when: string;
  /**
   * What it arises from without any action: the entries of a chapter, with the field of its data that names the entry, or
   * the core itself. An event without arises from actions alone.
   */
  readonly arises?: { readonly from: string; readonly field?: string } | 'core';
  /** The field of its data that names the part of that entry that it is about, by the id of the part. */
  readonly part?: string;
  /** All that its data can hold, and what each of it is about. What is not declared can't be announced. */
  readonly fields?: EventFields;
  /** The fields that patterns can ask for. An event without, not even an empty list, is waited for by none. */
  readonly patterns?: readonly string[];
  /** Which seats are told: as the entry in a field is seen, counted from whose it is; or by what it says of itself, counted from the subject. */
  readonly see: Visibility | { readonly as: string } | ((data: EventData) => Visibility);
  /** Told to seats as an announcement on the reliable lane, not only to the trace. */
  readonly announced?: boolean | ((data: EventData) => boolean);
  /** A refusal: shown apart from what happened. */
  readonly refusal?: boolean;
  /** What happened, in words, out of those of its fields that who is told may know: any of them may be missing. */
  readonly sentence: (event: GameEvent, speak: Speaker) => string;
}

/** A kind of event that is announced under a name. */
export interface EventSpec<F extends EventFields = EventFields> extends EventDeclaration {
  readonly name: string;
  readonly fields: F;
  readonly carries: Carried | undefined;
}

/** What an event with these fields can say. */
export type DataOf<F extends EventFields> = { readonly [K in keyof F]?: number | string | boolean };

/** Data of which nothing goes undeclared: neither a field of another name nor one whose name is known only at run time. */
export type Declared<D, F extends EventFields> = D & EventData & DataOf<F> & { readonly [K in Exclude<keyof D, keyof F>]: never };

type FieldsOf<D extends EventDeclaration> = D['fields'] extends EventFields ? D['fields'] : Record<never, EventField>;

/** Declares the events of a concept, by name. */
export function defineEvents<const D extends Readonly<Record<string, EventDeclaration>>>(
  declarations: D,
): { readonly [K in keyof D]: EventSpec<FieldsOf<D[K]>> } {
  const specs = Object.entries(declarations).map(([name, declaration]) => {
    const { fields = {}, patterns } = declaration;
    return [name, { ...declaration, name, fields, carries: patterns && carriedBy(fields, patterns) }];
  });
  return Object.fromEntries(specs) as { readonly [K in keyof D]: EventSpec<FieldsOf<D[K]>> };
}

/** Events at this depth cause no more: a loop of reactions is cut here. */
export const DEEPEST_CAUSE = 32;
/** A tick announces at most this many events. */
export const MOST_EVENTS = 4096;

/** Seconds with one decimal where it matters: `8 s`, `3.2 s`. */
export function seconds(ticks: number, tickRate: number): string {
  const tenths = Math.ceil((ticks * 10) / tickRate - 1e-9);
  return `${tenths % 10 === 0 ? String(tenths / 10) : (tenths / 10).toFixed(1)} s`;
}
