import { attributes } from '../../attributes/index.js';
import { type Drop, type LootTable } from '../compile.js';
import { loot } from '../state.js';
import { openTable, wholeOf } from '../roll.js';
import { noteDry } from '../streaks.js';
import type { Rules } from '../../../ruleset/rules.js';
import { Odds, type Thing } from './odds.js';
import { type Roller, type Setting, settingFor, tablesIn } from './setting.js';
import { SHARES } from './until.js';

/** A number that was found by trying, with its standard error. */
export interface Sampled {
  readonly mean: number;
  readonly error: number;
}

export interface SampleResult {
  /** Openings that were made. */
  readonly openings: number;
  /** Of each entry of the table, how often it was drawn at the first roll of a player without bad luck. */
  readonly chances: readonly Sampled[];
  /** Of each thing, how much an opening gave. */
  readonly expected: readonly { readonly thing: Thing; readonly label: string; readonly mean: number; readonly error: number }[];
  /** Waits that came to their end, and the share that had the thing by an opening, for the openings that were asked. */
  readonly waits: number;
  readonly until: readonly (number | undefined)[];
  readonly shares: readonly { readonly opening: number; readonly mean: number; readonly error: number }[];
}

/** Waits longer than this are counted as this long. */
const LONGEST_WAIT = 20_000;

/** Opens a table again and again with the real core, in as many goes as one likes; two players in one world, so that neither moves the other's luck. */
export class LootSampler {
  private readonly steady: Setting;
  private readonly fresh: Setting;
  private readonly odds: Odds;
  private readonly index: number;
  private readonly tables: readonly LootTable[];
  private openings = 0;
  private readonly drawn: number[];
  private firsts = 0;
  private readonly sums = new Map<Thing, { sum: number; squares: number; now: number }>();
  /** By line: where what it gives is added up, and whether it is what is waited for. */
  private readonly lines = new Map<Drop, { readonly of: { now: number } | undefined; readonly waited: boolean; readonly at: number }>();
  private wait = 0;
  private found = false;
  private readonly waits = new Map<number, number>();
  private waited = 0;

  /** @throws RangeError where there is no such table */
  constructor(rules: Rules, id: string, roller: Roller, thing: Thing, seed = 20_231) {
    const [steady, fresh] = [settingFor(rules, id, roller, seed), settingFor(rules, id, roller, seed + 1)];
    if (!steady || !fresh) throw new RangeError(`There is no loot table ${id}`);
    this.steady = steady;
    this.fresh = fresh;
    this.odds = new Odds(steady);
    const { list } = loot.of(steady.rules);
    this.index = list.findIndex((table) => table.id === id);
    this.tables = tablesIn(list, this.index);
    this.drawn = list[this.index].entries.map(() => 0);
    for (const one of this.odds.things(this.index).keys()) this.sums.set(one, { sum: 0, squares: 0, now: 0 });
    const own = list[this.index];
    // Both worlds run on rules of their own, with lines of their own.
    for (const setting of [steady, fresh])
      for (const table of tablesIn(loot.of(setting.rules).list, this.index))
        for (const drop of [...table.always, ...table.entries]) {
          const one = this.odds.thingOf(table, drop);
          const at = table.index === own.index ? table.entries.indexOf(drop as (typeof table.entries)[number]) : -1;
          this.lines.set(drop, { of: this.sums.get(one), waited: one === thing, at });
        }
  }

  /** Makes so many openings more: what they give on the long run, and how long players wait who have none of it yet. */
  run(openings: number): void {
    for (let n = 0; n < openings; n++) {
      this.openOne();
      this.waitOne();
    }
    this.openings += openings;
  }

  private openOne(): void {
    openTable(this.steady.world, this.index, this.steady.opener, this.add);
    for (const of of this.sums.values()) {
      of.sum += of.now;
      of.squares += of.now * of.now;
      of.now = 0;
    }
  }

  private readonly add = (_table: LootTable, drop: Drop, amount: number): void => {
    const of = this.lines.get(drop)?.of;
    if (of) of.now += this.got(drop, amount);
  };

  private readonly watch = (table: LootTable, drop: Drop, amount: number, _chance: number, roll: number): void => {
    const line = this.lines.get(drop)!;
    if (roll === 1 && this.wait === 0 && line.at >= 0 && table.index === this.index) {
      this.firsts++;
      this.drawn[line.at]++;
    }
    if (line.waited && this.got(drop, amount) > 0) this.found = true;
  };

  private waitOne(): void {
    const { world, opener } = this.fresh;
    this.found = false;
    openTable(world, this.index, opener, this.watch);
    this.wait++;
    if (!this.found && this.wait < LONGEST_WAIT) return;
    this.waits.set(this.wait, (this.waits.get(this.wait) ?? 0) + 1);
    this.waited++;
    this.wait = 0;
    // The next one to wait is another player, whose luck has not been bad yet.
    for (const { index, streak } of this.tables) if (streak) noteDry(world, index, opener.streaks, 0);
  }

  private got(drop: Drop, amount: number): number {
    if (drop.what === 'nothing' || drop.what === 'table') return 0;
    if (drop.what === 'then') return amount > 0 ? 1 : 0;
    if (drop.what === 'gives' && !attributes.of(this.steady.rules).list[drop.index].whole) return amount;
    return wholeOf(amount, Number.MAX_SAFE_INTEGER);
  }

  result(asked: readonly number[] = []): SampleResult {
    const labels = this.odds.things(this.index);
    const byWait = [...this.waits].sort(([a], [b]) => a - b);
    const share = (opening: number) =>
      byWait.reduce((sum, [wait, count]) => (wait <= opening ? sum + count : sum), 0) / Math.max(1, this.waited);
    const proportion = (p: number, of: number): Sampled => ({
      mean: p,
      error: Math.sqrt(Math.max(p * (1 - p), 1 / Math.max(1, of)) / Math.max(1, of)),
    });
    let passed = 0;
    const at = SHARES.map(() => undefined as number | undefined);
    for (const [wait, count] of byWait) {
      passed += count;
      SHARES.forEach((wanted, i) => (at[i] ??= passed >= wanted * this.waited && wait < LONGEST_WAIT ? wait : undefined));
    }
    return {
      openings: this.openings,
      chances: this.drawn.map((count) => proportion(count / Math.max(1, this.firsts), this.firsts)),
      expected: [...this.sums].map(([thing, { sum, squares }]) => {
        const mean = sum / Math.max(1, this.openings);
        return {
          thing,
          label: labels.get(thing)!,
          mean,
          error: Math.sqrt(Math.max(0, squares / Math.max(1, this.openings) - mean * mean) / Math.max(1, this.openings)),
        };
      }),
      waits: this.waited,
      until: at,
      shares: asked.map((opening) => ({ opening, ...proportion(share(opening), this.waited) })),
    };
  }
}
