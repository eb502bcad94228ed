import { type Path, pointer } from '../ruleset/problem.js';
import { registry, type Pattern, type Then } from '../ruleset/registry.js';
import { labelOf, type Rules } from '../ruleset/rules.js';
import { entriesAskedFor, walk } from '../ruleset/walk.js';
import type { EventCause } from '../world/concept.js';

/** A place in a ruleset that somebody can be led to: an entry, or one of the things that the arena places. */
export interface Place {
  readonly chapter: string;
  readonly id: string;
  readonly label: string;
  /** JSON Pointer of the very place. */
  readonly path: string;
}

/** An action where it stands. */
export interface FoundAction {
  readonly place: Place;
  readonly action: Then[number];
  readonly causes: readonly EventCause[];
}

/** An event that is waited for, where it stands. */
export interface FoundPattern {
  readonly place: Place;
  readonly pattern: Pattern;
}

/** A reference to an entry from a place that would bring it about, were the place reached. */
export interface FoundReference {
  readonly place: Place;
  readonly chapter: string;
  readonly id: string;
}

export interface Collected {
  readonly actions: readonly FoundAction[];
  readonly patterns: readonly FoundPattern[];
  readonly references: readonly FoundReference[];
}

const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);

/** The place of a path: its entry, or the arena. */
export function placeOf(rules: Rules, path: Path): Place {
  const [chapter, position] = path;
  const entry = typeof position === 'number' ? rules.chapters.get(String(chapter))?.entries[position] : undefined;
  return entry
    ? { chapter: String(chapter), id: entry.id, label: entry.label, path: pointer(path) }
    : { chapter: String(chapter), id: '', label: calledBy(String(chapter)), path: pointer(path) };
}

function calledBy(chapter: string): string {
  const section = registry().sections.get(chapter);
  return (section?.kind === 'value' ? section.called : undefined) ?? chapter;
}

/** Whether the entries of a chapter only try others out: those bring nothing about. */
export function onlyTries(chapter: string): boolean {
  const section = registry().sections.get(chapter);
  return section?.kind === 'chapter' && section.tries !== undefined;
}

/** The parts of a ruleset that bring something about: all but those that only try entries out. */
export const inForce = (rules: Rules): readonly unknown[] =>
  Object.entries(rules.document).flatMap(([key, section]) => (onlyTries(key) ? [] : [section]));

const known = new WeakMap<Rules, Collected>();

/** All actions, patterns and references of a ruleset, each with its place. */
export function collect(rules: Rules): Collected {
  const before = known.get(rules);
  if (before) return before;
  const all = gather(rules);
  known.set(rules, all);
  return all;
}

/** The entries of a chapter that come into an arena: placed there, made there, or brought by an action. */
export function brought(rules: Rules, chapter: string): ReadonlySet<string> {
  const { actions, references } = collect(rules);
  const { actions: specs, sections } = registry();
  return new Set([
    ...references.filter((one) => one.chapter === chapter && sections.get(one.place.chapter)?.places).map(({ id }) => id),
    ...actions.flatMap(({ action }) => {
      const { places, args } = specs.get(action.do)!;
      if (!places) return [];
      return Object.entries(args).flatMap(([name, schema]) =>
        action[name] !== undefined && entriesAskedFor(schema) === chapter ? [String(action[name])] : [],
      );
    }),
  ]);
}

function gather(rules: Rules): Collected {
  const actions: FoundAction[] = [];
  const patterns: FoundPattern[] = [];
  const skipped = new Set<string>();
  const visit = (value: unknown, path: Path): void => {
    if (Array.isArray(value)) return value.forEach((item, i) => visit(item, [...path, i]));
    if (!isObject(value)) return;
    const spec = typeof value['do'] === 'string' ? registry().actions.get(value['do']) : undefined;
    // A behaviour says what it does by the same word, and is no action.
    if (spec && path.at(-1) !== 'behaviour') {
      const { do: _do, to: _to, ...args } = value as Then[number];
      actions.push({ place: placeOf(rules, path), action: value as Then[number], causes: spec.causes?.(args) ?? [] });
    }
    if (typeof value['on'] === 'string' && registry().events.has(value['on'])) {
      patterns.push({ place: placeOf(rules, path), pattern: value as Pattern });
      skipped.add(pointer(path));
    }
    for (const [key, part] of Object.entries(value)) visit(part, [...path, key]);
  };
  for (const [key, section] of Object.entries(rules.document)) if (!onlyTries(key)) visit(section, [key]);
  return { actions, patterns, references: referencesOf(rules, skipped) };
}

function referencesOf(rules: Rules, skipped: ReadonlySet<string>): readonly FoundReference[] {
  const found: FoundReference[] = [];
  walk(registry().document, rules.document, [], (mark, value, path) => {
    if (mark.kind !== 'reference' || mark.mentions || onlyTries(String(path[0]))) return;
    for (let length = path.length; length > 0; length--) if (skipped.has(pointer(path.slice(0, length)))) return;
    found.push({ place: placeOf(rules, path), chapter: mark.chapter, id: value });
  });
  return found;
}

/** An event that is waited for, in words: `a pickup is taken (copper token)`. */
export function patternWords(rules: Rules, { on, who: _who, where, ...fields }: Pattern): string {
  const spec = registry().events.get(on)!;
  const said = Object.entries(fields)
    .filter(([, value]) => value !== undefined)
    .map(([field, value]) => {
      const chapter = spec.carries?.entries?.[field];
      return chapter === undefined ? String(value) : labelOf(rules, chapter, String(value)).toLowerCase();
    });
  const condition = where === undefined ? [] : [`where ${where}`];
  const all = [...said, ...condition];
  return all.length === 0 ? spec.label : `${spec.label} (${all.join(', ')})`;
}
