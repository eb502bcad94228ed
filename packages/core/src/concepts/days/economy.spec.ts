import fc from 'fast-check';
import { type GameEvent, readRuleset, savePlayer } from '../../index.js';
import { ask, at, buy, endDay, give, HARBOUR, harbour, lines, price, refusals, sell, statement } from '../../testing/harbour.js';
import { input, join, rulesetWith, Trial } from '../../testing/rulesets.js';
import { stallsTable } from '../stalls/tables.js';
import { stocksTable } from '../shops/tables.js';
import { accountsTable } from '../ledger/tables.js';

describe('A market', () => {
  it('buys one or all at today’s price, and refuses what one has not', () => {
    const trial = at();
    give(trial, 'brass', 5);
    const today = price(trial, 0);
    sell(trial, 'brass', 1);
    expect([trial.value('brass'), trial.value('scrip')]).toEqual([4, 100 + today]);
    sell(trial, 'brass');
    expect([trial.value('brass'), trial.value('scrip')]).toEqual([0, 100 + 5 * today]);
    sell(trial, 'brass');
    sell(trial, 'glass', 1);
    sell(trial, 'scrip', 1);
    expect(refusals(trial)).toEqual(['tooPoor', 'tooPoor', 'notSold']);
    expect(lines(trial)).toEqual([`1 Brass ${5 * today}`.replace('Brass', 'brass')]);
  });

  it('pays another price each day, in its range or a step away, the same under the same seed', () => {
    const played = (seed: number) => {
      const trial = at({ economy: { currency: 'scrip' } }, ['north'], seed);
      const prices: number[][] = [];
      for (let day = 0; day < 60; day++) {
        prices.push([price(trial, 0), price(trial, 1)]);
        endDay(trial);
      }
      return prices;
    };
    const prices = played(3);
    for (const [brass, glass] of prices) {
      expect(brass).toBeGreaterThanOrEqual(6);
      expect(brass).toBeLessThanOrEqual(12);
      expect(glass).toBeGreaterThanOrEqual(10);
      expect(glass).toBeLessThanOrEqual(30);
    }
    expect(new Set(prices.map(([brass]) => brass)).size).toBe(7);
    prices.slice(1).forEach(([, glass], i) => expect(Math.abs(glass - prices[i][1])).toBeLessThanOrEqual(4.5));
    expect(prices[0][1]).toBe(20);
    expect(played(3)).toEqual(prices);
    expect(played(4)).not.toEqual(prices);
  });

  it('walks by whole steps of which each is as likely as another, those at the ends too', () => {
    const walking = (step: number) => ({
      markets: [{ id: 'quay', label: 'Quay', goods: [{ good: 'brass', price: { walk: { start: 500, step, least: 0, most: 1000 } } }] }],
    });
    const trial = at(walking(3));
    const moves = new Map<number, number>();
    let before = price(trial, 0);
    for (let day = 0; day < 3000; day++) {
      endDay(trial);
      const by = price(trial, 0) - before;
      before = price(trial, 0);
      // At an end it has nowhere to go.
      if (before > 3 && before < 997) moves.set(by, (moves.get(by) ?? 0) + 1);
    }
    const days = [...moves.values()].reduce((sum, n) => sum + n, 0);
    expect([...moves.keys()].sort((a, b) => a - b)).toEqual([-3, -2, -1, 0, 1, 2, 3]);
    for (const [by, times] of moves)
      expect(Math.abs(times / days - 1 / 7))
        .withContext(`by ${by}`)
        .toBeLessThan(0.03);
    const { problems } = readRuleset(rulesetWith({ ...HARBOUR, ...walking(0.4) }));
    expect(problems.map(({ path }) => path)).toEqual(['/markets/0/goods/0/price/walk/step']);
  });

  it('is asked only by who stands near', () => {
    const actors = [...(rulesetWith(HARBOUR)['actors'] as object[]), { id: 'broker', label: 'Broker', kind: 'character' }];
    const trial = at({
      actors,
      markets: [{ ...HARBOUR.markets[0], at: 'broker' }],
      arena: { starts: [{ x: 100, y: 100 }], placed: [{ actor: 'broker', x: 500, y: 100 }] },
    });
    give(trial, 'brass', 1);
    sell(trial, 'brass');
    expect(refusals(trial)).toEqual(['tooFar']);
    expect(stallsTable.in(trial.world).count).toBe(1);
    trial.poke({ do: 'place', x: 460, y: 100 });
    expect(stallsTable.in(trial.world).count).toBe(2);
    sell(trial, 'brass');
    expect(trial.value('brass')).toBe(0);
  });
});

describe('A shop', () => {
  it('sells tier by tier, each at its own price, in one step', () => {
    const trial = at();
    buy(trial, 'slip');
    expect(trial.value('scrip')).toBe(60);
    buy(trial, 'slip');
    expect([trial.value('scrip'), refusals(trial)]).toEqual([60, ['tooPoor']]);
    give(trial, 'scrip', 300);
    buy(trial, 'slip');
    expect(trial.named('offerBought').map(({ data }) => data['tier'])).toEqual([1, 2]);
    // That was the goal: the books are closed.
    buy(trial, 'slip');
    expect(refusals(trial)).toEqual(['tooPoor', 'over']);
  });

  it('gives what there is room for, or takes nothing', () => {
    const trial = at();
    give(trial, 'brass', 19);
    const before = trial.world.hash();
    buy(trial, 'bottle');
    expect([trial.value('scrip'), trial.value('brass'), refusals(trial)]).toEqual([100, 19, ['noRoom']]);
    expect(stocksTable.in(trial.world).count).toBe(0);
    expect(before).not.toBe('');
  });

  it('sells the last one once, although two ask in the same tick', () => {
    const trial = at({}, ['north', 'south']);
    for (const seat of ['north', 'south']) give(trial, 'brass', 1, seat);
    trial.step(input('north', { do: 'buy', offer: 'lamp' }), input('south', { do: 'buy', offer: 'lamp' }));
    expect([trial.value('scrip'), trial.value('scrip', 'south')]).toEqual([70, 100]);
    expect([trial.value('brass'), trial.value('brass', 'south')]).toEqual([0, 1]);
    expect(trial.named('tradeRefused').map(({ who, data }) => `${who} ${data['reason']}`)).toEqual(['south soldOut']);
  });

  it('has its stock filled up each day, or never, as written', () => {
    const trial = at({ economy: { currency: 'scrip' } });
    for (let n = 0; n < 4; n++) buy(trial, 'bottle');
    buy(trial, 'lamp');
    expect(refusals(trial)).toEqual(['soldOut']);
    endDay(trial);
    buy(trial, 'bottle');
    buy(trial, 'lamp');
    expect(refusals(trial)).toEqual(['soldOut', 'soldOut']);
    expect(trial.value('brass')).toBe(7);
  });

  it('refuses what nobody sells, and says what a buyer does not meet', () => {
    const trial = at({
      offers: [
        ...HARBOUR.offers.slice(0, 2),
        { ...HARBOUR.offers[2], needs: [{ if: 'glass > 0', say: 'Bring glass first.' }] },
        { id: 'spare', label: 'Spare' },
      ],
    });
    buy(trial, 'spare');
    buy(trial, 'nosuch');
    buy(trial, 'lamp');
    expect(trial.named('tradeRefused').map(({ data }) => data['says'] ?? data['reason'])).toEqual([
      'notSold',
      'notSold',
      'Bring glass first.',
    ]);
  });
});

describe('A day', () => {
  it('counts from what one comes with: what came in before is no gain of today', () => {
    const trial = at();
    trial.poke({ do: 'give', attribute: 'scrip', amount: 50 });
    const saved = savePlayer(trial.world, trial.world.actors.rowOf(trial.actor()));
    trial.step({ kind: 'leave', args: { seat: 'north' } });
    trial.step(join('north', { saved }));
    trial.poke({ do: 'give', attribute: 'scrip', amount: 7 });
    endDay(trial);
    expect(statement(trial)).toEqual([jasmine.objectContaining({ opening: 150, income: 7, closing: 157, result: 7 })]);
    expect(lines(trial)).toEqual(['1 A poke 7']);
  });

  it('ends with a statement that adds up, each line with its source', () => {
    const trial = at();
    give(trial, 'brass', 3);
    const today = price(trial, 0);
    sell(trial, 'brass');
    buy(trial, 'slip');
    trial.poke({ do: 'give', attribute: 'scrip', amount: 7 });
    endDay(trial);
    expect(statement(trial)).toEqual([
      { day: 1, money: 'scrip', opening: 100, income: 3 * today + 7, costs: -50, closing: 57 + 3 * today, result: 3 * today - 43 },
    ]);
    expect(lines(trial)).toEqual([`1 brass ${3 * today}`, '1 Slip -40', '1 A poke 7', '1 Upkeep: Slip -10']);
    expect(trial.named('dayBegan').map(({ data }) => data['day'])).toEqual([2]);
    endDay(trial);
    expect(statement(trial)[1]['opening']).toBe(57 + 3 * today);
    expect(lines(trial)).toEqual(['2 Upkeep: Slip -10']);
  });

  it('ends when all players have asked, or after its length', () => {
    const trial = at({}, ['north', 'south']);
    endDay(trial);
    expect(trial.named('dayEnded').length).toBe(0);
    endDay(trial, 'south');
    expect(trial.named('dayEnded').length).toBe(2);
    const clocked = at({ economy: { currency: 'scrip', day: { length: '3s', key: false } } });
    clocked.run(2.9);
    endDay(clocked);
    expect([clocked.named('dayEnded').length, ...refusals(clocked)]).toEqual([1, 'notReady']);
    clocked.run(3);
    expect(clocked.named('dayEnded').length).toBe(2);
  });

  it('leaves who can’t pay a last chance to sell, and ruins who does not take it', () => {
    const poor = { attributes: HARBOUR.attributes.map((one) => (one.id === 'scrip' ? { ...one, start: 45 } : one)) };
    const saved = at(poor);
    give(saved, 'brass', 2);
    buy(saved, 'slip');
    endDay(saved);
    expect(saved.named('shortAtDayEnd').map(({ data }) => data['owed'])).toEqual([5]);
    expect(saved.named('dayEnded').length).toBe(0);
    expect(saved.value('scrip')).toBe(0);
    sell(saved, 'brass', 1);
    saved.step();
    expect([saved.named('playerRuined').length, saved.named('dayEnded').length]).toEqual([0, 1]);
    expect(saved.value('scrip')).toBe(price(saved, 0) === 0 ? 0 : Number(statement(saved)[0]['closing']));

    const ruined = at(poor);
    buy(ruined, 'slip');
    endDay(ruined);
    ruined.run(1.9);
    expect(ruined.named('playerRuined').length).toBe(0);
    ruined.run(0.2);
    expect(ruined.named('playerRuined').map(({ data }) => [data['days'], data['owed'], data['says']])).toEqual([
      [1, 5, 'The harbour has written you off.'],
    ]);
    expect(statement(ruined)[0]['closing']).toBe(-5);
    give(ruined, 'brass', 2);
    sell(ruined, 'brass');
    endDay(ruined);
    expect(refusals(ruined)).toEqual(['ruined', 'ruined']);
    expect(ruined.named('dayBegan').length).toBe(1);
  });

  it('counts the days to the goal, once', () => {
    const trial = at();
    endDay(trial);
    endDay(trial);
    give(trial, 'scrip', 500);
    buy(trial, 'slip');
    buy(trial, 'slip');
    trial.run(1);
    expect(trial.named('goalReached').map(({ data }) => data['days'])).toEqual([3]);
    const row = trial.world.actors.rowOf(trial.actor());
    expect(accountsTable.in(trial.world).cells.goal[row]).toBe(3);
  });

  it('keeps accounts, tiers and the day over a restart and in a saved player', () => {
    const trial = at();
    buy(trial, 'slip');
    endDay(trial);
    trial.restore();
    expect(lines(trial).length).toBe(2);
    endDay(trial);
    const saved = savePlayer(trial.world, trial.world.actors.rowOf(trial.actor()));
    expect(saved['purchases']['slip']).toBe(1);
    const again = new Trial(harbour(), [join('north', { saved })]);
    expect(again.value('scrip')).toBe(40);
    buy(again, 'slip');
    give(again, 'scrip', 300);
    buy(again, 'slip');
    expect(again.named('offerBought').map(({ data }) => data['tier'])).toEqual([2]);
  });

  it('lets a player in whose money is from before without their statement going wrong', () => {
    const trial = new Trial(harbour(), [join('north', { saved: { attributes: { scrip: 640 } } })]);
    endDay(trial);
    expect(statement(trial)).toEqual([{ day: 1, money: 'scrip', opening: 640, income: 0, costs: 0, closing: 640, result: 0 }]);
  });
});

describe('An exchange', () => {
  it('does all or nothing, over several currencies and goods', () => {
    const deal = {
      do: 'trade',
      pays: [
        { attribute: 'scrip', amount: 50 },
        { attribute: 'glass', amount: 2 },
      ],
      gets: [{ attribute: 'brass', amount: 3 }],
    };
    const trial = at();
    trial.poke(deal);
    expect([trial.value('scrip'), trial.value('glass'), trial.value('brass')]).toEqual([100, 0, 0]);
    give(trial, 'glass', 2);
    trial.poke(deal);
    expect([trial.value('scrip'), trial.value('glass'), trial.value('brass')]).toEqual([50, 0, 3]);
    expect([trial.named('traded').length, ...refusals(trial)]).toEqual([1, 'tooPoor']);
  });

  const act = fc.oneof(
    fc.record({ do: fc.constant('buy'), offer: fc.constantFrom('slip', 'bottle', 'lamp', 'nosuch') }),
    fc.record(
      { do: fc.constant('sell'), good: fc.constantFrom('brass', 'glass', 'scrip'), amount: fc.integer({ min: 1, max: 30 }) },
      { requiredKeys: ['do', 'good'] },
    ),
    fc.constant({ do: 'endDay' }),
    fc.record({
      do: fc.constant('give'),
      attribute: fc.constantFrom('brass', 'glass', 'scrip'),
      amount: fc.integer({ min: 0, max: 40 }),
    }),
  );
  const SEATS = ['north', 'south'];
  const KINDS = ['scrip', 'brass', 'glass'];

  /** One deed of two traders: what they had of each kind before and after, and what was told of it. */
  interface Deed {
    readonly trial: Trial;
    readonly does: string;
    readonly before: readonly number[];
    readonly after: readonly number[];
    readonly events: readonly GameEvent[];
  }

  /** Has two trade at random, in a world that is stored now and then; what is to hold is looked at after every deed. */
  const holds = (what: (deed: Deed) => boolean) =>
    expect(() =>
      fc.assert(
        fc.property(fc.array(fc.tuple(fc.constantFrom(...SEATS), act), { maxLength: 60 }), fc.integer(), (acts, seed) => {
          const trial = new Trial(
            harbour(),
            SEATS.map((seat) => join(seat)),
            seed,
          );
          const has = () => SEATS.flatMap((seat) => KINDS.map((kind) => trial.value(kind, seat)));
          return acts.every(([seat, one], i) => {
            if (i % 11 === 6) trial.restore();
            const before = has();
            const events = one.do === 'give' ? trial.poke(one, seat) : ask(trial, one, seat);
            return what({ trial, does: one.do, before, after: has(), events });
          });
        }),
        { numRuns: 25, seed: 20 },
      ),
    ).not.toThrow();
  const named = ({ events }: Deed, name: string) => events.filter((event) => event.name === name).map(({ data }) => data);
  const sum = (data: GameEvent['data'], ...names: readonly string[]) => names.reduce((all, name) => all + Number(data[name]), 0);

  it('moves nothing but what is told', () => {
    holds(({ before, after, events }) => {
      const moved = SEATS.flatMap((seat) =>
        KINDS.map((kind) =>
          events
            .filter(({ name, who, data }) => name === 'attributeChanged' && who === seat && data['attribute'] === kind)
            .reduce((all, { data }) => all + Number(data['given']), 0),
        ),
      );
      return after.every((amount, i) => amount === before[i] + moved[i]);
    });
  });

  it('leaves nobody with less than nothing, and no debt below it', () => {
    holds(({ trial, after }) => [...after, ...accountsTable.in(trial.world).cells.owed].every((amount) => amount >= 0));
  });

  it('brings the price for each that is sold', () => {
    holds((deed) => named(deed, 'goodSold').every((data) => sum(data, 'total') === sum(data, 'amount') * sum(data, 'price')));
  });

  it('is in a statement that adds up', () => {
    holds((deed) => named(deed, 'dayEnded').every((data) => sum(data, 'opening', 'income', 'costs') === sum(data, 'closing')));
  });

  it('that is refused leaves everything as it was', () => {
    holds((deed) => deed.does !== 'buy' || named(deed, 'tradeRefused').length === 0 || deed.after.join() === deed.before.join());
  });
});
