/** What somebody looks for, as far as it can be found by its label or id. */
interface Findable {
  readonly id: string;
  readonly label: string;
}

/** Where something comes among what is found, the lower the sooner; Infinity where it is not. */
function rankOf({ id, label }: Findable, typed: string, words: readonly string[]): number {
  const [name, own] = [label.toLowerCase(), id.toLowerCase()];
  if (!words.every((word) => name.includes(word) || own.includes(word))) return Infinity;
  if (name === typed || own === typed) return 0;
  if (name.startsWith(typed) || own.startsWith(typed)) return 1;
  return name.includes(` ${words[0]}`) ? 2 : 3;
}

/**
 * Those whose label or id has all words that were typed: what is called just that comes first, then what begins with it, then
 * what has a word that does; what fits alike stays in its order.
 */
export function matching<T extends Findable>(all: readonly T[], typed: string): readonly T[] {
  const wanted = typed.trim().toLowerCase();
  if (wanted === '') return all;
  const words = wanted.split(/\s+/);
  return all
    .map((one) => ({ one, rank: rankOf(one, wanted, words) }))
    .filter(({ rank }) => rank < Infinity)
    .sort((a, b) => a.rank - b.rank)
    .map(({ one }) => one);
}
