import {
  compileFormula,
  type CompiledFormula,
  FormulaError,
  type FormulaFunction,
  type FormulaReference,
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
import { type Chapter, entryOf, type RulesetDocument } from './rules.js';
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

const NOTHING: CompiledFormula = { text: '0', run: () => 0, references: [], constant: 0 };

/** What a concept's `compile` is given: the checked document and the compilers of the building blocks. */
export class CompileContext {
  /** For whom an action of the list that is being compiled is where it says nothing. */
  private whom: 'self' | 'target' = 'self';
  /** Whether that list follows for each of several who share what it follows from. */
  private shared = false;
  readonly problems: Problem[] = [];
  /** The rules that act by themselves, as chapter/id. */
  readonly acting: string[] = [];
  private readonly places = new Map<string, number>();
  /** Pieces of lists that a world comes back to later, and amounts that it asks again, by {@link keep}'s numbers. */
  readonly pieces = new Map<number, CompiledThen>();
  readonly amounts = new Map<number, Amount>();
  private readonly aliases = new Map<string, string>();

  constructor(
    readonly registry: Registry,
    readonly document: RulesetDocument,
    readonly chapters: ReadonlyMap<string, Chapter>,
    readonly vocabulary: Vocabulary,
    /** What concepts came to that were compiled already, by their ids. */
    readonly compiled = new Map<string, unknown>(),
  ) {}

  get tickRate(): number {
    return this.document.tickRate;
  }

  entries<T>(chapter: string): readonly T[] {
    return entriesIn<T>(this, chapter);
  }

  /** An entry by its id; undefined for one that does not exist, which the references' own check has reported. */
  entry<T>(chapter: string, id: string): T | undefined {
    return entryOf<T>(this, chapter, id);
  }

  section<T>(key: string): T {
    return this.document[key] as T;
  }

  /** The position of an entry; 0 for an id that does not exist, which the references' own check has reported. */
  index(chapter: string, id: string): number {
    return Math.max(0, positionIn(this.chapters.get(chapter)?.ids ?? [], id));
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
    try {
      return compileFormula(text, this.vocabulary, { yields, parties, event, locals });
    } catch (error) {
      // Formulas have been checked where they stand; an incomplete document still gets its other problems listed.
      if (error instanceof FormulaError) return NOTHING;
      throw error;
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
    if (spec.steer) {
      const steered = spec.steer(args, this, path, after);
      return (world, parties) => {
        if (world.spend(1, rule)) steered(world, parties);
      };
    }
    const run = spec.compile!(args, this, path);
    const select = this.selector(to);
    return (world, parties) => {
      for (const actor of select(world, parties)) {
        if (world.actors.rowOf(actor) < 0) continue;
        // Past what a tick may do a list stops where it is.
        if (!world.spend(1, rule)) return;
        run(world, actor, parties);
      }
      after(world, parties);
    };
  }

  /** The rule that a place belongs to, as {@link Rules.acting} counts them; -1 for a place in no chapter. */
  ruleAt([chapter, position]: Path): number {
    const id = typeof position === 'number' ? this.chapters.get(String(chapter))?.ids[position] : undefined;
    if (id === undefined) return -1;
    const key = `${chapter}/${id}`;
    let at = this.places.get(key);
    if (at === undefined) {
      this.places.set(key, (at = this.acting.length));
      this.acting.push(key);
    }
    return at;
  }

  /** Keeps a piece of a list under a number that means the same after a restart and after edits elsewhere. */
  keep(path: Path, piece: CompiledThen): number {
    const key = this.purpose(path);
    this.pieces.set(key, piece);
    return key;
  }

  /** Keeps an amount that is to be asked again while the world runs. */
  keepAmount(path: Path, amount: Amount): number {
    const key = this.purpose(path);
    this.amounts.set(key, amount);
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
    this.aliases.set(pointer(path), name);
  }

  /** What a roll is for: its place, with entries by id, so that reordering entries changes nobody's luck. */
  purpose(path: Path): number {
    const [chapter, position, ...rest] = path.map((part, n) => (n < 2 ? part : (this.aliases.get(pointer(path.slice(0, n + 1))) ?? part)));
    const entry = typeof position === 'number' ? this.chapters.get(String(chapter))?.entries[position] : undefined;
    // By the first id it ever had: a renamed entry keeps its luck, and what waits in it goes on.
    const id = entry ? (entry.formerly?.[0] ?? entry.id) : position;
    return hashText([chapter, id, ...rest].join('/'));
  }
}
