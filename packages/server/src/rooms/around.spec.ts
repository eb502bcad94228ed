import { withCompany } from '../testing/company.js';
import type { Harness, Screen } from '../testing/harness.js';

/** Where the first supply crate, the strongbox and the Quartermaster of the demo stand, a step to the side. */
const [CRATE, STRONGBOX, QUARTERMASTER, FAR] = [
  { x: 265, y: 250 },
  { x: 545, y: 455 },
  { x: 100, y: 470 },
  { x: 760, y: 120 },
];

describe('The world around players, on the wire', () => {
  let harness: Harness;
  let truth: Screen;
  let north: Screen;
  let south: Screen;
  const sit = withCompany((company) => ({ harness, truth, north, south } = company));

  const put = async (screen: Screen, seat: string, at: { x: number; y: number }) => {
    truth.poke(seat, { do: 'place', ...at });
    await screen.until(
      `${seat} stands there`,
      () => Math.abs((screen.copy!.value('bodies', screen.welcome!.row!, 'x') as number) - at.x) < 40,
    );
  };
  const window_ = ({ copy }: Screen) =>
    copy!.rows('shown').map((row) => `${copy!.value('shown', row, 'label')} ${copy!.value('shown', row, 'amount')}`);
  const items = ({ copy }: Screen) => copy!.rows('shown').map((row) => copy!.value('shown', row, 'item') as number);

  it('tells of a chest’s contents those who have it open, and nobody else', async () => {
    await put(north, 'north', CRATE);
    north.ask({ do: 'interact' });
    await north.until('the crate is open', () => window_(north).length > 1);
    expect(window_(south)).toEqual([]);
    expect(JSON.stringify(south.copy!.schema)).not.toContain('"contents"');
    await put(south, 'south', { x: 335, y: 250 });
    south.ask({ do: 'interact' });
    await south.until('both see the same', () => window_(south).join() === window_(north).join());
    const [first] = items(north);
    north.ask({ do: 'take', item: first });
    south.ask({ do: 'take', item: first });
    const gone = (screen: Screen) => screen.until('it is gone', () => !items(screen).includes(first));
    await Promise.all([north, south].map(gone));
    await truth.until('one took it, one was refused', () =>
      ['itemTaken', 'itemRefused'].every((event) => truth.news.filter((n) => n.event === event).length === 1),
    );
    await put(north, 'north', FAR);
    await north.until('the window is gone with the chest', () => window_(north).length === 0);
    expect(window_(south).length).toBeGreaterThan(0);
  });

  it('finds in a chest after a restart what was left in it', async () => {
    await put(north, 'north', CRATE);
    north.ask({ do: 'interact' });
    await north.until('the crate is open', () => window_(north).length > 1);
    const [first] = items(north);
    north.ask({ do: 'take', item: first });
    await north.until('it is taken', () => !items(north).includes(first));
    const left = window_(north);
    const scrip = north.value('scrip');
    await north.kept();
    await harness.restart();
    await north.until('the old socket is gone', () => north.closed !== undefined);
    await sit();
    await north.until('it is open as before', () => window_(north).length === left.length);
    expect(window_(north)).toEqual(left);
    expect(north.value('scrip')).toBe(scrip);
    await put(north, 'north', FAR);
    await north.until('it is closed', () => window_(north).length === 0);
    await put(north, 'north', CRATE);
    north.ask({ do: 'interact' });
    await north.until('it is the same', () => window_(north).length === left.length);
    expect(window_(north).sort()).toEqual([...left].sort());
  });

  it('offers, charges and serves at the Quartermaster’s; the other waits', async () => {
    await put(north, 'north', QUARTERMASTER);
    const offer = () =>
      north.copy!.rows('offers').map((row) => [north.copy!.value('offers', row, 'prompt'), north.copy!.value('offers', row, 'price')]);
    await north.until('it is offered', () => offer().length === 1);
    expect(offer()).toEqual([['Rest and refill', 40]]);
    expect(south.copy!.rows('offers')).toEqual([]);
    truth.poke('north', { do: 'set', attribute: 'scrip', value: 10 });
    await north.until('north is poor', () => north.value('scrip') === 10);
    north.ask({ do: 'interact' });
    await north.until('it is refused', () => north.news.some((n) => n.event === 'visitRefused'));
    expect(north.news.find((n) => n.refusal)!.text).toBe('Rest and refill: Forty scrip a night. The sea is free.');
    expect(south.news.some((n) => n.event === 'visitRefused')).toBeFalse();
    truth.poke('north', { do: 'set', attribute: 'scrip', value: 41 });
    truth.poke('north', { do: 'hurt', attribute: 'suit', amount: 60 });
    await north.until('north is rich, and hurt', () => north.value('scrip') === 41 && north.value('suit')! < 60);
    // Whoever waits stands there before the visit begins.
    await put(south, 'south', { x: 60, y: 430 });
    north.ask({ do: 'interact' });
    await north.until('it is paid', () => north.value('scrip') === 1);
    south.ask({ do: 'interact' });
    await south.until('south reads why', () => south.news.some((n) => n.event === 'visitRefused'));
    expect(south.news.find((n) => n.refusal)!.text).toMatch(/^Rest and refill: busy with north for another \d(\.\d)? s\.$/);
    await north.until('the suit is whole', () => north.value('suit') === 100);
    await put(north, 'north', FAR);
    await north.until('the visit is over', () => north.copy!.rows('visits').length === 0);
    expect(north.news.filter((n) => n.event === 'visitEnded').map((n) => n.data['how'])).toEqual(['walkedOff']);
  });

  it('says a dialogue’s lines to all who hear it, its choices to its visitor alone', async () => {
    await put(north, 'north', { x: 230, y: 100 });
    north.ask({ do: 'interact' });
    const line = ({ copy }: Screen) =>
      copy!
        .rows('talks')
        .map((row) => copy!.value('talks', row, 'text'))
        .join();
    await Promise.all(
      [north, south].map((screen) => screen.until('the first line', () => line(screen).startsWith('You want the freight'))),
    );
    await north.until('the choice', () => north.copy!.rows('choices').length === 2);
    expect(south.copy!.rows('choices')).toEqual([]);
    await south.until('the same line', () => line(south) === line(north));
    north.ask({ do: 'choose', choice: 1 });
    await south.until('the answer', () => line(south) === 'Then mind the lampreys.');
  });

  it('keeps a page that one has taken for the other, and refuses a strongbox without one', async () => {
    await put(south, 'south', STRONGBOX);
    south.ask({ do: 'interact' });
    await south.until('it is refused', () => south.news.some((n) => n.event === 'visitRefused'));
    expect(south.news.find((n) => n.refusal)!.text).toBe('Strongbox: Its number is on a page of the manifest.');
    await put(north, 'north', { x: 600, y: 225 });
    await north.until('north has a page', () => north.value('pagesFound') === 1);
    expect(north.copy!.rows('pickupsTaken').length).toBe(1);
    expect(south.copy!.rows('pickupsTaken')).toEqual([]);
    await put(south, 'south', { x: 600, y: 225 });
    await south.until('south has one too', () => south.value('pagesFound') === 1);
  });
});
