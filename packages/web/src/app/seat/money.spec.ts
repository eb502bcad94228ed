import { compileRuleset, Copy, Publisher, seatsTable, wireSchemaOf, World } from '@eager-ember/core';
import brinewick from '../../../../core/src/testing/recorded/brinewick.json';
import { openBench, Seen } from '../testing/bench';
import type { Ask } from './controls';
import { economyOf, type EconomyView } from './economy';
import { MoneyLine } from './money-line';
import { MoneyWindow, opensByItself } from './money-window';

type Step = readonly [seat: string, what: Readonly<Record<string, unknown>>];
const INPUTS = ['buy', 'sell', 'endDay'];

/** What the seat north is told of its money, after pokes and what seats asked for. */
function view(...steps: readonly Step[]): EconomyView {
  const rules = compileRuleset(brinewick);
  const world = World.start(rules, 1);
  world.step(['north', 'south'].map((seat) => ({ kind: 'join', args: { seat } })));
  for (const [seat, what] of steps)
    world.step([
      INPUTS.includes(String(what['do'])) ? { kind: 'input', args: { seat, input: what } } : { kind: 'poke', args: { seat, action: what } },
    ]);
  world.step();
  const publisher = new Publisher(world);
  publisher.capture();
  const actor = seatsTable.in(world).cells.actor[0];
  const copy = new Copy(wireSchemaOf(rules, false));
  copy.apply(publisher.frameFor({ actor, team: 0 }, 0));
  return economyOf(copy, world.actors.rowOf(actor))!;
}

const near: Step = ['north', { do: 'place', x: 880, y: 270 }];
const give = (attribute: string, amount: number): Step => ['north', { do: 'give', attribute, amount }];

describe('What a seat knows of its money', () => {
  it('is its purse and its day anywhere, and what is traded only near by', () => {
    const far = view(['north', { do: 'place', x: 300, y: 200 }]);
    expect([far.day, far.markets, far.shops, far.ends]).toEqual([1, [], [], '0 of 2 would end it']);
    const here = view(near, give('brassFittings', 3));
    expect(here.markets[0].goods.map(({ id, have }) => [id, have])).toEqual([
      ['brassFittings', 3],
      ['cutGlass', 0],
      ['tidePearls', 0],
    ]);
    const [slip, , winch, soap] = here.shops[0].wares;
    expect([slip.held, slip.costs, slip.upkeep, slip.refusal]).toEqual([
      'tier 0 of 3',
      '60 scrip',
      'then 6 a day',
      'It takes 60 scrip: you have 0.',
    ]);
    expect([winch.refusal, soap.left]).toEqual(['A winch needs a slip to stand on.', '4 left']);
  });

  it('is what came in and went out, by source, and the last statement', () => {
    const now = view(
      near,
      give('scrip', 100),
      ['north', { do: 'buy', offer: 'slip' }],
      ['north', { do: 'endDay' }],
      ['south', { do: 'endDay' }],
    );
    expect(now.day).toBe(2);
    expect(now.last).toEqual({
      day: 1,
      opening: 0,
      closing: 34,
      result: 34,
      income: [{ day: 1, label: 'A poke', amount: 100, times: 1 }],
      costs: [
        { day: 1, label: 'Slip', amount: -60, times: 1 },
        { day: 1, label: 'Upkeep: Slip', amount: -6, times: 1 },
      ],
    } as never);
    expect([now.today.opening, now.today.result]).toEqual([34, 0]);
  });

  it('says what is owed and for how long, and when it is over', () => {
    const short = view(
      near,
      give('scrip', 60),
      ['north', { do: 'buy', offer: 'slip' }],
      ['north', { do: 'endDay' }],
      ['south', { do: 'endDay' }],
    );
    expect(short.short).toMatch(/^You owe 6: sell within (29|30) s, or you are ruined\.$/);
    expect([short.settling, short.mayEnd]).toEqual([true, false]);
  });
});

describe('The window of money', () => {
  it('asks for one, for all, for an offer and for the end of the day', async () => {
    openBench();
    const seen = await Seen.of(MoneyWindow, { view: view(near, give('brassFittings', 2), give('scrip', 60)) });
    const asked: Ask[] = [];
    seen.fixture.componentInstance.ask.subscribe((one) => asked.push(one));
    for (const label of ['Sell one brass fittings', 'Sell all brass fittings', 'Buy slip']) {
      seen.element.querySelector<HTMLElement>(`[aria-label="${label}"]`)!.click();
    }
    await seen.click('end the day');
    expect(asked).toEqual([
      { do: 'sell', good: 'brassFittings', amount: 1 },
      { do: 'sell', good: 'brassFittings' },
      { do: 'buy', offer: 'slip' },
      { do: 'endDay' },
    ]);
    expect(seen.text('table[aria-label="Today so far"]')).toMatch(/Opening 0 A poke \+60 Closing 60 a gain of \+60/);
  });

  it('opens by itself when a day is over that tells of anything', () => {
    const [before, after] = [view(), view(near, give('scrip', 10), ['north', { do: 'endDay' }], ['south', { do: 'endDay' }])];
    expect(opensByItself(before, after)).toBeTrue();
    expect(opensByItself(undefined, after)).toBeFalse();
    expect(opensByItself(after, after)).toBeFalse();
  });

  it('has a line on the display that says where one trades', async () => {
    openBench();
    const seen = await Seen.of(MoneyLine, { view: view(near) });
    expect(seen.text('[data-money]')).toBe('M Money, day 1');
    expect(seen.element.innerText).toContain('trade here');
  });
});
