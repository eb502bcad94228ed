import { documentNow } from '../testing/bench';
import { bare, choose, spec } from '../testing/specs';
import { ActorSentences } from './actors/actor-sentences';
import { ContainerSentences } from './world/container-sentences';
import { DialogueSentences } from './world/dialogue-sentences';
import { InteractionSentences } from './world/interaction-sentences';
import { PickupSentences } from './world/pickup-sentences';
import { ReactionSentences } from './world/reaction-sentences';
import { SpawnerSentences } from './world/spawner-sentences';
import { ZoneSentences } from './world/zone-sentences';

const entryNow = (chapter: string, id: string) => documentNow()[chapter].find((entry) => entry['id'] === id)!;

describe('The sentences of the world around a player', () => {
  it('read as prose: a pickup', async () => {
    const seen = await spec(PickupSentences, 'pickups', 'glowKelp');
    expect(seen.texts('ee-sentence').map(bare)).toEqual([
      'It lies there as a triangle and is taken within 9 by anybody for whom lungCapacity > 0 holds.',
      'Once it is taken it is gone for everybody.',
      'It is gone unclaimed after 12 s.',
      'Whoever takes it:',
      'award 4 to 9 standing to self',
    ]);
    await seen.edit('for whom it is gone', 'for its taker alone');
    expect(entryNow('pickups', 'glowKelp')['gone']).toBe('perPlayer');
    await seen.click('comes back', '.chip');
    expect(entryNow('pickups', 'glowKelp')['returns']).toBe('15s');
    expect(seen.text('ee-placed')).toContain('nowhere');
  });

  it('read as prose: a zone', async () => {
    const seen = await spec(ZoneSentences, 'zones', 'coldCurrent');
    expect(seen.texts('ee-sentence').map(bare)).toEqual([
      'It is one for anybody for whom lungCapacity > 0 holds, from when their middle is in it.',
      'Whoever enters:',
      'apply chill to self',
      'Every 1 s inside:',
      'lower stamina by 6 for self',
      'Whoever leaves:',
      'end chill on self',
    ]);
    await seen.edit('how often', '500 ms');
    expect((entryNow('zones', 'coldCurrent')['every'] as { time: string }).time).toBe('500ms');
  });

  it('read as prose: an interaction, with its price, its time and its memory', async () => {
    const seen = await spec(InteractionSentences, 'interactions', 'sellPearl');
    const texts = seen.texts('ee-sentence').map(bare);
    expect(texts[0]).toBe('It is offered as “Pawn a tide-pearl” within 50, not through walls, to anybody for whom tidePearls > 0 holds.');
    expect(texts[1]).toBe('First it asks 1 tide-pearls.');
    expect(texts).toContain('It then gives back 100 % of the price, where it ends before 2 s.');
    expect(texts).toContain('Not again for everybody for 60 s; they read “One pearl a minute: more would spoil the price.”.');
    await seen.edit('price', '2');
    expect(entryNow('interactions', 'sellPearl')['price']).toEqual({ attribute: 'tidePearls', amount: 2 });
    await seen.click('need', '.chip');
    await seen.edit('need 1', 'suit > 10');
    expect(entryNow('interactions', 'sellPearl')['needs']).toEqual([{ if: 'suit > 10', say: 'Not yet.' }]);
    await seen.edit('need 1', 'siut > 10');
    expect(seen.text('[role="alert"]')).toContain('Did you mean suit?');
  });

  it('read as prose: a dialogue, whose lines lead to each other by name', async () => {
    const seen = await spec(DialogueSentences, 'dialogues', 'aboutTheWreck');
    const texts = seen.texts('ee-sentence').map(bare);
    expect(texts[1]).toMatch(/^1 ?The character says “You want the freight in the wreck. So does everybody.” for 3 s, then the next line/);
    expect(texts.some((text) => text.includes('“Mark it.”, then line 4: South of the long wall'))).toBeTrue();
    await seen.edit('after line 1', 'nothing: it is over');
    expect((entryNow('dialogues', 'aboutTheWreck')['lines'] as { next?: string }[])[0].next).toBe('end');
    // What led to a line that is taken out goes on at the one behind it.
    seen.element.querySelectorAll<HTMLElement>('[aria-label="Take out: line"]')[3].click();
    await seen.settle();
    const lines = entryNow('dialogues', 'aboutTheWreck')['lines'] as { id: string; choices?: { next?: string }[] }[];
    expect(lines.map(({ id }) => id)).toEqual(['hail', 'answer', 'offer', 'proud', 'done']);
    expect(lines[2].choices![0].next).toBeUndefined();
    await seen.click('+ line', '.chip');
    expect((entryNow('dialogues', 'aboutTheWreck')['lines'] as unknown[]).length).toBe(6);
  });

  it('read as prose: a container and what is in it', async () => {
    const seen = await spec(ContainerSentences, 'containers', 'strongbox');
    const texts = seen.texts('ee-sentence').map(bare);
    expect(texts).toContain(
      'It takes 2.5 s to open and 1 s to close; one visitor at a time has it open, and it closes when the last walks off.',
    );
    expect(texts).toContain('What is in it is each player’s own, decided when it is first open, and is taken all at once:');
    expect(texts).toContain('Besides, whatever strongbox comes to is in it, rolled when it is first open.');
    await seen.click('+ thing that gives', '.chip');
    await seen.edit('chance of thing 1', '30');
    expect((entryNow('containers', 'strongbox')['holds'] as { chance: number }[])[0].chance).toBe(0.3);
    await seen.edit('loot table', 'ship’s small change');
    expect(entryNow('containers', 'strongbox')['loot']).toBe('smallChange');
  });

  it('read as prose: a spawner, with the odds of what it makes', async () => {
    const seen = await spec(SpawnerSentences, 'spawners', 'kelpBed');
    expect(seen.texts('.odds')).toEqual(['50 %', '20 %', '30 %']);
    await seen.edit('weight 3', '13');
    expect(seen.texts('.odds')).toEqual(['25 %', '10 %', '65 %']);
    await choose(seen, 'every', 'when none of the last is left');
    expect(entryNow('spawners', 'kelpBed')['when']).toEqual({ is: 'wave', pause: '5s' });
    await choose(seen, 'nothing', 'the actor');
    expect((entryNow('spawners', 'kelpBed')['what'] as Record<string, unknown>[])[2]['actor']).toBe('lamprey');
  });

  it('read as prose: a reaction', async () => {
    const seen = await spec(ReactionSentences, 'reactions', 'waveCleared');
    expect(seen.texts('ee-sentence')[0]).toMatch(/^When an actor falls lamprey/);
    await choose(seen, 'an actor falls', 'a zone is entered');
    expect(entryNow('reactions', 'waveCleared')['on']).toEqual({ on: 'zoneEntered' });
    await seen.edit('times', '3');
    expect((entryNow('reactions', 'waveCleared')['atMost'] as { times: number }).times).toBe(3);
  });

  it('can stand in an actor, as its own', async () => {
    const seen = await spec(ActorSentences, 'actors', 'urchinDrift');
    await seen.click('+ reaction', '.chip');
    await choose(seen, 'an attribute changes', 'a zone is entered');
    await seen.click('+ at most', '.more');
    await seen.edit('times', '4');
    expect(entryNow('actors', 'urchinDrift')['reactions']).toEqual([
      { on: { on: 'zoneEntered' }, then: [], atMost: { times: 4, every: '10s' } },
    ]);
    seen.element.querySelector<HTMLElement>('[aria-label="Take out: reaction"]')!.click();
    await seen.settle();
    expect(entryNow('actors', 'urchinDrift')['reactions']).toBeUndefined();
  });
});
