/** The actors that play a part in an event. */
export type EventParty = 'subject' | 'source' | 'target';

/**
 * What a field of an event is about: it decides who is told of it, among those who are told of the event.
 * - an `entry` is told to those who may see that entry of the party `of`
 * - anything else to those who are told of every field that it is `about`; where that is none, to all who hear of the event
 */
export interface EventField {
  readonly kind: 'entry' | 'word' | 'amount' | 'text' | 'flag';
  /** The chapter of an entry, or the field that names it. */
  readonly chapter?: string | { readonly field: string };
  /** Whose the entry is. */
  readonly of?: EventParty;
  /** What a word can be. */
  readonly among?: readonly string[];
  /** What a sentence says for each of them. */
  readonly says?: Readonly<Record<string, string>>;
  readonly about?: readonly string[];
  /** It is for the event's subject alone, or for who watches the truth. */
  readonly only?: 'subject' | 'server';
}

export type EventFields = Readonly<Record<string, EventField>>;

/** The id of an entry of a chapter, or of the chapter that another field names, as it is of a party. */
export const entry = (chapter: string | { readonly field: string }, of: EventParty = 'subject'): EventField => ({
  kind: 'entry',
  chapter,
  of,
});
/** One of a few words, which tells of what these fields tell of. */
export const word = (among: readonly string[], ...about: readonly string[]): EventField => ({ kind: 'word', among, about });
/** A word for each of which a sentence says something of its own. */
export const said = (field: EventField, says: Readonly<Record<string, string>>): EventField => ({ ...field, says });
/** A number that tells of what these fields tell of. */
export const amount = (...about: readonly string[]): EventField => ({ kind: 'amount', about });
/** A text that tells of what these fields tell of. */
export const text = (...about: readonly string[]): EventField => ({ kind: 'text', about });
export const flag = (...about: readonly string[]): EventField => ({ kind: 'flag', about });
/** A field for the trace alone. */
export const forTrace = (field: EventField): EventField => ({ ...field, only: 'server' });
/** A field for the event's subject alone, such as words that its author wrote for them. */
export const forSubject = (field: EventField): EventField => ({ ...field, only: 'subject' });

/** What of an event patterns can ask for. */
export interface Carried {
  /** Fields that hold entries, with their chapter. */
  readonly entries: Readonly<Record<string, string>>;
  /** Fields that hold one of a few words. */
  readonly words: Readonly<Record<string, readonly string[]>>;
  /** What a sentence says for each of those words. */
  readonly says: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly amounts: readonly string[];
}

/** What patterns can ask for, of fields by name. */
export function carriedBy(fields: EventFields, names: readonly string[]): Carried {
  const of = (kind: EventField['kind']) => names.filter((name) => fields[name].kind === kind);
  return {
    entries: Object.fromEntries(of('entry').map((name) => [name, String(fields[name].chapter)])),
    words: Object.fromEntries(of('word').map((name) => [name, fields[name].among ?? []])),
    says: Object.fromEntries(of('word').map((name) => [name, fields[name].says ?? {}])),
    amounts: of('amount'),
  };
}

/** What decides which fields of an event somebody is told of. */
export interface Hearer {
  /** Whether they are its subject. */
  readonly isSubject: boolean;
  /** Whether they may see an entry of a party. */
  seesEntry(chapter: string, id: string, of: EventParty): boolean;
}

/** The names of the fields that somebody is told of, out of those that an event has. */
export function toldFields(fields: EventFields, data: Readonly<Record<string, unknown>>, hearer: Hearer): ReadonlySet<string> {
  const told = new Set<string>();
  const isTold = (name: string): boolean => {
    // What is not declared is told to nobody.
    const field = fields[name] as EventField | undefined;
    if (!field || field.only === 'server' || (field.only === 'subject' && !hearer.isSubject)) return false;
    if (field.about?.some((other) => data[other] !== undefined && !isTold(other))) return false;
    if (field.kind !== 'entry') return true;
    const chapter = typeof field.chapter === 'object' ? String(data[field.chapter.field]) : field.chapter!;
    // No entry at all is nothing to hide.
    return data[name] === '' || hearer.seesEntry(chapter, String(data[name]), field.of!);
  };
  for (const name of Object.keys(data)) if (data[name] !== undefined && isTold(name)) told.add(name);
  return told;
}
