/** A stretch of time that something held, in seconds. */
export interface Span {
  readonly from: number;
  readonly to: number;
  readonly label: string;
  /** An instance of an effect, a status, a part of a use of an ability, or a part of a scene and a step in it. */
  readonly kind: 'effect' | 'status' | 'cast' | 'channel' | 'recovery' | 'cooldown' | 'part' | 'step';
  /** Why it ended, in words; none where it did not while the situation lasted. */
  readonly ended?: string;
  /** Most stacks that it had. */
  readonly stacks?: number;
}

export interface Series {
  readonly id: string;
  readonly label: string;
  /** Decimals that it is told with. */
  readonly decimals: number;
  /** The value after each tick, from the first. */
  readonly values: readonly number[];
}

/** Something done from outside at a moment. */
export interface Pin {
  /** Seconds. */
  readonly t: number;
  readonly label: string;
  /** What came of it, where something of it was lost. */
  readonly lost?: string;
}

/** Answers in a line each: what is asked, and the answer in words. */
export type Facts = readonly { readonly label: string; readonly value: string }[];

/** Evidence with all of its answers. */
export function complete({ further, ...evidence }: Evidence): Evidence {
  return further ? { ...evidence, facts: [...evidence.facts, ...further()] } : evidence;
}

/** What a situation came to: values at every tick, what was on when, what was said. */
export interface Evidence {
  /** The actor it was tried on; undefined where no actor has what is asked about. */
  readonly actor: string | undefined;
  readonly seconds: number;
  readonly perSecond: number;
  readonly series: readonly Series[];
  readonly spans: readonly Span[];
  readonly pins: readonly Pin[];
  readonly moments: readonly { readonly t: number; readonly text: string; readonly refusal: boolean }[];
  readonly facts: Facts;
  /** More of them, which take longer than all the rest: worked out when they are asked for. */
  readonly further?: () => Facts;
  /** The tooltip of an ability as it is for one who has just appeared, and the box that it has to fit. */
  readonly tooltip?: { readonly lines: readonly string[]; readonly width: number; readonly most: number };
  /** The situation that was played, as it is, or would be, written down. */
  readonly situation: ProposedSituation | undefined;
}

/** A situation in the words of the ruleset, and whether its author wrote it. */
export interface ProposedSituation {
  readonly authored: boolean;
  readonly seconds: number;
  readonly pins: readonly { readonly at: string; readonly action: PinAction; readonly from?: 'other' }[];
}
export type PinAction = { readonly do: string } & Readonly<Record<string, unknown>>;

/** How long a situation is played, in seconds, where nothing is said. */
export const EVIDENCE_SECONDS = 60;

export const NONE: Evidence = {
  actor: undefined,
  seconds: EVIDENCE_SECONDS,
  perSecond: 1,
  series: [],
  spans: [],
  pins: [],
  moments: [],
  facts: [],
  situation: undefined,
};

/** How often an ability comes to be used and what it does, by the stat that hastens it. */
export interface Sweep {
  /** The stat that is varied; none where no stat has a part in it. */
  readonly stat: string;
  readonly label: string;
  readonly points: readonly SweepPoint[];
}
export interface SweepPoint {
  readonly at: number;
  /** Seconds. */
  readonly cast: number;
  /** Uses and damage a minute, once what it costs has settled. */
  readonly uses: number;
  readonly damage: number;
}

/** A value for reading: at most two decimals. */
export const inWords = (value: number) => String(Number(value.toFixed(2)));
