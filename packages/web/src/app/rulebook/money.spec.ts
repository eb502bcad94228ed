import { TestBed } from '@angular/core/testing';
import { documentNow, Seen, until } from '../testing/bench';
import { bare, choose, pick, spec } from '../testing/specs';
import { BackgroundTasks, type Task, type Watch } from '../shared/background-tasks';
import { backgroundTasksApi } from '../shared/background-tasks-api';
import { EconomyOutcomes } from './economy/economy-outcomes';
import { EconomyRulesPart } from './economy/economy-rules';
import { MarketSentences } from './economy/market-sentences';
import { OfferSentences } from './economy/offer-sentences';
import { ShopSentences } from './economy/shop-sentences';
import { lootGroup } from './loot/loot-groups';
import { LootBoard } from './loot/loot-board';
import brinewick from '../../../../core/src/testing/recorded/brinewick.json';
import { LootOdds } from './loot/loot-odds';
import { LootSentences } from './loot/loot-sentences';
import { partsWith } from './spec/parts';

type Json = Readonly<Record<string, unknown>>;
const entryNow = (chapter: string, id: string) => documentNow()[chapter].find((entry) => entry['id'] === id) as Json;
const economyNow = () => documentNow()['economy'] as unknown as Json;

/** Long work without workers, and little of it. */
class TasksAtHand {
  async inTurn(task: Task, goes: number, [, asked]: readonly unknown[], watch: Watch<unknown>) {
    const number = await this.begin(task);
    if (!watch.stopped()) watch.told(goes, backgroundTasksApi.go(number, [3000, asked]));
  }
  async spread(task: Task, goes: readonly unknown[], watch: Watch<readonly unknown[]>) {
    const number = await this.begin(task);
    if (!watch.stopped()) watch.told(goes.length, [backgroundTasksApi.go(number, [1, 6])]);
  }
  private begin({ document, concept, name, args }: Task): Promise<number> {
    return backgroundTasksApi.begin(document, concept, name, args);
  }
}

async function loot(id: string) {
  TestBed.configureTestingModule({ providers: [LootBoard, { provide: BackgroundTasks, useClass: TasksAtHand }] });
  const seen = await spec(LootSentences, 'loot', id);
  const odds = await Seen.of(LootOdds);
  document.body.append(odds.element);
  await odds.settle();
  return { seen, odds, chances: () => seen.texts('[data-chance]').map((text) => `${text.split(' %')[0]} %`) };
}

describe('The sentences of a loot table', () => {
  it('read as prose, with the real chance of each line beside its weight', async () => {
    const { seen, chances, odds } = await loot('strongbox');
    const texts = seen.texts('ee-sentence').map(bare);
    expect(texts[0]).toBe('Rolled for the one who brought it about, 2 rolls at an opening, each from all of it.');
    expect(texts).toContain('After 20 openings without tide-pearls, its weight grows by 6 an opening until it falls.');
    expect(chances()).toEqual(['44.4 %', '33.3 %', '16.7 %', '2.2 %', '3.3 %']);
    await seen.edit('weight of brass fittings', '80');
    expect((entryNow('loot', 'strongbox')['entries'] as Json[])[1]['weight']).toBe(80);
    expect(chances()[1]).toBe('57.1 %');
    expect(seen.text('[data-chance="brass"] s')).toContain('33.3 %');
    odds.element.remove();
  });

  it('take lines of every kind, conditions and a streak breaker in and out', async () => {
    const { seen, odds } = await loot('smallChange');
    for (const kind of ['amount', 'pickup', 'effect', 'ability use', 'nested table', 'actions', 'nothing']) await seen.click(kind, '.chip');
    const entries = entryNow('loot', 'smallChange')['entries'] as Json[];
    expect(entries.length).toBe(9);
    expect(
      entries.slice(2).map((line) => ['gives', 'pickup', 'effect', 'ability', 'table', 'then'].filter((kind) => kind in line).join()),
    ).toEqual(['gives', 'pickup', 'effect', 'ability', 'table', 'then', '']);
    await seen.click('streak breaker', '.chip');
    await seen.edit('openings without it', '5');
    expect(entryNow('loot', 'smallChange')['streak']).toEqual({ entry: 'coins', after: 5, adds: 1 });
    await seen.click('certain at last', '.chip');
    expect((entryNow('loot', 'smallChange')['streak'] as Json)['certain']).toBe(15);
    await seen.click('always', '.chip');
    expect((entryNow('loot', 'smallChange')['always'] as Json[]).length).toBe(1);
    await seen.edit('rolls', '1 to 3');
    expect(entryNow('loot', 'smallChange')['rolls']).toEqual({ random: [1, 3], whole: true });
    odds.element.remove();
  });

  it('refuse a circle under the sentence, and keep what was there', async () => {
    const { seen, odds } = await loot('smallChange');
    await seen.click('nested table', '.chip');
    const before = entryNow('loot', 'smallChange');
    await seen.edit('what lamprey is', 'strongbox');
    expect(seen.text('[role="alert"]')).toContain('which is in it: rolling it would never end');
    expect(entryNow('loot', 'smallChange')).toEqual(before);
    odds.element.remove();
  });
});

describe('The groups of loot tables', () => {
  it('say where each is rolled', () => {
    const of = (id: string) => lootGroup(brinewick as never, id);
    expect(['lamprey', 'strongbox', 'smallChange', 'dayOut'].map(of)).toEqual(['Dropped', 'In containers', 'Parts of others', 'Elsewhere']);
  });
});

describe('The odds of a loot table', () => {
  it('say how long one waits, for whom they are asked, and what a sample comes to', async () => {
    const { odds } = await loot('angler');
    expect(odds.text('.for')).toContain('standing, level');
    const field = odds.element.querySelector<HTMLInputElement>('input[aria-label="For one with standing"]')!;
    field.value = '5';
    field.dispatchEvent(new Event('change'));
    await odds.settle();
    expect(odds.text('[data-until]')).toContain('Half of players have one by the');
    await odds.click('sample a million');
    expect(odds.text('[data-sample]')).toMatch(/agrees: largest difference \d+\.\d\d points/);
    expect(odds.text('ul.bars')).toContain('sampled');
    field.value = 'many';
    field.dispatchEvent(new Event('change'));
    expect(field.value).toBe('5');
    odds.element.remove();
  });

  it('tell what a streak breaker cuts off, and what was before an edit', async () => {
    const { seen, odds } = await loot('strongbox');
    expect(odds.text('[data-until]')).toBe(
      'Half of players have one by the 16th, nine in ten by the 25th, ninety-nine in a hundred by the 28th.',
    );
    expect(odds.element.querySelector('svg')!.textContent).toContain('without');
    await seen.edit('how much its weight grows', '60');
    await odds.settle();
    expect(odds.text('[data-until]')).toContain('Before: 16, 25, 28.');
    odds.element.remove();
  });
});

describe('The sentences of an economy', () => {
  it('read as prose: a market, and how its prices move', async () => {
    const seen = await spec(MarketSentences, 'markets', 'exchange');
    const texts = seen.texts('ee-sentence').map(bare);
    expect(texts[0]).toBe('It is found at broker, within 60.');
    expect(texts[1]).toBe('It buys brass fittings, whose price is drawn anew each day, from 6 to 12, in whole amounts.');
    expect(texts[2]).toBe('It buys cut glass, whose price walks each day, from 18 by up to 4, between 8 and 30, in whole amounts.');
    await seen.edit('most of brassFittings', '14');
    await choose(seen, 'walks each day, from', 'is drawn anew');
    const goods = entryNow('markets', 'exchange')['goods'] as Json[];
    expect(goods.map(({ price }) => price)).toEqual([{ range: [6, 14] }, { range: [8, 30] }, { range: [80, 160] }]);
    await seen.edit('least of brassFittings', '20');
    expect(seen.text('[role="alert"]')).toContain('lowest price comes first');
    await seen.click('+ good', '.chip');
    expect((entryNow('markets', 'exchange')['goods'] as Json[]).length).toBe(4);
  });

  it('read as prose: a shop and an offer, in tiers or not', async () => {
    const shop = await spec(ShopSentences, 'shops', 'yard');
    expect(shop.texts('ee-sentence').map(bare)[1]).toBe('slip');
    shop.element.querySelectorAll<HTMLElement>('[aria-label="Take out: offer"]')[4].click();
    await shop.settle();
    expect(entryNow('shops', 'yard')['sells']).toEqual(['slip', 'bunks', 'winch', 'soap']);
    await shop.click('+ offer', '.chip');
    expect(entryNow('shops', 'yard')['sells']).toEqual(['slip', 'bunks', 'winch', 'soap', 'lens']);
  });

  it('read as prose: what an offer costs, gives and takes to keep', async () => {
    const seen = await spec(OfferSentences, 'offers', 'winch');
    const texts = seen.texts('ee-sentence').map(bare);
    expect(texts[0]).toContain('It costs 70 * tier scrip and tier brass fittings and gives nothing that is counted, both or neither');
    expect(texts).toContain('Whoever has it pays 7 * tier at each end of a day.');
    await seen.edit('what it costs', '80 * tier scrip, 2 brass fittings');
    expect(entryNow('offers', 'winch')['costs']).toEqual([
      { attribute: 'scrip', amount: '80 * tier' },
      { attribute: 'brassFittings', amount: 2 },
    ]);
    await seen.edit('what it costs', '80 doubloons');
    expect(seen.text('[role="alert"]')).toContain('names nothing that can be counted');
    await choose(seen, 'tier by tier, up to', 'at most so many times');
    expect([entryNow('offers', 'winch')['tiers'], entryNow('offers', 'winch')['atMost']]).toEqual([undefined, 1]);
  });

  it('say what money, a day, ruin and the goal are', async () => {
    const seen = await spec(EconomyRulesPart, 'markets', 'exchange');
    const texts = seen.texts('ee-sentence').map(bare);
    expect(texts[0]).toBe(
      'Money is scrip. A day ends when all players have asked for it; then upkeep is paid, a statement is drawn up, and prices move.',
    );
    await choose(seen, 'when all players have asked for it', 'when all have asked, at the latest after');
    expect(economyNow()['day']).toEqual({ length: '120s', key: true });
    await seen.edit('last chance', '45');
    expect((economyNow()['ruin'] as Json)['lastChance']).toBe('45s');
    await seen.edit('goal', 'scrip >= 500');
    expect((economyNow()['goal'] as Json)['if']).toBe('scrip >= 500');
    await seen.edit('goal', 'scrpi >= 500');
    expect(seen.text('[role="alert"]')).toContain('scrip');
  });

  it('say what follows, in lists of actions that are added to and taken from', async () => {
    const seen = await spec(EconomyRulesPart, 'markets', 'exchange');
    const thens = () => (['ruin', 'goal'] as const).map((end) => ((economyNow()[end] as Json)['then'] as Json[] | undefined) ?? []);
    const before = thens();
    for (const [i, list] of [...seen.element.querySelectorAll<HTMLElement>('ee-then > .chip')].entries()) {
      list.click();
      await seen.settle();
      await pick(seen, 'show or sound');
      await until('the list has one more', () => thens()[i].length === before[i].length + 1);
    }
    expect(thens().map((list) => list.at(-1)!['do'])).toEqual(['flourish', 'flourish']);
    for (const list of [...seen.element.querySelectorAll<HTMLElement>('ee-then')])
      [...list.querySelectorAll<HTMLElement>('.out')].at(-1)!.click();
    const count = (lists: readonly Json[][]) => lists.flat().length;
    await until('both are taken out', () => count(thens()) === count(before));
    expect(thens()).toEqual(before);
  });
});

describe('What an economy comes to', () => {
  it('is on paper before any game, and then days, shares and money with error bars', async () => {
    TestBed.configureTestingModule({ providers: [{ provide: BackgroundTasks, useClass: TasksAtHand }] });
    const rules = await spec(EconomyRulesPart, 'markets', 'exchange');
    const seen = await Seen.of(EconomyOutcomes);
    document.body.append(seen.element);
    await seen.settle();
    expect(seen.text('dl')).toContain('about 75 scrip at middling prices');
    await seen.click('play');
    await seen.settle();
    expect(seen.texts('tbody tr').length).toBe(3);
    expect(seen.text('[data-plan="hold"]')).toMatch(/Hold \d+\.\d ± \d+\.\d/);
    expect(seen.text('[aria-label="What money was spent on"]')).toMatch(/Slip −\d+ ± \d+/);
    // An edit is compared on the same luck, by itself.
    await rules.edit('goal', 'tier(slip) >= 1');
    await seen.settle();
    await seen.settle();
    expect(seen.text('[data-change]')).toMatch(/than before, on the same luck: \d+\.\d\d ± \d+\.\d\d days shorter/);
    seen.element.remove();
  });
});

describe('Amounts of several things', () => {
  const ruleset = {
    attributes: [
      { id: 'scrip', label: 'Scrip', kind: 'counter' },
      { id: 'brass', label: 'Brass fittings', kind: 'counter' },
      { id: 'speed', label: 'Speed', kind: 'stat' },
    ],
  } as never;
  const parts = partsWith(['tier']);

  it('are read and shown as a phrase', () => {
    expect(parts.read('40 scrip and 2 brass fittings', ruleset)).toEqual({
      value: [
        { attribute: 'scrip', amount: 40 },
        { attribute: 'brass', amount: 2 },
      ],
    });
    expect(parts.read('max(tier, 2) scrip, brass', ruleset)).toEqual({
      value: [
        { attribute: 'scrip', amount: 'max(tier, 2)' },
        { attribute: 'brass', amount: 1 },
      ],
    });
    expect(parts.read('1 to 5 scrip', ruleset)).toEqual({ value: [{ attribute: 'scrip', amount: { random: [1, 5], whole: true } }] });
    expect(parts.read('nothing', ruleset)).toEqual({ value: [] });
    expect(parts.read('3 speed', ruleset).error).toContain('names nothing that can be counted');
    expect(
      parts.show(
        [
          { attribute: 'scrip', amount: '60 * tier' },
          { attribute: 'brass', amount: 1 },
        ],
        ruleset,
      ).text,
    ).toBe('60 * tier scrip and 1 brass fittings');
    expect(parts.choices('40 br', ruleset).map(({ text }) => text)).toEqual(['40 brass fittings']);
  });
});
