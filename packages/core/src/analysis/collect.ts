import { type Path, pointer } from '../ruleset/problem.js';
import { registry, type Pattern, type Then } from '../ruleset/registry.js';
import { labelOf, type Rules } from '../ruleset/rules.js';
import { walk } from '../ruleset/walk.js';
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

/** What only tries entries out brings nothing about. */
const TRIED = 'situations';
/** Actions that speak of an entry only to end it. */
const ENDING = new Set(['end', 'dispel', 'withdraw', 'leave']);
/** Fields that speak of an entry without bringing it about. */
const SPEAKING = new Set(['blocked', 'ends', 'while', 'broken', 'from', 'into', 'requires']);

const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);

/** The place of a path: its entry, or the arena. */
export function placeOf(rules: Rules, path: Path): Place {
  const [chapter, position] = path;
  const entry = typeof position === 'number' ? rules.chapters.get(String(chapter))?.entries[position] : undefined;
  return entry
    ? { chapter: String(chapter), id: entry.id, label: entry.label, path: pointer(path) }
    : { chapter: String(chapter), id: '', label: chapter === 'arena' ? 'The arena' : String(chapter), path: pointer(path) };
}

const known = new WeakMap<Rules, Collected>();

/** All actions, patterns and references of a ruleset, each with its place. */
export function collect(rules: Rules): Collected {
  const before = known.get(rules);
  if (before) return before;
  const all = gather(rules);
  known.set(rules, all);
  return all;
}

/** Kinds of actor, pickups or zones that come into an arena: placed there, made by a spawner, or brought by an action. */
export function brought(rules: Rules, chapter: 'actors' | 'pickups' | 'zones'): ReadonlySet<string> {
  const { actions, references } = collect(rules);
  const field = chapter.slice(0, -1);
  return new Set([
    ...references.filter((one) => one.chapter === chapter && ['arena', 'spawners'].includes(one.place.chapter)).map(({ id }) => id),
    ...actions.flatMap(({ action }) =>
      ['summon', 'spawn'].includes(action.do) && action[field] !== undefined ? [String(action[field])] : [],
    ),
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
      const { do: name, to: _to, ...args } = value as Then[number];
      actions.push({ place: placeOf(rules, path), action: value as Then[number], causes: spec.causes?.(args) ?? [] });
      if (ENDING.has(name)) skipped.add(pointer(path));
    }
    if (typeof value['on'] === 'string' && registry().events.has(value['on'])) {
      patterns.push({ place: placeOf(rules, path), pattern: value as Pattern });
      skipped.add(pointer(path));
    }
    for (const [key, part] of Object.entries(value)) {
      if (SPEAKING.has(key)) skipped.add(pointer([...path, key]));
      visit(part, [...path, key]);
    }
  };
  for (const [key, section] of Object.entries(rules.document)) if (key !== TRIED) visit(section, [key]);
  return { actions, patterns, references: referencesOf(rules, skipped) };
}

function referencesOf(rules: Rules, skipped: ReadonlySet<string>): readonly FoundReference[] {
  const found: FoundReference[] = [];
  walk(registry().document, rules.document, [], (mark, value, path) => {
    if (mark.kind !== 'reference' || path[0] === TRIED) return;
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
