import { entriesIn } from '../ruleset/chapter.js';
import { labelOf, type Rules } from '../ruleset/rules.js';
import { type Pattern, registry } from '../ruleset/registry.js';
import type { AnyEntry, ChapterSpec } from '../world/concept.js';
import { type Collected, collect, type FoundPattern, onlyTries, patternWords, type Place } from './collect.js';

export type { Place } from './collect.js';

/** Something that can announce an event. */
export interface Emitter {
  readonly place: Place;
  /** The action that leads to it; nothing where the entry announces it by itself. */
  readonly action?: string;
  /** What of the event is fixed where it comes from here. */
  readonly fields: Readonly<Record<string, unknown>>;
  /** Whether anything brings the place about. */
  readonly reached: boolean;
}

/** Something that waits for an event. */
export interface Listener {
  readonly place: Place;
  /** The event, in words. */
  readonly words: string;
  /** What is missing for it ever to hear it. */
  readonly missing?: string;
}

export interface EventWires {
  readonly event: string;
  readonly label: string;
  readonly when: string;
  /** The core announces it whatever the ruleset says. */
  readonly core: boolean;
  readonly emitters: readonly Emitter[];
  readonly listeners: readonly Listener[];
}

/** What one entry hears, does and is brought about by. */
export interface EntryWires {
  readonly chapter: string;
  readonly id: string;
  readonly label: string;
  readonly reached: boolean;
  readonly hears: readonly (Listener & { readonly event: string; readonly from: readonly Place[] })[];
  readonly causes: readonly { readonly event: string; readonly words: string; readonly path: string; readonly heardBy: readonly Place[] }[];
  readonly broughtAbout: readonly Place[];
}

export interface Wiring {
  readonly events: readonly EventWires[];
  readonly entries: readonly EntryWires[];
  /** Ends that nothing is tied to, with what is missing. */
  readonly dangling: readonly { readonly place: Place; readonly message: string }[];
}

interface Net {
  readonly rules: Rules;
  readonly found: Collected;
  readonly reached: ReadonlySet<string>;
}

const key = (chapter: string, id: string) => `${chapter}/${id}`;
/** What its concept says of a chapter. */
function chapterOf(chapter: string): ChapterSpec | undefined {
  const section = registry().sections.get(chapter);
  return section?.kind === 'chapter' ? section : undefined;
}
/** Whether entries matter by themselves; those of all others only when something brings them about. */
const standsAlone = (chapter: string) => chapterOf(chapter)?.absent === undefined;

/** Whether an event with these fields known could be the one that is waited for. */
function couldBe({ on: _on, who: _who, where: _where, ...wanted }: Pattern, fields: Readonly<Record<string, unknown>>): boolean {
  return Object.entries(wanted).every(([field, value]) => value === undefined || fields[field] === undefined || fields[field] === value);
}

/** Everything that could announce an event, wherever it stands. */
function emittersOf({ rules, found, reached }: Net, event: string): readonly Emitter[] {
  const spec = rules.registry.events.get(event)!;
  const isReached = ({ chapter, id }: Place) => standsAlone(chapter) || reached.has(key(chapter, id));
  const own =
    typeof spec.arises === 'object'
      ? (rules.chapters.get(spec.arises.from)?.entries ?? []).map((entry, i): Emitter => {
          const { from, field } = spec.arises as { from: string; field?: string };
          const place = { chapter: from, id: entry.id, label: entry.label, path: `/${from}/${i}` };
          return { place, fields: field === undefined ? {} : { [field]: entry.id }, reached: reached.has(key(from, entry.id)) };
        })
      : [];
  const byActions = found.actions.flatMap(({ place, action, causes }) =>
    causes
      .filter((cause) => cause.event === event)
      .map((cause): Emitter => ({ place, action: action.do, fields: cause.fields ?? {}, reached: isReached(place) })),
  );
  return [...own, ...byActions];
}

/** The entries that something brings about: players, what the arena places, and whatever follows from those. */
function reach(rules: Rules, found: Collected): ReadonlySet<string> {
  const reached = new Set<string>();
  for (const chapter of rules.chapters.keys())
    for (const entry of entriesIn<AnyEntry>(rules, chapter))
      if (standsAlone(chapter) || chapterOf(chapter)?.comesByItself?.(entry)) reached.add(key(chapter, entry.id));
  for (let before = -1; before !== reached.size;) {
    before = reached.size;
    for (const { place, chapter, id } of found.references)
      if (place.id === '' || reached.has(key(place.chapter, place.id))) reached.add(key(chapter, id));
    // What follows from an event is as good as that.
    for (const { place, pattern } of found.patterns)
      if (chapterOf(place.chapter)?.followsEvents && isHeard({ rules, found, reached }, pattern)) reached.add(key(place.chapter, place.id));
  }
  return reached;
}

function isHeard(net: Net, pattern: Pattern): boolean {
  if (net.rules.registry.events.get(pattern.on)!.arises === 'core') return true;
  return emittersOf(net, pattern.on).some((emitter) => emitter.reached && couldBe(pattern, emitter.fields));
}

/** What is missing for a pattern ever to match, in words; nothing where it can. */
function missingFor(net: Net, { pattern }: FoundPattern): string | undefined {
  if (isHeard(net, pattern)) return undefined;
  const would = emittersOf(net, pattern.on).filter((emitter) => couldBe(pattern, emitter.fields));
  const names = [...new Set(would.map(({ place }) => place.label))];
  if (names.length > 0)
    return `Only ${names.slice(0, 3).join(', ')} could announce it, and nothing brings ${names.length === 1 ? 'that' : 'those'} about.`;
  return `Nothing announces ${patternWords(net.rules, { ...pattern, where: undefined } as Pattern)}.`;
}

/** Everything about who emits and who listens in a ruleset, and what is left dangling. */
export function wiringOf(rules: Rules): Wiring {
  const found = collect(rules);
  const net = { rules, found, reached: reach(rules, found) };
  const listeners = found.patterns.map((one) => {
    const missing = missingFor(net, one);
    return { ...one, words: patternWords(rules, one.pattern), ...(missing !== undefined && { missing }) };
  });
  const events = [...rules.registry.events].map(([event, spec]): EventWires => {
    const waiting = listeners.filter(({ pattern }) => pattern.on === event);
    return {
      event,
      label: spec.label,
      when: spec.when,
      core: spec.arises === 'core',
      emitters: emittersOf(net, event),
      listeners: waiting.map(({ place, words, missing }) => ({ place, words, ...(missing !== undefined && { missing }) })),
    };
  });
  const entries = [...rules.chapters].flatMap(([chapter, { entries: all }]) =>
    onlyTries(chapter) ? [] : all.map((entry) => entryWires(net, events, listeners, chapter, entry)),
  );
  return { events, entries, dangling: danglingIn(rules, entries, listeners) };
}

type Waiting = FoundPattern & { readonly words: string; readonly missing?: string };

function entryWires(
  net: Net,
  events: readonly EventWires[],
  listeners: readonly Waiting[],
  chapter: string,
  { id, label }: { readonly id: string; readonly label: string },
): EntryWires {
  const own = (place: Place) => place.chapter === chapter && place.id === id;
  const wires = new Map(events.map((one) => [one.event, one]));
  const heardBy = (event: string, fields: Readonly<Record<string, unknown>>) =>
    listeners.filter(({ pattern }) => pattern.on === event && couldBe(pattern, fields)).map(({ place }) => place);
  const causes = events.flatMap(({ event, label: words, emitters }) =>
    emitters
      .filter(({ place }) => own(place))
      .map(({ place, fields, action }) => ({
        event,
        words: action === undefined ? words : `${words}, by ${action}`,
        path: place.path,
        heardBy: heardBy(event, fields),
      })),
  );
  return {
    chapter,
    id,
    label,
    reached: standsAlone(chapter) || net.reached.has(key(chapter, id)),
    hears: listeners
      .filter(({ place }) => own(place))
      .map(({ place, words, missing, pattern }) => ({
        place,
        words,
        event: pattern.on,
        from: wires
          .get(pattern.on)!
          .emitters.filter(({ fields, reached }) => reached && couldBe(pattern, fields))
          .map((emitter) => emitter.place),
        ...(missing !== undefined && { missing }),
      })),
    causes,
    broughtAbout: net.found.references
      .filter((one) => one.chapter === chapter && one.id === id && !own(one.place))
      .map(({ place }) => place),
  };
}

function danglingIn(rules: Rules, entries: readonly EntryWires[], listeners: readonly Waiting[]): Wiring['dangling'] {
  const neverHeard = listeners.flatMap(({ place, words, missing }) =>
    missing === undefined ? [] : [{ place, message: `${place.label} waits for this and never hears it: ${words}. ${missing}` }],
  );
  const absent = entries
    .filter(({ reached, chapter }) => !reached && !chapterOf(chapter)?.followsEvents)
    .map(({ chapter, id, label }) => ({
      place: { chapter, id, label: labelOf(rules, chapter, id), path: `/${chapter}/${rules.chapters.get(chapter)!.ids.indexOf(id)}` },
      message: `${label} never comes into play. ${chapterOf(chapter)!.absent}`,
    }));
  return [...neverHeard, ...absent];
}

/** Those who wait for what nobody announces. */
export function unheardIn(rules: Rules): Wiring['dangling'] {
  const found = collect(rules);
  const net = { rules, found, reached: reach(rules, found) };
  return found.patterns.flatMap((one) => {
    const missing = missingFor(net, one);
    if (missing === undefined) return [];
    const { place, pattern } = one;
    return [{ place, message: `${place.label} waits for this and never hears it: ${patternWords(rules, pattern)}. ${missing}` }];
  });
}
