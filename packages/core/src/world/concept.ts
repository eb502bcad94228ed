import type { z } from 'zod';
import type { EntryFunction, NameSource, Parties } from '../formula/index.js';
import type { CompileContext, CompiledThen } from '../ruleset/context.js';
import type { Finding, Problem } from '../ruleset/problem.js';
import type { Rules } from '../ruleset/rules.js';
import type { ConceptState } from './concept-state.js';
import type { EventSpec, GameEvent } from './events.js';
import type { Invariant } from './invariant.js';
import type { SavedPlayer } from './saved.js';
import type { TableSpec, Visibility } from './columns.js';
import type { Workbench } from '../workbench/workbench.js';
import type { World } from './world.js';

/** The parts of a tick, in order, each called by what is done in it. In `reactions` the queue of events is emptied. */
// eslint-disable-next-line no-restricted-syntax -- what is done in a part, not the concept of that name
export const PHASES = ['timers', 'movement', 'overlaps', 'abilities', 'regeneration', 'thresholds', 'reactions', 'removal'] as const;
export type Phase = (typeof PHASES)[number];
/** The part in which whatever is announced is answered. */
export const ANSWERING = PHASES[6];

/** What the analysis of a ruleset has to know of any part of the document. */
interface SectionInAnalysis {
  /** What it speaks of comes into the arena: it is placed there, or made there. */
  readonly places?: true;
  /** Its own findings look at the conditions in it: whether they can ever hold is not said a second time. */
  readonly ownConditions?: true;
}

/** Looks for what can be wrong with entries although they are sound. */
export type Look<C> = (compiled: C, rules: Rules) => readonly Finding[];

/** A part of the ruleset document: a chapter is a list of entries with ids, a value stands once. */
export type SectionSpec =
  | ChapterSpec
  | (SectionInAnalysis & {
      readonly kind: 'value';
      readonly title: string;
      readonly schema: z.ZodType;
      /** What it is called where a place in it is named. */
      readonly called?: string;
    });

/** An entry of any chapter, as its document has it with its defaults filled in. */
export type AnyEntry = Readonly<Record<string, unknown>> & { readonly id: string; readonly label: string };

export interface ChapterSpec extends SectionInAnalysis {
  readonly kind: 'chapter';
  readonly title: string;
  readonly entry: z.ZodType;
  /** How many entries it has at most; as many as any other chapter where nothing is said. */
  readonly most?: number;
  /** Entries that every ruleset has, behind its own, unless it has one of that id itself. */
  readonly given?: readonly { readonly id: string }[];
  /** Who may see that an actor has an entry, where that is not simply what the entry's own `see` says. */
  readonly see?: (entry: { readonly id: string }, rules: Rules) => Visibility;
  /** Whether no seat knows of an entry beforehand; where nothing is said, one that only the server sees. */
  readonly secret?: (entry: { readonly id: string }, rules: Rules) => boolean;
  /** What to do where nothing speaks of an entry, behind “Nobody speaks of …: ”; nothing is said where entries stand for themselves. */
  readonly unused?: string;
  /** Why an entry never comes into play where nothing brings it about; where nothing is said, entries do by themselves. */
  readonly absent?: string;
  /** Which of those that something else has to bring about come into play by themselves. */
  readonly comesByItself?: (entry: AnyEntry) => boolean;
  /** Its entries come into play once what they wait for can happen. */
  readonly followsEvents?: true;
  /** What its entries wait for counts for players alone. */
  readonly forPlayers?: true;
  /**
   * Its entries may speak of what is not there, or not yet: that is said where they are run, and is no problem of the ruleset.
   * What only they can say in a formula is given in other words of the same length, so that the rest of it can be read.
   */
  readonly ahead?: {
    readonly asFormula: (text: string) => string;
    /** What is put in the place of a text, by where it stands in the entry; nothing for one that stands for itself. */
    readonly standsFor?: (
      entry: object,
      text: string,
    ) => readonly { readonly value: string; readonly path: readonly (string | number)[] }[] | undefined;
  };
  /** What can come about of the parts of the entry of an id, each told by an event that is about the part of that id. */
  readonly parts?: (rules: Rules, id: string) => readonly EntryPart[];
  /** Its entries only try others out and bring nothing about: the one that an entry is about, by chapter and id. */
  readonly tries?: (entry: AnyEntry) => readonly [chapter: string, id: string] | undefined;
}

/** Something that can come about of a part of an entry. */
export interface EntryPart {
  /** Its place below the entry, for reading. */
  readonly at: string;
  readonly event: string;
  /** The id of the part, as the event says it. */
  readonly part: string;
}

/** Something that can come about under a ruleset: an entry, or what becomes of it. */
export interface Consequence {
  readonly chapter: string;
  readonly id: string;
  /** What becomes of it; that there is one of it where nothing is said. */
  readonly is?: 'raised' | 'moved' | 'hurt';
}

/** An event that something leads to, and the fields that it has then. */
export interface EventCause {
  readonly event: string;
  readonly fields?: Readonly<Record<string, unknown>>;
}

/** Something a list of actions can do: to one actor at a time, or to the list itself. */
export interface ActionSpec {
  readonly label: string;
  /** How a spec says it, with `{argument}` where one stands and `{to}` for whom it is for. */
  readonly sentence: string;
  /** The events that it can lead to at once, with what of them its arguments fix. */
  readonly causes?: (args: Readonly<Record<string, unknown>>) => readonly EventCause[];
  /** What it can bring about, beside events. */
  readonly consequences?: (args: Readonly<Record<string, unknown>>) => readonly Consequence[];
  /** It says when and whether the rest of its list happens, and does nothing by itself. */
  readonly onlyInLists?: true;
  /** It brings what it speaks of into the arena. */
  readonly places?: true;
  /** Ways past the lists that it has, by name, of which it notes in {@link World.ran} that they were gone. */
  readonly waysPast?: (args: Readonly<Record<string, unknown>>) => readonly string[];
  /** It is about an attribute of whom it is for, who has to have that for anything to come of it. */
  readonly ofAttribute?: true;
  /** Its arguments beside `do` and `to`. */
  readonly args: Readonly<Record<string, z.ZodType>>;
  /** As {@link InputSpec.examples}. */
  readonly examples?: (rules: Rules) => readonly Readonly<Record<string, unknown>>[];
  /** Resolves ids and formulas once, when the ruleset is compiled. `actor` is a live handle. */
  readonly compile?: (
    args: Readonly<Record<string, unknown>>,
    context: CompileContext,
    path: readonly (string | number)[],
  ) => (world: World, actor: number, parties: Parties) => void;
  /** Instead of `compile`: for one that steers the list, and is given what stands after it to run when it sees fit. */
  readonly steer?: (
    args: Readonly<Record<string, unknown>>,
    context: CompileContext,
    path: readonly (string | number)[],
    rest: CompiledThen,
  ) => CompiledThen;
}

/** A way to say whom an action is for, besides `self`, `source` and `target`. */
export interface SelectorSpec {
  /** What a sentence says for it, with fields of its schema in braces: `the crew`, or `{who} within {nearby}`. */
  readonly sentence: string;
  readonly schema: z.ZodType;
  readonly matches: (value: unknown) => boolean;
  readonly select: (value: unknown) => (world: World, parties: Parties) => readonly number[];
}

/** What a player may ask for. Refuses by announcing a refusal, never by throwing. */
export interface InputSpec {
  readonly label: string;
  /** How a spec says it behind who asks, with `{argument}` where one stands. */
  readonly sentence: string;
  readonly args: Readonly<Record<string, z.ZodType>>;
  /** Whether it is entered in the trace as the cause of what follows; not for what is sent many times a second. */
  readonly traced: boolean | ((world: World, actor: number, args: Readonly<Record<string, unknown>>) => boolean);
  /** What is wrong with the arguments under these rules, beyond their shape; for scripts, which can be told before they run. */
  readonly check?: (
    rules: Rules,
    args: Readonly<Record<string, unknown>>,
  ) => { readonly argument: string; readonly message: string } | undefined;
  /** Arguments that are worth asking with under some rules, where no shape tells which make sense. */
  readonly examples?: (rules: Rules) => readonly Readonly<Record<string, unknown>>[];
  readonly run: (world: World, actor: number, args: Readonly<Record<string, unknown>>) => void;
}

/** A change to a world from outside, such as a seat taken: part of a tape as inputs are. */
export interface CommandSpec {
  /** The actor that asks, where one does: of what several ask for in one tick, whose comes first is drawn. */
  readonly actor?: (world: World, args: Readonly<Record<string, unknown>>) => number;
  readonly args: Readonly<Record<string, z.ZodType>>;
  /** What is wrong with arguments of the right shape under these rules, by their places. */
  readonly check?: (rules: Rules, args: Readonly<Record<string, unknown>>) => readonly Problem[];
  readonly run: (world: World, args: Readonly<Record<string, unknown>>) => void;
}

/** A command whose arguments have the types of their schemas where it is run: they were read by them. */
export function command<const A extends Readonly<Record<string, z.ZodType>>>(
  spec: Omit<CommandSpec, 'args' | 'run'> & { readonly args: A; run(world: World, args: z.infer<z.ZodObject<A>>): void },
): CommandSpec {
  return { ...spec, run: (world, args) => spec.run(world, args as never) };
}

/** Moments in a world's life that a concept may have to answer at once, unlike events, which wait for their phase. */
export interface Lifecycle {
  worldStarted?(world: World): void;
  /** The actor's row has its type and team; its other cells are zero. */
  actorSpawned?(world: World, row: number): void;
  actorLeaving?(world: World, row: number): void;
  /** A pool of an actor came to its bottom, by the event of that serial, or by itself where it is 0. */
  poolEmptied?(world: World, row: number, attribute: number, cause: number): void;
  /** What follows from a pool's end at its bottom has raised it again. */
  poolRaised?(world: World, row: number, attribute: number): void;
  /** Cells marked `saved` were filled from what was kept of a player. */
  playerLoaded?(world: World, row: number): void;
  /** What follows from what was kept of a player is in place as well. */
  playerReady?(world: World, row: number): void;
  /** The world runs on under edited rules; `before` has the old rules and the tables as they were. */
  rulesAdopted?(world: World, before: World): void;
}

/** Words that somebody may write, each with the names here that it may stand for. */
export interface AlsoCalled {
  /** For names of actions, events, entries and the like. */
  readonly names?: Readonly<Record<string, readonly string[]>>;
  /** For parts of an entry, or of the document. */
  readonly parts?: Readonly<Record<string, readonly string[]>>;
}

/** All that a concept declares. Every part is optional. `C` is its compiled form, `R` what it has at hand of a world. */
export interface ConceptDeclaration<C, R> {
  readonly sections?: Readonly<Record<string, SectionSpec>>;
  readonly vocabulary?: (ids: (chapter: string) => readonly string[]) => {
    names?: readonly NameSource[];
    functions?: readonly EntryFunction[];
    words?: Readonly<Record<string, string>>;
  };
  readonly compile?: (context: CompileContext) => C;
  /** Instead of `compile`, where entries may be many and take long: as work in parts, an entry in each. */
  readonly compileInParts?: (context: CompileContext) => Generator<void, C>;
  readonly tables?: (compiled: C, rules: Rules) => readonly TableSpec[];
  readonly events?: Readonly<Record<string, EventSpec>>;
  readonly actions?: Readonly<Record<string, ActionSpec>>;
  readonly selectors?: Readonly<Record<string, SelectorSpec>>;
  readonly inputs?: Readonly<Record<string, InputSpec>>;
  readonly commands?: Readonly<Record<string, CommandSpec>>;
  readonly attach?: (world: World, compiled: C) => R;
  readonly lifecycle?: Lifecycle;
  readonly systems?: Partial<Readonly<Record<Phase, (world: World) => void>>>;
  readonly listeners?: Readonly<Record<string, (world: World, event: GameEvent) => void>>;
  /** Hears every event in the reactions phase, whatever its name, behind the listeners. */
  readonly onEvent?: (world: World, event: GameEvent) => void;
  /**
   * Sees every event the moment it is announced, before anything else happens: for what an event uses up. Everything else
   * listens, and hears of it in the reactions phase.
   */
  readonly onAnnounce?: (world: World, event: GameEvent) => void;
  /** Other words of the trade for its own, each with what is meant: for saying what somebody may have meant. */
  readonly alsoCalled?: AlsoCalled;
  /** What its entries can bring about, beside what their actions do. */
  readonly consequences?: (rules: Rules) => readonly Consequence[];
  /**
   * What can be wrong with its entries although they are sound. Each function is asked again only after an edit of something that
   * it read: several that read little are better than one that reads much.
   */
  readonly findings?: Look<C> | readonly Look<C>[];
  /**
   * What is wrong with what is said to be kept of a player, beyond each value by itself: nobody has more than the rules give.
   */
  readonly checkSaved?: (compiled: C, saved: SavedPlayer, rules: Rules) => readonly Problem[];
  readonly timers?: Readonly<Record<string, (world: World, actor: number, a: number) => void>>;
  /** What holds of it under any sound ruleset, whatever happens: for checks and hunts. */
  readonly invariants?: Readonly<Record<string, Invariant>>;
  /** What its pages ask while an author writes: evidence, files and the like. It is loaded when it is first asked for. */
  readonly workbench?: () => Promise<Workbench>;
  /** What a seat's display may know of the rules: nothing that only the server sees. */
  readonly display?: (compiled: C, rules: Rules) => unknown;
}

export interface Concept<C = unknown, R = unknown> extends ConceptDeclaration<C, R>, ConceptState<C, R> {}

/** A concept of any kind, as the registry holds them. */
export type AnyConcept = Concept<never, unknown>;

/** Declares a concept, once: storage, saving, replication and the trace follow from what is said here. */
export function defineConcept<C, R>(state: ConceptState<C, R>, declaration: ConceptDeclaration<C, R>): Concept<C, R> {
  return { ...declaration, ...state };
}
