import {
  compileFormula,
  type CompiledFormula,
  type CompiledText,
  compileText,
  FormulaError,
  type FormulaFunction,
  type FormulaPlace,
  type FormulaReference,
  type Lookup,
  meansTheSame,
  type Parties,
  type PartyName,
  type Vocabulary,
} from '../formula/index.js';
import { toGrid } from '../math/grid.js';
import { hashText } from '../world/hash.js';
import type { GameEvent } from '../world/events.js';
import type { World } from '../world/world.js';
import { type AmountSource, isDuration, toMilliseconds } from './fields.js';
import { positionIn } from './positions.js';
import { pointer, type Path, type Problem } from './problem.js';
import type { Pattern, Registry, Then } from './registry.js';
import { MadeBefore, Recording, sameList } from './recording.js';
import { type Chapter, entryOf, type Rules, type RulesetDocument } from './rules.js';
import { entriesIn } from './chapter.js';

/** A compiled amount. `constant` is set where it is always the same, `references` lists what a formula reads. */
export interface Amount {
  readonly run: FormulaFunction;
  readonly constant?: number;
  /** The name, where the amount is one of the owner's names and nothing else. */
  readonly bare?: FormulaReference;
  readonly references: readonly FormulaReference[];
}

export type CompiledThen = (world: World, parties: Parties) => void;
const NO_MORE: CompiledThen = () => undefined;

/** An event that is waited for. `matches` is asked of events of that name only. */
export interface CompiledPattern {
  readonly event: string;
  readonly matches: (world: World, event: GameEvent, owner: number) => boolean;
}

const NOTHING: CompiledFormula = { text: '0', run: () => 0, references: [], constant: 0, lookups: [] };
const NOTHING_BESIDE: readonly unknown[] = [];
const NO_CHAPTER: Pick<Chapter, 'ids'> = { ids: [] };

/** What stays from one compilation to the next, where a ruleset is compiled again and again as it is edited. */
export interface Before {
  made: MadeBefore;
  /** The numbers of the rules that act by themselves, by chapter/id: a rule keeps its number. */
  acting: Map<string, number>;
  /** How many entries were compiled, and not taken as they were before. */
  compiled: number;
}

export const nothingBefore = (): Before => ({ made: new MadeBefore(), acting: new Map(), compiled: 0 });

/** What a concept's `compile` is given: the checked document and the compilers of the building blocks. */
export class CompileContext {
  /** For whom an action of the list that is being compiled is where it says nothing. */
  private whom: 'self' | 'target' = 'self';
  /** Whether that list follows for each of several who share what it follows from. */
  private shared = false;
  readonly problems: Problem[] = [];
  /** Pieces of lists that a world comes back to later, and amounts that it asks again, by {@link keep}'s numbers. */
  readonly pieces = new Map<number, CompiledThen>();
  readonly amounts = new Map<number, Amount>();
  private readonly aliases = new Map<string, string>();
  /** What the entry that is being compiled reads. */
  private recording: Recording | undefined;

  constructor(
    readonly registry: Registry,
    private readonly all: Pick<Rules, 'document' | 'chapters' | 'vocabulary'>,
    /** What concepts came to that were compiled already, by their ids. */
    private readonly made = new Map<string, unknown>(),
    private readonly before: Before = nothingBefore(),
  ) {}

  /** The whole document. What an entry comes to by it is worked out anew with every edit: ask for less. */
  get document(): RulesetDocument {
    this.spoil();
    return this.all.document;
  }

  /** All chapters, of which the same holds. */
  get chapters(): Rules['chapters'] {
    this.spoil();
    return this.all.chapters;
  }

  /** What concepts came to that were compiled already, by their ids; of which the same holds. */
  get compiled(): Map<string, unknown> {
    this.spoil();
    return this.made;
  }

  get vocabulary(): Vocabulary {
    const { vocabulary } = this.all;
    this.recording?.read('vocabulary', ({ all }) => all.vocabulary === vocabulary);
    return vocabulary;
  }

  private spoil(): void {
    if (this.recording) this.recording.spoiled = true;
  }

  get tickRate(): number {
    const { tickRate } = this.all.document;
    this.recording?.read('tickRate', ({ all }) => all.document.tickRate === tickRate);
    return tickRate;
  }

  /**
   * Compiles each entry of a list by itself, as work in parts. An entry that is the same as in the compilation before, and for which
   * all that was read while it was compiled is the same too, keeps what it came to.
   * @param work what is made of the entries: one name for each piece of work on the same entries
   * @param beside what an entry is compiled with that neither it says nor this context tells
   */
  *each<E extends object, T>(
    work: string,
    entries: readonly E[],
    make: (entry: E, i: number) => T,
    beside: (entry: E, i: number) => readonly unknown[] = () => NOTHING_BESIDE,
  ): Generator<void, readonly T[]> {
    const list: T[] = [];
    for (const [i, entry] of entries.entries()) {
      const others = beside(entry, i);
      const before = this.before.made.get(entry, work);
      if (before?.position === i && sameList(before.beside, others) === before.beside && before.recording.holdsIn(this)) {
        const { pieces, amounts, aliases } = before.recording;
        for (const [key, piece] of pieces) this.pieces.set(key, piece);
        for (const [key, amount] of amounts) this.amounts.set(key, amount);
        for (const [place, name] of aliases) this.aliases.set(place, name);
        list.push(before.value as T);
        continue;
      }
      const recording = (this.recording = new Recording());
      const problems = this.problems.length;
      try {
        const value = make(entry, i);
        list.push(value);
        this.before.compiled++;
        if (!recording.spoiled && this.problems.length === problems)
          this.before.made.set(entry, work, { value, position: i, beside: others, recording });
      } finally {
        this.recording = undefined;
      }
      yield;
    }
    return list;
  }

  entries<T>(chapter: string): readonly T[] {
    const entries = entriesIn<T>(this.all, chapter);
    this.recording?.read(`${chapter}/`, ({ all }) => entriesIn<T>(all, chapter) === entries);
    return entries;
  }

  /** An entry by its id; undefined for one that does not exist, which the references' own check has reported. */
  entry<T>(chapter: string, id: string): T | undefined {
    const entry = entryOf<T>(this.all, chapter, id);
    this.recording?.read(`${chapter}/${id}`, ({ all }) => entryOf<T>(all, chapter, id) === entry);
    return entry;
  }

  /** What an entry says in some of its fields, for who reads no more of it; undefined for one that does not exist. */
  fields<T extends object, K extends keyof T & string>(chapter: string, id: string, ...fields: readonly K[]): Pick<T, K> | undefined {
    const entry = entryOf<T>(this.all, chapter, id);
    if (this.recording)
      for (const field of fields)
        this.recording.read(`${chapter}/${id}.${field}`, ({ all }) => entryOf<T>(all, chapter, id)?.[field] === entry?.[field]);
    return entry;
  }

  section<T>(key: string): T {
    const section = this.all.document[key];
    this.recording?.read(key, ({ all }) => all.document[key] === section);
    return section as T;
  }

  /** The position of an entry; 0 for an id that does not exist, which the references' own check has reported. */
  index(chapter: string, id: string): number {
    const { ids } = this.all.chapters.get(chapter) ?? NO_CHAPTER;
    const position = positionIn(ids, id);
    this.recording?.read(`${chapter}#${id}`, ({ all }) => {
      const now = all.chapters.get(chapter) ?? NO_CHAPTER;
      return now.ids === ids || positionIn(now.ids, id) === position;
    });
    return Math.max(0, position);
  }

  /** What a place is called in the chapter that it is in: the entry's id at its position. Nothing for a place in no chapter. */
  private entryAt([chapter, position]: Path): Chapter['entries'][number] | undefined {
    if (typeof position !== 'number') return undefined;
    const entry = this.all.chapters.get(String(chapter))?.entries[position];
    this.recording?.read(`${chapter}@${position}`, ({ all }) => all.chapters.get(String(chapter))?.entries[position] === entry);
    return entry;
  }

  /** Ticks of an authored time span, rounded up. */
  ticks(text: string): number {
    return Math.ceil((toMilliseconds(text) * this.tickRate) / 1000 - 1e-9);
  }

  problem(path: Path, message: string): void {
    this.problems.push({ path: pointer(path), message });
  }

  formula(
    text: string,
    yields: 'amount' | 'condition',
    parties: readonly PartyName[],
    event: readonly string[] = [],
    locals: readonly string[] = [],
  ): CompiledFormula {
    return this.looked(() => compileFormula(text, this.all.vocabulary, { yields, parties, event, locals })) ?? NOTHING;
  }

  /** A text with formulas in braces; undefined where it can't be read. */
  text(text: string, place: FormulaPlace): CompiledText | undefined {
    return this.looked(() => compileText(text, this.all.vocabulary, place));
  }

  private looked<F extends { readonly lookups: readonly Lookup[] }>(compile: () => F): F | undefined {
    const { vocabulary } = this.all;
    try {
      const formula = compile();
      for (const lookup of formula.lookups)
        this.recording?.read(
          `${lookup.word}(${lookup.id}`,
          ({ all }) => all.vocabulary === vocabulary || meansTheSame(all.vocabulary, lookup),
        );
      return formula;
    } catch (error) {
      if (!(error instanceof FormulaError)) throw error;
      // Formulas have been checked where they stand; an incomplete document still gets its other problems listed.
      this.spoil();
      return undefined;
    }
  }

  amount(source: AmountSource, path: Path, parties: readonly PartyName[] = [], event: readonly string[] = []): Amount {
    if (typeof source === 'number') {
      const constant = toGrid(source);
      return { run: () => constant, constant, references: [] };
    }
    if (typeof source === 'string') return this.formula(source, 'amount', parties, event);
    const [least, most] = source.random;
    const purpose = this.purpose(path);
    const span = source.whole ? Math.floor(most) - Math.ceil(least) + 1 : most - least;
    const draw = (world: World, parties: Parties) => world.rollFor(purpose, parties);
    const run: FormulaFunction = source.whole
      ? (world, parties) => Math.ceil(least) + Math.floor(draw(world, parties) * span)
      : (world, parties) => toGrid(least + draw(world, parties) * span);
    return { run, references: [] };
  }

  /** A number, or a formula over amounts that stand in this place alone; what runs it gives them as the event. */
  amountOver(source: number | string, locals: readonly string[]): Amount {
    return typeof source === 'number' ? this.amount(source, []) : this.formula(source, 'amount', [], [], locals);
  }

  condition(text: string, parties: readonly PartyName[] = []): FormulaFunction {
    return this.formula(text, 'condition', parties).run;
  }

  /**
   * Compiles a list of actions. They run in order, each for every actor its `to` selects.
   * @param whom for whom an action is that says nothing, in the list and in those inside it; as in the list around it where it is left out
   * @param shared whether it follows for each of several, and may have actions that follow once; as in the list around it where it is left out
   */
  then(actions: Then, path: Path, rest: CompiledThen = NO_MORE, whom = this.whom, shared = this.shared): CompiledThen {
    const around = { whom: this.whom, shared: this.shared };
    [this.whom, this.shared] = [whom, shared];
    // From the end: each is told what stands after it.
    const list = actions.reduceRight<CompiledThen>((after, action, i) => this.step(action, [...path, i], after), rest);
    [this.whom, this.shared] = [around.whom, around.shared];
    return list;
  }

  private step({ once, ...action }: Then[number], path: Path, after: CompiledThen): CompiledThen {
    const run = this.action(action, path, after);
    if (!once) return run;
    if (!this.shared)
      this.problem([...path, 'once'], 'Only what follows from a quest that is shared can follow once for all who share it: take this out.');
    return (world, parties) => (parties.repeated ? after : run)(world, parties);
  }

  private action({ do: name, to = this.whom, ...args }: Then[number], path: Path, after: CompiledThen): CompiledThen {
    const spec = this.registry.actions.get(name)!;
    const rule = this.ruleAt(path);
    const place = this.placeOf(path);
    if (spec.steer) {
      const steered = spec.steer(args, this, path, after);
      return (world, parties) => {
        if (!world.spend(1, rule)) return;
        world.ran?.places.add(place);
        steered(world, parties);
      };
    }
    const run = spec.compile!(args, this, path);
    const select = this.selector(to);
    return (world, parties) => {
      for (const actor of select(world, parties)) {
        if (world.actors.rowOf(actor) < 0) continue;
        // Past what a tick may do a list stops where it is.
        if (!world.spend(1, rule)) return;
        world.ran?.places.add(place);
        run(world, actor, parties);
      }
      after(world, parties);
    };
  }

  /** The rule that a place belongs to, as {@link Rules.acting} counts them: an entry of a chapter, or a value of the document; -1 for a place in neither. */
  ruleAt(path: Path): number {
    const entry = this.entryAt(path);
    if (!entry && this.registry.sections.get(String(path[0]))?.kind !== 'value') return -1;
    const key = entry ? `${path[0]}/${entry.id}` : String(path[0]);
    const { acting } = this.before;
    const known = acting.get(key);
    if (known !== undefined) return known;
    acting.set(key, acting.size);
    return acting.size - 1;
  }

  /** A place in an entry by the entry's id; nothing for a place in no chapter. */
  placeOf(path: Path): string {
    const entry = this.entryAt(path);
    return entry ? [path[0], entry.id, ...path.slice(2)].join('/') : '';
  }

  /** Keeps a piece of a list under a number that means the same after a restart and after edits elsewhere. */
  keep(path: Path, piece: CompiledThen): number {
    const key = this.purpose(path);
    this.pieces.set(key, piece);
    this.recording?.pieces.push([key, piece]);
    return key;
  }

  /** Keeps an amount that is to be asked again while the world runs. */
  keepAmount(path: Path, amount: Amount): number {
    const key = this.purpose(path);
    this.amounts.set(key, amount);
    this.recording?.amounts.push([key, amount]);
    return key;
  }

  /** An event to wait for, with what has to be true of it, for a listener that is one of its parties. */
  pattern(source: Pattern): CompiledPattern {
    const { on, who = 'subject', where, ...fields } = source;
    const wanted = Object.entries(fields).filter(([, value]) => value !== undefined);
    const { carries } = this.registry.events.get(on) ?? {};
    const test =
      where === undefined ? undefined : this.formula(where, 'condition', ['source', 'target', 'subject'], carries?.amounts ?? []).run;
    return {
      event: on,
      matches: (world, event, owner) => {
        if (who !== 'anyone' && event[who] !== owner) return false;
        for (const [field, value] of wanted) if (event.data[field] !== value) return false;
        const { subject, source: by, target, data } = event;
        return !test || test(world, { owner, subject, source: by, target, event: data }) !== 0;
      },
    };
  }

  /** A time such as "8s", or a formula that yields seconds, as an amount of seconds. */
  seconds(source: AmountSource, path: Path, parties: readonly PartyName[] = []): Amount {
    return this.amount(isDuration(source) ? toMilliseconds(source) / 1000 : source, path, parties);
  }

  private selector(to: unknown): (world: World, parties: Parties) => readonly number[] {
    if (to === 'self') return (_, p) => [p.owner];
    if (to === 'source') return (_, p) => [p.source];
    if (to === 'target') return (_, p) => [p.target];
    for (const spec of this.registry.selectors.values()) if (spec.matches(to)) return spec.select(to);
    throw new Error(`No selector reads ${JSON.stringify(to)}`);
  }

  /** Has a place in a list go by a name of its own, so that what is kept by places survives a reordering. */
  alias(path: Path, name: string): void {
    const place = pointer(path);
    this.aliases.set(place, name);
    this.recording?.aliases.push([place, name]);
  }

  /** What a roll is for: its place, with entries by id, so that reordering entries changes nobody's luck. */
  purpose(path: Path): number {
    const [chapter, position, ...rest] = path.map((part, n) => (n < 2 ? part : (this.aliases.get(pointer(path.slice(0, n + 1))) ?? part)));
    const entry = this.entryAt(path);
    // By the first id it ever had: a renamed entry keeps its luck, and what waits in it goes on.
    const id = entry ? (entry.formerly?.[0] ?? entry.id) : position;
    return hashText([chapter, id, ...rest].join('/'));
  }
}
