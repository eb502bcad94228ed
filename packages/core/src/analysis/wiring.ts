import equal from 'fast-deep-equal';
import { entriesIn } from '../ruleset/chapter.js';
import { grouped } from '../ruleset/grouped.js';
import { positionIn } from '../ruleset/positions.js';
import type { Pattern } from '../ruleset/registry.js';
import { question, type Question } from '../ruleset/questions.js';
import type { AnyEntry } from '../world/concept.js';
import { labelOf, type Rules } from '../ruleset/rules.js';
import { type FoundPattern, type FoundReference, onlyTries, patternWords, type Place } from './collect.js';
import { chapterOf, keyOf, type Net, netOf, type Source, standsAlone } from './net.js';

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

/** What is missing for a pattern ever to match, in words; nothing where it can. */
function missingFor(net: Net, { pattern }: FoundPattern): string | undefined {
  if (net.isHeard(pattern)) return undefined;
  const names = [...new Set(net.sourcesFor(pattern).map(({ place }) => place.label))];
  if (names.length > 0)
    return `Only ${names.slice(0, 3).join(', ')} could announce it, and nothing brings ${names.length === 1 ? 'that' : 'those'} about.`;
  return `Nothing announces ${patternWords(net.rules, { ...pattern, where: undefined } as Pattern)}.`;
}

/** The entries of a chapter, whatever else they say than who they are. */
const named: Question<readonly { readonly id: string; readonly label: string }[]> = question(
  (rules, chapter) => entriesIn<AnyEntry>(rules, chapter).map(({ id, label }) => ({ id, label })),
  equal,
);

/** Everything about who emits and who listens in a ruleset, and what is left dangling. */
export const wiringOf = (rules: Rules): Wiring => wiring(rules);

const wiring: Question<Wiring> = question((rules) => {
  const net = netOf(rules);
  const listeners = net.found.patterns.map((one): Waiting => {
    const missing = missingFor(net, one);
    return { ...one, words: patternWords(rules, one.pattern), ...(missing !== undefined && { missing }) };
  });
  const byEvent = grouped(listeners, ({ pattern }) => pattern.on);
  const events = [...rules.registry.events].map(([event, spec]): EventWires => ({
    event,
    label: spec.label,
    when: spec.when,
    core: spec.arises === 'core',
    emitters: net.sourcesOf(event).map((source) => emitterOf(net, source)),
    listeners: (byEvent.get(event) ?? []).map(({ place, words, missing }) => ({ place, words, ...(missing !== undefined && { missing }) })),
  }));
  const placed = ({ place }: { readonly place: Place }) => keyOf(place.chapter, place.id);
  const own: Own = {
    listeners: grouped(listeners, placed),
    sources: grouped(
      events.flatMap(({ event }) => net.sourcesOf(event)),
      placed,
    ),
    references: grouped(net.found.references, ({ chapter, id }) => keyOf(chapter, id)),
  };
  const entries = [...rules.chapters.keys()].flatMap((chapter) =>
    onlyTries(chapter) ? [] : named(rules, chapter).map((entry) => entryWires(net, own, chapter, entry)),
  );
  return { events, entries, dangling: danglingIn(rules, entries, listeners) };
});

const emitterOf = (net: Net, source: Source): Emitter => {
  const { place, action, fields } = source;
  return { place, ...(action !== undefined && { action }), fields, reached: net.isReached(source) };
};

type Waiting = FoundPattern & { readonly words: string; readonly missing?: string };

/** What belongs to each entry, by chapter and id. */
interface Own {
  readonly listeners: ReadonlyMap<string, readonly Waiting[]>;
  readonly sources: ReadonlyMap<string, readonly Source[]>;
  /** Places that bring it about. */
  readonly references: ReadonlyMap<string, readonly FoundReference[]>;
}

function entryWires(net: Net, own: Own, chapter: string, { id, label }: { readonly id: string; readonly label: string }): EntryWires {
  const key = keyOf(chapter, id);
  const labels = net.rules.registry.events;
  return {
    chapter,
    id,
    label,
    reached: standsAlone(chapter) || net.reached.has(key),
    hears: (own.listeners.get(key) ?? []).map(({ place, words, missing, pattern }) => ({
      place,
      words,
      event: pattern.on,
      from: net
        .sourcesFor(pattern)
        .filter((source) => net.isReached(source))
        .map((source) => source.place),
      ...(missing !== undefined && { missing }),
    })),
    causes: (own.sources.get(key) ?? []).map(({ event, place, fields, action }) => {
      const words = labels.get(event)!.label;
      return {
        event,
        words: action === undefined ? words : `${words}, by ${action}`,
        path: place.path,
        heardBy: net.waitingFor(event, fields).map((one) => one.place),
      };
    }),
    broughtAbout: (own.references.get(key) ?? [])
      .filter(({ place }) => place.chapter !== chapter || place.id !== id)
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
      place: { chapter, id, label: labelOf(rules, chapter, id), path: `/${chapter}/${positionIn(rules.chapters.get(chapter)!.ids, id)}` },
      message: `${label} never comes into play. ${chapterOf(chapter)!.absent}`,
    }));
  return [...neverHeard, ...absent];
}

/** Those who wait for what nobody announces. */
export function unheardIn(rules: Rules): Wiring['dangling'] {
  const net = netOf(rules);
  return net.found.patterns.flatMap((one) => {
    const missing = missingFor(net, one);
    if (missing === undefined) return [];
    const { place, pattern } = one;
    return [{ place, message: `${place.label} waits for this and never hears it: ${patternWords(rules, pattern)}. ${missing}` }];
  });
}
