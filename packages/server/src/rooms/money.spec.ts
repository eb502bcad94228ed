import { withCompany } from '../testing/company.js';
import type { Harness, RoomInfo, Screen } from '../testing/harness.js';

/** A step beside the demo's Broker, and far from everybody. */
const [BROKER, FAR] = [
  { x: 880, y: 270 },
  { x: 480, y: 200 },
];

describe('Loot and money, on the wire', () => {
  let harness: Harness;
  let room: RoomInfo;
  let truth: Screen;
  let north: Screen;
  let south: Screen;
  withCompany((company) => ({ harness, room, truth, north, south } = company));
  beforeEach(() => {
    for (const seat of ['north', 'south']) truth.poke(seat, { do: 'place', ...FAR });
  });

  const scrip = ({ copy, welcome }: Screen) => copy!.value('attributes', welcome!.row!, 'scrip');
  const lying = ({ copy }: Screen, pickup: string) =>
    copy!.rows('pickups').filter((row) => copy!.value('pickups', row, 'pickup') === pickup).length;
  const told = (screen: Screen, event: string) => screen.news.filter((one) => one.event === event);

  it('tells of what drops for one player that player alone, and of chances and tables nobody', async () => {
    truth.poke('north', { do: 'place', x: 300, y: 480 });
    // Its finder stands elsewhere when it falls: it lies there.
    truth.poke('south', { do: 'drop', table: 'angler' });
    await truth.until('something lies there', () => told(truth, 'lootFound').length > 0);
    await Promise.all([north, south].map((screen) => screen.until('a tick more', () => screen.copy!.tick >= truth.copy!.tick - 1)));
    for (const screen of [north, south]) {
      expect(JSON.stringify(screen.copy!.schema)).not.toMatch(/smallChange|strongbox.*streak|dayOut/);
      expect(told(screen, 'lootRolled')).toEqual([]);
      expect(JSON.stringify([screen.news, screen.copy!.contents()])).not.toContain('chance');
      expect(screen.copy!.rows('streaks').every((row) => screen.copy!.value('streaks', row, 'strongbox') === undefined)).toBeTrue();
    }
    // Each for each: what one finds, the other is not told of.
    expect(told(north, 'lootFound').every(({ who }) => who === 'north')).toBeTrue();
    expect(told(south, 'lootFound').every(({ who }) => who === 'south')).toBeTrue();
    expect([north, south].flatMap((screen) => told(screen, 'lootFound')).every(({ data }) => !('table' in data))).toBeTrue();
    expect(told(truth, 'lootRolled').length).toBeGreaterThan(1);
    const all = lying(truth, 'glowKelp');
    expect(lying(north, 'glowKelp') + lying(south, 'glowKelp')).toBeLessThanOrEqual(all);
  });

  it('shows what is traded to who is near, and an account to its owner', async () => {
    truth.poke('north', { do: 'place', ...BROKER });
    truth.poke('north', { do: 'give', attribute: 'brassFittings', amount: 3 });
    await north.until('the shop is seen', () => north.copy!.rows('wares').length === 5);
    expect([south.copy!.rows('wares').length, south.copy!.rows('stalls').length]).toEqual([0, 0]);
    north.ask({ do: 'sell', good: 'brassFittings' });
    await north.until('it is sold', () => told(north, 'goodSold').length === 1);
    expect(Number(scrip(north))).toBeGreaterThanOrEqual(18);
    await south.until('a tick more', () => south.copy!.tick >= north.copy!.tick);
    const row = north.welcome!.row!;
    expect(north.copy!.rows('ledger').length).toBe(1);
    expect([south.copy!.rows('ledger').length, south.copy!.value('accounts', row, 'opening'), told(south, 'goodSold').length]).toEqual([
      0,
      undefined,
      0,
    ]);
    // Prices are everybody's.
    expect(south.copy!.rows('prices').length).toBe(3);
  });

  it('refuses hand-made claims, far deals and nonsense, and changes nothing', async () => {
    truth.poke('north', { do: 'give', attribute: 'scrip', amount: 500 });
    await north.until('it is there', () => scrip(north) === 500);
    for (const input of [
      { do: 'buy', offer: 'slip' },
      { do: 'buy', offer: '__proto__' },
      { do: 'sell', good: 'scrip' },
      { do: 'sell', good: 'tidePearls', amount: 3 },
      { do: 'sell', good: 'oxygen' },
    ])
      north.ask(input);
    await north.until('all is refused', () => north.news.filter(({ refusal }) => refusal).length >= 4);
    truth.poke('north', { do: 'place', ...BROKER });
    await north.until('the shop is seen', () => north.copy!.rows('wares').length === 5);
    const complaints = north.errors.length;
    for (const input of [
      { do: 'sell', good: 'brassFittings', amount: -3 },
      { do: 'sell', good: 'brassFittings', amount: 0.5 },
      { do: 'buy', offer: 'slip', price: 0 },
      { do: 'endDay', force: true },
    ])
      north.ask(input);
    await north.until('all is complained of', () => north.errors.length === complaints + 4);
    north.ask({ do: 'buy', offer: 'winch' });
    await north.until('it is refused', () => north.news.some(({ text }) => text === 'A winch needs a slip to stand on.'));
    expect(scrip(north)).toBe(500);
    expect(told(truth, 'offerBought')).toEqual([]);
  });

  it('sells the last one to one of two who ask at once', async () => {
    for (const seat of ['north', 'south']) {
      truth.poke(seat, { do: 'place', ...BROKER });
      truth.poke(seat, { do: 'give', attribute: 'scrip', amount: 50 });
    }
    await Promise.all(
      [north, south].map((screen) =>
        screen.until('the shop is seen', () => screen.copy!.rows('wares').length === 5 && scrip(screen) === 50),
      ),
    );
    for (const screen of [north, south]) screen.ask({ do: 'buy', offer: 'lens' });
    await truth.until('both are answered', () => told(truth, 'offerBought').length === 1 && told(truth, 'tradeRefused').length === 1);
    expect(Number(scrip(truthOf(truth, north))) + Number(scrip(truthOf(truth, south)))).toBe(70);
  });

  it('has money, tiers and the day after a restart', async () => {
    truth.poke('north', { do: 'place', ...BROKER });
    truth.poke('north', { do: 'give', attribute: 'scrip', amount: 100 });
    await north.until('the shop is seen', () => north.copy!.rows('wares').length === 5 && scrip(north) === 100);
    north.ask({ do: 'buy', offer: 'slip' });
    for (const screen of [north, south]) screen.ask({ do: 'endDay' });
    await north.until('the day is over', () => told(north, 'dayEnded').length === 1);
    await Promise.all([truth, north, south].map((screen) => screen.close()));
    await harness.restart();
    const back = harness.screen(room.id, room.seats[0].join);
    await back.ready();
    const row = back.welcome!.row!;
    expect([
      back.copy!.value('attributes', row, 'scrip'),
      back.copy!.value('purchases', row, 'slip'),
      back.copy!.value('accounts', row, 'lastClosing'),
    ]).toEqual([34, 1, 34]);
    expect(back.copy!.rows('ledger').map((at) => back.copy!.value('ledger', at, 'label'))).toEqual(['A poke', 'Slip', 'Upkeep: Slip']);
    await back.close();
  });
});

/** A screen that reads another's player from the truth. */
const truthOf = ({ copy }: Screen, { welcome }: Screen) => ({ copy, welcome }) as Screen;
