import { signal } from '@angular/core';
import type { Why } from '@eager-ember/core';
import { Seen, openBench } from '../testing/bench';
import { Flourishes } from '../seat/flourishes';
import { Hud } from '../seat/hud';
import { type Poke, Pokes } from './pokes';
import { Trace } from './trace';
import { WhySheet } from './why';

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

/** Effects that the skill tree gives. */
const LEARNED = ['deepBreath', 'quickFill', 'hotFlame', 'steadyHand', 'longFins'];

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

  it('offer every action that does something by itself', async () => {
    const { seen } = await pokes();
    const offered = [...seen.element.querySelectorAll<HTMLOptionElement>('select[aria-label="What to do"] option')].map((o) => o.value);
    expect(offered).toContain('hurt');
    expect(offered).toContain('passTime');
    expect(offered).not.toContain('wait');
    expect(offered).not.toContain('trade');
  });

  it('offer what fits', async () => {
    const { seen, choose } = await pokes();
    const offered = () =>
      [...seen.element.querySelectorAll<HTMLOptionElement>('select[aria-label="What it is about"] option')].map((o) => o.value);
    await choose('What to do', 'give');
    expect(offered()).toContain('scrip');
    expect(offered()).not.toContain('lungCapacity');
    await choose('What to do', 'apply');
    expect(offered()).toEqual(['slipstream', 'silt', 'bubble', 'winded', 'stun', 'marked', 'warmth', 'keenEye', 'chill', ...LEARNED]);
    expect(seen.element.querySelector('input')).toBeNull();
    await choose('What to do', 'summon');
    expect(offered()).toContain('lamprey');
    await choose('What to do', 'enter');
    expect(offered()).toEqual(['stunned', 'idle', 'moving', 'casting', 'channelling', 'recovering', 'down']);
  });

  it('bring actors in at a point, and ask for nothing where there is nothing to ask', async () => {
    const { seen, sent, choose } = await pokes();
    await choose('What to do', 'summon');
    seen.element.querySelector('input')!.value = '12, 3.5';
    await seen.click('Do it');
    seen.element.querySelector('input')!.value = 'over there';
    await seen.click('Do it');
    expect(seen.text('[role="alert"]')).toBe('A point is expected, such as 480, 200.');
    await choose('What to do', 'fell');
    await seen.click('Do it');
    expect(sent.map(({ action }) => action)).toEqual([{ do: 'summon', actor: 'lamprey', x: 12, y: 3.5 }, { do: 'fell' }]);
  });

  it('are sent as the actions they are', async () => {
    const { seen, sent, choose } = await pokes();
    await choose('What to do', 'hurt');
    await choose('Seat', 'south');
    await seen.click('Do it');
    await choose('From whom', 'north');
    await seen.click('Do it');
    await choose('From whom', '');
    await choose('What to do', 'spawn');
    await seen.click('Do it');
    await choose('What to do', 'set');
    seen.element.querySelector('input')!.value = '12.5';
    await seen.click('Do it');
    for (const [typed, said] of [
      ['1,5', 'Write decimals with a point: 1.5.'],
      ['1e999', 'is too large'],
      ['', 'Nothing is typed.'],
    ]) {
      seen.element.querySelector('input')!.value = typed;
      await seen.click('Do it');
      expect(seen.text('[role="alert"]')).toContain(said);
    }
    seen.element.querySelector('input')!.value = 'lungCapacity / 2';
    await seen.click('Do it');
    expect(seen.element.querySelector('[role="alert"]')).toBeNull();
    expect(sent.pop()!.action).toEqual({ do: 'set', attribute: 'oxygen', value: 'lungCapacity / 2' });
    expect(sent).toEqual([
      { seat: 'south', action: { do: 'hurt', attribute: 'oxygen', amount: 30 } },
      { seat: 'south', from: 'north', action: { do: 'hurt', attribute: 'oxygen', amount: 30 } },
      { seat: 'south', action: { do: 'spawn', pickup: 'slipstreamPod' } },
      { seat: 'south', action: { do: 'set', attribute: 'oxygen', value: 12.5 } },
    ]);
  });
});

describe('The heads-up display', () => {
  const view = {
    bars: [{ id: 'suit', label: 'Suit', value: 41, text: '41', share: 0.41, max: 100, colour: '#a8761c', icon: 'shield' }],
    figures: [{ id: 'scrip', label: 'Scrip', text: '7', icon: undefined }],
    abilities: [
      { id: 'ping', label: 'Ping', left: 3.2, passed: 0.6, lacks: '' },
      { id: 'torch', label: 'Torch', left: 0, passed: 1, lacks: 'needs 25 stamina' },
      { id: 'line', label: 'Line', left: 0, passed: 1, lacks: '' },
    ],
    effects: [
      { row: 0, label: 'Silt', left: 2.5, stacks: 2, uses: 0, waits: false },
      { row: 1, label: 'Bubble', left: undefined, stacks: 1, uses: 1, waits: false },
      { row: 2, label: 'Keen eye', left: 4, stacks: 1, uses: 0, waits: true },
    ],
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
    expect(seen.texts('[data-effect]')).toEqual(['Silt ×2 2.5 s', 'Bubble 1 use', 'Keen eye 4.0 s, waits']);
    expect([seen.text('.status'), seen.text('[data-attribute="scrip"]')]).toEqual(['silted', '7']);
    expect(seen.element.querySelector('ee-sign svg')).not.toBeNull();
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

describe('Flourishes', () => {
  it('stand for what a client would show and sound', async () => {
    const now = [item(1, 'flourish', '', { data: { text: 'Air is low', sound: 'tick', shake: 0.5 } })];
    const seen = await Seen.of(Flourishes, { now });
    expect(seen.texts('li')).toEqual(['Air is low ♪ tick shakes']);
    expect(seen.element.querySelector('ul.shakes')).not.toBeNull();
    expect(seen.element.querySelector('.veil')).toBeNull();
  });
});

describe('The why sheet', () => {
  const why = (attribute: string, more: Partial<Why> = {}): Why => ({
    attribute,
    label: attribute,
    kind: 'stat',
    unit: '',
    value: 84,
    base: 120,
    low: 0,
    high: 600,
    lowText: '0',
    highText: '600',
    modifiers: [],
    before: 84,
    line: `line of ${attribute}`,
    ...more,
  });
  const modifier: Why['modifiers'][number] = {
    operation: 'times',
    amount: 0.5,
    counts: 0.25,
    stacks: 2,
    live: false,
    muted: false,
    effect: 'silt',
    label: 'Silt',
    source: 'south',
    left: 2.45,
  };
  const open = async () => {
    const answer = signal<unknown>(undefined);
    const asked: string[] = [];
    const link = {
      answer,
      askWhy: (row: number, attribute: string) => {
        asked.push(`${row} ${attribute}`);
        const causes = [
          [
            { serial: 9, tick: 30, event: 'effectStarted', text: 'Silt begins on north' },
            { serial: 8, tick: 30, event: 'asked', text: 'north asks: use silt' },
          ],
        ];
        const pool = why('suit', { kind: 'pool', rate: 4, rests: 1.2, lowText: '0', highText: 'rating' });
        answer.set({ t: 'why', row, tick: 40, attribute, values: [pool, why('finSpeed', { modifiers: [modifier] })], causes });
      },
    };
    openBench();
    const seen = await Seen.of(WhySheet, { link, row: 3, name: 'north', tickRate: 20 });
    return { seen, asked };
  };

  it('opens at what is modified, with its line, its modifiers and what led to it', async () => {
    const { seen, asked } = await open();
    expect(asked.slice(0, 2)).toEqual(['3 ', '3 finSpeed']);
    expect(seen.text('.line')).toBe('line of finSpeed');
    expect(seen.texts('td')).toEqual(['Silt', '× 0.25', '2 stacks', 'from south', '2.5 s left']);
    expect(seen.text('ol li')).toBe('0:01.5 Silt begins on north, because north asks: use silt');
  });

  it('tells of another value when that is chosen', async () => {
    const { seen } = await open();
    await seen.click('suit 84');
    expect(seen.text('section')).toContain('Between 0 and 600 (rating); refills 4 a second, after resting 1.2 s more.');
    expect(seen.text('.shape')).toBe('clamp(what it holds, bounds)');
  });
});
