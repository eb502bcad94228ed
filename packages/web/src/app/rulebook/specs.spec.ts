import { type Type } from '@angular/core';
import { TestBed } from '@angular/core/testing';
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
      'A pool from 0 to suit rating, starting full.',
      'It refills 4 a second, every tick, and rests 3 s after a loss.',
      'It is counted in whole numbers.',
      'Seen by the crew.',
      'It is kept between sessions.',
      'It is listed under Suit.',
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
    expect(seen.texts('ee-sentence')).toContain('Seen by everyone, to two decimals.');
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
    expect(seen.texts('ee-clauses button')).toEqual(['whole numbers', 'unit', 'note']);
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
      version: 1,
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

describe('The sentences of an effect', () => {
  it('read as prose and can be added to', async () => {
    const seen = await spec(EffectSentences, 'effects', 'silt');
    expect(seen.texts('ee-sentence').map((text) => text.replace(/ ?×$/, ''))).toEqual([
      'Lasts 3 s. Two of it each end on their own clock.',
      'While it lasts, fin speed is multiplied by 0.5.',
      'Its bearer is silted.',
      'Seen by everyone.',
      'The pod that looks helpful.',
    ]);
    await seen.click('modifier');
    await seen.edit('how long it lasts', '250 ms');
    expect(documentNow()['effects'][1]).toEqual(jasmine.objectContaining({ lasts: '250ms' }));
    expect((documentNow()['effects'][1]['modifiers'] as unknown[]).length).toBe(2);
    await seen.click('×', '[aria-label="Take out: status"]');
    expect(documentNow()['effects'][1]['grants']).toEqual([]);
    await seen.click('status');
    expect(documentNow()['effects'][1]['grants']).toEqual(['inBell']);
  });
});

describe('The sentences of an ability', () => {
  it('read as prose, with what follows from it as actions', async () => {
    const seen = await spec(AbilitySentences, 'abilities', 'sonarPing');
    expect(seen.texts('ee-sentence').map((text) => text.replace(/ ?×$/, ''))).toEqual([
      'Done at once, then ready again after 8 s.',
      'Costs 10 stamina.',
      'When it is used:',
      'apply marked to others within 260',
    ]);
  });

  it('take costs and actions in and out', async () => {
    const seen = await spec(AbilitySentences, 'abilities', 'sonarPing');
    await seen.click('cost');
    expect((documentNow()['abilities'][0]['costs'] as unknown[]).length).toBe(2);
    await seen.edit('whom', 'the crew');
    expect((documentNow()['abilities'][0]['then'] as { to: unknown }[])[0].to).toBe('team');
    await seen.click('×', '[aria-label="Take out: apply an effect"]');
    expect(documentNow()['abilities'][0]['then']).toEqual([]);
    expect(seen.text('ee-then')).toContain('nothing yet');
  });

  it('say who is meant when a person is vague', async () => {
    const seen = await spec(AbilitySentences, 'abilities', 'sonarPing');
    await seen.edit('whom', 'them');
    expect(seen.text('[role="alert"]')).toContain('Say whom');
  });
});

describe('The sentence of a status', () => {
  it('can be noted', async () => {
    const seen = await spec(StatusSentences, 'statuses', 'silted');
    await seen.click('note');
    await seen.edit('note', 'Cannot see far.');
    expect(documentNow()['statuses'][1]).toEqual({ id: 'silted', label: 'Silted', note: 'Cannot see far.' });
  });
});
