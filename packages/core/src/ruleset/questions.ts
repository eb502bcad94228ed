import type { Chapter, ChapterEntry, Rules, RulesetDocument } from './rules.js';

/**
 * A question about rules, or about one thing under them by its name. The answer is kept until something that it was read from is
 * another: what that is is recorded while the answer is worked out.
 */
export type Question<T> = (rules: Rules, of?: string) => T;

/** How the answer to a question is found. */
interface Kind {
  readonly answer: (rules: Rules, of: string) => unknown;
  /** Whether two answers come to the same: then what was read from the one still holds with the other. */
  readonly same: (before: unknown, now: unknown) => boolean;
  /** It is read off the rules themselves each time they are others. */
  readonly read: boolean;
}

/** A question that was asked, and its answer. */
interface Asked {
  readonly kind: Kind;
  readonly of: string;
  value: unknown;
  /** What the answer was read from; undefined before there is one. */
  reads: readonly Asked[] | undefined;
  /** Under which rules, by their number, the answer became another, and under which it was last found to hold. */
  changed: number;
  checked: number;
}

/** An answer that nobody asked for under so many rules is forgotten. */
const KEPT = 8;
const NOT_YET = -1;

/** The answers of rules that follow from one another, as a document is edited: one for all that a compiler compiles. */
export class Answers {
  private readonly kinds = new Map<Kind, Map<string, Asked>>();
  private readonly observed = new Observed(this);
  private current: Rules | undefined;
  /** The number of the rules that are asked about: it rises whenever these are others than the last time. */
  private number = 0;
  private reading: Set<Asked> | undefined;
  private found = 0;

  constructor() {
    // Who is answered asks in turn under the rules as they are shown.
    lineages.set(this.observed, this);
  }

  /** The rules that are asked about now. */
  get rules(): Rules {
    return this.current!;
  }

  /** Whether an answer is being worked out. */
  get isRecording(): boolean {
    return this.reading !== undefined;
  }

  /** How many answers were worked out, but for what is read off the rules themselves: for showing how far an edit reaches. */
  get workedOut(): number {
    return this.found;
  }

  ask(kind: Kind, rules: Rules, of: string): unknown {
    if (rules !== this.current && rules !== (this.observed as Rules)) this.turnTo(rules);
    const asked = this.of(kind, of);
    this.settle(asked);
    this.reading?.add(asked);
    return asked.value;
  }

  private turnTo(rules: Rules): void {
    if (this.reading) throw new Error('Other rules are asked about while an answer is worked out: a mistake of ours');
    this.current = rules;
    this.number++;
    if (this.number % KEPT !== 0) return;
    for (const all of this.kinds.values())
      for (const [of, { checked }] of all) if (checked !== NOT_YET && checked < this.number - KEPT) all.delete(of);
  }

  private of(kind: Kind, of: string): Asked {
    let all = this.kinds.get(kind);
    if (!all) this.kinds.set(kind, (all = new Map()));
    let asked = all.get(of);
    if (!asked) all.set(of, (asked = { kind, of, value: undefined, reads: undefined, changed: 0, checked: NOT_YET }));
    return asked;
  }

  private settle(asked: Asked): void {
    if (asked.checked === this.number) return;
    if (asked.kind.read || !this.holds(asked)) this.workOut(asked);
    asked.checked = this.number;
  }

  /** Whether all that an answer was read from is what it was. It is looked at in the order of reading, and no further than needed. */
  private holds({ reads, checked }: Asked): boolean {
    if (!reads) return false;
    for (const read of reads) {
      this.settle(read);
      if (read.changed > checked) return false;
    }
    return true;
  }

  private workOut(asked: Asked): void {
    const { kind, of } = asked;
    const outer = this.reading;
    const reads = new Set<Asked>();
    this.reading = reads;
    let value: unknown;
    try {
      value = kind.answer(kind.read ? this.rules : this.observed, of);
    } finally {
      this.reading = outer;
    }
    if (!kind.read) this.found++;
    if (!asked.reads || !kind.same(asked.value, value)) {
      asked.value = value;
      asked.changed = this.number;
    }
    asked.reads = [...reads];
  }
}

/** Whose answers those of which rules are. */
const lineages = new WeakMap<Rules, Answers>();

/** Has rules share the answers of those that they were made from. */
export function answering(rules: Rules, answers: Answers): void {
  lineages.set(rules, answers);
}

/** The answers under rules. */
export function answersOf(rules: Rules): Answers {
  let answers = lineages.get(rules);
  if (!answers) lineages.set(rules, (answers = new Answers()));
  return answers;
}

/**
 * Makes a question. Whatever is read of the rules in answering it is recorded: entries, sections, other questions; so is no other
 * state of the answer's own.
 * @param same whether two answers come to the same; without it they do where they are the same object
 * @example
 * const labels = question((rules) => actorChapter.of(rules).map(({ label }) => label), sameItems);
 */
export function question<T>(answer: (rules: Rules, of: string) => T, same: (before: T, now: T) => boolean = Object.is): Question<T> {
  const kind = { answer, same: same as Kind['same'], read: false };
  return (rules, of = '') => answersOf(rules).ask(kind, rules, of) as T;
}

/** Something that is read off the rules themselves. */
function reading<T>(answer: (rules: Rules, of: string) => T): Question<T> {
  const kind = { answer, same: Object.is, read: true };
  return (rules, of = '') => {
    const answers = answersOf(rules);
    return (answers.isRecording ? answers.ask(kind, rules, of) : answer(answers.rules, of)) as T;
  };
}

const sections = reading((rules, key) => rules.document[key]);
const entries = reading((rules, chapter) => rules.chapters.get(chapter)?.entries);
const ids = reading((rules, chapter) => rules.chapters.get(chapter)?.ids);
const formers = reading((rules, chapter) => rules.chapters.get(chapter)?.former);
const compiled = reading((rules, concept) => rules.compiled.get(concept));
const vocabularies = reading(({ vocabulary }) => vocabulary);
const tickRates = reading(({ tickRate }) => tickRate);
const wholes = reading((rules) => rules);
const single = reading((rules, of) => chapterAndId(rules, of, (chapter, id) => chapter.find(id)));
const labels = reading((rules, of) => chapterAndId(rules, of, (chapter, id) => chapter.labelOf(id)));

function chapterAndId<T>(rules: Rules, of: string, read: (chapter: Chapter, id: string) => T): T | undefined {
  const at = of.indexOf('/');
  const chapter = rules.chapters.get(of.slice(0, at));
  return chapter && read(chapter, of.slice(at + 1));
}

/** The rules themselves, for what reads so much of them that only all of it can be recorded: running them, say. */
export const everythingOf: (rules: Rules) => Rules = (rules) => (rules instanceof Observed ? wholes(rules) : rules);

/** Rules as an answer sees them: always those that are asked about now, and what is read of them is recorded. */
export class Observed implements Rules {
  readonly document: RulesetDocument;
  readonly chapters: ReadonlyMap<string, Chapter>;
  readonly compiled: ReadonlyMap<string, unknown>;

  constructor(private readonly answers: Answers) {
    const now = () => answers.rules;
    this.document = new Proxy({} as RulesetDocument, {
      get: (_, key) => (typeof key === 'string' ? sections(this, key) : undefined),
      has: (_, key) => key in now().document,
      ownKeys: () => Reflect.ownKeys(now().document),
      getOwnPropertyDescriptor: (_, key) => ({
        value: typeof key === 'string' ? sections(this, key) : undefined,
        enumerable: true,
        configurable: true,
      }),
    });
    const views = new Map<string, Chapter>();
    this.chapters = new ObservedMap(
      () => now().chapters,
      (key) => {
        if (!now().chapters.has(key)) return undefined;
        let view = views.get(key);
        if (!view) views.set(key, (view = new ObservedChapter(this, key)));
        return view;
      },
    );
    this.compiled = new ObservedMap(
      () => now().compiled,
      (key) => compiled(this, key),
    );
  }

  get registry(): Rules['registry'] {
    return this.answers.rules.registry;
  }
  get tickRate(): number {
    return tickRates(this);
  }
  get vocabulary(): Rules['vocabulary'] {
    return vocabularies(this);
  }
  get pieces(): Rules['pieces'] {
    return wholes(this).pieces;
  }
  get amounts(): Rules['amounts'] {
    return wholes(this).amounts;
  }
  get acting(): Rules['acting'] {
    return wholes(this).acting;
  }
  get tables(): Rules['tables'] {
    return wholes(this).tables;
  }
}

class ObservedChapter implements Chapter {
  constructor(
    private readonly rules: Rules,
    private readonly key: string,
  ) {}
  get ids() {
    return ids(this.rules, this.key)!;
  }
  get former() {
    return formers(this.rules, this.key)!;
  }
  get entries() {
    return entries(this.rules, this.key)!;
  }
  /** That one alone is recorded, whatever the others of its chapter are. */
  find(id: string): ChapterEntry | undefined {
    return single(this.rules, `${this.key}/${id}`);
  }
  labelOf(id: string): string | undefined {
    return labels(this.rules, `${this.key}/${id}`);
  }
}

/** A map of which what is got is recorded. Its keys are the same under all rules: chapters, or concepts. */
class ObservedMap<V> implements ReadonlyMap<string, V> {
  constructor(
    private readonly whole: () => ReadonlyMap<string, unknown>,
    readonly get: (key: string) => V | undefined,
  ) {}
  get size() {
    return this.whole().size;
  }
  has(key: string) {
    return this.whole().has(key);
  }
  keys() {
    return this.whole().keys() as MapIterator<string>;
  }
  *entries(): MapIterator<[string, V]> {
    for (const key of this.whole().keys()) yield [key, this.get(key)!];
  }
  *values(): MapIterator<V> {
    for (const [, value] of this.entries()) yield value;
  }
  forEach(visit: (value: V, key: string, map: ReadonlyMap<string, V>) => void) {
    for (const [key, value] of this.entries()) visit(value, key, this);
  }
  [Symbol.iterator]() {
    return this.entries();
  }
}
