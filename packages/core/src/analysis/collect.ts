import { mentionsIn } from '../ruleset/mentions.js';
import { type Path, pointer } from '../ruleset/problem.js';
import { registry, type Pattern, type Then } from '../ruleset/registry.js';
import { labelOf, type Rules } from '../ruleset/rules.js';
import { entriesAskedFor } from '../ruleset/walk.js';
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

/** What stands in one entry, or in one section that is no chapter, with its places within that. */
interface Within {
  readonly actions: readonly { readonly at: Path; readonly action: Then[number]; readonly causes: readonly EventCause[] }[];
  readonly patterns: readonly { readonly at: Path; readonly pattern: Pattern }[];
}

/** Entries are the same objects as long as no edit touches them. */
const knownParts = new WeakMap<object, Within>();

function gather(rules: Rules): Collected {
  const actions: FoundAction[] = [];
  const patterns: FoundPattern[] = [];
  const references: FoundReference[] = [];
  const entries = (chapter: string, position: number | undefined) =>
    position === undefined ? rules.document[chapter] : (rules.document[chapter] as readonly unknown[])[position];
  for (const part of mentionsIn(rules)) {
    const { chapter, position } = part;
    if (onlyTries(chapter)) continue;
    const of = within(entries(chapter, position) as object);
    const at = (path: Path) => placeOf(rules, position === undefined ? [chapter, ...path] : [chapter, position, ...path]);
    for (const { at: path, action, causes } of of.actions) actions.push({ place: at(path), action, causes });
    for (const { at: path, pattern } of of.patterns) patterns.push({ place: at(path), pattern });
    for (const { mark, value, within: path } of part.mentions) {
      if (mark.kind !== 'reference' || mark.mentions || of.patterns.some((one) => isInside(path, one.at))) continue;
      references.push({ place: at(path), chapter: mark.chapter, id: value });
    }
  }
  return { actions, patterns, references };
}

const isInside = (path: Path, other: Path) => other.every((part, i) => path[i] === part);

function within(part: object): Within {
  const known = knownParts.get(part);
  if (known) return known;
  const actions: Within['actions'][number][] = [];
  const patterns: Within['patterns'][number][] = [];
  const visit = (value: unknown, path: Path): void => {
    if (Array.isArray(value)) return value.forEach((item, i) => visit(item, [...path, i]));
    if (!isObject(value)) return;
    const spec = typeof value['do'] === 'string' ? registry().actions.get(value['do']) : undefined;
    // A behaviour says what it does by the same word, and is no action.
    if (spec && path.at(-1) !== 'behaviour') {
      const { do: _do, to: _to, ...args } = value as Then[number];
      actions.push({ at: path, action: value as Then[number], causes: spec.causes?.(args) ?? [] });
    }
    if (typeof value['on'] === 'string' && registry().events.has(value['on'])) patterns.push({ at: path, pattern: value as Pattern });
    for (const [key, inside] of Object.entries(value)) visit(inside, [...path, key]);
  };
  visit(part, []);
  const of = { actions, patterns };
  knownParts.set(part, of);
  return of;
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
