import { z } from 'zod';
import type { TableSpec } from '../world/columns.js';
import { compileFormula, FormulaError, type Lookup, meansTheSame, type Vocabulary } from '../formula/index.js';
import { CompileContext, nothingBefore } from './context.js';
import { ID_PATTERN } from './fields.js';
import { beyondLimits, type Sizes } from './limits.js';
import type { Mark } from './marks.js';
import { problemsOf } from './mismatch.js';
import { atOnce } from './parts.js';
import { positionsIn } from './positions.js';
import { pointer, type Path, type Problem } from './problem.js';
import { chapterKeys, duplicateIds, isObject, rawIds, type RawDocument } from './raw.js';
import { Answers, answering } from './questions.js';
import { sameList, sameParts } from './recording.js';
import { sameTables } from './same-tables.js';
import { registry } from './registry.js';
import { type Chapter, Entries, type Rules, type RulesetDocument } from './rules.js';
import { didYouMean, sparingly } from './suggest.js';
import { withoutUnsound } from './unsound.js';
import { upgradeDocument } from './upgrade.js';
import { walk } from './walk.js';

/** The outcome of reading a ruleset: rules to run, or all that is wrong with it. */
export type Reading =
  { readonly rules: Rules; readonly problems: readonly [] } | { readonly rules?: undefined; readonly problems: readonly Problem[] };

/** How many problems are shown of a document that has more. */
const MOST_PROBLEMS = 1000;
/** How many letters may be compared to find what somebody may have meant: past that nothing is suggested any more. */
const MOST_COMPARED = 5_000_000;

/** So many rules that are no more may keep their numbers. */
const SPARE_NUMBERS = 1000;

/** What the ids of a document mean in formulas. */
interface Names {
  readonly ids: ReadonlyMap<string, readonly string[]>;
  readonly vocabulary: Vocabulary;
}

/** What an entry speaks of, all of it known under these names. */
interface Spoken {
  readonly schema: z.ZodType;
  names: Names;
  readonly references: readonly (readonly [chapter: string, id: string])[];
  readonly lookups: readonly Lookup[];
}

/**
 * Reads one ruleset again and again, as it is edited. What an edit can't have changed is neither checked nor compiled a second time:
 * it is told by the identity of its objects. So a document that was given is not changed afterwards, and an edited one has the
 * objects of the one before wherever the edit did not reach, as persistent data has them.
 * @public
 * @example
 * const compiler = new RulesetCompiler();
 * const before = compiler.read(document);
 * const after = compiler.read({ ...document, name: 'Another' });
 */
export class RulesetCompiler {
  private readonly sizes: Sizes = new WeakMap();
  /** What was parsed, by what was written. */
  private readonly parsed = new WeakMap<object, { readonly schema: z.ZodType; readonly data: object }>();
  private readonly plain = new Map<string, { readonly value: unknown; readonly data: unknown }>();
  private readonly spoken = new WeakMap<object, Spoken>();
  private readonly before = nothingBefore();
  private readonly lists = new Map<string, readonly unknown[]>();
  private chapters = new Map<string, Chapter>();
  private tables: readonly TableSpec[] = [];
  private compiled: ReadonlyMap<string, unknown> = new Map();
  private readonly answers = new Answers();
  private names: Names | undefined;
  private counts = { parsed: 0, checked: 0 };

  /** How many entries, and how many sections that are no chapters, the last reading had to look at anew. */
  get last(): { readonly parsed: number; readonly checked: number; readonly compiled: number } {
    return { ...this.counts, compiled: this.before.compiled };
  }

  /** Reads a document, of this version of the format or an earlier one. Never throws for what an author wrote. */
  read(value: unknown): Reading {
    return atOnce(this.readInParts(value));
  }

  /** Reads a document, a part of the work between two yields. One document is read at a time. */
  *readInParts(value: unknown): Generator<void, Reading> {
    this.counts = { parsed: 0, checked: 0 };
    this.before.compiled = 0;
    const [beyond, ...more] = beyondLimits(value, this.sizes);
    if (beyond) return { problems: [beyond, ...more] };
    const { rules, problems } = yield* sparingly(MOST_COMPARED, this.readWithin(value));
    if (rules) return { rules, problems: [] };
    if (problems.length <= MOST_PROBLEMS) return { problems };
    const left = problems.length - MOST_PROBLEMS;
    return {
      problems: [...problems.slice(0, MOST_PROBLEMS), { path: '', message: `There are ${left} problems more, which are not shown.` }],
    };
  }

  private *readWithin(written: unknown): Generator<void, Reading> {
    const value = upgradeDocument(written);
    const { document: schema } = registry();
    const raw = isObject(value) ? value : {};
    const document = yield* this.soundDocument(raw, schema);
    const issues = document ? [] : (schema.safeParse(value).error?.issues ?? []);
    const problems: Problem[] = issues.flatMap((issue) => problemsOf(issue, value, schema));
    problems.push(...duplicateIds(raw), ...(yield* this.wrongNames(raw, schema)));
    const remainder = document ? { document, standing: (path: string) => path, shaken: () => false } : withoutUnsound(raw, issues, schema);
    if (remainder) {
      const { rules, problems: found } = yield* this.assemble(remainder.document, problems.length > 0);
      // What speaks of an entry that is not there any more may look wrong for that alone.
      const sound = document ? found : found.filter(({ path }) => !remainder.shaken(path));
      problems.push(...sound.map((problem) => ({ ...problem, path: remainder.standing(problem.path) })));
      if (rules && problems.length === 0) return { rules, problems: [] };
    }
    return { problems };
  }

  /** A document with its defaults filled in; undefined where its shape is wrong anywhere. */
  private *soundDocument(raw: RawDocument, { shape }: z.ZodObject): Generator<void, RulesetDocument | undefined> {
    if (Object.keys(raw).some((key) => !Object.hasOwn(shape, key))) return undefined;
    const document: Record<string, unknown> = {};
    for (const [key, schema] of Object.entries(shape)) {
      const chapter = chapterIn(raw, key);
      if (!chapter) {
        const { success, data } = this.parsePlain(key, schema as z.ZodType, raw[key]);
        if (!success) return undefined;
        if (data !== undefined) document[key] = data;
        yield;
        continue;
      }
      const entries: unknown[] = [];
      for (const entry of chapter.list) {
        const { success, data, anew } = this.parse(chapter.entry, entry);
        if (!success) return undefined;
        entries.push(data);
        if (anew) yield;
      }
      document[key] = this.settled(key, entries);
    }
    return document as RulesetDocument;
  }

  private parse(schema: z.ZodType, value: unknown): { readonly success: boolean; readonly data?: unknown; readonly anew: boolean } {
    const known = isObject(value) ? this.parsed.get(value) : undefined;
    // One object may stand in two chapters, where it is two entries.
    if (known?.schema === schema) return { success: true, data: known.data, anew: false };
    this.counts.parsed++;
    const { success, data } = z.safeParse(schema, value);
    if (success && isObject(value) && isObject(data)) this.parsed.set(value, { schema, data });
    return { success, data, anew: true };
  }

  /** What stands in a section that is no object, or in none: a number, a name, what a default fills in. */
  private parsePlain(key: string, schema: z.ZodType, value: unknown): { readonly success: boolean; readonly data?: unknown } {
    if (isObject(value)) return this.parse(schema, value);
    const known = this.plain.get(key);
    if (known?.value === value && known) return { success: true, data: known.data };
    const { success, data } = this.parse(schema, value);
    if (success) this.plain.set(key, { value, data });
    return { success, data };
  }

  /** A list as it was before, where it has the same items: what follows from it then still holds. */
  private settled<T>(key: string, list: readonly T[]): readonly T[] {
    const same = sameList(this.lists.get(key) as readonly T[] | undefined, list);
    this.lists.set(key, same);
    return same;
  }

  /** Checks every reference and every formula against the ids that the document has. */
  private *wrongNames(raw: RawDocument, { shape }: z.ZodObject): Generator<void, readonly Problem[]> {
    const names = this.namesOf((chapter) => {
      const own = rawIds(raw, chapter).filter(Boolean);
      return [...own, ...this.givenIn(chapter, own).map((entry) => entry.id)];
    });
    const problems: Problem[] = [];
    for (const [key, schema] of Object.entries(shape)) {
      if (isAhead(key)) continue;
      const chapter = chapterIn(raw, key);
      const parts: readonly (readonly [z.ZodType, unknown, Path])[] = chapter
        ? chapter.list.map((entry, i) => [chapter.entry, entry, [key, i]] as const)
        : [[schema as z.ZodType, raw[key], [key]]];
      for (const [of, part, path] of parts) {
        if (part === undefined || (isObject(part) && this.meansWhatItDid(of, part, names))) continue;
        this.counts.checked++;
        problems.push(...this.wrongNamesIn(of, part, path, names));
        yield;
      }
    }
    return problems;
  }

  /** Whether everything that an entry speaks of is there, and is what it was when it was last looked up. */
  private meansWhatItDid(schema: z.ZodType, part: object, names: Names): boolean {
    const spoken = this.spoken.get(part);
    if (spoken?.schema !== schema) return false;
    const holds =
      spoken.names === names ||
      (spoken.references.every(([chapter, id]) => positionsOf(names, chapter).has(id)) &&
        spoken.lookups.every((lookup) => meansTheSame(names.vocabulary, lookup)));
    if (holds) spoken.names = names;
    return holds;
  }

  private wrongNamesIn(schema: z.ZodType, part: unknown, at: Path, names: Names): readonly Problem[] {
    const problems: Problem[] = [];
    const references: (readonly [string, string])[] = [];
    const lookups: Lookup[] = [];
    const look = (mark: Mark, value: string, path: Path) => {
      if (mark.kind === 'reference') {
        const known = positionsOf(names, mark.chapter);
        references.push([mark.chapter, value]);
        if (!known.has(value))
          problems.push({ path: pointer(path), message: `The ${mark.chapter} have no entry ${value}.${didYouMean(value, known.keys())}` });
        return;
      }
      try {
        lookups.push(...compileFormula(value, names.vocabulary, mark.place).lookups);
      } catch (error) {
        if (!(error instanceof FormulaError)) throw error;
        problems.push({ path: pointer(path), message: error.message, at: error.at });
      }
    };
    walk(schema, part, at, look);
    if (problems.length === 0 && isObject(part)) this.spoken.set(part, { schema, names, references, lookups });
    return problems;
  }

  /** What ids mean: the names of the reading before, where all chapters have the ids that they had. */
  private namesOf(idsIn: (chapter: string) => readonly string[]): Names {
    const before = this.names;
    const ids = new Map([...chapterKeys()].map((key) => [key, sameList(before?.ids.get(key), idsIn(key))] as const));
    if (before && [...ids].every(([key, list]) => before.ids.get(key) === list)) return before;
    return (this.names = { ids, vocabulary: vocabularyOf((chapter) => ids.get(chapter) ?? []) });
  }

  /** The entries that a chapter has although the document does not write them. */
  private givenIn(chapter: string, ids: readonly string[]): Chapter['entries'] {
    const section = registry().sections.get(chapter);
    if (section?.kind !== 'chapter' || !section.given) return [];
    const own = new Set(ids);
    return section.given
      .filter(({ id }) => !own.has(id))
      .map((entry) => this.parse(section.entry, entry).data as Chapter['entries'][number]);
  }

  /**
   * Compiles a document of the right shape.
   * @param known whether problems are known already: what refers to nothing then need not make sense to a concept
   */
  private *assemble(document: RulesetDocument, known: boolean): Generator<void, Reading> {
    const all = registry();
    const chapters = this.chaptersOf(document);
    this.forgetNumbers(chapters);
    const { vocabulary } = this.namesOf((chapter) => chapters.get(chapter)?.ids ?? []);
    const compiled = new Map<string, unknown>();
    const context = new CompileContext(all, { document, chapters, vocabulary }, compiled, this.before);
    try {
      for (const concept of all.concepts) {
        const now = concept.compileInParts ? yield* concept.compileInParts(context) : concept.compile?.(context);
        compiled.set(concept.id, sameParts(this.compiled.get(concept.id), now));
        yield;
      }
    } catch (error) {
      // Of a document with problems as much is said as can be; one without any has to compile.
      if (!known && context.problems.length === 0)
        context.problem([], `This can’t be compiled, which is a mistake of ours: ${String(error)}`);
    }
    if (known || context.problems.length > 0) return { problems: context.problems };
    const { pieces, amounts } = context;
    const acting = [...this.before.acting.keys()];
    const draft = { registry: all, document, tickRate: document.tickRate, chapters, vocabulary, compiled, pieces, amounts, acting };
    const tables: TableSpec[] = [];
    for (const concept of all.concepts) {
      tables.push(...(concept.tables?.(compiled.get(concept.id) as never, { ...draft, tables: [] }) ?? []));
      yield;
    }
    this.tables = sameTables(this.tables, tables);
    this.compiled = compiled;
    const rules = { ...draft, tables: this.tables };
    answering(rules, this.answers);
    return { rules, problems: [] };
  }

  /** Rules that went long ago keep their numbers until there are more of them than there are rules. */
  private forgetNumbers(chapters: ReadonlyMap<string, Chapter>): void {
    const rules = [...chapters.values()].reduce((sum, { ids }) => sum + ids.length, 0);
    if (this.before.acting.size > 2 * rules + SPARE_NUMBERS) Object.assign(this.before, nothingBefore());
  }

  /** The chapters of a document; each the one of the reading before where its entries are the same. */
  private chaptersOf(document: RulesetDocument): ReadonlyMap<string, Chapter> {
    const chapters = new Map<string, Chapter>();
    for (const key of chapterKeys()) {
      const before = this.chapters.get(key);
      const own = document[key] as Chapter['entries'];
      const given = this.givenIn(
        key,
        own.map((entry) => entry.id),
      );
      const entries = sameList(before?.entries, [...own, ...given]);
      if (before && before.entries === entries) {
        chapters.set(key, before);
        continue;
      }
      const ids = sameList(
        this.names?.ids.get(key),
        entries.map((entry) => entry.id),
      );
      chapters.set(key, new Entries(entries, ids));
    }
    return (this.chapters = chapters);
  }
}

/** What a document has as the list of entries of a chapter, and the schema of each; undefined where this is something else. */
function chapterIn(raw: RawDocument, key: string): { readonly list: readonly unknown[]; readonly entry: z.ZodType } | undefined {
  const section = registry().sections.get(key);
  const list = raw[key];
  return section?.kind === 'chapter' && Array.isArray(list) ? { list, entry: section.entry } : undefined;
}

/** Whether entries of a chapter may speak of what is not there. */
function isAhead(chapter: string): boolean {
  const section = registry().sections.get(chapter);
  return section?.kind === 'chapter' && section.ahead !== undefined;
}

const positionsOf = ({ ids }: Names, chapter: string): ReadonlyMap<string, number> => positionsIn(ids.get(chapter) ?? NO_IDS);
const NO_IDS: readonly string[] = [];

function vocabularyOf(ids: (chapter: string) => readonly string[]): Vocabulary {
  const known = new Map<string, readonly string[]>();
  const wellFormed = (chapter: string): readonly string[] => {
    const of = known.get(chapter) ?? ids(chapter).filter((id) => ID_PATTERN.test(id));
    known.set(chapter, of);
    return of;
  };
  const parts = registry().concepts.map((concept) => concept.vocabulary?.(wellFormed) ?? {});
  return {
    names: parts.flatMap((part) => part.names ?? []),
    functions: parts.flatMap((part) => part.functions ?? []),
    words: Object.assign({}, ...parts.map((part) => part.words)) as Record<string, string>,
  };
}
