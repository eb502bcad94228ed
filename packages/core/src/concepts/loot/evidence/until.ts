import { loot } from '../state.js';
import { log, pow } from '../../../math/power.js';
import type { Odds, Thing } from './odds.js';
import type { Setting } from './setting.js';

/** Shares of players at which it is said after how many openings they have something. */
export const SHARES = [0.5, 0.9, 0.99] as const;
/** At most so many openings are counted out one by one. */
const MOST_OPENINGS = 4000;
/** At most so many points of a curve. */
const MOST_POINTS = 160;

/** After how many openings players have something at last. */
export interface Until {
  /** By {@link SHARES}: the opening by which so many have it; nothing where it takes too long to be counted out, or never comes. */
  readonly at: readonly (number | undefined)[];
  /** The share that has it after so many openings. */
  readonly curve: readonly { readonly opening: number; readonly share: number }[];
  /** The share that has it by an opening, for comparison with a sample. */
  readonly share: (opening: number) => number;
}

/** Counts out how many openings it takes, from good luck at the first: a Markov chain over how long bad luck has lasted. */
export function untilOf(setting: Setting, odds: Odds, index: number, thing: Thing, plain = false): Until {
  const { streak } = loot.of(setting.rules).list[index];
  if (!streak || plain) return steady(odds.opening(index).misses(thing).none);
  // Who is dry for so long and has none of it yet, as shares of all; by how many openings they have been dry.
  let waiting = new Float64Array(MOST_OPENINGS + 2);
  let next = new Float64Array(MOST_OPENINGS + 2);
  waiting[0] = 1;
  const known: { none: number; dry: number; idle: number }[] = [];
  const missesAt = (dry: number) => (known[dry] ??= odds.opening(index, dry).misses(thing));
  const shares: number[] = [0];
  for (let n = 1; n <= MOST_OPENINGS; n++) {
    next.fill(0, 0, n + 1);
    let left = 0;
    for (let dry = 0; dry < n; dry++) {
      const p = waiting[dry];
      if (p < 1e-15) continue;
      const { none, dry: undrawn, idle } = missesAt(dry);
      next[dry + 1] += p * Math.max(0, undrawn);
      next[dry] += p * idle;
      next[0] += p * Math.max(0, none - undrawn - idle);
      left += p * none;
    }
    [waiting, next] = [next, waiting];
    shares.push(1 - left);
    if (left < 0.0005) break;
  }
  return counted(shares);
}

function counted(shares: readonly number[]): Until {
  const at = SHARES.map((share) => {
    const n = shares.findIndex((one) => one >= share - 1e-12);
    return n < 0 ? undefined : n;
  });
  const last = shares.length - 1;
  const step = Math.max(1, Math.ceil(last / MOST_POINTS));
  const curve = shares.map((share, opening) => ({ opening, share })).filter(({ opening }) => opening % step === 0 || opening === last);
  return { at, curve, share: (opening) => shares[Math.min(opening, last)] };
}

/** Every opening is like the first: after n of them, the share `1 - miss^n` has it. */
function steady(miss: number): Until {
  if (miss >= 1) return { at: SHARES.map(() => undefined), curve: [{ opening: 0, share: 0 }], share: () => 0 };
  const share = (opening: number) => 1 - pow(miss, opening);
  const by = (wanted: number) => {
    if (miss <= 0) return 1;
    let n = Math.max(1, Math.ceil(log(1 - wanted) / log(miss) - 1e-9));
    // What rounding made of the logarithms is put right.
    while (n > 1 && share(n - 1) >= wanted - 1e-12) n--;
    while (share(n) < wanted - 1e-12) n++;
    return n;
  };
  const last = by(0.995);
  const step = Math.max(1, Math.ceil(last / MOST_POINTS));
  const openings = Array.from({ length: Math.floor(last / step) + 1 }, (_, i) => i * step);
  return { at: SHARES.map(by), curve: openings.map((opening) => ({ opening, share: share(opening) })), share };
}
