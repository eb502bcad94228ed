import { pow } from '../../../math/power.js';
import { attributes } from '../../attributes/index.js';
import { type Drop, type LootTable } from '../compile.js';
import { loot } from '../state.js';
import { weigh } from '../roll.js';
import { amountOf, type Counts, countsOf, meanOf } from './quantities.js';
import { type Setting, tablesIn } from './setting.js';

/** Draws without putting back are counted out exactly up to so many entries. */
const MOST_SUBSETS = 12;

/** Something that can come of a table, at whatever depth: `gives/tidePearls`. */
export type Thing = string;

/** What an opening of a table comes to while bad luck has lasted for `dry` openings. */
export interface Opening {
  readonly weights: readonly number[];
  /** Of each entry at the first roll. */
  readonly chances: readonly number[];
  /** Of each entry, that it is drawn at all at an opening. */
  readonly drawn: readonly number[];
  /** How much of each thing on average. */
  readonly expected: ReadonlyMap<Thing, number>;
  /**
   * How likely nothing of a thing comes; how likely that is while rolls are made that do not draw the streak's entry either;
   * and how likely it is because no roll is made.
   */
  readonly misses: (thing: Thing) => { readonly none: number; readonly dry: number; readonly idle: number };
  /** How likely no roll is made at all. */
  readonly unrolled: number;
}

/** Works the odds of tables out, exactly: what can't be counted out is said by {@link isExact}. */
export class Odds {
  private readonly list: readonly LootTable[];
  private readonly known = new Map<string, Opening>();

  constructor(
    private readonly setting: Setting,
    /** Leaves streak breakers out, for comparison. */
    private readonly plain = false,
  ) {
    this.list = loot.of(setting.rules).list;
  }

  /** Whether everything about a table can be counted out; where not, it is sampled. */
  isExact(index: number): boolean {
    const tables = tablesIn(this.list, index);
    const [own, ...nested] = tables;
    const counted = tables.every(({ replaced, entries }) => replaced || entries.length <= MOST_SUBSETS);
    // A table within that has a streak of its own remembers more than this one does.
    return counted && (this.plain || nested.every(({ streak }) => !streak)) && own !== undefined;
  }

  thingOf(table: LootTable, drop: Drop): Thing {
    return drop.what === 'then' ? `then/${table.id}.${drop.id}` : `${drop.what}/${drop.index}`;
  }

  /** What comes of a line, by its own name: two lines that give the same are one thing. */
  private labelOf({ what, index, label }: Drop): string {
    const chapter = { pickup: 'pickups', gives: 'attributes', effect: 'effects', ability: 'abilities' }[what as 'gives'];
    return this.setting.rules.chapters.get(chapter ?? '')?.entries[index]?.label ?? label;
  }

  /** Labels of all that can come of a table, in the order in which it stands there. */
  things(index: number): ReadonlyMap<Thing, string> {
    const found = new Map<Thing, string>();
    for (const table of tablesIn(this.list, index))
      for (const drop of [...table.always, ...table.entries])
        if (drop.what !== 'table' && drop.what !== 'nothing') found.set(this.thingOf(table, drop), this.labelOf(drop));
    return found;
  }

  private readonly now = (formula: (world: Setting['world'], parties: Setting['opener']['parties']) => number) =>
    formula(this.setting.world, this.setting.opener.parties);

  opening(index: number, dry = 0): Opening {
    const table = this.list[index];
    const { streak } = table;
    // Until its bad luck counts, every opening is like the first.
    const moves = streak && !this.plain && (dry >= streak.after || (streak.certain > 0 && dry + 1 >= streak.certain));
    const key = `${index}/${moves ? dry : 0}`;
    let known = this.known.get(key);
    if (!known) this.known.set(key, (known = this.workOut(table, moves ? dry : 0)));
    return known;
  }

  private workOut(table: LootTable, dry: number): Opening {
    const weights: number[] = [];
    const asked = this.plain ? { ...table, streak: undefined } : table;
    const sum = weigh(this.setting.world, asked, this.setting.opener, dry, weights);
    const rolls = countsOf(table.rolls, this.now);
    const chances = weights.map((weight) => (sum > 0 ? weight / sum : 0));
    const draw = (miss: readonly number[]) => this.missed(table, weights, sum, rolls, miss);
    const only = (i: number) => weights.map((_, k) => (k === i ? 0 : 1));
    const drawn = weights.map((_, i) => 1 - draw(only(i)));
    const expected = new Map<Thing, number>();
    const add = (thing: Thing, amount: number) => expected.set(thing, (expected.get(thing) ?? 0) + amount);
    const present = table.always.filter((drop) => !drop.test || this.now(drop.test) !== 0);
    for (const drop of present) this.amounts(table, drop, 1, add);
    const often = meanOf(rolls);
    const unrolled = rolls.find(({ count }) => count === 0)?.p ?? 0;
    table.entries.forEach((drop, i) => this.amounts(table, drop, table.replaced ? often * chances[i] : drawn[i], add));
    return {
      weights,
      chances,
      drawn,
      expected,
      unrolled,
      misses: (thing) => {
        const always = present.reduce((p, drop) => p * this.missOf(table, drop, thing), 1);
        const miss = table.entries.map((drop) => this.missOf(table, drop, thing));
        const { streak } = table;
        const none = always * draw(miss);
        const idle = always * unrolled;
        if (!streak) return { none, dry: none - idle, idle };
        const undrawn = miss.map((one, i) => (i === streak.at ? 0 : one));
        return { none, dry: always * draw(undrawn) - idle, idle };
      },
    };
  }

  /** What a line adds on average when it is drawn so often. */
  private amounts(table: LootTable, drop: Drop, often: number, add: (thing: Thing, amount: number) => void): void {
    if (often === 0 || drop.what === 'nothing') return;
    if (drop.what === 'table') {
      const times = meanOf(countsOf(drop.quantity, this.now)) * often;
      for (const [thing, amount] of this.longRun(drop.index)) add(thing, amount * times);
    } else add(this.thingOf(table, drop), this.oneOf(drop).mean * often);
  }

  private oneOf(drop: Drop): { readonly mean: number; readonly none: number } {
    if (drop.what === 'then') return { mean: 1 - amountOf(drop.quantity, this.now).none, none: amountOf(drop.quantity, this.now).none };
    if (drop.what === 'gives' && !attributes.of(this.setting.rules).list[drop.index].whole) return amountOf(drop.quantity, this.now);
    const counts = countsOf(drop.quantity, this.now, drop.what === 'gives' ? Number.MAX_SAFE_INTEGER : 1000);
    return { mean: meanOf(counts), none: counts.find(({ count }) => count === 0)?.p ?? 0 };
  }

  /** How likely a line that is drawn gives nothing of a thing. */
  private missOf(table: LootTable, drop: Drop, thing: Thing): number {
    if (drop.what === 'nothing') return 1;
    if (drop.what !== 'table') return this.thingOf(table, drop) === thing ? this.oneOf(drop).none : 1;
    const { none } = this.opening(drop.index).misses(thing);
    return countsOf(drop.quantity, this.now).reduce((sum, { count, p }) => sum + p * pow(none, count), 0);
  }

  /** How likely all rolls of an opening miss, where `miss` says how likely each entry does when it is drawn. */
  private missed(table: LootTable, weights: readonly number[], sum: number, rolls: Counts, miss: readonly number[]): number {
    if (sum <= 0) return 1;
    if (table.replaced) {
      const one = weights.reduce((all, weight, i) => all + (weight / sum) * miss[i], 0);
      return rolls.reduce((all, { count, p }) => all + p * pow(one, count), 0);
    }
    return rolls.reduce((all, { count, p }) => all + p * missedInTurn(weights, miss, count), 0);
  }

  /** How likely an opening gives nothing at all, bad luck left aside. */
  nothing(index: number): number {
    const table = this.list[index];
    const misses = (drop: Drop): number => {
      if (drop.what === 'nothing') return 1;
      if (drop.what !== 'table') return this.oneOf(drop).none;
      const inner = this.nothing(drop.index);
      return countsOf(drop.quantity, this.now).reduce((sum, { count, p }) => sum + p * pow(inner, count), 0);
    };
    const present = table.always.filter((drop) => !drop.test || this.now(drop.test) !== 0);
    const { weights } = this.opening(index);
    const sum = weights.reduce((all, weight) => all + weight, 0);
    const drawn = this.missed(table, weights, sum, countsOf(table.rolls, this.now), table.entries.map(misses));
    return present.reduce((p, drop) => p * misses(drop), drawn);
  }

  /** What openings of a table give on average once its streaks have settled. */
  longRun(index: number): ReadonlyMap<Thing, number> {
    const table = this.list[index];
    if (!table.streak || this.plain) return this.opening(index).expected;
    const expected = new Map<Thing, number>();
    let total = 0;
    // How many of those who begin anew come to be dry for so long: the share of all openings that are made so.
    for (let dry = 0, left = 1; left > 1e-12 && dry < LONGEST; dry++) {
      const at = this.opening(index, dry);
      total += left;
      for (const [thing, amount] of at.expected) expected.set(thing, (expected.get(thing) ?? 0) + left * amount);
      left *= at.unrolled >= 1 ? 0 : (1 - at.drawn[table.streak.at] - at.unrolled) / (1 - at.unrolled);
    }
    return new Map([...expected].map(([thing, amount]) => [thing, amount / total]));
  }
}

/** Bad luck longer than this is left out of account: it is rarer than anything that could be told. */
const LONGEST = 20_000;

/** How likely `count` draws without putting back all miss: every order in which entries can go, each subset once. */
function missedInTurn(weights: readonly number[], miss: readonly number[], count: number): number {
  const known = new Map<number, number>();
  const from = (gone: number, left: number): number => {
    if (left === 0) return 1;
    const before = known.get(gone);
    if (before !== undefined) return before;
    let sum = 0;
    for (let i = 0; i < weights.length; i++) if ((gone & (1 << i)) === 0) sum += weights[i];
    let all = 0;
    if (sum > 0) {
      for (let i = 0; i < weights.length; i++)
        if ((gone & (1 << i)) === 0 && weights[i] > 0 && miss[i] > 0) all += (weights[i] / sum) * miss[i] * from(gone | (1 << i), left - 1);
    } else all = 1;
    known.set(gone, all);
    return all;
  };
  return from(0, Math.min(count, weights.length));
}
