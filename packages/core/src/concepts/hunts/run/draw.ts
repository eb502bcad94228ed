import * as fc from 'fast-check';
import type { z } from 'zod';
import { actorChapter } from '../../actors/schema.js';
import { EVERYBODY, type Given, type Step, type Who } from '../../checks/schema.js';
import { Mistake } from '../../checks/run/mistake.js';
import { describeField, type FieldDescription } from '../../../ruleset/describe.js';
import { registry } from '../../../ruleset/registry.js';
import { checkAction, checkInput } from '../../../ruleset/requests.js';
import type { Rules } from '../../../ruleset/rules.js';
import type { ActionSpec, InputSpec } from '../../../world/concept.js';
import { ANYTHING, type HuntEntry, type May } from '../schema.js';
import { ticksIn } from '../../checks/run/time-words.js';
import type { Focus } from './focus.js';

/** Something that happens in a story, and how many ticks pass after it. */
export interface Beat {
  /** Nothing where what was drawn can't be asked for. */
  readonly step: Step | undefined;
  readonly ticks: number;
}

type Args = Readonly<Record<string, unknown>>;
type Draw<T> = fc.Arbitrary<T>;
type Spec = Pick<InputSpec | ActionSpec, 'args' | 'examples'>;

/** A number is drawn from so far above the least that it can be. */
const SPAN = 100;
const TIMES = ['0s', '1s', '5s', '30s'];
/** Of what is worth trying of an input, and of all that a seat can ask for, a story is about so many. */
const MOST_EXAMPLES = 5;
const MOST_INPUTS = 6;

const descriptions = new WeakMap<z.ZodType, FieldDescription>();

function descriptionOf(schema: z.ZodType): FieldDescription {
  let known = descriptions.get(schema);
  if (!known) descriptions.set(schema, (known = describeField(schema)));
  return known;
}

/** What is drawn for a field; undefined where nothing can be. */
function drawnFor(rules: Rules, field: FieldDescription, focus: Focus): Draw<unknown> | undefined {
  switch (field.kind) {
    case 'reference': {
      const ids = rules.chapters.get(field.chapter)?.ids ?? [];
      return ids.length === 0 ? undefined : fc.constantFrom(...focus.on(field.chapter, ids));
    }
    case 'number': {
      const least = Math.ceil(Math.max(field.least ?? 0, 0));
      return fc.integer({ min: least, max: Math.min(field.most ?? Infinity, least + SPAN) });
    }
    case 'amount':
      return fc.integer({ min: 0, max: SPAN });
    case 'duration':
    case 'timeAmount':
      return fc.constantFrom(...TIMES);
    case 'word':
      return fc.constantFrom(...field.options.map(({ value }) => value));
    case 'flag':
      return fc.boolean();
    default:
      return undefined;
  }
}

/** Arguments of an input or an action: those that are worth trying, or what their shapes allow. */
function drawnArgs(rules: Rules, name: string, { args, examples }: Spec, focus: Focus): Draw<Args> | undefined {
  if (examples) {
    const all = examplesOf(rules, name, examples);
    return all.length === 0 ? undefined : fc.constantFrom(...focus.on(`${name} examples`, all, MOST_EXAMPLES));
  }
  const fields: Record<string, Draw<unknown>> = {};
  const requiredKeys: string[] = [];
  for (const [key, schema] of Object.entries(args)) {
    const field = descriptionOf(schema);
    const drawn = drawnFor(rules, field, focus);
    if (drawn) fields[key] = drawn;
    else if (!field.optional) return undefined;
    if (!field.optional) requiredKeys.push(key);
  }
  return fc.record(fields, { requiredKeys });
}

const examplesKnown = new WeakMap<Rules, Map<string, readonly Args[]>>();

function examplesOf(rules: Rules, name: string, examples: NonNullable<Spec['examples']>): readonly Args[] {
  const known = examplesKnown.get(rules) ?? new Map<string, readonly Args[]>();
  examplesKnown.set(rules, known);
  const all = known.get(name) ?? examples(rules);
  known.set(name, all);
  return all;
}

/** Somebody who is given, of a kind. */
type Somebody = Pick<Given, 'name' | 'team'> & { readonly actor: string };

/** Draws what happens in the stories of a hunt. */
export class Drawing {
  /** Those who are given, each with its kind, and those of them who have seats. */
  private readonly given: readonly Somebody[];
  private readonly seats: readonly Somebody[];
  /** Requests that were read, by what they say: each is read once, and is undefined where it is not sound. */
  private readonly read = new Map<string, object | undefined>();

  constructor(
    private readonly rules: Rules,
    private readonly hunt: HuntEntry,
  ) {
    const kinds = actorChapter.of(rules);
    const player = kinds.find(({ kind }) => kind === 'player')?.id ?? '';
    this.given = hunt.given.map(({ name, actor = player, team }) => ({ name, actor, team }));
    this.seats = this.given.filter(({ actor }) => kinds.find(({ id }) => id === actor)?.kind === 'player');
  }

  /**
   * Draws a story: what happens, and how long after.
   * @param focus what it is about
   * @throws Mistake where nothing can be drawn, with its place below the hunt
   */
  story(focus: Focus): Draw<readonly Beat[]> {
    const { may, steps, apart } = this.hunt;
    if (may.length === 0) throw new Mistake('may', 'Nothing may happen in this hunt: say what seats may do.');
    const drawn = may.map((one, i) => ({ arbitrary: this.step(one, `may/${i}`, focus), weight: one.weight ?? 1 }));
    const longest = ticksIn(this.rules, apart);
    const beat = fc.record({ step: fc.oneof(...drawn), ticks: fc.nat(longest) });
    return fc.array(beat, { minLength: 1, maxLength: steps, size: 'max' });
  }

  private step(one: May, path: string, focus: Focus): Draw<Step | undefined> {
    if ('pass' in one) return fc.constant({ pass: one.pass });
    if ('restarts' in one) return fc.constant({ restarts: true });
    if ('leaves' in one)
      return fc
        .tuple(this.who(one.leaves, this.seats, `${path}/leaves`, focus), fc.boolean())
        .map(([name, back]) => (back ? { returns: name } : { leaves: name }));
    if ('action' in one) {
      const { value, problems } = checkAction(this.rules, one.action);
      if (!value) throw new Mistake(`${path}/action${problems[0].path}`, problems[0].message);
      return this.who(one.on, this.given, `${path}/on`, focus).map((on) => ({ on, action: value }));
    }
    if ('poke' in one) {
      const args = drawnArgs(this.rules, one.poke, registry().actions.get(one.poke)!, focus);
      if (!args) throw new Mistake(`${path}/poke`, 'What this does can’t be drawn: write the action out, with all that it says.');
      const actions = this.requests(one.poke, args, (request) => checkAction(this.rules, request).value);
      return fc
        .tuple(this.who(one.on, this.given, `${path}/on`, focus), actions)
        .map(([on, action]) => action && { on, action: action as never });
    }
    const seat = this.who(one.by, this.seats, `${path}/by`, focus);
    const names =
      one.input === ANYTHING
        ? focus.on(
            'inputs',
            [...registry().inputs.keys()].filter((name) => this.canAsk(name)),
            MOST_INPUTS,
          )
        : [one.input];
    const drawn = names.flatMap((name) => this.inputs(name, focus) ?? []);
    if (drawn.length === 0) throw new Mistake(`${path}/input`, 'There is nothing in this ruleset that this could be asked of.');
    return fc.tuple(seat, fc.oneof(...drawn)).map(([name, input]) => input && { seat: name, input: input as never });
  }

  /** Whether there is anything in the ruleset that an input could be asked of. */
  private canAsk(name: string): boolean {
    const { args, examples } = registry().inputs.get(name)!;
    if (examples) return examplesOf(this.rules, name, examples).length > 0;
    return Object.values(args).every((schema) => {
      const field = descriptionOf(schema);
      return field.optional || field.kind !== 'reference' || (this.rules.chapters.get(field.chapter)?.ids.length ?? 0) > 0;
    });
  }

  private inputs(name: string, focus: Focus): Draw<object | undefined> | undefined {
    const spec = registry().inputs.get(name)!;
    const args = drawnArgs(this.rules, name, spec, focus);
    return (
      args &&
      this.requests(name, args, (request) => {
        const { value } = checkInput(request);
        return value && !spec.check?.(this.rules, value) ? value : undefined;
      })
    );
  }

  /** Requests of some arguments; nothing in the place of one that is not sound. */
  private requests(name: string, args: Draw<Args>, read: (request: Args) => object | undefined): Draw<object | undefined> {
    const soundOf = (own: Args) => {
      const request = { do: name, ...own };
      const key = JSON.stringify(request);
      if (!this.read.has(key)) this.read.set(key, read(request));
      return this.read.get(key);
    };
    return args.map(soundOf);
  }

  /** Somebody by name, of those who are meant. */
  private who(who: Who | undefined, among: readonly Somebody[], path: string, focus: Focus): Draw<string> {
    const isMeant = ({ name, actor, team }: Somebody) =>
      who === undefined ||
      who === EVERYBODY ||
      (typeof who === 'string' ? name === who : 'every' in who ? actor === who.every : team === who.crew);
    const names = among.filter(isMeant).map(({ name }) => name);
    if (names.length === 0)
      throw new Mistake(
        path,
        among.length === 0 ? 'Nobody is given who could do this: give somebody a seat.' : 'Nobody who is given is meant by this.',
      );
    const some = focus
      .on(
        'who',
        this.given.map(({ name }) => name),
      )
      .filter((name) => names.includes(name));
    return fc.constantFrom(...(some.length > 0 ? some : names));
  }
}
