import { actionsWithin, waysPastWithin } from '../../analysis/collect.js';
import { registry } from '../../ruleset/registry.js';
import type { ChapterEntry, Rules } from '../../ruleset/rules.js';
import { type Footprint, partKey } from './run/footprint.js';
import { inForce, type Key, keyOf, playerKind, spokenOf } from './run/reach.js';
import type { EntryPart } from '../../world/concept.js';
import type { CheckEntry } from './schema.js';

/** How far the checks have run through one entry. */
export interface EntryCoverage {
  /** The ids of the checks that have run it. */
  readonly checks: readonly string[];
  /** Actions that it has, and those of them that no check has run, by their places in it. */
  readonly actions: number;
  readonly missing: readonly string[];
  /** What else can come about of it: edges of thresholds, rows of loot, nodes, conditions that do not hold; and what of that none has. */
  readonly branches: number;
  readonly untaken: readonly string[];
}

export interface ChapterCoverage {
  readonly chapter: string;
  readonly title: string;
  /** Entries that at least one check has run, and all of them. */
  readonly covered: number;
  readonly total: number;
  /** The entries that no check has run. */
  readonly uncovered: readonly string[];
}

/** Which entries and which of their actions at least one check has run. */
export interface Coverage {
  readonly chapters: readonly ChapterCoverage[];
  /** By chapter/id. */
  readonly entries: Readonly<Record<Key, EntryCoverage>>;
}

/** What a check has run: what was told of, whose actions were done, who was there, and what it expects something of. */
function runBy(rules: Rules, check: CheckEntry, footprint: Footprint): ReadonlySet<Key> {
  const player = playerKind(rules);
  const kinds = check.given.flatMap(({ actor = player }) => (actor === undefined ? [] : [keyOf('actors', actor)]));
  const acting = [...footprint.places].map((place) => place.split('/').slice(0, 2).join('/'));
  return new Set([...footprint.entries, ...acting, ...kinds, ...spokenOf(rules, 'checks', check)]);
}

/** Chapters whose entries no event tells of: data that others go by. */
function passive(rules: Rules): ReadonlySet<string> {
  const told = new Set([...rules.registry.events.values()].flatMap(({ fields }) => Object.values(fields).map(({ chapter }) => chapter)));
  return new Set(inForce().filter((chapter) => !told.has(chapter)));
}

function partsOf(rules: Rules, chapter: string, id: string): readonly EntryPart[] {
  const section = registry().sections.get(chapter);
  return section?.kind === 'chapter' ? (section.parts?.(rules, id) ?? []) : [];
}

/** How far checks have run through a ruleset, by what they ran through the last time. */
export function coverageOf(rules: Rules, footprints: ReadonlyMap<CheckEntry, Footprint>): Coverage {
  const places = new Set([...footprints.values()].flatMap((footprint) => [...footprint.places]));
  const parts = new Set([...footprints.values()].flatMap((footprint) => [...footprint.parts]));
  const checks = new Map<Key, string[]>();
  const note = (key: Key, id: string) => {
    const known = checks.get(key);
    if (!known) checks.set(key, [id]);
    else if (known.at(-1) !== id) known.push(id);
  };
  const data = passive(rules);
  for (const [check, footprint] of footprints)
    for (const key of runBy(rules, check, footprint)) {
      note(key, check.id);
      // What is mere data is run by what goes by it.
      const [chapter, id] = key.split('/');
      const entry = rules.chapters.get(chapter)?.find(id);
      for (const other of entry ? spokenOf(rules, chapter, entry) : []) if (data.has(other.split('/')[0])) note(other, check.id);
    }
  const entries: Record<Key, EntryCoverage> = {};
  const chapters = inForce().flatMap((chapter): readonly ChapterCoverage[] => {
    const written = (rules.document[chapter] ?? []) as readonly ChapterEntry[];
    if (written.length === 0) return [];
    for (const entry of written) {
      const key = keyOf(chapter, entry.id);
      const actions = actionsWithin(entry).map((path) => path.join('/'));
      const past = waysPastWithin(entry);
      const own = partsOf(rules, chapter, entry.id);
      entries[key] = {
        checks: checks.get(key) ?? [],
        actions: actions.length,
        missing: actions.filter((at) => !places.has(`${key}/${at}`)),
        branches: past.length + own.length,
        untaken: [
          ...own.filter(({ event, part }) => !parts.has(partKey(chapter, entry.id, event, part))).map(({ at }) => at),
          ...past.filter((at) => !places.has(`${key}/${at}`)),
        ],
      };
    }
    const uncovered = written.filter(({ id }) => !checks.has(keyOf(chapter, id))).map(({ id }) => id);
    const { title } = rules.registry.sections.get(chapter)!;
    return [{ chapter, title, covered: written.length - uncovered.length, total: written.length, uncovered }];
  });
  return { chapters, entries };
}
