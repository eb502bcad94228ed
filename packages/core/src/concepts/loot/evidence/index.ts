import { loot } from '../state.js';
import type { Rules } from '../../../ruleset/rules.js';
import { Odds, type Thing } from './odds.js';
import { type Read, type Roller, settingFor } from './setting.js';
import { untilOf } from './until.js';

export { LootSampler, type Sampled, type SampleResult } from './sample.js';
export type { Read, Roller } from './setting.js';
export { SHARES } from './until.js';

/** One line of a table with its real chances. */
export interface LootLine {
  readonly id: string;
  readonly label: string;
  readonly weight: number;
  /** At one roll, and at all at an opening: shares of 1, for one whose luck has not been bad. */
  readonly chance: number;
  readonly drawn: number;
}

/** What a table comes to for one who rolls it. */
export interface LootEvidence {
  readonly label: string;
  /** Whether all of it is counted out; where not, what is sampled counts. */
  readonly exact: boolean;
  readonly reads: readonly Read[];
  readonly always: readonly { readonly id: string; readonly label: string; readonly there: boolean }[];
  readonly lines: readonly LootLine[];
  readonly sum: number;
  /** How much of each thing an opening gives on the long run. */
  readonly expected: readonly { readonly thing: Thing; readonly label: string; readonly mean: number; readonly plain: number }[];
  /** How likely an opening gives nothing at all. */
  readonly empty: number;
  readonly things: readonly { readonly thing: Thing; readonly label: string }[];
  /** The one that is waited for. */
  readonly until:
    | {
        readonly thing: Thing;
        readonly label: string;
        /** By {@link SHARES}. */
        readonly at: readonly (number | undefined)[];
        readonly curve: readonly { readonly opening: number; readonly share: number }[];
        /** Without the streak breaker, where there is one. */
        readonly plain?: {
          readonly at: readonly (number | undefined)[];
          readonly curve: readonly { readonly opening: number; readonly share: number }[];
        };
        /** The shares that a sample is compared with. */
        readonly compared: readonly { readonly opening: number; readonly share: number }[];
      }
    | undefined;
}

/**
 * The real odds of a table, counted out from the rules: by closed form, by all orders of drawing, and by a Markov chain where
 * bad luck is made up for.
 * @param thing what is waited for; the rarest where nothing is said
 */
export function lootEvidence(rules: Rules, id: string, roller: Roller = {}, thing?: Thing): LootEvidence | undefined {
  const setting = settingFor(rules, id, roller);
  if (!setting) return undefined;
  const { list } = loot.of(setting.rules);
  const index = list.findIndex((table) => table.id === id);
  const table = list[index];
  const [odds, plain] = [new Odds(setting), new Odds(setting, true)];
  const opening = odds.opening(index);
  const labels = odds.things(index);
  const [longRun, without] = [odds.longRun(index), plain.longRun(index)];
  const things = [...labels].map(([one, label]) => ({ thing: one, label }));
  const wanted =
    things.find((one) => one.thing === thing) ??
    rarest(things, odds, index, table.streak && odds.thingOf(table, table.entries[table.streak.at]));
  return {
    label: table.label,
    exact: odds.isExact(index),
    reads: setting.reads,
    always: table.always.map((drop) => ({
      id: drop.id,
      label: drop.label,
      there: !drop.test || drop.test(setting.world, setting.opener.parties) !== 0,
    })),
    lines: table.entries.map((drop, i) => ({
      id: drop.id,
      label: drop.label,
      weight: opening.weights[i],
      chance: opening.chances[i],
      drawn: opening.drawn[i],
    })),
    sum: opening.weights.reduce((sum, weight) => sum + weight, 0),
    expected: things.map((one) => ({ ...one, mean: longRun.get(one.thing) ?? 0, plain: without.get(one.thing) ?? 0 })),
    empty: odds.nothing(index),
    things,
    until: wanted && waited(setting, odds, plain, index, wanted, table.streak !== undefined),
  };
}

function rarest(
  things: LootEvidence['things'],
  odds: Odds,
  index: number,
  streak: Thing | undefined,
): LootEvidence['things'][number] | undefined {
  const { misses } = odds.opening(index);
  // What bad luck is made up for is what its author thinks of.
  const own = things.find(({ thing }) => thing === streak);
  return own ?? [...things].sort((a, b) => misses(b.thing).none - misses(a.thing).none)[0];
}

function waited(
  setting: NonNullable<ReturnType<typeof settingFor>>,
  odds: Odds,
  plain: Odds,
  index: number,
  one: LootEvidence['things'][number],
  broken: boolean,
): LootEvidence['until'] {
  const until = untilOf(setting, odds, index, one.thing);
  const without = broken ? untilOf(setting, plain, index, one.thing, true) : undefined;
  const asked = [...new Set(until.at.flatMap((n) => (n === undefined ? [] : [n])))];
  return {
    ...one,
    at: until.at,
    curve: until.curve,
    ...(without && { plain: { at: without.at, curve: without.curve } }),
    compared: asked.map((opening) => ({ opening, share: until.share(opening) })),
  };
}

/** What a share is called, as one reads it, by {@link SHARES}. */
export const SHARE_WORDS: readonly string[] = ['half', 'nine in ten', 'ninety-nine in a hundred'];
