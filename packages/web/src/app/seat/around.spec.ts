import { Copy, compileRuleset, Publisher, World, wireSchemaOf } from '@eager-ember/core';
import brinewick from '../../../../core/src/testing/recorded/brinewick.json';
import { openBench, Seen } from '../testing/bench';
import { Around, askedAround } from './around';
import type { Ask } from './controls';
import { Controls } from './controls';
import { type SurroundingsView, surroundingsOf } from './surroundings';

const NOW: SurroundingsView = {
  offers: [
    { key: 'a', with: 4, whom: 'Quartermaster', what: 'rest', prompt: 'Rest and refill', price: '40 scrip', busy: '' },
    { key: 'b', with: 5, whom: 'Supply crate', what: undefined, prompt: 'Open the crate', price: '', busy: 'busy, 3.0 s' },
  ],
  visit: undefined,
  box: undefined,
  talk: undefined,
};

describe('What is around a seat', () => {
  const show = async (view: SurroundingsView) => {
    openBench();
    const seen = await Seen.of(Around, { view });
    const asked: Ask[] = [];
    seen.fixture.componentInstance.ask.subscribe((ask) => asked.push(ask));
    return { seen, asked };
  };

  it('offers with the price first, and says who has to wait', async () => {
    const { seen, asked } = await show(NOW);
    expect(seen.texts('button')).toEqual(['E Rest and refill, 40 scrip Quartermaster', 'F Open the crate Supply crate, busy, 3.0 s']);
    await seen.click('E Rest and refill, 40 scrip Quartermaster');
    expect(asked).toEqual([{ do: 'interact', with: 4, what: 'rest' }]);
  });

  it('shows what is in an open thing, as it may be taken', async () => {
    const items = [{ item: 7, label: 'Scrip', amount: '5' }];
    const { seen, asked } = await show({ ...NOW, box: { name: 'Crate', lid: 'open', left: '', takes: 'either', items } });
    expect(seen.texts('li')).toEqual(['Scrip 5 take']);
    await seen.click('take');
    await seen.click('T take all');
    expect(asked).toEqual([{ do: 'take', item: 7 }, { do: 'take' }]);
    seen.fixture.componentRef.setInput('view', { ...NOW, box: { name: 'Crate', lid: 'open', left: '', takes: 'all', items } });
    await seen.settle();
    expect(seen.texts('li')).toEqual(['Scrip 5']);
  });

  it('says lines and takes answers', async () => {
    const talk = { speaker: 'Chart-keeper', text: 'Well?', left: '2.0 s', choices: [{ number: 1, text: 'No.' }] };
    const { seen, asked } = await show({ ...NOW, talk });
    expect(seen.text('.talk')).toBe('Chart-keeper “Well?” 2.0 s 7 No.');
    await seen.click('7 No.');
    expect(asked).toEqual([{ do: 'choose', choice: 1 }]);
  });

  it('is asked by keys too', () => {
    const asked: Ask[] = [];
    let now: SurroundingsView = NOW;
    const controls = new Controls(
      (ask) => asked.push(ask),
      () => [],
      undefined,
      (key) => askedAround(key, now),
    );
    const press = (key: string) => controls.key(new KeyboardEvent('keydown', { key }), true);
    for (const key of ['e', 'f', 't', 'q', '7']) press(key);
    expect(asked).toEqual([{ do: 'interact' }, { do: 'interact', with: 5 }]);
    now = { ...NOW, box: { name: 'Crate', lid: 'open', left: '', takes: 'either', items: [] } };
    for (const key of ['t', 'q']) press(key);
    expect(asked.slice(2)).toEqual([{ do: 'take' }, { do: 'leave' }]);
  });

  it('is read from what the seat was told, and from nothing else', () => {
    const rules = compileRuleset(brinewick);
    const world = World.start(rules, 3);
    const join = (seat: string, team: string) => ({ kind: 'join', args: { seat, team } });
    const poke = (seat: string, action: object) => ({ kind: 'poke', args: { seat, action } });
    const ask = (input: object) => ({ kind: 'input', args: { seat: 'north', input } });
    world.step([join('north', 'petrel'), join('south', 'gannet')]);
    world.step([poke('north', { do: 'place', x: 265, y: 250 })]);
    world.step([ask({ do: 'interact' })]);
    for (let n = 0; n < 30; n++) world.step();
    const rows = Array.from({ length: world.actors.high }, (_, row) => row);
    const viewOf = (name: string) => {
      const row = rows.find((one) => world.nameOf(world.actors.handle(one)) === name)!;
      const publisher = new Publisher(world);
      publisher.capture();
      const copy = new Copy(wireSchemaOf(rules, false));
      copy.apply(publisher.frameFor({ actor: world.actors.handle(row), team: world.actors.cells.team[row] }, 0));
      return surroundingsOf(copy, row);
    };
    const north = viewOf('north');
    expect([north.box?.name, north.box?.lid, north.offers.length]).toEqual(['Supply crate', 'open', 1]);
    expect(north.box!.items.length).toBeGreaterThan(1);
    expect(viewOf('south')).toEqual({ offers: [], visit: undefined, box: undefined, talk: undefined });
  });
});
