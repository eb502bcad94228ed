/** Why an expectation does not hold. */
export interface Failure {
  /** What was found instead, in a sentence. */
  readonly says: string;
  readonly expected: string;
  readonly found: string;
  /** Whose it is; empty where it is nobody's. */
  readonly who: string;
  /** The serial of the event that it goes back to; 0 where none is known. */
  readonly cause: number;
  /** The actor and the attribute whose value it is about, for asking what moved that. */
  readonly about?: { readonly actor: number; readonly attribute: string };
  /** The edit that has the check expect what was found: a place below the check, and what to write there. */
  readonly right?: { readonly path: string; readonly value: number };
}

/** What became of one sentence of a check. */
export interface Outcome {
  /** The place of the sentence below the check, as `stages/0/then/1`. */
  readonly path: string;
  readonly holds: boolean;
  /** Seconds from the beginning at which that was settled. */
  readonly t: number;
  /** What there was, in a few words: `67`, `at 1.35 s`. */
  readonly says: string;
  readonly failure?: Failure;
}

/** What became of a check, or of one row of it. */
export interface RunResult {
  readonly ok: boolean;
  /** Ticks that were run. */
  readonly ticks: number;
  readonly outcomes: readonly Outcome[];
  /** What kept it from being run, or from being run to the end: each with its place below the check. */
  readonly mistakes: readonly { readonly path: string; readonly message: string }[];
}

/** What became of a row of a check's table. */
export interface RowResult extends RunResult {
  readonly row: number;
  /** `start 11, healed 5, expected 12` */
  readonly label: string;
}

export interface CheckResult extends RunResult {
  readonly id: string;
  /** The rows of its table, where it has one; the result is that of the first that fails, or of the first. */
  readonly rows?: readonly RowResult[];
}
