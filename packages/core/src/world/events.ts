import type { Visibility } from './table.js';

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
export const partyIn = (event: GameEvent, who: 'subject' | 'source' | 'target' | 'anyone'): number =>
  who === 'anyone' ? event.subject : event[who];

export interface EventParties {
  readonly subject?: number;
  readonly source?: number;
  readonly target?: number;
}

/** Gives the words for what an event speaks of. */
export interface Speaker {
  /** The label of an entry by its id, or the id where it has gone. */
  label(chapter: string, id: string): string;
  /** Ticks in words: `3.2 s`. */
  time(ticks: number): string;
}

export interface EventSpec {
  readonly label: string;
  /** When it is announced, and what is in place by then, in a sentence. */
  readonly when: string;
  /**
   * What it arises from without any action: the entries of a chapter, with the field of its data that names the entry, or
   * the core itself. An event without arises from actions alone.
   */
  readonly arises?: { readonly from: string; readonly field?: string } | 'core';
  /** What patterns can ask of it: fields that hold entries (with their chapter), words, and amounts. An event without is waited for by none. */
  readonly carries?: {
    readonly entries?: Readonly<Record<string, string>>;
    readonly words?: Readonly<Record<string, readonly string[]>>;
    readonly amounts?: readonly string[];
  };
  /** Which seats are told, counted from the subject. May depend on what the event speaks of. */
  readonly see: Visibility | ((data: EventData, seeEntry: (chapter: string, id: string) => Visibility) => Visibility);
  /** Told to seats as an announcement on the reliable lane, not only to the trace. */
  readonly announced?: boolean | ((data: EventData) => boolean);
  /** Fields that no seat is told of, although it is told of the event. */
  readonly withheld?: readonly string[];
  /** A refusal: shown apart from what happened. */
  readonly refusal?: boolean;
  readonly sentence: (event: GameEvent, speak: Speaker) => string;
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
