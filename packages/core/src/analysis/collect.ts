import equal from 'fast-deep-equal';
import { type AnyAction, everyAction } from '../ruleset/actions.js';
import { type Mentioning, mentionsInSection } from '../ruleset/mentions.js';
import { type Path, pointer } from '../ruleset/problem.js';
import { question, type Question } from '../ruleset/questions.js';
import { sameItems, sameMembers } from '../ruleset/recording.js';
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

/** What a section is called that is no chapter. */
function calledBy(chapter: string): string {
  const section = registry().sections.get(chapter);
  return (section?.kind === 'value' ? section.called : undefined) ?? chapter;
}

/** Whether the entries of a chapter only try others out, or say what is wanted of them: those bring nothing about. */
export function onlyTries(chapter: string): boolean {
  const section = registry().sections.get(chapter);
  return section?.kind === 'chapter' && (section.tries !== undefined || section.ahead !== undefined);
}

const sectionsInForce = (): readonly string[] => [...registry().sections.keys()].filter((section) => !onlyTries(section));

/** The actions of one name in a section. */
const actionsInSection = question((rules, of) => {
  const [section, name] = of.split('/');
  return everyAction(rules.document[section]).filter((action) => action.do === name);
}, equal);

/** Every action of these names, wherever it stands, but for what only tries entries out. */
export const actionsNamed = (rules: Rules, ...names: readonly string[]): readonly AnyAction[] =>
  names.flatMap((name) => sectionsInForce().flatMap((section) => actionsInSection(rules, `${section}/${name}`)));

/** The same with what only tries entries out. */
export const actionsWritten = (rules: Rules, ...names: readonly string[]): readonly AnyAction[] =>
  names.flatMap((name) => [...registry().sections.keys()].flatMap((section) => actionsInSection(rules, `${section}/${name}`)));

/** Whatever stands in the parts of a ruleset that bring something about: each list is recorded by itself. */
export function collect(rules: Rules): Collected {
  return {
    get actions() {
      return allActions(rules);
    },
    get patterns() {
      return allPatterns(rules);
    },
    get references() {
      return allReferences(rules);
    },
  };
}
const inAll =
  <T>(of: Question<readonly T[]>) =>
  (rules: Rules): readonly T[] =>
    sectionsInForce().flatMap((section) => of(rules, section));

/** The entries of a chapter that come into an arena: placed there, made there, or brought by an action. */
export const brought: Question<ReadonlySet<string>> = question((rules, chapter): ReadonlySet<string> => {
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
}, sameMembers);

/** The entries of a chapter that others speak of where it would bring them about. */
export const referredTo: Question<ReadonlySet<string>> = question(
  (rules, of): ReadonlySet<string> => new Set(collect(rules).references.flatMap(({ chapter, id }) => (chapter === of ? [id] : []))),
  sameMembers,
);

const references = question((rules, of) => {
  const at = of.indexOf('/');
  return referredTo(rules, of.slice(0, at)).has(of.slice(at + 1));
});

/** Whether others speak of an entry where it would bring that about. */
export const isReferredTo = (rules: Rules, chapter: string, id: string): boolean => references(rules, `${chapter}/${id}`);

/** What stands in one entry, or in one section that is no chapter, with its places within that. */
interface Within {
  readonly actions: readonly { readonly at: Path; readonly action: Then[number]; readonly causes: readonly EventCause[] }[];
  readonly patterns: readonly { readonly at: Path; readonly pattern: Pattern }[];
}

/** Entries are the same objects as long as no edit touches them. */
const knownParts = new WeakMap<object, Within>();

/** What was found in an entry the last time, and where that stood. */
interface Found extends Collected {
  readonly part: Mentioning;
}
const knownFound = new WeakMap<object, Found>();

/** What stands in a section, entry by entry. */
const foundIn = question((rules, section): readonly Found[] =>
  mentionsInSection(rules, section).map((part) => {
    const { position } = part;
    const written = rules.document[section];
    const entry = (position === undefined ? written : (written as readonly unknown[])[position]) as object;
    const before = knownFound.get(entry);
    if (before?.part === part) return before;
    const found = gather(entry, part);
    knownFound.set(entry, found);
    return found;
  }),
);

// An edit that touches none of them leaves them what they were, and so all that follows from them.
const actionsIn = question<readonly FoundAction[]>((rules, section) => foundIn(rules, section).flatMap(({ actions }) => actions), equal);
const patternsIn = question<readonly FoundPattern[]>(
  (rules, section) => foundIn(rules, section).flatMap(({ patterns }) => patterns),
  equal,
);
const referencesIn = question<readonly FoundReference[]>(
  (rules, section) => foundIn(rules, section).flatMap(({ references }) => references),
  equal,
);
/** Has a section looked through, so that whoever asks for all finds it done. */
export function collectSection(rules: Rules, section: string): void {
  if (!onlyTries(section)) foundIn(rules, section);
}

const allActions = question(inAll(actionsIn), sameItems);
const allPatterns = question(inAll(patternsIn), sameItems);
const allReferences = question(inAll(referencesIn), sameItems);

function gather(entry: object, part: Mentioning): Found {
  const { chapter, position, id = '' } = part;
  const { label = calledBy(chapter) } = position === undefined ? {} : (entry as { readonly label: string });
  const at = (path: Path): Place => {
    const whole = position === undefined ? [chapter, ...path] : [chapter, position, ...path];
    return { chapter, id, label, path: pointer(whole) };
  };
  const of = within(entry);
  const references = part.mentions.flatMap(({ mark, value, within: path }) =>
    mark.kind !== 'reference' || mark.mentions || of.patterns.some((one) => isInside(path, one.at))
      ? []
      : [{ place: at(path), chapter: mark.chapter, id: value }],
  );
  return {
    part,
    actions: of.actions.map(({ at: path, action, causes }) => ({ place: at(path), action, causes })),
    patterns: of.patterns.map(({ at: path, pattern }) => ({ place: at(path), pattern })),
    references,
  };
}

export const isInside = (path: Path, other: Path) => other.every((part, i) => path[i] === part);

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

/** The places of the actions in an entry, within it. */
export const actionsWithin = (entry: object): readonly Path[] => within(entry).actions.map(({ at }) => at);

/** The ways past the lists of the actions in an entry, as places within it. */
export const waysPastWithin = (entry: object): readonly string[] =>
  within(entry).actions.flatMap(({ at, action: { do: name, ...args } }) =>
    (registry().actions.get(name)?.waysPast?.(args) ?? []).map((way) => [...at, way].join('/')),
  );

/** The events that are waited for in an entry, each with its place within it. */
export const patternsWithin = (entry: object): readonly { readonly at: Path; readonly pattern: Pattern }[] => within(entry).patterns;

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
