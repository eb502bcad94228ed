import { documentNow } from '../testing/bench';
import { choose, spec } from '../testing/specs';
import { AbilitySentences } from './abilities/ability-sentences';
import { ActorSentences } from './actors/actor-sentences';
import { ClipSentences } from './clips/clip-sentences';
import { GroupSentences } from './groups/group-sentences';
import { StateEvidence } from './states/state-evidence';
import { StateSentences } from './states/state-sentences';

const entryNow = (chapter: string, id: string) => documentNow()[chapter].find((entry) => entry['id'] === id)!;

describe('The sentences of an ability', () => {
  it('read as prose, with what follows from it as actions', async () => {
    const seen = await spec(AbilitySentences, 'abilities', 'sonarPing');
    expect(seen.texts('ee-sentence').map((text) => text.replace(/ ?×$/, ''))).toEqual([
      'Aimed at oneself.',
      'Costs 10 stamina.',
      'Ready again after 8 s.',
      'When it is used:',
      'apply marked to others within 260',
      'It reaches them at once.',
      'Its tooltip says “Marks everybody within 260 who is not of your crew. Ready again after {ability.cooldown} s.” in a box of 34 characters by 3 lines.',
      'Seen by everyone.',
    ]);
  });

  it('read as prose where they take time and send something on its way', async () => {
    const seen = await spec(AbilitySentences, 'abilities', 'cuttingTorch');
    const texts = seen.texts('ee-sentence').map((text) => text.replace(/ ?×$/, ''));
    expect(texts).toContain('Aimed into a cone of 40° within 140, at every opponent, also behind walls.');
    expect(texts).toContain(
      'Cast for torch sweep to strike, played at its own rate and divided by handling, standing still, in the state casting.',
    );
    expect(texts).toContain('Costs 25 stamina, paid when the cast is over.');
    expect(texts).toContain(
      'It reaches them by projectiles: 5 of radius 5, 320 a second for 0.45 s, spread over the cone°; each goes through 0 and flies straight, and meets every opponent.',
    );
    expect(texts).toContain(
      'Then recovers for torch sweep from strike to its end, played at its own rate and divided by handling, in the state recovering.',
    );
  });

  it('switch one word: when it is paid', async () => {
    const seen = await spec(AbilitySentences, 'abilities', 'cuttingTorch');
    await seen.edit('when it is paid', 'as it begins');
    expect(entryNow('abilities', 'cuttingTorch')['charge']).toBe('onStart');
  });

  it('take a clip to its mark for a time, by its words', async () => {
    const seen = await spec(AbilitySentences, 'abilities', 'cuttingTorch');
    await seen.edit('cast time', '2.5');
    expect((entryNow('abilities', 'cuttingTorch')['cast'] as { time: unknown }).time).toBe('2.5s');
    await seen.edit('cast time', 'jaw snap to shut');
    expect((entryNow('abilities', 'cuttingTorch')['cast'] as { time: unknown }).time).toEqual({ clip: 'jawSnap', mark: 'shut' });
  });

  it('aim otherwise in one step, with what can go along', async () => {
    const seen = await spec(AbilitySentences, 'abilities', 'towLine');
    await choose(seen, 'at one', 'at a point');
    expect(entryNow('abilities', 'towLine')['target']).toEqual({ at: 'point', range: 280, sight: true });
    await choose(seen, 'at once', 'by an area');
    expect(entryNow('abilities', 'towLine')['deliver']).toEqual({ by: 'area', radius: 60 });
    // In a direction no area can land: something flies there instead.
    await choose(seen, 'at a point', 'in a direction');
    expect(entryNow('abilities', 'towLine')['target']).toEqual({ at: 'direction', range: 280 });
    expect(entryNow('abilities', 'towLine')['deliver']).toEqual({ by: 'projectile', speed: 300, lifetime: '1s' });
  });

  it('take requirements in and out, each with what the player reads', async () => {
    const seen = await spec(AbilitySentences, 'abilities', 'secondWind');
    await seen.click('not while');
    expect(entryNow('abilities', 'secondWind')['requires']).toEqual([
      { if: 'oxygen < 30', says: 'You have air enough.' },
      { hasNot: 'winded' },
      { hasNot: 'inBell' },
    ]);
    expect(seen.texts('ee-sentence').join()).toContain('otherwise the player reads “You have air enough.”');
    await seen.click('×', '[aria-label="Take out: requirement"]');
    expect((entryNow('abilities', 'secondWind')['requires'] as unknown[]).length).toBe(2);
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

describe('The sentences of a state', () => {
  it('tick what is allowed, and end on an event of their own', async () => {
    const seen = await spec(StateSentences, 'states', 'stunned');
    expect(seen.texts('ee-sentence')[0]).toBe('Who is in it may ☐ move☐ begin an ability');
    await seen.click('☐ begin an ability');
    expect(entryNow('states', 'stunned')['allows']).toEqual(['use']);
    await seen.click('on an event');
    expect(entryNow('states', 'stunned')['ends']).toEqual({ on: 'attributeChanged', how: 'hurt' });
    expect(seen.texts('ee-sentence').join()).toContain('It ends when an attribute changes');
  });

  it('of one that is given write it down where it is changed', async () => {
    const seen = await spec(StateSentences, 'states', 'recovering');
    expect(documentNow()['states'].map(({ id }) => id)).toEqual(['stunned']);
    await seen.click('☑ move');
    expect(entryNow('states', 'recovering')).toEqual({ id: 'recovering', label: 'Recovering', allows: [] });
  });

  it('stand beside what each allows and what may follow which', async () => {
    const seen = await spec(StateEvidence, 'states', 'down', { id: 'down' });
    const rows = seen.texts('tbody tr');
    expect(rows.length).toBe(7);
    expect(rows.find((row) => row.startsWith('Idle'))).toBe('Idle given yes yes when it moves may may not');
    expect(seen.texts('.way').join()).toContain('Down nothing is allowed');
  });
});

describe('The sentences of a clip and of a group', () => {
  it('place marks on its length', async () => {
    const seen = await spec(ClipSentences, 'clips', 'torchSweep');
    expect(seen.texts('ee-sentence').map((text) => text.replace(/ ?×$/, ''))).toEqual([
      'An animation 2.4 s long. Only its length and its marks matter here.',
      'strike is at 1.8 s.',
    ]);
    expect(seen.element.querySelector('.line')!.getAttribute('aria-label')).toBe('strike at 1.8s, end at 2.4s');
    await seen.click('mark');
    expect(entryNow('clips', 'torchSweep')['marks']).toEqual([
      { mark: 'strike', at: '1.8s' },
      { mark: 'release', at: '2.4s' },
    ]);
    await seen.edit('time of the mark', '3');
    expect(seen.text('[role="alert"]')).toContain('after the end of Torch sweep');
  });

  it('put abilities in and out', async () => {
    const seen = await spec(GroupSentences, 'groups', 'tools');
    await seen.click('☐ Tow line');
    await seen.click('☑ Harpoon');
    expect([entryNow('abilities', 'towLine')['groups'], entryNow('abilities', 'harpoon')['groups']]).toEqual([['tools'], undefined]);
  });
});

describe('The sentences of an actor', () => {
  it('read as prose', async () => {
    const seen = await spec(ActorSentences, 'actors', 'lamprey');
    const texts = seen.texts('ee-sentence').map((text) => text.replace(/ ?×/g, ''));
    expect(texts.slice(0, 4)).toEqual([
      'A foe. Its body has a radius of 12, and it moves as fast as its fin speed says.',
      'It falls at the bottom of its suit, and comes back after 8 s, where it belongs.',
      'It chases the nearest opponent within 260, in sight only, and gives up when that is 480 from its home.',
      'Its abilities are bite +.',
    ]);
  });

  it('change what it does, with what that needs to begin with', async () => {
    const seen = await spec(ActorSentences, 'actors', 'lamprey');
    await choose(seen, 'chases', 'goes along points');
    expect((entryNow('actors', 'lamprey')['behaviour'] as { points: unknown[] }).points.length).toBe(2);
    await seen.click('+ point');
    expect((entryNow('actors', 'lamprey')['behaviour'] as { points: unknown[] }).points.length).toBe(3);
    await choose(seen, 'goes along points', 'does nothing by itself');
    expect(entryNow('actors', 'lamprey')['behaviour']).toBeUndefined();
  });

  it('refuse what would not be sound, and leave what was there', async () => {
    const seen = await spec(ActorSentences, 'actors', 'lamprey');
    await seen.click('×', '[aria-label="Take out: finSpeed"]');
    expect(seen.text('[role="alert"]')).toContain('does not have finSpeed');
    expect((entryNow('actors', 'lamprey')['attributes'] as unknown[]).length).toBe(3);
  });
});
