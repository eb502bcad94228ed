import { Seen, openBench } from '../testing/bench';
import { Hud } from './hud';
import { type Poke, Pokes } from './pokes';
import { Trace } from './trace';

const item = (serial: number, event: string, text: string, more: Record<string, unknown> = {}) => ({
  serial,
  tick: serial * 10,
  event,
  cause: 0,
  who: 'north',
  text,
  refusal: false,
  data: {},
  ...more,
});

describe('The trace', () => {
  const news = [
    item(1, 'asked', 'north asks: use sonarPing'),
    item(2, 'abilityUsed', 'north uses sonar ping', { cause: 1 }),
    item(3, 'pickupTaken', 'south takes copper token', { who: 'south' }),
    item(4, 'abilityRefused', 'Sonar ping is cooling down: ready in 3.2 s.', { refusal: true, cause: 1 }),
  ];
  const choose = async (seen: Seen<Trace>, label: string, value: string) => {
    const select = seen.element.querySelector<HTMLSelectElement>(`select[aria-label="${label}"]`)!;
    select.value = value;
    select.dispatchEvent(new Event('change'));
    await seen.settle();
  };

  it('tells what happened, newest first, and why', async () => {
    openBench();
    const seen = await Seen.of(Trace, { news, tickRate: 20, actors: ['north', 'south'] });
    expect(seen.texts('li').map((line) => line.replace(/^\S+ /, ''))).toEqual([
      'Sonar ping is cooling down: ready in 3.2 s. because north asks: use sonarPing',
      'south takes copper token',
      'north uses sonar ping because north asks: use sonarPing',
    ]);
    expect(seen.texts('time')).toEqual(['0:02.0', '0:01.5', '0:01.0']);
  });

  it('can be about one, or refusals, or all', async () => {
    openBench();
    const seen = await Seen.of(Trace, { news, tickRate: 20, actors: ['north', 'south'] });
    await choose(seen, 'Whom the trace is about', 'south');
    expect(seen.texts('li').length).toBe(1);
    await choose(seen, 'Whom the trace is about', '');
    await choose(seen, 'What the trace shows', 'refusals');
    expect(seen.texts('li').length).toBe(1);
    await choose(seen, 'What the trace shows', 'all');
    expect(seen.texts('li').length).toBe(4);
  });

  it('says what to do while nothing has happened', async () => {
    openBench();
    const seen = await Seen.of(Trace, { news: [], tickRate: 20, actors: [] });
    expect(seen.text('li')).toContain('Nothing has happened yet');
  });
});

describe('Pokes', () => {
  const pokes = async () => {
    openBench();
    const seen = await Seen.of(Pokes, { seats: ['north', 'south'] });
    const sent: Poke[] = [];
    seen.fixture.componentInstance.poked.subscribe((poke) => sent.push(poke));
    const choose = async (label: string, value: string) => {
      const select = seen.element.querySelector<HTMLSelectElement>(`select[aria-label="${label}"]`)!;
      select.value = value;
      select.dispatchEvent(new Event('change'));
      await seen.settle();
    };
    return { seen, sent, choose };
  };

  it('offer what fits: pools to hurt, counters to give, effects to apply', async () => {
    const { seen, choose } = await pokes();
    const offered = () =>
      [...seen.element.querySelectorAll<HTMLOptionElement>('select[aria-label="What it is about"] option')].map((o) => o.value);
    expect(offered()).toEqual(['oxygen', 'suit', 'stamina']);
    await choose('What to do', 'give');
    expect(offered()).toEqual(['scrip', 'podsTaken']);
    await choose('What to do', 'apply');
    expect(offered()).toEqual(['slipstream', 'silt', 'marked']);
    expect(seen.element.querySelector('input')).toBeNull();
  });

  it('are sent as the actions they are', async () => {
    const { seen, sent, choose } = await pokes();
    await choose('Seat', 'south');
    await seen.click('Do it');
    await choose('What to do', 'spawn');
    await seen.click('Do it');
    await choose('What to do', 'set');
    seen.element.querySelector('input')!.value = '12.5';
    await seen.click('Do it');
    expect(sent).toEqual([
      { seat: 'south', action: { do: 'hurt', attribute: 'oxygen', amount: 30 } },
      { seat: 'south', action: { do: 'spawn', pickup: 'slipstreamPod' } },
      { seat: 'south', action: { do: 'set', attribute: 'oxygen', value: 12.5 } },
    ]);
  });
});

describe('The heads-up display', () => {
  const view = {
    bars: [{ id: 'suit', label: 'Suit', value: 41, text: '41', share: 0.41, max: 100 }],
    figures: [{ id: 'scrip', label: 'Scrip', text: '7' }],
    abilities: [
      { id: 'ping', label: 'Ping', left: 3.2, passed: 0.6, lacks: '' },
      { id: 'torch', label: 'Torch', left: 0, passed: 1, lacks: 'needs 25 stamina' },
      { id: 'line', label: 'Line', left: 0, passed: 1, lacks: '' },
    ],
    effects: [{ row: 0, label: 'Silt', left: 2.5 }],
    statuses: ['Silted'],
  };

  it('says all in words and numbers, not by bars alone', async () => {
    const seen = await Seen.of(Hud, { view });
    const meter = seen.element.querySelector('[role="meter"]')!;
    expect([meter.getAttribute('aria-label'), meter.getAttribute('aria-valuenow'), meter.getAttribute('aria-valuemax')]).toEqual([
      'Suit',
      '41',
      '100',
    ]);
    expect(seen.texts('[data-ability]')).toEqual(['1 Ping 3.2 s', '2 Torch needs 25 stamina', '3 Line ready']);
    expect([seen.text('[data-effect]'), seen.text('.status'), seen.text('[data-attribute="scrip"]')]).toEqual([
      'Silt 2.5 s',
      'silted',
      '7',
    ]);
  });

  it('lets abilities be used by pointing', async () => {
    const seen = await Seen.of(Hud, { view });
    const used: string[] = [];
    seen.fixture.componentInstance.use.subscribe((id) => used.push(id));
    await seen.click('3 Line ready');
    expect(used).toEqual(['line']);
  });

  it('is empty until something is known', async () => {
    const seen = await Seen.of(Hud);
    expect(seen.element.textContent!.trim()).toBe('');
  });
});
