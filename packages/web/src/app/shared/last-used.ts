/** How many documents are at hand at once: the one that is edited, the one before, and what is being tried out. */
const MOST_HELD = 8;

/** Things by their numbers, of which those are let go that were used longest ago: at both ends of a wire in the same order. */
export class LastUsed<T> {
  private readonly all = new Map<number, T>();

  /** What has a number, which is thereby used. */
  use(number: number): T | undefined {
    const one = this.all.get(number);
    if (one !== undefined) this.put(number, one);
    return one;
  }

  put(number: number, one: T): void {
    this.all.delete(number);
    this.all.set(number, one);
    if (this.all.size <= MOST_HELD) return;
    const [first] = this.all.keys();
    this.all.delete(first);
  }
}
