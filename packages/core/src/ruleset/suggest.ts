import { namesMeantBy } from './also-called.js';

/** What one table of letters costs at least, that finding an unlikely name is not for nothing either. */
const LEAST_COST = 4;
/** How much may still be compared, in letters of one word against letters of another. */
let left = Infinity;

/**
 * Does work in parts in which no more than so many letters are compared to suggest words: what is unknown after that gets no
 * suggestion. Between the parts others compare as they may.
 */
export function* sparingly<T>(most: number, parts: Generator<void, T>): Generator<void, T> {
  let own = most;
  for (;;) {
    const before = left;
    left = own;
    try {
      const { done, value } = parts.next();
      if (done) return value;
      own = left;
    } finally {
      left = before;
    }
    yield;
  }
}

/** Edits (insert, delete, replace, swap of neighbours) between two words: the optimal string alignment distance. */
function distance(a: string, b: string): number {
  const rows = [Array.from({ length: b.length + 1 }, (_, j) => j)];
  for (let i = 1; i <= a.length; i++) {
    rows[i] = [i];
    for (let j = 1; j <= b.length; j++) {
      const cost = a[i - 1] === b[j - 1] ? 0 : 1;
      let best = Math.min(rows[i - 1][j] + 1, rows[i][j - 1] + 1, rows[i - 1][j - 1] + cost);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) best = Math.min(best, rows[i - 2][j - 2] + 1);
      rows[i][j] = best;
    }
  }
  return rows[a.length][b.length];
}

/** The known name nearest to a mistyped one, or undefined where none is near enough to be meant. */
export function nearest(wrong: string, known: Iterable<string>): string | undefined {
  if (left < 0) return undefined;
  const lower = wrong.toLowerCase();
  let best: string | undefined;
  let least = Math.max(1, Math.floor(wrong.length / 3)) + 1;
  for (const name of known) {
    // So much longer or shorter a word is never near enough.
    const near = Math.abs(name.length - wrong.length) < least;
    left -= near ? LEAST_COST + name.length * wrong.length : 1;
    if (left < 0) return undefined;
    if (!near) continue;
    const edits = distance(lower, name.toLowerCase());
    if (edits < least) {
      least = edits;
      best = name;
    }
  }
  return best;
}

/** The words of a name, each as far as it is the same in other forms: `enterZone` and `zoneEntered` are of the same words. */
const wordsOf = (name: string) =>
  name
    .split(/(?=[A-Z])|(?<=\D)(?=\d)|[^A-Za-z0-9]+/)
    .filter(Boolean)
    .map((word) => word.toLowerCase().slice(0, 4))
    .sort()
    .join(' ');

/** A name that is meant though it is spelt otherwise: of the same words, or what others say for it. */
function meantBy(wrong: string, known: readonly string[]): string | undefined {
  const meant = namesMeantBy(wrong);
  const called = known.find((name) => meant.includes(name));
  if (called !== undefined) return called;
  const words = wordsOf(wrong);
  left -= LEAST_COST * known.length;
  return words.includes(' ') && left >= 0 ? known.find((name) => wordsOf(name) === words) : undefined;
}

/** ` Did you mean x?`, or nothing: to be put behind a message that names an unknown word. */
export function didYouMean(wrong: string, known: Iterable<string>): string {
  const all = [...known];
  const name = (namesMeantBy(wrong).length > 0 ? meantBy(wrong, all) : undefined) ?? nearest(wrong, all) ?? meantBy(wrong, all);
  return name === undefined ? '' : ` Did you mean ${name}?`;
}
