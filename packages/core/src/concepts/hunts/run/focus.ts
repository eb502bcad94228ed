import type { Random } from 'fast-check';

/** Most that a story is about of each kind. */
const MOST = 3;
/** One in so many stories is about everything. */
const WHOLE = 3;

/**
 * What a story is about: of everybody and of every kind of entry only a few. What happens in it then has to do with each other:
 * a quest that is begun and done by one who leaves and comes back is met sooner than by luck alone.
 */
export class Focus {
  private readonly chosen = new Map<string, readonly unknown[]>();
  private readonly whole: boolean;

  constructor(private readonly luck: Random) {
    this.whole = luck.nextInt(1, WHOLE) === 1;
  }

  /**
   * A few of a list; the same whenever it is asked for them.
   * @param of what they are, by which they are remembered
   * @param most how many at most
   */
  on<T>(of: string, list: readonly T[], most = MOST): readonly T[] {
    const known = this.chosen.get(of);
    if (known) return list.filter((one) => known.includes(one));
    const count = this.luck.nextInt(1, Math.max(1, Math.min(most, list.length)));
    const left = [...list];
    const some = this.whole
      ? list
      : Array.from({ length: Math.min(count, left.length) }, () => left.splice(this.luck.nextInt(0, left.length - 1), 1)[0]);
    this.chosen.set(of, some);
    // In the order in which they are written: what is shortened is shortened towards the first.
    return list.filter((one) => some.includes(one));
  }
}
