import type { Parties } from '../formula/index.js';
import type { Rules } from '../ruleset/rules.js';
import { actorTable } from './actors.js';
import { adoptTables } from './adopt.js';
import { Block, type BlockCopy } from './block.js';
import { Budget, NO_RULE, ROWS_A_STEP } from './budget.js';
import { type Command, CommandError, commandProblems } from './commands.js';
import { ANSWERING, PHASES } from './concept.js';
import type { EventFields } from './event-fields.js';
import { DEEPEST_CAUSE, type Declared, type EventData, type EventParties, type EventSpec, type GameEvent, MOST_EVENTS } from './events.js';
import { Hasher, rollOf } from './hash.js';
import type { Ran } from './ran.js';
import { Luck, rollTable } from './rolls.js';
import type { TableOf } from './define-table.js';
import { Table } from './table.js';
import { Texts } from './texts.js';
import { Timers, timerTable } from './timers.js';
import { Turns } from './turns.js';

/** A world's whole state, apart from its rules. */
export interface Snapshot extends BlockCopy {
  readonly header: readonly number[];
  readonly texts: readonly string[];
}

/** Places in the header. */
const TICK = 0;
const SERIAL = 1;
const SEED = 2;
const CUT = 3;

/**
 * A running game: tables, a tick, a queue. The same rules, seed and commands give the same world, to the bit, wherever
 * it runs. State lives in tables, texts and the header alone; everything else here is derived or empty between ticks.
 * @public
 * @example
 * const world = World.start(rules, 42);
 * world.step([{ kind: 'join', args: { seat: 'north' } }]);
 * const events = world.step([{ kind: 'input', args: { seat: 'north', input: { do: 'use', ability: 'torch' } } }]);
 */
export class World {
  readonly tables = new Map<string, Table>();
  private readonly block: Block;
  readonly attached = new Map<string, unknown>();
  readonly actors: TableOf<typeof actorTable>;
  private readonly luck: Luck;
  private readonly timers: Timers;
  /** Who comes first among those who act in one tick. */
  readonly turns = new Turns(this);
  private readonly budget: Budget;
  private overspent = false;
  private header = [0, 0, 0, 0];
  private readonly texts = new Texts();
  private queue: GameEvent[] = [];
  private log: GameEvent[] = [];
  private current: GameEvent | undefined;
  private currentCause: GameEvent | undefined;
  private marks = new Int32Array(64);
  /** Takes what is run and by which rules; nobody wants to know where it is not there. */
  ran: Ran | undefined;
  /** How often any actor was touched. */
  touches = 0;

  private constructor(readonly rules: Rules) {
    for (const spec of [timerTable, rollTable, ...rules.tables]) {
      if (this.tables.has(spec.name)) throw new Error(`Two concepts declare the table ${spec.name}`);
      this.tables.set(spec.name, new Table(spec, spec.extends === undefined ? undefined : this.table(spec.extends)));
    }
    this.block = new Block([...this.tables.values()]);
    this.actors = actorTable.in(this);
    this.luck = new Luck(rollTable.in(this), this.actors);
    this.timers = new Timers(this, timerTable.in(this));
    this.budget = new Budget(rules.acting);
    for (const concept of rules.registry.concepts)
      this.attached.set(concept.id, concept.attach?.(this, rules.compiled.get(concept.id) as never));
  }

  /** A new world at tick 0. `seed` is a 32-bit whole number. */
  static start(rules: Rules, seed: number): World {
    const world = new World(rules);
    world.header[SEED] = seed | 0;
    rules.registry.lifecycle('worldStarted', world);
    return world.withoutEvents();
  }

  /** The world as it was when the snapshot was taken. */
  static restore(rules: Rules, snapshot: Snapshot): World {
    const world = new World(rules);
    world.rewind(snapshot);
    return world;
  }

  /**
   * Has this world be what it was when a snapshot was taken, of it or of another: it goes on from there. Costs a copy of the
   * snapshot where both run under the same rules.
   * @param roomy whether tables that have grown since keep their room: a snapshot that is taken then costs no growing any more
   */
  rewind(snapshot: Snapshot, roomy = false): void {
    this.header = [...snapshot.header];
    this.texts.become(snapshot.texts);
    this.block.restore(snapshot, roomy);
    // What was worked out from the tables before is stale, of everybody.
    for (let row = 0; row < this.marks.length; row++) this.marks[row]++;
    this.touches++;
    this.withoutEvents();
  }

  /** Whether its tables have the room that they had when a snapshot was taken, and lie in the same order: going back costs one copy then. */
  liesAs(snapshot: Snapshot): boolean {
    return this.block.liesAs(snapshot);
  }

  /** This world, running on under other rules: what both know keeps its value, nobody is thrown out. */
  adopt(rules: Rules): World {
    const next = new World(rules);
    next.header = [...this.header];
    next.texts.become(this.texts.copy());
    adoptTables(this, next);
    rules.registry.lifecycle('rulesAdopted', next, this);
    return next.withoutEvents();
  }

  /** Drops what was announced outside a tick: what is there from the beginning, or by an edit, has happened to nobody. */
  private withoutEvents(): this {
    this.queue = [];
    this.log = [];
    return this;
  }

  get tick(): number {
    return this.header[TICK];
  }

  get seed(): number {
    return this.header[SEED];
  }

  /** @throws when there is none of that name: a mistake in the code, never in a ruleset */
  table(name: string): Table {
    const table = this.tables.get(name);
    if (!table) throw new Error(`The world has no table ${name}`);
    return table;
  }

  /** The position of a text in the world's list, added where it is new. */
  textIndex(text: string): number {
    return this.texts.index(text);
  }

  text(index: number): string {
    return this.texts.at(index);
  }

  /** Notes that an actor's stats or statuses may have moved: what was worked out from them before is stale. */
  touch(row: number): void {
    if (row >= this.marks.length) {
      const grown = new Int32Array(Math.max(row + 1, this.marks.length * 2));
      grown.set(this.marks);
      this.marks = grown;
    }
    this.marks[row]++;
    this.touches++;
  }

  /** How often each actor was touched, by row; rows beyond its end never were. */
  get touched(): Int32Array {
    return this.marks;
  }

  /** What an actor is called, or nothing where it has gone. */
  nameOf(actor: number): string {
    const row = this.actors.rowOf(actor);
    return row < 0 ? '' : this.text(this.actors.cells.name[row]);
  }

  /**
   * Runs one tick and returns all that happened in it, in order.
   * @param commands what came from outside since the last tick, in the order in which it came. Of what several actors ask for
   *   in one tick, whose comes first is drawn; what one asks for stays in its order
   * @throws CommandError where one of them can't be run under any circumstances; the world is then as it was
   */
  step(commands: readonly Command[] = []): readonly GameEvent[] {
    const problems = commands.length === 0 ? [] : commandProblems(this.rules, commands);
    if (problems.length > 0) throw new CommandError(problems);
    this.header[TICK]++;
    this.header[CUT] = 0;
    this.log = [];
    this.budget.begin();
    this.overspent = false;
    const { registry } = this.rules;
    for (const command of this.turns.commands(commands)) {
      this.budget.rule = NO_RULE;
      registry.commands.get(command.kind)?.run(this, command.args);
      this.current = undefined;
    }
    for (const phase of PHASES) {
      if (phase === 'timers') this.timers.fire();
      for (const system of registry.systems[phase]) {
        this.budget.rule = NO_RULE;
        system(this);
        this.current = undefined;
      }
      if (phase === ANSWERING) this.emptyQueue();
    }
    this.budget.end();
    return this.log;
  }

  /**
   * Takes so many steps out of what a tick may do. Past that the tick is cut, which is recorded once: whoever asked leaves
   * undone what it was about to do.
   * @param rule the rule that it is for, as {@link Rules.acting} counts them, which stays the one at work; that one where it is left out
   */
  spend(steps: number, rule = this.budget.rule): boolean {
    this.budget.rule = rule;
    if (this.budget.take(steps)) return true;
    if (this.overspent) return false;
    this.overspent = true;
    const largest = this.budget.largest;
    this.record('tickCut', {}, { rule: this.rules.acting[largest.rule] ?? '', share: largest.steps / Math.max(1, this.budget.steps) }, 0);
    return false;
  }

  /**
   * Takes what it costs to look through so many rows out of what a tick may do, for the rule at work. Returns whether the tick
   * has any steps left: where it has not, whoever asked takes it that there is nothing to be found.
   */
  lookThrough(rows: number): boolean {
    return this.spend(rows / ROWS_A_STEP);
  }

  /** Whether the tick has steps left. What looks for itself from now on does so for a rule. */
  goesOn(rule: number): boolean {
    return this.spend(0, rule);
  }

  /** How many steps this tick has taken so far; 0 between ticks. */
  get steps(): number {
    return this.budget.steps;
  }

  /**
   * Announces something, after the state it speaks of is in place. Listeners hear it in the reactions phase.
   * The cause is the event being answered, or the input being run, when this is called.
   */
  emit<F extends EventFields, D>(event: EventSpec<F>, parties: EventParties, data?: Declared<D, F>): void {
    this.announce(event, parties, data);
  }

  /** Announces something and returns it, for use as a cause; undefined where the loop is cut. */
  announce<F extends EventFields, D>({ name }: EventSpec<F>, parties: EventParties, data?: Declared<D, F>): GameEvent | undefined {
    if (!this.mayFollow(name, parties)) return undefined;
    const depth = this.current ? this.current.depth + 1 : 0;
    const event = this.record(name, parties, data ?? {}, depth);
    this.queue.push(event);
    const { announceListeners } = this.rules.registry;
    const { current, currentCause } = this;
    this.currentCause = current;
    for (let i = 0; i < announceListeners.length; i++) {
      this.current = event;
      announceListeners[i](this, event);
    }
    this.current = current;
    this.currentCause = currentCause;
    return event;
  }

  /**
   * Whether something may still follow from what is being done. Where it may not, the loop is cut: that is recorded once a
   * tick, and whoever asked leaves it at that.
   */
  mayFollow(name: string, parties: EventParties): boolean {
    const depth = this.current ? this.current.depth + 1 : 0;
    // What arises by itself is told in any case; what follows from it costs.
    if (depth <= DEEPEST_CAUSE && this.log.length < MOST_EVENTS) return this.spend(1) || !this.current;
    if (this.header[CUT]++ === 0) this.record('loopCut', parties, { event: name }, 0);
    return false;
  }

  /** The serial of the event or input that is being answered; 0 where none is. */
  get cause(): number {
    return this.current?.serial ?? 0;
  }

  /** Runs `work` as following from an event of an earlier tick. What is being answered already stays the cause. */
  since(serial: number, work: () => void): void {
    if (serial === 0 || this.current) return work();
    this.current = { serial, tick: this.tick, name: '', cause: 0, depth: 0, subject: 0, source: 0, target: 0, who: '', by: '', data: {} };
    work();
    this.current = undefined;
  }

  /** Announces something and runs what follows from it; where the loop is cut, neither. */
  follow<F extends EventFields, D>(event: EventSpec<F>, parties: EventParties, data: Declared<D, F>, work: () => void): void {
    const announced = this.announce(event, parties, data);
    if (announced) this.because(announced, work);
  }

  private record(name: string, parties: EventParties, data: EventData, depth: number): GameEvent {
    const { subject = 0, source = 0, target = 0 } = parties;
    const event: GameEvent = {
      serial: ++this.header[SERIAL],
      tick: this.tick,
      name,
      cause: this.current?.serial ?? 0,
      depth,
      subject,
      source,
      target,
      who: this.nameOf(subject),
      by: this.nameOf(source),
      data,
    };
    this.log.push(event);
    this.ran?.noteRule(event, this.rules.acting[this.budget.rule]);
    return event;
  }

  /** Runs `work` with this event as the cause of all it announces. */
  because(event: GameEvent | undefined, work: () => void): void {
    const { current: before, currentCause } = this;
    if (event) this.currentCause = before;
    this.current = event ?? before;
    work();
    this.current = before;
    this.currentCause = currentCause;
  }

  /** While an event is announced: the event or input that led to it; undefined where none of this tick did. */
  get causingEvent(): GameEvent | undefined {
    return this.currentCause;
  }

  private emptyQueue(): void {
    const { listeners, eventListeners } = this.rules.registry;
    for (let i = 0; i < this.queue.length; i++) {
      this.current = this.queue[i];
      this.budget.rule = NO_RULE;
      for (const listener of listeners.get(this.current.name) ?? []) listener(this, this.current);
      for (const hear of eventListeners) hear(this, this.current);
    }
    this.current = undefined;
    this.queue = [];
  }

  /**
   * Has a timer fire at the start of tick `now + ticks`; one set for 0 ticks fires at the next tick.
   * Returns its handle, by which it can be cancelled.
   */
  setTimer(handler: number, ticks: number, actor: number, a: number): number {
    return this.timers.set(handler, ticks, actor, a);
  }

  /** Has a timer not fire. One that has, or 0, is left as it is. */
  cancelTimer(timer: number): void {
    this.timers.cancel(timer);
  }

  /** The next random number of this purpose and actor: from 0 (included) to 1 (excluded). */
  roll(purpose: number, whose: number): number {
    this.budget.take(1);
    return this.luck.next(this.header[SEED], purpose, whose);
  }

  /** The random number of this purpose for a list of actions: the next of its owner, or that which was drawn before it ran. */
  rollFor(purpose: number, { owner, luck }: Parties): number {
    if (luck === undefined) return this.roll(purpose, owner);
    this.budget.take(1);
    return rollOf(this.header[SEED], purpose, luck, 0);
  }

  /** All that this world is, to be stored or gone on from: see {@link World.restore} and {@link World.rewind}. */
  snapshot(): Snapshot {
    return { header: [...this.header], texts: this.texts.copy(), ...this.block.copy() };
  }

  /**
   * A digest of the state of the game: equal worlds have equal digests, 16 hexadecimal digits. How many events were told on
   * the way is no part of it: a request that was refused and changed nothing leaves the world what it was.
   */
  hash(): string {
    const hasher = new Hasher();
    for (const place of [TICK, SEED]) hasher.word(this.header[place]);
    hasher.word(this.texts.word);
    for (const table of this.tables.values()) table.digest(hasher);
    return hasher.digest();
  }

  /** The parties of something an actor does to itself. */
  static alone(actor: number): Parties {
    return { owner: actor, source: actor, target: actor };
  }
}
