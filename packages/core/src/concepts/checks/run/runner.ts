import type { Command } from '../../../world/commands.js';
import { atOnce } from '../../../ruleset/parts.js';
import { actorOfSeat } from '../../seats/index.js';
import { checkInput } from '../../../ruleset/requests.js';
import type { Rules } from '../../../ruleset/rules.js';
import type { GameEvent } from '../../../world/events.js';
import type { SavedPlayer } from '../../../world/saved.js';
import type { World } from '../../../world/world.js';
import type { CheckEntry, Step, Time } from '../schema.js';
import type { Footprint } from './footprint.js';
import { askedOf, lackingIn } from './formulas.js';
import type { Grounds } from './grounds.js';
import { Mistake } from './mistake.js';
import { unknownIn } from './names.js';
import type { Outcome, RunResult } from './result.js';
import { confirm, pokeOf, savedOf, settingOf } from './setup.js';
import { FIRST, Story } from './story.js';
import { ticksIn } from './time-words.js';
import { hearing, isOfRuleset, lastingTest, testOf } from './expectations.js';
import type { Test, Verdict, Watched } from './verdicts.js';

/** Longest that a check may run, in ticks: half an hour at 20 a second. */
export const MOST_TICKS = 36_000;
/** So long a check that has failed runs on, in seconds, to see when something happens that did not when it should. */
const LATE_S = 5;
/** After so many ticks others have their turn. */
const TICKS_IN_A_PART = 50;

/** Who looks on as a check runs. */
export interface Watcher {
  /** After what is given is in place, and after each tick. */
  tick(story: Story, events: readonly GameEvent[], watched: readonly Watched[]): void;
}

/** A step of a check, ready to be run: what is done at once, or what is waited for. */
type Ready =
  | { readonly does: Command }
  | { readonly passes: number }
  | { readonly restarts: true }
  | { readonly joins: string }
  | { readonly leaves: string }
  | { readonly returns: string }
  | { readonly path: string; readonly within: number; readonly until: (story: Story, events: readonly GameEvent[]) => boolean };

interface Stage {
  readonly steps: readonly Ready[];
  readonly tests: readonly Test[];
}

/**
 * Runs a check, or one row of it, in a world of its own; as work in parts. Whatever is wrong with it is in the result.
 * @param entry what is wanted, without changes to the rules and without rows: those are made before
 * @param footprint takes what it runs through
 */
export function* runPlain(grounds: Grounds, entry: CheckEntry, footprint: Footprint, watcher?: Watcher): Generator<void, RunResult> {
  const outcomes: Outcome[] = [];
  const unknown = unknownIn(grounds.rules, entry);
  if (unknown.length > 0) return { ok: false, ticks: 0, outcomes, mistakes: unknown.map(told) };
  const run = new Run(grounds, entry, footprint, watcher, outcomes);
  try {
    yield* run.all();
  } catch (error) {
    if (!(error instanceof Mistake)) throw error;
    return { ok: false, ticks: run.ticks, outcomes, mistakes: [told(error)] };
  }
  return { ok: outcomes.every(({ holds }) => holds), ticks: run.ticks, outcomes, mistakes: [] };
}

/**
 * Runs a check that speaks of nothing but what there is, until something that always has to hold does not; at once.
 * @returns what did not hold; undefined where all of it did
 */
export function firstBroken(
  grounds: Grounds,
  entry: CheckEntry,
  footprint: Footprint,
): { readonly broken?: Outcome; readonly ticks: number } {
  const outcomes: Outcome[] = [];
  const run = new Run(grounds, entry, footprint, undefined, outcomes, true);
  try {
    atOnce(run.all());
  } catch (error) {
    if (!(error instanceof Mistake) && !(error instanceof Over)) throw error;
  }
  return { ticks: run.ticks, ...(run.broken && { broken: run.broken }) };
}

/** There is no need to run on. */
class Over extends Error {}

/** A mistake as a result tells it. */
export const told = ({ path, message }: Mistake): RunResult['mistakes'][number] => ({ path, message });

class Run {
  ticks = 0;
  /** What did not hold last of what always has to. */
  broken: Outcome | undefined;
  private readonly rules: Rules;
  private readonly world: World;
  private readonly setting: World;
  private readonly story: Story;
  private readonly running: Test[] = [];
  /** Those that did not hold of what has to happen at a time, by where their outcomes stand. */
  private readonly late = new Map<number, Test>();
  private lasting: readonly { readonly test: Test; broken?: Outcome }[] = [];
  private pending: Command[] = [];
  /** The names of those who have come in, and of those who come in with the next tick. */
  private readonly came = new Set<string>();
  private coming: string[] = [];
  /** What was kept of those who left, by name. */
  private readonly away = new Map<string, SavedPlayer | undefined>();
  private watched: readonly Watched[] = [];

  constructor(
    private readonly grounds: Grounds,
    private readonly entry: CheckEntry,
    private readonly footprint: Footprint,
    private readonly watcher: Watcher | undefined,
    private readonly outcomes: Outcome[],
    private readonly untilBroken = false,
  ) {
    const { world, setting } = grounds.for(entry);
    this.world = world;
    this.setting = setting;
    for (const one of [world, setting]) one.ran = footprint;
    this.rules = world.rules;
    this.story = new Story(world, entry.given);
  }

  *all(): Generator<void, void> {
    const { entry, rules, story, world, setting } = this;
    for (const { name, later } of entry.given) if (!later) this.came.add(name);
    const here = [...this.came];
    const commands = settingOf(rules, entry.given, entry.ground === 'bare', here);
    this.refuseAbsent();
    const stages = entry.stages.map((stage, i) => this.stageOf(stage, `stages/${i}`));
    this.lasting = (entry.always ?? []).map((one, i) => ({
      test: lastingTest(rules, one, `always/${i}`, (event) => this.footprint.ruleOf(event)),
    }));
    this.watched = [
      ...[...this.running, ...this.lasting.map(({ test }) => test)].map(({ watches }) => watches),
      ...entry.given.map((one) => ({ of: one.name, attributes: (one.with ?? []).map(({ attribute }) => attribute) })),
    ];
    this.footprint.note(setting.step(commands));
    confirm(setting, entry.given, here);
    world.rewind(setting.snapshot());
    this.ticks = FIRST;
    this.look([]);
    for (const { steps, tests } of stages) {
      for (const step of steps) yield* this.take(step);
      if (this.pending.length > 0) this.tick();
      for (const test of tests) yield* this.settle(test);
    }
    yield* this.seeMore();
    for (const one of this.lasting) {
      const { test } = one;
      if (!one.broken && test.end) this.settleLasting(one, test.end(story));
      this.outcomes.push(one.broken ?? { path: test.path, holds: true, t: story.at(), says: test.look(story).says });
    }
    yield* this.seeLate();
  }

  /** Runs on to see when something comes that did not when it should: all that is looked at has been by then. */
  private *seeLate(): Generator<void, void> {
    const { late, rules, story } = this;
    const isOpen = () => [...late.values()].some((test) => test.isLate!(story));
    for (let left = LATE_S * rules.tickRate; left > 0 && this.ticks < MOST_TICKS && isOpen(); left--) {
      this.tick();
      if (this.ticks % TICKS_IN_A_PART === 0) yield;
    }
    for (const [at, test] of late) {
      const { holds: _, ...now } = test.look(story);
      this.outcomes[at] = { ...this.outcomes[at], ...now };
    }
  }

  /** Runs on while something that always has to hold needs to see more, for as long as it says at first. */
  private *seeMore(): Generator<void, void> {
    const open = () => Math.max(0, ...this.lasting.map(({ test, broken }) => (broken ? 0 : (test.waitsFor?.(this.story) ?? 0))));
    for (let left = open(); left > 0 && open() > 0; left--) {
      this.tick();
      if (this.ticks % TICKS_IN_A_PART === 0) yield;
    }
  }

  private settleLasting(one: { readonly test: Test; broken?: Outcome }, { holds, says, failure }: Verdict): void {
    if (holds) return;
    this.broken = one.broken = { path: one.test.path, holds, t: this.story.at(), says, ...(failure && { failure }) };
    if (this.untilBroken) throw new Over();
  }

  private stageOf({ when, then }: CheckEntry['stages'][number], path: string): Stage {
    const tests = then.flatMap((test, i) => (isOfRuleset(test) ? [] : [testOf(this.rules, test, `${path}/then/${i}`)]));
    this.running.push(...tests);
    return { tests, steps: when.map((step, i) => this.stepOf(step, `${path}/when/${i}`)) };
  }

  private stepOf(step: Step, path: string): Ready {
    const { rules } = this;
    const ticks = (time: Time) => ticksIn(rules, time);
    if ('pass' in step) return { passes: ticks(step.pass) };
    if ('restarts' in step) return { restarts: true };
    if ('joins' in step) return { joins: this.awaited(step.joins, `${path}/joins`) };
    if ('leaves' in step) return { leaves: this.named(step.leaves, `${path}/leaves`) };
    if ('returns' in step) return { returns: this.named(step.returns, `${path}/returns`) };
    if ('seat' in step) return { does: this.inputOf(step, path) };
    if ('action' in step) {
      for (const field of ['on', 'from'] as const) if (step[field] !== undefined) this.named(step[field], `${path}/${field}`);
      return { does: pokeOf(rules, step.action, step, `${path}/action`) };
    }
    if ('untilEvent' in step) {
      const isMeant = hearing(rules, step.untilEvent, step.of);
      return { path, within: ticks(step.within), until: (story, events) => events.some((event) => isMeant(story, event)) };
    }
    const asked = askedOf(rules, step.until, 'condition', `${path}/until`);
    const until = (story: Story) => {
      const members = story.of(step.of);
      return (
        members.length > 0 &&
        members.every(({ actor }) => lackingIn(story.world, actor, asked) === undefined && asked.run(story.world, actor) !== 0)
      );
    };
    return { path, within: ticks(step.within), until };
  }

  private inputOf({ seat, input }: Extract<Step, { seat: string }>, path: string): Command {
    const { value, problems } = checkInput(input);
    if (!value) throw new Mistake(`${path}/input${problems[0].path}`, problems[0].message);
    const wrong = this.rules.registry.inputs.get(value.do)?.check?.(this.rules, value);
    if (wrong) throw new Mistake(`${path}/input/${wrong.argument}`, wrong.message);
    return { kind: 'input', args: { seat: this.named(seat, `${path}/seat`), input: value } };
  }

  /** A name of one of those that are given; in the arena of whoever else is there. */
  private named(name: string, path: string): string {
    if (this.entry.ground === 'arena' || this.entry.given.some((one) => one.name === name)) return name;
    throw new Mistake(path, this.story.nobody(name));
  }

  /** A name of one of those who come later. */
  private awaited(name: string, path: string): string {
    const one = this.entry.given.find((given) => given.name === this.named(name, path));
    if (one?.later) return name;
    throw new Mistake(path, `${name} is there from the beginning: say of them, where they are given, that they come later.`);
  }

  /** @throws Mistake where somebody is to come later whom no step has come in */
  private refuseAbsent(): void {
    const { given, stages } = this.entry;
    const joining = stages.flatMap(({ when }) => when.flatMap((step) => ('joins' in step ? [step.joins] : [])));
    const absent = given.findIndex(({ name, later }) => later && !joining.includes(name));
    if (absent >= 0) throw new Mistake(`given/${absent}/later`, `${given[absent].name} comes later, and no step has them come in.`);
  }

  private *take(step: Ready): Generator<void, void> {
    if ('does' in step) return void this.pending.push(step.does);
    if ('joins' in step) {
      if (this.came.has(step.joins)) return;
      this.came.add(step.joins);
      this.coming.push(step.joins);
      const { given, ground } = this.entry;
      return void this.pending.push(...settingOf(this.rules, given, ground === 'bare', [step.joins]));
    }
    if ('restarts' in step || 'leaves' in step || 'returns' in step) {
      // What was asked for before has come about by then.
      if (this.pending.length > 0) this.tick();
      if ('restarts' in step) return this.restart();
      if ('returns' in step) {
        if (actorOfSeat(this.world, step.returns) === 0) this.pending.push(...this.comingBack([step.returns], this.away));
        return;
      }
      if (actorOfSeat(this.world, step.leaves) === 0) return;
      this.away.set(step.leaves, savedOf(this.world, step.leaves));
      return void this.pending.push({ kind: 'leave', args: { seat: step.leaves } });
    }
    if ('passes' in step) {
      for (let i = 0; i < step.passes; i++) {
        this.tick();
        if (this.ticks % TICKS_IN_A_PART === 0) yield;
      }
      return;
    }
    for (let i = 0; i < step.within; i++) {
      const events = this.tick();
      if (step.until(this.story, events)) return;
      if (this.ticks % TICKS_IN_A_PART === 0) yield;
    }
    const seconds = Math.round((step.within / this.rules.tickRate) * 1000) / 1000;
    throw new Mistake(step.path, `This did not come about within ${seconds} s.`);
  }

  /** Has the game begin anew: those who were given come in again, players with what was kept of them, and nothing else is there. */
  private restart(): void {
    const { entry, story, world } = this;
    const kept = new Map(entry.given.map(({ name }) => [name, savedOf(world, name) ?? this.away.get(name)] as const));
    // Before the ground is asked for again: that has the world begin anew.
    story.restart();
    const { setting } = this.grounds.for(entry);
    const names = entry.given.flatMap(({ name }) => (this.came.has(name) ? [name] : []));
    const events = setting.step(this.comingBack(names, kept));
    world.rewind(setting.snapshot());
    this.look(events);
  }

  /** Has some of those who were given come in as they did, players with what was kept of them. */
  private comingBack(names: readonly string[], kept: ReadonlyMap<string, SavedPlayer | undefined>): readonly Command[] {
    const { entry, rules } = this;
    const given = entry.given.map(({ with: _with, effects: _effects, statuses: _statuses, ...who }) => who);
    return settingOf(rules, given, entry.ground === 'bare', names).map((one): Command => {
      const saved = one.kind === 'join' ? kept.get(String(one.args['seat'])) : undefined;
      return saved ? { ...one, args: { ...one.args, saved } } : one;
    });
  }

  private *settle(test: Test): Generator<void, void> {
    test.begins?.(this.story);
    const most = test.until === undefined ? test.within : test.until + FIRST - this.ticks;
    for (let i = 0; i < most && (test.waits || !test.look(this.story).holds); i++) {
      this.tick();
      if (this.ticks % TICKS_IN_A_PART === 0) yield;
    }
    const { holds, says, failure } = (test.settle ?? test.look)(this.story);
    if (!holds && test.isLate?.(this.story)) this.late.set(this.outcomes.length, test);
    this.outcomes.push({ path: test.path, holds, t: this.story.at(), says, ...(failure && { failure }) });
  }

  private tick(): readonly GameEvent[] {
    if (this.ticks >= MOST_TICKS) throw new Mistake('stages', `A check runs for at most ${MOST_TICKS} ticks, and this one goes on.`);
    const events = this.world.step(this.pending);
    this.pending = [];
    this.ticks++;
    if (this.coming.length > 0) confirm(this.world, this.entry.given, this.coming);
    this.coming = [];
    this.look(events);
    return events;
  }

  private look(events: readonly GameEvent[]): void {
    const { story } = this;
    story.look();
    story.note(events);
    this.footprint.note(events);
    for (const event of events) {
      for (const test of this.running) test.hear?.(story, event);
      for (const { test } of this.lasting) test.hear?.(story, event);
    }
    for (const one of this.lasting) {
      if (one.broken) continue;
      this.settleLasting(one, one.test.look(story));
    }
    this.watcher?.tick(story, events, this.watched);
  }
}
