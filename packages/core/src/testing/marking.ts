import { drawn } from './mutations.js';

/** Who may be told of something: by what its entry says, and whose it is. */
export type See = 'owner' | 'team' | 'everyone' | 'server';

/** A word that stands for one entry wherever it turns up, as its id or its label. */
export interface Token {
  readonly word: string;
  readonly see: See;
  /** The seat whose it is; undefined for what belongs to nobody in particular. */
  readonly seat: number | undefined;
  /** No seat knows that there is such a thing before it is told of it. */
  readonly unknown: boolean;
}

/** A number of which every amount of one attribute is a multiple, and no other number of the ruleset is. */
export interface Mark {
  readonly prime: number;
  readonly see: See;
  readonly seat: number | undefined;
}

export const SEES: readonly See[] = ['owner', 'team', 'everyone', 'server'];
/** Primes from here on; handles of rows are no multiples of those that are taken. */
const FIRST_MARK = 2003;
const ROW_UNIT = 1 << 20;

function* marks(): Generator<number> {
  const isPrime = (n: number) => {
    for (let d = 3; d * d <= n; d += 2) if (n % d === 0) return false;
    return true;
  };
  const isNoHandle = (n: number) => {
    for (let generation = 1; generation < 80; generation++)
      for (let row = 0; row < 80; row++) if ((generation * ROW_UNIT + row) % n === 0) return false;
    return true;
  };
  for (let n = FIRST_MARK; ; n += 2) if (isPrime(n) && isNoHandle(n)) yield n;
}
/** They are the same for every ruleset, and take a while to find. */
const PRIMES: readonly number[] = (() => {
  const source = marks();
  return Array.from({ length: 24 }, () => source.next().value as number);
})();

/** Draws for a random ruleset, and notes of all it names whose that is. */
export class Marking {
  readonly tokens: Token[] = [];
  readonly marks: Mark[] = [];
  readonly draw: () => number;

  constructor(seed: number) {
    this.draw = drawn(seed);
  }

  one<T>(of: readonly T[]): T {
    return of[this.below(of.length)];
  }

  below(n: number): number {
    return Math.floor(this.draw() * n);
  }

  /** An id and a label that stand for nothing else. */
  name(seat: number | undefined, see: See, unknown = see === 'server'): { id: string; label: string } {
    const word = `zq${100 + this.tokens.length}q`;
    this.tokens.push({ word, see, seat, unknown });
    return { id: word, label: `Lb${word}` };
  }

  /** A name with a visibility of its own. */
  shown(seat: number, most: readonly See[] = SEES): { id: string; label: string; see: See } {
    const see = this.one(most);
    return { ...this.name(seat, see), see };
  }

  /** An attribute, all of whose amounts are multiples of a number that is its own. */
  attribute(seat: number | undefined, more: Record<string, unknown>): MarkedAttribute {
    const see = this.one(SEES);
    const prime = PRIMES[this.marks.length];
    this.marks.push({ prime, see, seat });
    return { times: (n) => n * prime, entry: { ...this.name(seat, see), see, ...more } };
  }
}

export interface MarkedAttribute {
  readonly entry: Record<string, unknown> & { id: string };
  /** So many of its number. */
  times(n: number): number;
}
