import { z } from 'zod';
import type { TableSpec } from '../world/columns.js';
import { compileFormula, FormulaError, type Vocabulary } from '../formula/index.js';
import { CompileContext } from './context.js';
import { ID_PATTERN } from './fields.js';
import type { Mark } from './marks.js';
import { jsonWords, readJson, repeatedNames } from './json-text.js';
import { problemsOf } from './mismatch.js';
import { atOnce, eachInPart } from './parts.js';
import { pointer, RulesetError, type Path, type Problem } from './problem.js';
import { FORMAT, MOST_ENTRIES, registry } from './registry.js';
import type { Chapter, Rules, RulesetDocument } from './rules.js';
import { didYouMean, sparingly } from './suggest.js';
import { upgradeDocument, VERSION } from './upgrade.js';
import { walk } from './walk.js';

/** The outcome of reading a ruleset: rules to run, or all that is wrong with it. */
export type Reading =
  { readonly rules: Rules; readonly problems: readonly [] } | { readonly rules?: undefined; readonly problems: readonly Problem[] };

/**
 * Reads a ruleset document, of this version of the format or an earlier one. Never throws for what an author wrote: every problem comes back with its place.
 * @param value the parsed JSON
 * @public
 * @example
 * const { rules, problems } = readRuleset(JSON.parse(text));
 * for (const { path, message } of problems) console.error(`${path}: ${message}`);
 */
export function readRuleset(value: unknown): Reading {
  return atOnce(readRulesetInParts(value));
}

/**
 * Reads a ruleset as {@link readRuleset} does, a part of the work between two yields: a thread that has other things to do does
 * them in between. A part is about one entry, or about what a concept makes of all of its own.
 */
export function* readRulesetInParts(value: unknown): Generator<void, Reading> {
  const [beyond, ...more] = beyondLimits(value);
  if (beyond) return { problems: [beyond, ...more] };
  const { rules, problems } = yield* sparingly(MOST_COMPARED, readWithin(value));
  if (rules) return { rules, problems: [] };
  if (problems.length <= MOST_PROBLEMS) return { problems };
  const left = problems.length - MOST_PROBLEMS;
  return {
    problems: [...problems.slice(0, MOST_PROBLEMS), { path: '', message: `There are ${left} problems more, which are not shown.` }],
  };
}

function* readWithin(written: unknown): Generator<void, Reading> {
  const value = upgradeDocument(written);
  const { document: schema } = registry();
  const raw = isObject(value) ? value : {};
  const document = yield* soundDocument(raw, schema);
  const issues = document ? [] : (schema.safeParse(value).error?.issues ?? []);
  const problems: Problem[] = issues.flatMap((issue) => problemsOf(issue, value, schema));
  problems.push(...duplicateIds(raw), ...(yield* wrongNames(raw, schema)));
  const remainder = document ? { document, standing: (path: string) => path, shaken: () => false } : withoutUnsound(raw, issues, schema);
  if (remainder) {
    const { rules, problems: found } = yield* assemble(remainder.document, problems.length > 0);
    // What speaks of an entry that is not there any more may look wrong for that alone.
    const sound = document ? found : found.filter(({ path }) => !remainder.shaken(path));
    problems.push(...sound.map((problem) => ({ ...problem, path: remainder.standing(problem.path) })));
    if (rules && problems.length === 0) return { rules, problems: [] };
  }
  return { problems };
}

/** A document with its defaults filled in; undefined where its shape is wrong anywhere. */
function* soundDocument(raw: Record<string, unknown>, { shape }: z.ZodObject): Generator<void, RulesetDocument | undefined> {
  if (Object.keys(raw).some((key) => !Object.hasOwn(shape, key))) return undefined;
  const document: Record<string, unknown> = {};
  for (const [key, schema] of Object.entries(shape)) {
    const chapter = chapterIn(raw, key);
    if (chapter) {
      const entries = yield* eachInPart(chapter.list, (entry) => chapter.entry.safeParse(entry));
      if (entries.some(({ success }) => !success)) return undefined;
      document[key] = entries.map(({ data }) => data);
      continue;
    }
    const { success, data } = z.safeParse(schema, raw[key]);
    if (!success) return undefined;
    if (data !== undefined) document[key] = data;
    yield;
  }
  return document as RulesetDocument;
}

/** What a document has as the list of entries of a chapter, and the schema of each; undefined where this is something else. */
function chapterIn(
  raw: Record<string, unknown>,
  key: string,
): { readonly list: readonly unknown[]; readonly entry: z.ZodType } | undefined {
  const section = registry().sections.get(key);
  const list = raw[key];
  return section?.kind === 'chapter' && Array.isArray(list) ? { list, entry: section.entry } : undefined;
}

/** How many values a document may have, each text, number, list and object being one. */
export const MOST_VALUES = 400_000;
/** How many problems are shown of a document that has more. */
const MOST_PROBLEMS = 1000;
/** How many letters may be compared to find what somebody may have meant: past that nothing is suggested any more. */
const MOST_COMPARED = 5_000_000;

/** What no ruleset is, however it goes on: told before anything is worked on that grows with it. */
function beyondLimits(value: unknown): readonly Problem[] {
  const depth = depthOf(value, MOST_VALUES);
  if (depth === undefined)
    return [{ path: '', message: `This has more than ${MOST_VALUES} values, which is more than a ruleset may have.` }];
  if (depth > DEEPEST) return [{ path: '', message: `This is nested deeper than ${DEEPEST} levels, which no ruleset is.` }];
  if (!isObject(value)) return [];
  return [...chapterKeys()].flatMap((key) => {
    const list = value[key];
    return Array.isArray(list) && list.length > MOST_ENTRIES
      ? [{ path: pointer([key]), message: `A chapter has at most ${MOST_ENTRIES} entries; this one has ${list.length}.` }]
      : [];
  });
}

/**
 * Reads a ruleset from JSON text; a text that is not JSON is one problem at the root.
 * @public
 */
export function readRulesetText(text: string): Reading {
  const { value, wrong } = { value: undefined, ...readJson(text) };
  if (wrong) return { problems: [{ path: '', message: jsonWords(wrong) }] };
  const reading = readRuleset(value);
  const repeated = isTooDeep(value) ? [] : repeatedNames(text);
  return repeated.length > 0 ? { problems: [...repeated, ...reading.problems] } : reading;
}

/**
 * Compiles a ruleset that is known to be sound.
 * @throws RulesetError with all problems where it is not
 * @public
 * @example
 * const rules = compileRuleset(JSON.parse(text));
 */
export function compileRuleset(value: unknown): Rules {
  const { rules, problems } = readRuleset(value);
  if (!rules) throw new RulesetError(problems);
  return rules;
}

/** How deep a document may be nested. */
export const DEEPEST = 60;

/** How many levels of lists and objects a value has, as far as {@link DEEPEST} is passed; undefined where it has too many values. */
function depthOf(value: unknown, most: number): number | undefined {
  let level: unknown[] = [value];
  let count = 1;
  let depth = 0;
  for (; depth <= DEEPEST; depth++) {
    const next: unknown[] = [];
    for (const item of level)
      if (typeof item === 'object' && item !== null) {
        const inside: unknown[] = Object.values(item);
        count += inside.length;
        if (count > most) return undefined;
        for (const one of inside) next.push(one);
      }
    if (next.length === 0) return depth;
    level = next;
  }
  return depth;
}

/** Whether a value is nested deeper than any document of ours: asked before anything recursive touches it. */
export function isTooDeep(value: unknown): boolean {
  return depthOf(value, Infinity)! > DEEPEST;
}

const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);

function at(value: unknown, path: Path): unknown {
  return path.reduce<unknown>((v, key) => (v as Record<string | number, unknown> | undefined)?.[key], value);
}

function rawIds(raw: Record<string, unknown>, chapter: string): string[] {
  const list = raw[chapter];
  return Array.isArray(list) ? list.map((entry) => (isObject(entry) && typeof entry['id'] === 'string' ? entry['id'] : '')) : [];
}

function* chapterKeys(): Iterable<string> {
  for (const [key, section] of registry().sections) if (section.kind === 'chapter') yield key;
}

/** The entries that a chapter has although the document does not write them. */
function givenIn(chapter: string, ids: readonly string[]): Chapter['entries'] {
  const section = registry().sections.get(chapter);
  if (section?.kind !== 'chapter') return [];
  return (section.given ?? [])
    .filter(({ id }) => !ids.includes(id))
    .map((entry) => section.entry.parse(entry) as Chapter['entries'][number]);
}

function duplicateIds(raw: Record<string, unknown>): Problem[] {
  const problems: Problem[] = [];
  for (const key of chapterKeys()) {
    const ids = rawIds(raw, key);
    const firsts = new Map<string, number>();
    ids.forEach((id, i) => {
      const first = firsts.get(id);
      if (first === undefined) firsts.set(id, i);
      else if (id !== '')
        problems.push({ path: pointer([key, i, 'id']), message: `${id} is taken by entry ${first} of this chapter: ids are unique.` });
    });
    problems.push(...formerIds(raw, key, ids));
  }
  return problems;
}

/** What was saved under a former id follows its entry: it can belong to one only. */
function formerIds(raw: Record<string, unknown>, key: string, ids: readonly string[]): Problem[] {
  const owners = new Map(ids.map((id, i) => [id, i]));
  const list = Array.isArray(raw[key]) ? raw[key] : [];
  return list.flatMap((entry: unknown, i) => {
    const former = isObject(entry) && Array.isArray(entry['formerly']) ? entry['formerly'] : [];
    return former.flatMap((old: unknown, k) => {
      const owner = owners.get(String(old));
      if (owner === undefined) owners.set(String(old), i);
      return owner === undefined || typeof old !== 'string'
        ? []
        : [
            {
              path: pointer([key, i, 'formerly', k]),
              message: `${old} is an id of entry ${owner} of this chapter, present or former: what was saved under it can follow one entry only.`,
            },
          ];
    });
  });
}

/** Checks every reference and every formula against the ids that the document has. */
function* wrongNames(raw: Record<string, unknown>, { shape }: z.ZodObject): Generator<void, readonly Problem[]> {
  const problems: Problem[] = [];
  const chapters = new Map<string, ReadonlySet<string>>();
  const idsOf = (chapter: string): ReadonlySet<string> => {
    const known = chapters.get(chapter);
    if (known) return known;
    const own = rawIds(raw, chapter).filter(Boolean);
    const ids = new Set([...own, ...givenIn(chapter, own).map((entry) => entry.id)]);
    chapters.set(chapter, ids);
    return ids;
  };
  const vocabulary = vocabularyOf((chapter) => [...idsOf(chapter)]);
  const look = (mark: Mark, value: string, path: Path) => {
    if (mark.kind === 'reference') {
      const known = idsOf(mark.chapter);
      if (!known.has(value))
        problems.push({ path: pointer(path), message: `The ${mark.chapter} have no entry ${value}.${didYouMean(value, known)}` });
      return;
    }
    try {
      compileFormula(value, vocabulary, mark.place);
    } catch (error) {
      if (!(error instanceof FormulaError)) throw error;
      problems.push({ path: pointer(path), message: error.message, at: error.at });
    }
  };
  for (const [key, schema] of Object.entries(shape)) {
    const chapter = chapterIn(raw, key);
    if (chapter) yield* eachInPart(chapter.list, (entry, i) => walk(chapter.entry, entry, [key, i], look));
    else walk(schema as z.ZodType, raw[key], [key], look);
    yield;
  }
  return problems;
}

/** A document without its misshapen parts, and where its entries stood before. */
interface Remainder {
  readonly document: RulesetDocument;
  readonly standing: (path: string) => string;
  /** Whether what stands at a place speaks of something that was taken out. */
  readonly shaken: (path: string) => boolean;
}

/** Takes out what has a wrong shape, so that the rest can still be looked at; undefined where nothing sound remains. */
function withoutUnsound(raw: Record<string, unknown>, issues: readonly z.core.$ZodIssue[], schema: z.ZodObject): Remainder | undefined {
  const copy = JSON.parse(JSON.stringify(raw)) as Record<string, unknown>;
  const dropped = new Map<string, Set<number>>();
  for (const issue of issues) {
    const [key, position] = issue.path as [string, unknown];
    if (issue.code === 'unrecognized_keys') {
      // What it stood in may have been taken out already.
      const holder = at(copy, issue.path as Path);
      if (isObject(holder)) for (const unknown of issue.keys) Reflect.deleteProperty(holder, unknown);
    } else if (typeof position === 'number') dropped.set(key, (dropped.get(key) ?? new Set()).add(position));
    else Reflect.deleteProperty(copy, key);
  }
  const kept = new Map<string, number[]>();
  for (const [key, gone] of dropped) {
    const list = copy[key] as unknown[];
    kept.set(
      key,
      list.map((_, i) => i).filter((i) => !gone.has(i)),
    );
    copy[key] = list.filter((_, i) => !gone.has(i));
  }
  const parsed = schema.safeParse({ ...copy, format: FORMAT, version: VERSION, name: 'Remainder' });
  if (!parsed.success) return undefined;
  const standing = (path: string) =>
    path.replace(/^\/([^/]+)\/(\d+)/, (all, key: string, position: string) =>
      kept.has(key) ? `/${key}/${kept.get(key)![Number(position)]}` : all,
    );
  const gone = [...dropped].flatMap(([key, positions]) => [...positions].map((i) => String(at(raw, [key, i, 'id']) ?? ''))).filter(Boolean);
  const names = gone.length === 0 ? undefined : new RegExp(`\\b(${gone.filter((id) => ID_PATTERN.test(id)).join('|') || '-'})\\b`);
  const shaken = (path: string) => {
    // Its entry, or what is placed: whatever of it is looked at may come of what it speaks of.
    const [key, position, third] = path.split('/').slice(1);
    const place = [key, position, third].slice(0, /^\d+$/.test(position ?? '') ? 2 : 3);
    return names !== undefined && names.test(JSON.stringify(at(copy, place)) ?? '');
  };
  return { document: parsed.data as RulesetDocument, standing, shaken };
}

function vocabularyOf(ids: (chapter: string) => readonly string[]): Vocabulary {
  const parts = registry().concepts.map(
    (concept) => concept.vocabulary?.((chapter) => ids(chapter).filter((id) => ID_PATTERN.test(id))) ?? {},
  );
  return {
    names: parts.flatMap((part) => part.names ?? []),
    functions: parts.flatMap((part) => part.functions ?? []),
    words: Object.assign({}, ...parts.map((part) => part.words)) as Record<string, string>,
  };
}

/**
 * Compiles a document of the right shape.
 * @param known whether problems are known already: what refers to nothing then need not make sense to a concept
 */
function* assemble(document: RulesetDocument, known: boolean): Generator<void, Reading> {
  const all = registry();
  const chapters = new Map<string, Chapter>();
  for (const key of chapterKeys()) {
    const own = document[key] as Chapter['entries'];
    const entries = [
      ...own,
      ...givenIn(
        key,
        own.map((entry) => entry.id),
      ),
    ];
    const former = new Map(entries.flatMap((entry, i) => (entry.formerly ?? []).map((old) => [old, i] as const)));
    chapters.set(key, { entries, ids: entries.map((entry) => entry.id), former });
  }
  const vocabulary = vocabularyOf((chapter) => chapters.get(chapter)?.ids ?? []);
  const context = new CompileContext(all, document, chapters, vocabulary);
  const { compiled } = context;
  try {
    for (const concept of all.concepts) {
      compiled.set(concept.id, concept.compileInParts ? yield* concept.compileInParts(context) : concept.compile?.(context));
      yield;
    }
  } catch (error) {
    // Of a document with problems as much is said as can be; one without any has to compile.
    if (!known && context.problems.length === 0)
      context.problem([], `This can’t be compiled, which is a mistake of ours: ${String(error)}`);
  }
  const { pieces, amounts, acting } = context;
  if (known || context.problems.length > 0) return { problems: context.problems };
  const draft = { registry: all, document, tickRate: document.tickRate, chapters, vocabulary, compiled, pieces, amounts, acting };
  const tables: TableSpec[] = [];
  for (const concept of all.concepts) {
    tables.push(...(concept.tables?.(compiled.get(concept.id) as never, { ...draft, tables: [] }) ?? []));
    yield;
  }
  return { rules: { ...draft, tables }, problems: [] };
}
