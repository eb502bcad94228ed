import { z } from 'zod';
import type { ActionSpec, AnyConcept, CommandSpec, InputSpec, Lifecycle, Phase, SectionSpec, SelectorSpec } from '../world/concept.js';
import { PHASES } from '../world/concept.js';
import type { EventSpec, GameEvent } from '../world/events.js';
import type { Invariant } from '../world/invariant.js';
import type { World } from '../world/world.js';
import { learnWords } from './also-called.js';
import { condition, label, reference } from './fields.js';
import { inForm } from './marks.js';
import { didYouMean } from './suggest.js';
import { VERSION } from './upgrade.js';

export const FORMAT = 'eager-ember/ruleset';

/** Most entries a chapter may have. */
const MOST_ENTRIES = 2000;
export const mostEntries = (section: SectionSpec): number => (section.kind === 'chapter' ? section.most : undefined) ?? MOST_ENTRIES;

type Action = { readonly do: string; readonly to?: unknown; readonly once?: unknown } & Readonly<Record<string, unknown>>;

/** Of an action that follows for the first of those who share what it follows from, and for no other. */
const ONCE = z.literal(true, 'What follows once says "once": true.');

/** What a seat asks for, as it is written. */
export type InputJson = { readonly do: string } & Readonly<Record<string, unknown>>;

/** All concepts, joined: what the kernel asks instead of knowing any of them. */
export class Registry {
  readonly sections = new Map<string, SectionSpec>();
  readonly events = new Map<string, EventSpec>();
  readonly actions = new Map<string, ActionSpec>();
  readonly selectors = new Map<string, SelectorSpec>();
  readonly inputs = new Map<string, InputSpec>();
  readonly commands = new Map<string, CommandSpec>();
  readonly invariants = new Map<string, Invariant>();
  readonly listeners = new Map<string, ((world: World, event: GameEvent) => void)[]>();
  /** Those that hear every event, in the reactions phase. */
  readonly eventListeners: ((world: World, event: GameEvent) => void)[] = [];
  /** Those that see events the moment they are announced. */
  readonly announceListeners: ((world: World, event: GameEvent) => void)[] = [];
  readonly systems: Record<Phase, ((world: World) => void)[]>;
  /** Timer handlers; a timer stores its handler's place in this list, which is sorted by name. */
  readonly timers: readonly { readonly name: string; readonly run: (world: World, actor: number, a: number) => void }[];
  readonly document: z.ZodObject;
  readonly action: z.ZodType<Action>;
  readonly party: z.ZodType;
  /** What a seat asks for: `{ "do": name, …arguments }`. */
  readonly input: z.ZodType<InputJson>;
  readonly pattern: z.ZodType<Pattern>;

  constructor(readonly concepts: readonly AnyConcept[]) {
    this.systems = Object.fromEntries(PHASES.map((phase) => [phase, []])) as never;
    const timers: { name: string; run: (world: World, actor: number, a: number) => void }[] = [];
    for (const concept of concepts) {
      join(this.sections, concept.sections, 'section');
      join(this.events, concept.events, 'event');
      join(this.actions, concept.actions, 'action');
      join(this.selectors, concept.selectors, 'party');
      join(this.inputs, concept.inputs, 'input');
      join(this.commands, concept.commands, 'command');
      join(this.invariants, concept.invariants, 'invariant');
      for (const [name, run] of Object.entries(concept.listeners ?? {}))
        this.listeners.set(name, [...(this.listeners.get(name) ?? []), run]);
      if (concept.onEvent) this.eventListeners.push(concept.onEvent);
      if (concept.onAnnounce) this.announceListeners.push(concept.onAnnounce);
      for (const phase of PHASES) if (concept.systems?.[phase]) this.systems[phase].push(concept.systems[phase]);
      for (const [name, run] of Object.entries(concept.timers ?? {})) timers.push({ name: `${concept.id}.${name}`, run });
    }
    this.timers = timers.sort((a, b) => (a.name < b.name ? -1 : 1));
    this.party = this.partySchema();
    this.action = this.actionSchema();
    this.pattern = this.patternSchema();
    this.input = this.inputSchema();
    this.document = this.documentSchema();
  }

  timer(name: string): number {
    const index = this.timers.findIndex((timer) => timer.name === name);
    if (index < 0) throw new Error(`No timer is called ${name}`);
    return index;
  }

  lifecycle<K extends keyof Lifecycle>(moment: K, ...args: Parameters<NonNullable<Lifecycle[K]>>): void {
    for (const concept of this.concepts) (concept.lifecycle?.[moment] as ((...all: unknown[]) => void) | undefined)?.(...args);
  }

  private partySchema(): z.ZodType {
    const options = [z.enum(['self', 'source', 'target']), ...[...this.selectors.values()].map((s) => s.schema)];
    return inForm(
      'party',
      z.union(
        options as [z.ZodType, z.ZodType],
        `Whom is this for? One of self, source, target, ${[...this.selectors.keys()].join(', ')}.`,
      ),
    );
  }

  private actionSchema(): z.ZodType<Action> {
    const options = [...this.actions].map(([name, spec]) =>
      z.strictObject({ do: z.literal(name), ...(spec.steer ? {} : { to: this.party.optional() }), ...spec.args, once: ONCE.optional() }),
    );
    const names = [...this.actions.keys()];
    return named<Action>('do', options, names, {
      expected: 'An action is expected',
      unknown: (wrong) => `No action is called ${wrong}.`,
    });
  }

  private inputSchema(): z.ZodType<InputJson> {
    const options = [...this.inputs].map(([name, { args }]) => z.strictObject({ do: z.literal(name), ...args }));
    const names = [...this.inputs.keys()];
    return named<InputJson>('do', options, names, {
      expected: 'What a seat asks for is expected',
      unknown: (wrong) => `A seat can't ${wrong}.`,
    });
  }

  /** What of an event a pattern can ask for: entries by id, words, and amounts in its condition. */
  private patternSchema(): z.ZodType<Pattern> {
    const options = [...this.events].flatMap(([name, { carries }]) => {
      if (!carries) return [];
      const fields = Object.entries(carries.entries ?? {}).map(([field, chapter]) => [field, reference(chapter).optional()] as const);
      const words = Object.entries(carries.words ?? {}).map(
        ([field, list]) => [field, z.enum(list as [string], `One of ${list.join(', ')} is expected.`).optional()] as const,
      );
      return [
        z.strictObject({
          on: z.literal(name),
          ...Object.fromEntries<z.ZodType>([...fields, ...words]),
          who: z.enum(PATTERN_PARTIES, `One of ${PATTERN_PARTIES.join(', ')} is expected.`).optional(),
          where: condition(['source', 'target', 'subject'], carries.amounts ?? []).optional(),
        }),
      ];
    });
    const names = options.map((option) => String([...option.shape.on.values][0]));
    return named<Pattern>('on', options, names, {
      expected: 'An event is expected',
      unknown: (wrong) => `No event is called ${wrong}.`,
    });
  }

  private documentSchema(): z.ZodObject {
    const shape: Record<string, z.ZodType> = {};
    for (const [key, section] of this.sections)
      shape[key] =
        section.kind === 'chapter'
          ? z
              .array(section.entry, `The ${key} are a list of entries.`)
              .max(mostEntries(section), `A chapter has at most ${mostEntries(section)} entries.`)
              .default([])
          : section.schema;
    return z.strictObject(
      {
        format: z.literal(FORMAT, `A ruleset says "format": "${FORMAT}".`),
        version: z.literal(VERSION, `A ruleset says "version": ${VERSION}; earlier ones are upgraded as they are read.`),
        name: label(),
        note: z.string().max(2000).optional(),
        tickRate: z
          .int('Ticks a second are a whole number.')
          .min(10, 'Ticks a second: 10 to 60.')
          .max(60, 'Ticks a second: 10 to 60.')
          .default(20),
        ...shape,
      },
      { error: (issue) => (issue.code === 'invalid_type' ? 'A ruleset is a JSON object.' : undefined) },
    );
  }
}

/**
 * Objects of several shapes, told apart by a name that each has in one place. That the shapes make up `T` is for whoever makes
 * them to see to: there are as many as concepts declare.
 */
function named<T>(
  key: string,
  options: readonly z.ZodObject[],
  names: readonly string[],
  words: { readonly expected: string; readonly unknown: (wrong: string) => string },
): z.ZodType<T> {
  const union: z.ZodType<unknown> = z.discriminatedUnion(key, options as [z.ZodObject, ...z.ZodObject[]], {
    error: (issue) => {
      const wrong = (issue.input as Readonly<Record<string, unknown>> | undefined)?.[key];
      if (typeof wrong !== 'string') return `${words.expected}: { "${key}": one of ${names.join(', ')} }.`;
      return `${words.unknown(wrong)}${didYouMean(wrong, names)}`;
    },
  });
  return union as z.ZodType<T>;
}

function join<T>(into: Map<string, T>, from: Readonly<Record<string, T>> | undefined, what: string): void {
  for (const [name, value] of Object.entries(from ?? {})) {
    if (into.has(name)) throw new Error(`Two concepts declare the ${what} ${name}`);
    into.set(name, value);
  }
}

let current: Registry | undefined;

/** Makes these concepts the ones that rulesets are made of. Called once, by `concepts/index.ts`. */
export function registerConcepts(concepts: readonly AnyConcept[]): Registry {
  learnWords(concepts.flatMap(({ alsoCalled }) => alsoCalled ?? []));
  return (current = new Registry(concepts));
}

/** The joined concepts. */
export function registry(): Registry {
  if (!current) throw new Error('No concepts are registered: import the core by its index');
  return current;
}

/** A list of actions, run in order: the "then" of every concept. */
export const actionList = () =>
  inForm('then', z.array(z.lazy(() => registry().action)).max(50, 'At most 50 actions follow from one thing.'));
export type Then = readonly Action[];

/** Which party of an event its listener has to be. */
export const PATTERN_PARTIES = ['subject', 'source', 'target', 'anyone'] as const;

/** An event, and what has to be true of it. */
export type Pattern = {
  readonly on: string;
  /** The party that the listener has to be; its subject where nothing is said. */
  readonly who?: (typeof PATTERN_PARTIES)[number];
  readonly where?: string;
} & Readonly<Record<string, unknown>>;

/** Where something waits for an event. */
export const pattern = () =>
  inForm(
    'pattern',
    z.lazy(() => registry().pattern),
  );
