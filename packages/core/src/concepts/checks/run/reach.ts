import { isInside, onlyTries, patternsWithin } from '../../../analysis/collect.js';
import { mentionsIn } from '../../../ruleset/mentions.js';
import { registry } from '../../../ruleset/registry.js';
import type { Rules } from '../../../ruleset/rules.js';
import type { ChapterSpec } from '../../../world/concept.js';
import { actorChapter } from '../../actors/schema.js';
import type { CheckEntry } from '../schema.js';

/** An entry, as chapter/id. */
export type Key = string;
export const keyOf = (chapter: string, id: string): Key => `${chapter}/${id}`;

const specOf = (chapter: string): ChapterSpec | undefined => {
  const section = registry().sections.get(chapter);
  return section?.kind === 'chapter' ? section : undefined;
};

/** Chapters whose entries matter to whatever runs; not those that only try others out. */
export const inForce = (): readonly string[] =>
  [...registry().sections.keys()].filter((key) => specOf(key) !== undefined && !onlyTries(key));

/** What is spoken of in a part of a ruleset so that it may come about, or be read; what is only compared with is neither. */
export function spokenOf(rules: Rules, chapter: string, part: object): readonly Key[] {
  const patterns = patternsWithin(part);
  return mentionsIn(rules, chapter, part).flatMap(({ mark, within, speaksOf }) => {
    const compared = mark.kind === 'reference' && (mark.mentions || patterns.some(({ at }) => isInside(within, at)));
    return compared ? [] : speaksOf.map((one) => keyOf(one.chapter, one.id));
  });
}

/** The kind of actor that a player is where nothing is said. */
export const playerKind = (rules: Rules): string | undefined => actorChapter.of(rules).find(({ kind }) => kind === 'player')?.id;

/**
 * How far a check reaches into a ruleset: all entries that may have a part in what happens in it. What is not among them could
 * be anything, and the check would run as it did.
 */
export class Reach {
  private readonly next = new Map<Key, readonly Key[]>();
  private always: ReadonlySet<Key> | undefined;

  constructor(private readonly rules: Rules) {}

  /**
   * The entries that a check reaches.
   * @param seen the names of the events that there were
   */
  of(check: CheckEntry, seen: ReadonlySet<string>): ReadonlySet<Key> {
    const { rules } = this;
    const reached = new Set((this.always ??= this.from(new Set(), this.byThemselves())));
    const player = playerKind(rules);
    const arena = check.ground === 'arena' ? (rules.document['arena'] as object | undefined) : undefined;
    const roots = [
      ...spokenOf(rules, 'checks', check),
      ...check.given.flatMap(({ actor = player }) => (actor === undefined ? [] : [keyOf('actors', actor)])),
      ...(arena ? spokenOf(rules, 'arena', arena) : []),
      ...inForce().flatMap((chapter) => (specOf(chapter)!.followsEvents ? this.waitingIn(chapter, seen) : [])),
    ];
    return this.from(reached, roots);
  }

  /** Entries that have a part in whatever runs. */
  private byThemselves(): readonly Key[] {
    return inForce().flatMap((chapter) => {
      const spec = specOf(chapter)!;
      return spec.absent === undefined ? this.entriesOf(chapter).map(({ id }) => keyOf(chapter, id)) : [];
    });
  }

  private waitingIn(chapter: string, seen: ReadonlySet<string>): readonly Key[] {
    return this.entriesOf(chapter)
      .filter((entry) => waitsFor(entry, seen))
      .map(({ id }) => keyOf(chapter, id));
  }

  private entriesOf(chapter: string) {
    return this.rules.chapters.get(chapter)?.entries ?? [];
  }

  private from(reached: Set<Key>, roots: readonly Key[]): ReadonlySet<Key> {
    const open = [...roots];
    for (let key = open.pop(); key !== undefined; key = open.pop()) {
      if (reached.has(key)) continue;
      reached.add(key);
      open.push(...this.after(key));
    }
    return reached;
  }

  private after(key: Key): readonly Key[] {
    let next = this.next.get(key);
    if (!next) {
      const [chapter, id] = key.split('/');
      const entry = this.rules.chapters.get(chapter)?.find(id);
      this.next.set(key, (next = entry ? spokenOf(this.rules, chapter, entry) : []));
    }
    return next;
  }
}

/** Whether an entry waits for one of these events. */
export const waitsFor = (entry: object, seen: ReadonlySet<string>): boolean =>
  patternsWithin(entry).some(({ pattern }) => seen.has(pattern.on));
