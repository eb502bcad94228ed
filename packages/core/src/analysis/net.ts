import equal from 'fast-deep-equal';
import { grouped } from '../ruleset/grouped.js';
import { entriesIn } from '../ruleset/chapter.js';
import { type Pattern, registry } from '../ruleset/registry.js';
import { question, type Question } from '../ruleset/questions.js';
import type { Rules } from '../ruleset/rules.js';
import type { AnyEntry, ChapterSpec } from '../world/concept.js';
import { type Collected, collect, type FoundPattern, type Place } from './collect.js';

/** Something that can announce an event, wherever it stands. */
export interface Source {
  readonly event: string;
  readonly place: Place;
  /** The action that leads to it; nothing where the entry announces it by itself. */
  readonly action?: string;
  /** What of the event is fixed where it comes from here. */
  readonly fields: Readonly<Record<string, unknown>>;
}

export const keyOf = (chapter: string, id: string) => `${chapter}/${id}`;
const keyOfPlace = ({ chapter, id }: Place) => keyOf(chapter, id);

/** What its concept says of a chapter. */
export function chapterOf(chapter: string): ChapterSpec | undefined {
  const section = registry().sections.get(chapter);
  return section?.kind === 'chapter' ? section : undefined;
}

/** Whether entries matter by themselves; those of all others only when something brings them about. */
export const standsAlone = (chapter: string) => chapterOf(chapter)?.absent === undefined;

const wantedBy = ({ on: _on, who: _who, where: _where, ...wanted }: Pattern): Readonly<Record<string, unknown>> => wanted;

/** Things of one event in their order, found by what is known of a field: those of which it is not known may be meant as well. */
class ByField<T> {
  private readonly fields = new Map<string, Map<unknown, number[]>>();

  constructor(
    private readonly all: readonly T[],
    private readonly known: (one: T) => Readonly<Record<string, unknown>>,
  ) {}

  /** Those of which a field is not known, or is this. */
  with(field: string, value: unknown): readonly T[] {
    let values = this.fields.get(field);
    if (!values) {
      values = grouped(this.all.keys(), (i) => this.known(this.all[i])[field] ?? UNKNOWN);
      this.fields.set(field, values);
    }
    const [own, open] = [values.get(value) ?? [], values.get(UNKNOWN) ?? []];
    const both = own.length === 0 ? open : open.length === 0 ? own : [...own, ...open].sort((a, b) => a - b);
    return both.map((i) => this.all[i]);
  }

  /** Those that may have all of these fields. */
  fitting(wanted: Readonly<Record<string, unknown>>): readonly T[] {
    const [first, ...rest] = Object.entries(wanted).filter(([, value]) => value !== undefined);
    if (!first) return this.all;
    const candidates = this.with(...first);
    return rest.length === 0
      ? candidates
      : candidates.filter((one) => {
          const known = this.known(one);
          return rest.every(([field, value]) => known[field] === undefined || known[field] === value);
        });
  }
}
const UNKNOWN = Symbol('not known');

/** Who announces what, who waits for what, and what comes about under a ruleset: each looked up, and not looked for. */
export class Net {
  readonly found: Collected;
  private readonly announcing: ReadonlyMap<string, readonly Source[]>;
  private readonly sources = new Map<string, ByField<Source>>();
  private readonly waiting: ReadonlyMap<string, ByField<FoundPattern>>;
  /** Entries that something brings about: players, what the arena places, and whatever follows from those. */
  readonly reached: ReadonlySet<string>;

  constructor(readonly rules: Rules) {
    this.found = collect(rules);
    this.announcing = grouped(sourcesIn(rules), ({ event }) => event);
    for (const [event, all] of this.announcing) this.sources.set(event, new ByField(all, ({ fields }) => fields));
    const waiting = [...grouped(this.found.patterns, ({ pattern }) => pattern.on)];
    this.waiting = new Map(waiting.map(([event, all]) => [event, new ByField(all, ({ pattern }) => wantedBy(pattern))] as const));
    this.reached = this.reach();
  }

  /** Everything that could announce an event, wherever it stands. */
  sourcesOf(event: string): readonly Source[] {
    return this.announcing.get(event) ?? [];
  }

  /** Everything that could announce what is waited for. */
  sourcesFor(pattern: Pattern): readonly Source[] {
    return this.sources.get(pattern.on)?.fitting(wantedBy(pattern)) ?? [];
  }

  /** Who waits for an event of which these fields are known. */
  waitingFor(event: string, fields: Readonly<Record<string, unknown>>): readonly FoundPattern[] {
    return this.waiting.get(event)?.fitting(fields) ?? [];
  }

  isReached({ place, action }: Source): boolean {
    return this.isThere(this.reached, place, action !== undefined);
  }

  private isThere(reached: ReadonlySet<string>, place: Place, byAction: boolean): boolean {
    return (byAction && standsAlone(place.chapter)) || reached.has(keyOfPlace(place));
  }

  isHeard(pattern: Pattern): boolean {
    return this.hears(pattern, this.reached);
  }

  private hears(pattern: Pattern, reached: ReadonlySet<string>): boolean {
    if (this.rules.registry.events.get(pattern.on)!.arises === 'core') return true;
    return this.sourcesFor(pattern).some(({ place, action }) => this.isThere(reached, place, action !== undefined));
  }

  private reach(): ReadonlySet<string> {
    const { rules, found } = this;
    const reached = new Set<string>();
    const next: string[] = [];
    const add = (key: string) => {
      if (reached.has(key)) return;
      reached.add(key);
      next.push(key);
    };
    const broughtBy = grouped(found.references, ({ place }) => (place.id === '' ? '' : keyOfPlace(place)));
    for (const chapter of rules.chapters.keys()) for (const key of standing(rules, chapter)) add(key);
    for (const { chapter, id } of broughtBy.get('') ?? []) add(keyOf(chapter, id));
    // What follows from an event is as good as that.
    let open = found.patterns.filter(({ place }) => chapterOf(place.chapter)?.followsEvents);
    for (;;) {
      for (let key = next.pop(); key !== undefined; key = next.pop())
        for (const { chapter, id } of broughtBy.get(key) ?? []) add(keyOf(chapter, id));
      open = open.filter(({ place, pattern }) => {
        if (reached.has(keyOfPlace(place))) return false;
        if (!this.hears(pattern, reached)) return true;
        add(keyOfPlace(place));
        return false;
      });
      if (next.length === 0) return reached;
    }
  }
}

/** What the entries of a chapter announce by themselves: only who they are matters, not what else they say. */
const announcedBy: Question<readonly Source[]> = question((rules, chapter) => {
  const events = [...rules.registry.events].flatMap(([event, { arises }]) =>
    typeof arises === 'object' && arises.from === chapter ? [{ event, field: arises.field }] : [],
  );
  if (events.length === 0) return [];
  return entriesIn<AnyEntry>(rules, chapter).flatMap(({ id, label }, i) =>
    events.map(({ event, field }) => ({
      event,
      place: { chapter, id, label, path: `/${chapter}/${i}` },
      fields: field === undefined ? {} : { [field]: id },
    })),
  );
}, equal);

/** What actions lead to: only where they stand and what of the event is fixed matters, not what else they say. */
const ledTo: Question<readonly Source[]> = question(
  (rules) =>
    collect(rules).actions.flatMap(({ place, action, causes }) =>
      causes.map(({ event, fields = {} }): Source => ({ event, place, action: action.do, fields })),
    ),
  equal,
);

const sourcesIn = (rules: Rules): readonly Source[] => [
  ...[...rules.chapters.keys()].flatMap((chapter) => announcedBy(rules, chapter)),
  ...ledTo(rules),
];

/** Entries whatever else they say than who they are, and whether they come by themselves: what the net is made of. */
const standing = question(
  (rules, chapter) =>
    entriesIn<AnyEntry>(rules, chapter).flatMap((entry) =>
      standsAlone(chapter) || chapterOf(chapter)?.comesByItself?.(entry) ? [keyOf(chapter, entry.id)] : [],
    ),
  equal,
);

/** The net of a ruleset. */
export const netOf: Question<Net> = question((rules) => new Net(rules));

/** Whether anything that stands there hears of an event about a thing. */
const hearing = question((rules, of) => {
  const [event, field, id] = of.split('/');
  return netOf(rules).waitingFor(event, { [field]: id }).length > 0;
});

/** Whether anything waits for an event of which this is known. */
export const isWaitedFor = (rules: Rules, event: string, field: string, id: string): boolean => hearing(rules, `${event}/${field}/${id}`);
