import * as fc from 'fast-check';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { firstBroken } from '../../checks/run/runner.js';
import { Footprint } from '../../checks/run/footprint.js';
import { Grounds } from '../../checks/run/grounds.js';
import { wordsOfStep } from '../../checks/run/step-words.js';
import type { Outcome } from '../../checks/run/result.js';
import { Mistake } from '../../checks/run/mistake.js';
import { unknownIn } from '../../checks/run/names.js';
import type { CheckEntry, Lasting, Step } from '../../checks/schema.js';
import { registry } from '../../../ruleset/registry.js';
import type { Rules } from '../../../ruleset/rules.js';
import { hashText } from '../../../world/hash.js';
import { huntChapter, type HuntEntry } from '../schema.js';
import { ticksIn } from '../../checks/run/time-words.js';
import { filled } from '../../checks/run/rows.js';
import { type Beat, Drawing } from './draw.js';
import { Focus } from './focus.js';

/** So many lucks there are: what is drawn by chance in one is drawn otherwise in the next. */
const LUCKS = 8;
/** So many ticks more than it took are run when something is left out: what is asked for in one may come about in the next. */
const SPARE = 5;
/** Most stories that are tried to make a found one shorter. */
const MOST_TRIES = 3000;

/** A story in which something that always has to hold does not. */
export interface Found {
  /** The number of the story that it was found in. */
  readonly story: number;
  /** What did not hold, and what there was instead. */
  readonly broken: Lasting;
  readonly says: string;
  /** Seconds from the beginning at which it did not. */
  readonly t: number;
  /** As short as it could be made. */
  readonly steps: readonly Step[];
  /** What happens in them, in words. */
  readonly words: readonly string[];
  /** How many things happened in it when it was found, and how many are left. */
  readonly before: number;
  readonly after: number;
  /** The check that it comes to, without an id. */
  readonly check: Omit<CheckEntry, 'id' | 'label'>;
}

/** What a go of a hunt came to. */
export interface HuntGo {
  /** Stories and ticks that were run in it. */
  readonly stories: number;
  readonly ticks: number;
  /** Something was found, and is made shorter: so many things happen in it by now. */
  readonly shrinking?: number;
  readonly found?: Found;
}

/** What keeps a hunt from being run, each with its place below it. */
export type HuntMistakes = readonly { readonly path: string; readonly message: string }[];

/** What always has to hold in a hunt: what it says, and what holds of any ruleset. */
export function alwaysOf({ always, without = [] }: HuntEntry): readonly Lasting[] {
  const built = [...registry().invariants.keys()].filter((name) => !without.includes(name));
  return [...always, ...built.map((invariant) => ({ invariant }))];
}

/** A hunt as a check in which nothing happens yet. */
const asCheck = (hunt: HuntEntry): CheckEntry => {
  const { id, label, ground, seed, given } = hunt;
  return { id, label, ground, seed, given, stages: [], always: [...alwaysOf(hunt)] };
};

/** The steps of a story, in the words of a check; time that passes in several of them is one step. */
function stepsOf(rules: Rules, beats: readonly Beat[], least: number): Step[] {
  const steps: Step[] = [];
  let passed = 0;
  let open = 0;
  const pass = () => {
    if (open > 0) steps.push({ pass: `${Math.round((open * 1000) / rules.tickRate)}ms` });
    open = 0;
  };
  const wait = (ticks: number) => {
    passed += ticks;
    open += ticks;
  };
  for (const { step, ticks } of beats) {
    if (step && 'pass' in step) wait(ticksIn(rules, step.pass));
    else if (step) {
      pass();
      steps.push(step);
    }
    wait(ticks);
  }
  if (passed < least) wait(least - passed);
  pass();
  return steps;
}

/** How many things happen in a story; that time passes is none. */
const lengthOf = (beats: readonly Beat[]) => beats.filter(({ step }) => step !== undefined && !('pass' in step)).length;

/** The luck that a story is drawn by. */
const luckOf = ({ seed }: HuntEntry, number: number) => new fc.Random(xoroshiro128plus(hashText(`${seed}/${number}`)));

/** A story without one of the things that happen in it, the last first: with the time after it and without; or without the time after one. */
function* withoutOne(beats: readonly Beat[]): Iterable<readonly Beat[]> {
  for (let i = beats.length - 1; i >= 0; i--) {
    const { ticks } = beats[i];
    if (i > 0 && ticks > 0) yield beats.flatMap((one, k) => (k === i ? [] : [k === i - 1 ? { ...one, ticks: one.ticks + ticks } : one]));
    yield beats.filter((_, k) => k !== i);
  }
  for (const [i, beat] of beats.entries()) if (beat.ticks > 0) yield beats.map((one, k) => (k === i ? { ...beat, ticks: 0 } : one));
}

/** Searches for a story in which something that has to hold does not. */
export class Search {
  readonly mistakes: HuntMistakes;
  private readonly check: CheckEntry;
  private readonly grounds: Grounds;
  private readonly footprint = new Footprint();
  private readonly drawing: Drawing;
  private ticks = 0;
  private tries = 0;
  private shrinking: Generator<void, Found> | undefined;
  private best = 0;
  found: Found | undefined;

  constructor(
    private readonly rules: Rules,
    private readonly hunt: HuntEntry,
  ) {
    this.check = asCheck(hunt);
    this.grounds = new Grounds(rules);
    this.drawing = new Drawing(rules, hunt);
    const unknown = unknownIn(rules, this.check).map(({ path, message }) => ({ path, message }));
    const later = hunt.given.findIndex((one) => one.later);
    if (later >= 0)
      unknown.push({ path: `given/${later}/later`, message: 'In a hunt everybody is there from the beginning: take this out.' });
    try {
      // A hunt has no table: what asks for a row of one is told so.
      filled(this.check, undefined);
      this.drawing.story(new Focus(luckOf(hunt, 0)));
      this.mistakes = unknown;
    } catch (error) {
      if (!(error instanceof Mistake)) throw error;
      this.mistakes = [...unknown, { path: error.path, message: error.message }];
    }
  }

  /**
   * Tries stories, or makes one that was found shorter; at once.
   * @param first the place of the first story: those of the hunt's seeds come first, then all from the first number on
   * @param most how many stories are tried at most
   */
  go(first: number, most: number): HuntGo {
    this.ticks = 0;
    let stories = 0;
    for (let place = first; !this.shrinking && !this.found && stories < most; place++) {
      stories++;
      this.try(this.numberAt(place));
    }
    for (let tried = 0; this.shrinking && tried < most; tried++) {
      const { done, value } = this.shrinking.next();
      stories++;
      if (!done) continue;
      this.found = value;
      this.shrinking = undefined;
    }
    return {
      stories,
      ticks: this.ticks,
      ...(this.shrinking && { shrinking: this.best }),
      ...(this.found && { found: this.found }),
    };
  }

  private numberAt(place: number): number {
    const { seeds = [] } = this.hunt;
    return place < seeds.length ? seeds[place] : place - seeds.length;
  }

  /** Tries the story of a number: the same for the same hunt and the same names in the ruleset. */
  private try(number: number): void {
    const luck = luckOf(this.hunt, number);
    const stories = this.drawing.story(new Focus(luck));
    const story = stories.generate(luck, undefined);
    const broken = this.run(story.value_, number);
    if (broken) this.shrinking = this.shrink(number, stories, story, broken);
  }

  /** @param least so many ticks are run at least, also where less passes in the story */
  private run(beats: readonly Beat[], number: number, least = 0): Outcome | undefined {
    const { broken, ticks } = firstBroken(this.grounds, this.entryOf(beats, number, least), this.footprint);
    this.ticks += ticks;
    return broken;
  }

  private entryOf(beats: readonly Beat[], number: number, least: number): CheckEntry {
    return { ...this.check, seed: this.seedOf(number), stages: [{ when: stepsOf(this.rules, beats, least), then: [] }] };
  }

  private seedOf(number: number): number {
    return (this.hunt.seed + (number % LUCKS)) | 0;
  }

  /** Makes a story shorter for as long as the same does not hold in it. */
  private *shrink(
    number: number,
    stories: fc.Arbitrary<readonly Beat[]>,
    first: fc.Value<readonly Beat[]>,
    firstBroken: Outcome,
  ): Generator<void, Found> {
    const before = lengthOf(first.value_);
    this.best = before;
    let outcome = firstBroken;
    let story = first;
    const isBroken = (beats: readonly Beat[]) => {
      if (this.tries++ >= MOST_TRIES) return false;
      // What happens by itself still has its time, whatever is left out before it.
      const broken = this.run(beats, number, this.ticksTo(outcome));
      if (broken?.path !== outcome.path) return false;
      [outcome, this.best] = [broken, lengthOf(beats)];
      return true;
    };
    for (let goesOn = true; goesOn;) {
      goesOn = false;
      for (const shorter of stories.shrink(story.value_, story.context)) {
        const found = isBroken(shorter.value_);
        yield;
        if (!found) continue;
        story = shorter;
        goesOn = true;
        break;
      }
    }
    // Lists are made shorter from their beginning: what comes behind what matters is left out one by one.
    let beats = story.value_;
    for (let goesOn = true; goesOn;) {
      goesOn = false;
      for (const shorter of withoutOne(beats)) {
        const found = isBroken(shorter);
        yield;
        if (!found) continue;
        beats = shorter;
        goesOn = true;
        break;
      }
    }
    return this.tellOf(number, beats, outcome, before);
  }

  private ticksTo({ t }: Outcome): number {
    return Math.round(t * this.rules.tickRate) + SPARE;
  }

  private tellOf(number: number, beats: readonly Beat[], { path, says, t, failure }: Outcome, before: number): Found {
    const broken = this.check.always![Number(path.split('/')[1])];
    // Time that passes at its end is told where it takes any.
    const ends = this.run(beats, number)?.path === path;
    const { id: _id, label: _label, ...entry } = this.entryOf(beats, number, ends ? 0 : Math.round(t * this.rules.tickRate));
    const check = { ...entry, always: [broken] };
    const steps = check.stages[0].when;
    const words = steps.map((step) => wordsOfStep(this.rules, step));
    return { story: number, broken, says: failure?.says ?? says, t, steps, words, before, after: lengthOf(beats), check };
  }
}

/** The hunts of a ruleset, in its order. */
export const huntsOf = (rules: Rules): readonly HuntEntry[] => huntChapter.of(rules);
