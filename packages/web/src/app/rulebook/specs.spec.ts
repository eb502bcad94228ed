import { type Type } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { documentNow, openBench, Seen } from '../testing/bench';
import { AbilitySentences } from './abilities/ability-sentences';
import { AttributeSentences } from './attributes/attribute-sentences';
import { EffectSentences } from './effects/effect-sentences';
import { SpecContext } from './spec/spec-context';
import { StatusSentences } from './statuses/status-sentences';

async function spec<T>(component: Type<T>, chapter: string, id: string, document?: Record<string, unknown>): Promise<Seen<T>> {
  openBench(document, [], [SpecContext]);
  const context = TestBed.inject(SpecContext);
  context.chapter.set(chapter);
  context.id.set(id);
  const seen = await Seen.of(component);
  document_ = seen.element;
  document_.remove();
  globalThis.document.body.append(document_);
  await seen.settle();
  return seen;
}
let document_: HTMLElement | undefined;
afterEach(() => document_?.remove());

describe('The sentences of an attribute', () => {
  it('read as prose', async () => {
    const seen = await spec(AttributeSentences, 'attributes', 'suit');
    expect(seen.texts('ee-sentence').map((text) => text.replace(/ ?×$/, ''))).toEqual([
      'A pool from 0 to suit rating, starting full, counted in whole numbers.',
      'It refills 4 a second, every tick, and rests 3 s after a loss.',
      'Of what hurts it, has(bubbled) ? 0 : event.asked * (has(marked) ? 1.25 : 1) gets through.',
      'Seen by the crew; it is kept between sessions; listed under Suit, drawn in ×, with the sign shield.',
    ]);
  });

  it('of a stat say its base', async () => {
    const seen = await spec(AttributeSentences, 'attributes', 'finSpeed');
    expect(seen.text('ee-sentence')).toBe('A stat that is 120 from 0 to 600, in a second.');
  });

  it('change what they say, and the document with them', async () => {
    const seen = await spec(AttributeSentences, 'attributes', 'suit');
    await seen.edit('refill a second', 'breath rate');
    expect(documentNow()['attributes'][3]['refill']).toEqual({ rate: 'breathRate', pause: '3s' });
    await seen.edit('seen by', 'everyone');
    expect(documentNow()['attributes'][3]['see']).toBe('everyone');
    await seen.edit('whole numbers', 'fractions');
    expect(documentNow()['attributes'][3]['whole']).toBe(false);
    await seen.edit('decimals', '2');
    expect(seen.texts('ee-sentence').at(-1)).toContain('Seen by everyone, to two decimals;');
  });

  it('refuse under the sentence what would not be sound', async () => {
    const seen = await spec(AttributeSentences, 'attributes', 'suit');
    await seen.edit('start', '101');
    expect(seen.text('ee-sentence [role="alert"]')).toBe('The start 101 is above the maximum 100.');
    expect(documentNow()['attributes'][3]['start']).toBeUndefined();
    await seen.edit('kind', 'tank').catch(() => undefined);
    expect(documentNow()['attributes'][3]['kind']).toBe('pool');
  });

  it('take clauses in and out', async () => {
    const seen = await spec(AttributeSentences, 'attributes', 'stamina');
    expect(seen.texts('ee-clauses button')).toEqual([
      'threshold',
      'refill only while',
      'resistance',
      'following its maximum',
      'whole numbers',
      'unit',
      'note',
    ]);
    await seen.click('whole numbers');
    expect(documentNow()['attributes'][5]['whole']).toBe(true);
    await seen.click('×', '[aria-label="Take out: refill"]');
    expect(documentNow()['attributes'][5]['refill']).toBeUndefined();
    expect(seen.texts('ee-clauses button')).toContain('refill');
  });

  it('say who carries it, and change that', async () => {
    const seen = await spec(AttributeSentences, 'attributes', 'torchPower');
    await seen.click('☑ Diver');
    expect(JSON.stringify(documentNow()['actors'])).not.toContain('torchPower');
    await seen.click('☐ Diver');
    expect(JSON.stringify(documentNow()['actors'])).toContain('torchPower');
  });

  it('refuse to take the speed stat from who moves by it', async () => {
    const seen = await spec(AttributeSentences, 'attributes', 'finSpeed');
    await seen.click('☑ Diver');
    expect(seen.text('ee-carriers [role="alert"]')).toContain('does not have finSpeed');
    expect(JSON.stringify(documentNow()['actors'])).toContain('"attribute":"finSpeed"');
  });

  it('of a ruleset without actors make the first player', async () => {
    const document = {
      format: 'eager-ember/ruleset',
      version: 2,
      name: 'New',
      attributes: [{ id: 'suit', label: 'Suit', kind: 'pool', max: 9 }],
    };
    const seen = await spec(AttributeSentences, 'attributes', 'suit', document);
    await seen.click('make a player who does');
    expect(documentNow()['actors']).toEqual([
      { id: 'player', label: 'Player', kind: 'player', attributes: [{ attribute: 'suit' }] },
    ] as never);
  });
});

describe('The thresholds of an attribute', () => {
  it('read as prose, with what follows on both sides', async () => {
    const seen = await spec(AttributeSentences, 'attributes', 'oxygen');
    expect(seen.texts('ee-threshold').map((text) => text.replace(/ ?×/g, ''))).toEqual([
      'When it is at most 0.25 * lungCapacity: show self the text Air is low, sound gaugeTick+ shake+ fade + action+ when it leaves',
      'When it is at its minimum: apply winded to self + action When it is more than 20 beyond that again: end winded on self + action',
    ]);
  });

  it('are added with ids of their own, moved to another range, and taken out', async () => {
    const seen = await spec(AttributeSentences, 'attributes', 'stamina');
    await seen.click('threshold');
    await seen.click('threshold');
    const all = () => documentNow()['attributes'][5]['thresholds'] as Record<string, unknown>[];
    expect(all()).toEqual([
      { id: 'out', end: 'empty', enter: [] },
      { id: 'edge', end: 'empty', enter: [] },
    ]);
    await seen.click('at its minimum', 'ee-threshold ee-choose button');
    await pick('between');
    await seen.settle();
    expect(all()[0]).toEqual({ id: 'out', from: 0, to: 20, enter: [] });
    await seen.edit('from', '30');
    expect(seen.text('ee-threshold [role="alert"]')).toContain('The range goes from 30 to 20');
    await seen.click('+ when it leaves');
    await seen.edit('margin', '5');
    expect(all()[0]).toEqual({ id: 'out', from: 0, to: 20, enter: [], leave: [], margin: 5 });
    await seen.click('×', '[aria-label="Take out: threshold out"]');
    await seen.click('×', '[aria-label="Take out: threshold edge"]');
    expect(documentNow()['attributes'][5]['thresholds']).toBeUndefined();
  });
});

describe('The kind of an attribute', () => {
  it('takes along what the new kind can’t say', async () => {
    const seen = await spec(AttributeSentences, 'attributes', 'stamina');
    await seen.click('pool', 'ee-choose button');
    await pick('counter');
    await seen.settle();
    expect(documentNow()['attributes'][5]['kind']).toBe('counter');
    expect(documentNow()['attributes'][5]['decimals']).toBeUndefined();
  });
});

/** Picks from the menu that is open. */
async function pick(label: string): Promise<void> {
  // One that was open before may still be fading.
  const panel = [...globalThis.document.querySelectorAll('.mat-mdc-menu-panel')].at(-1);
  const items = [...(panel?.querySelectorAll<HTMLElement>('[mat-menu-item]') ?? [])];
  const found = items.find((item) => item.innerText.trim().startsWith(label));
  if (!found) throw new Error(`The menu has no ${label}; it has ${items.map((item) => item.innerText.trim()).join(' | ')}`);
  found.click();
  await new Promise((done) => setTimeout(done));
}

describe('The sentences of an effect', () => {
  const sentences = (seen: Seen<EffectSentences>) => seen.texts('ee-sentence').map((text) => text.replace(/ ?×$/, ''));

  it('read as prose and can be added to', async () => {
    const seen = await spec(EffectSentences, 'effects', 'silt');
    expect(sentences(seen)).toEqual([
      'It lasts for 3 s.',
      'Another one is an instance of its own, at most any number at once, counted for its bearer.',
      'While it lasts, fin speed is multiplied by 0.5, taken as it starts.',
      'Its bearer is silted +.',
      'Seen by everyone.',
      'The pod that looks helpful.',
    ]);
    await seen.click('modifier');
    await seen.edit('how long it lasts', '250 ms');
    await seen.edit('when it is taken', 'kept up to date');
    expect(documentNow()['effects'][1]).toEqual(jasmine.objectContaining({ lasts: '250ms' }));
    expect((documentNow()['effects'][1]['modifiers'] as unknown[]).length).toBe(2);
    await seen.click('×', '[aria-label="Take out: status"]');
    expect(documentNow()['effects'][1]['grants']).toBeUndefined();
    await seen.click('status');
    expect(documentNow()['effects'][1]['grants']).toEqual([]);
    await seen.click('pick', '[aria-label="pick: add status"]');
    await pick('Winded');
    await seen.settle();
    expect(documentNow()['effects'][1]['grants']).toEqual(['winded']);
  });

  it('of one that is used up say by what', async () => {
    const seen = await spec(EffectSentences, 'effects', 'bubble');
    expect(sentences(seen).slice(0, 2)).toEqual([
      'It stays until used up 1 ×, each time an attribute changes suit by being hurt on its bearer + condition.',
      'Another one is refused, counted for its bearer.',
    ]);
    await seen.click('+ condition');
    await seen.edit('condition', 'event.asked < 0 - 5');
    expect(documentNow()['effects'][2]['used']).toEqual({
      times: 1,
      by: { on: 'attributeChanged', attribute: 'suit', how: 'hurt', where: 'event.asked < 0 - 5' },
    });
    await seen.click('an attribute changes', 'ee-pattern ee-choose button');
    await pick('an ability is used');
    await seen.settle();
    expect(documentNow()['effects'][2]['used']).toEqual({ times: 1, by: { on: 'abilityUsed' } });
  });

  it('of another lifetime or stacking stay sound: what does not fit goes along', async () => {
    const seen = await spec(EffectSentences, 'effects', 'silt');
    const effect = () => documentNow()['effects'][1];
    await seen.click('lasts for', 'ee-choose button');
    await pick('stays until used up');
    await seen.settle();
    expect(effect()).toEqual(
      jasmine.objectContaining({ lifetime: 'untilUsed', used: { times: 1, by: jasmine.objectContaining({ how: 'hurt' }) } }),
    );
    expect(effect()['lasts']).toBeUndefined();
    await seen.click('stays until used up', 'ee-choose button');
    await pick('is over at once');
    await seen.settle();
    expect(effect()).toEqual({ id: 'silt', label: 'Silt', note: 'The pod that looks helpful.', lifetime: 'instant' });
    await seen.click('is over at once', 'ee-choose button');
    await pick('lasts for');
    await seen.settle();
    await seen.click('is an instance of its own', 'ee-choose button');
    await pick('begins the time anew');
    await seen.settle();
    await seen.edit('most', '3');
    await seen.click('when it is renewed');
    expect(effect()).toEqual(jasmine.objectContaining({ lasts: '5s', stacking: 'refresh', most: 3, onStack: [] }));
    await seen.click('begins the time anew', 'ee-choose button');
    await pick('is refused');
    await seen.settle();
    expect(effect()['most']).toBeUndefined();
    expect(effect()['onStack']).toBeUndefined();
  });

  it('take every clause in', async () => {
    const seen = await spec(EffectSentences, 'effects', 'slipstream');
    for (const clause of ['again and again', 'when it starts', 'kept off by', 'ends others', 'when it ends']) await seen.click(clause);
    expect(documentNow()['effects'][0]).toEqual(
      jasmine.objectContaining({
        periodic: { every: '1s', then: [] },
        onStart: [],
        onEnd: [{ reason: 'any', then: [] }],
        blocked: { statuses: [], effects: [] },
        ends: { statuses: [], effects: [] },
      }),
    );
    await seen.edit('reason', 'runs out');
    expect(documentNow()['effects'][0]['onEnd']).toEqual([{ reason: 'ranOut', then: [] }] as never);
  });
});

describe('A list of actions', () => {
  it('waits, branches and picks, list within list', async () => {
    const seen = await spec(AbilitySentences, 'abilities', 'sonarPing');
    const then = () => documentNow()['abilities'][0]['then'] as Record<string, unknown>[];
    const add = async (label: string, n = 0) => {
      [...seen.element.querySelectorAll<HTMLElement>('ee-then .chip')].at(n)!.click();
      await pick(label);
      await seen.settle();
    };
    await add('wait', -1);
    await add('only when', -1);
    expect(then().slice(1)).toEqual([
      { do: 'wait', for: '1s' },
      { do: 'when', if: 'oxygen > 0', then: [] },
    ]);
    await add('lower a pool', 0);
    await seen.click('+ otherwise');
    expect(then()[2]).toEqual({ do: 'when', if: 'oxygen > 0', then: [{ do: 'hurt', attribute: 'oxygen', amount: 1 }], else: [] });
    await seen.edit('condition', 'oxygn > 3');
    expect(seen.text('[role="alert"]')).toContain('Nothing is called oxygn here. Did you mean oxygen?');
    await seen.edit('for', '250 ms');
    expect(then()[1]).toEqual({ do: 'wait', for: '250ms' });
    await add('pick one by chance', -1);
    await seen.click('+ branch');
    expect((then()[3] as { among: unknown[] }).among.length).toBe(3);
    await seen.click('×', '[aria-label="Take out: branch"]');
    expect((then()[3] as { among: unknown[] }).among.length).toBe(2);
  });

  it('says for whom an action is that names nobody: after a hit whom was hit, in its branches too, elsewhere oneself', async () => {
    const seen = await spec(AbilitySentences, 'abilities', 'harpoon');
    const onHit = () => documentNow()['abilities'].find(({ id }) => id === 'harpoon')!['onHit'] as Record<string, unknown>[];
    const whom = () =>
      [...seen.element.querySelectorAll<HTMLElement>('ee-part button')]
        .map((b) => b.ariaLabel)
        .filter((label) => label?.startsWith('whom:'));
    const add = async (label: string) => {
      [...seen.element.querySelectorAll<HTMLElement>('ee-then')]
        .filter((list) => list.textContent.includes('32'))
        .at(-1)!
        .querySelector<HTMLElement>(':scope > .chip')!
        .click();
      await pick(label);
      await seen.settle();
    };
    await add('raise a pool');
    await add('only when');
    expect(onHit().slice(1)).toEqual([
      { do: 'heal', attribute: 'oxygen', amount: 1 },
      { do: 'when', if: 'oxygen > 0', then: [] },
    ]);
    expect(whom()).toEqual(['whom: the target', 'whom: the target']);
    await seen.edit('whom', 'self');
    expect(onHit()[0]['to']).toBe('self');
  });

  it('is put in order by the keyboard', async () => {
    const seen = await spec(AbilitySentences, 'abilities', 'sonarPing');
    seen.element.querySelector<HTMLElement>('ee-then .chip')!.click();
    await pick('wait');
    await seen.settle();
    const wait = [...seen.element.querySelectorAll<HTMLElement>('ee-then ee-part button')].find((b) => b.ariaLabel === 'for: 1 s')!;
    wait.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', altKey: true, bubbles: true }));
    await seen.settle();
    expect((documentNow()['abilities'][0]['then'] as { do: string }[]).map((action) => action.do)).toEqual(['wait', 'apply']);
  });
});

describe('A name in a sentence', () => {
  it('tells what it names, and leads there with Ctrl', async () => {
    const seen = await spec(AttributeSentences, 'attributes', 'oxygen');
    const name = seen.element.querySelector<HTMLElement>('ee-part button[aria-label^="maximum: "]')!;
    expect(name.title).toBe('Lung capacity: stat, 90. Ctrl+click goes there.');
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    name.dispatchEvent(new MouseEvent('click', { ctrlKey: true, bubbles: true }));
    await seen.settle();
    expect(navigate.calls.mostRecent().args[0]).toEqual(['/r', 'r', 'rulebook', 'attributes', 'lungCapacity']);
    expect(seen.element.querySelector('ee-part input')).toBeNull();
  });
});

describe('What is being typed', () => {
  it('is told its range and unit under the sentence', async () => {
    const seen = await spec(AttributeSentences, 'attributes', 'oxygen');
    seen.element.querySelector<HTMLElement>('ee-part button[aria-label^="minimum: "]')!.click();
    await seen.settle();
    expect(seen.text('.hint')).toBe('A number, a name or a formula, in seconds of air.');
    expect(seen.element.querySelector('input')!.getAttribute('aria-description')).toContain('in seconds of air');
  });

  it('is refused with what to do, and the old value goes on', async () => {
    const seen = await spec(AttributeSentences, 'attributes', 'suit');
    const said = async (text: string) => {
      await seen.edit('refill a second', text);
      const said = seen.text('[role="alert"]');
      seen.element.querySelector('ee-part input')!.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
      await seen.settle();
      return said;
    };
    expect(await said('1,5')).toBe('Write decimals with a point: 1.5.');
    expect(await said('1e999')).toContain('is too large');
    expect(await said('')).toContain('Nothing is typed.');
    expect(await said('brethRat')).toContain('Did you mean breathRate?');
    expect(documentNow()['attributes'][3]['refill']).toEqual({ rate: 4, pause: '3s' });
    await seen.edit('maximum', 'suit');
    expect(seen.text('[role="alert"]')).toContain('This goes in a circle: suit needs suit.');
  });
});

describe('The sentence of a status', () => {
  it('can be noted', async () => {
    const seen = await spec(StatusSentences, 'statuses', 'silted');
    await seen.click('note');
    await seen.edit('note', 'Cannot see far.');
    expect(documentNow()['statuses'][3]).toEqual({ id: 'silted', label: 'Silted', note: 'Cannot see far.' });
  });
});
