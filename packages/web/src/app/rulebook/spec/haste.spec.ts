import type { Type } from '@angular/core';
import { documentNow, type Seen } from '../../testing/bench';
import { spec } from '../../testing/specs';
import { AbilitySentences } from '../abilities/ability-sentences';
import { ActorSentences } from '../actors/actor-sentences';
import { AttributeSentences } from '../attributes/attribute-sentences';
import { ClipSentences } from '../clips/clip-sentences';
import { EffectSentences } from '../effects/effect-sentences';
import { StateSentences } from '../states/state-sentences';

type Json = Readonly<Record<string, unknown>>;

/** Clicks again and again before any of it has been looked at. */
async function clickAtOnce(seen: Seen<unknown>, ...labels: readonly string[]): Promise<void> {
  const buttons = labels.map((label) =>
    [...seen.element.querySelectorAll<HTMLElement>('button')].find(
      (button) => button.innerText.trim() === label || button.getAttribute('aria-label') === label,
    ),
  );
  for (const [i, button] of buttons.entries()) {
    if (!button) throw new Error(`There is no ${labels[i]}`);
    button.click();
  }
  await seen.settle();
}

const listOf = (chapter: string, id: string, field: string) =>
  (documentNow()[chapter].find((entry: Json) => entry['id'] === id)![field] as Json[] | undefined) ?? [];

describe('Edits that are made faster than they are looked at', () => {
  const all: readonly (readonly [Type<unknown>, string, string, string, string])[] = [
    [AttributeSentences, 'attributes', 'stamina', 'threshold', 'thresholds'],
    [EffectSentences, 'effects', 'silt', 'modifier', 'modifiers'],
    [ClipSentences, 'clips', 'torchSweep', 'mark', 'marks'],
    [AbilitySentences, 'abilities', 'cuttingTorch', 'cost', 'costs'],
  ];
  for (const [component, chapter, id, chip, field] of all)
    it(`each add what they say: ${field} of ${chapter}`, async () => {
      const seen = await spec(component, chapter, id);
      const before = listOf(chapter, id, field).length;
      await clickAtOnce(seen, chip, chip, chip);
      expect(listOf(chapter, id, field).length).toBe(before + 3);
    });

  it('give each of what they add a name of its own', async () => {
    const seen = await spec(AttributeSentences, 'attributes', 'stamina');
    await clickAtOnce(seen, 'threshold', 'threshold', 'threshold');
    const ids = listOf('attributes', 'stamina', 'thresholds').map((one) => one['id']);
    expect(new Set(ids).size).toBe(ids.length);
  });

  it('take out what was meant, and once', async () => {
    const seen = await spec(AttributeSentences, 'attributes', 'oxygen');
    const before = listOf('attributes', 'oxygen', 'thresholds').map((one) => String(one['id']));
    const [first, second] = before;
    await clickAtOnce(seen, `Take out: threshold ${first}`, `Take out: threshold ${first}`, `Take out: threshold ${second}`);
    expect(listOf('attributes', 'oxygen', 'thresholds').map((one) => one['id'])).toEqual(before.slice(2));
  });

  it('leave what stands beside them', async () => {
    const seen = await spec(ActorSentences, 'actors', 'diver');
    await clickAtOnce(seen, 'when it appears', 'note');
    const diver = documentNow()['actors'].find((one: Json) => one['id'] === 'diver')!;
    expect([diver['onSpawn'], typeof diver['note']]).toEqual([[], 'string']);
  });

  it('allow and forbid each for itself', async () => {
    const seen = await spec(StateSentences, 'states', 'idle');
    const boxes = [...seen.element.querySelectorAll<HTMLElement>('[role="checkbox"]')];
    const checked = () => [...seen.element.querySelectorAll('[role="checkbox"]')].map((box) => box.getAttribute('aria-checked'));
    const before = checked();
    boxes[0].click();
    boxes[1].click();
    await seen.settle();
    expect(checked().slice(0, 2)).toEqual(before.slice(0, 2).map((is) => (is === 'true' ? 'false' : 'true')));
    expect(checked().slice(2)).toEqual(before.slice(2));
  });
});
