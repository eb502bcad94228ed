import brinewick from '../../../core/src/testing/recorded/brinewick.json' with { type: 'json' };
import { actorOfSeat, compileRuleset, savePlayer, World } from '@eager-ember/core';
import { KeptPlayers } from './kept-players.js';

type Editable = typeof brinewick & Record<string, unknown>;
const rulesOf = (edit: (document: Editable) => void = () => undefined) => {
  const document = structuredClone(brinewick) as Editable;
  edit(document);
  return compileRuleset(document);
};
const poke = (action: Readonly<Record<string, unknown>>) => ({ kind: 'poke', args: { seat: 'south', action } });

describe('What a room keeps of its players', () => {
  const begin = (saved = new Map<string, Record<string, Record<string, number>>>()) => {
    const world = World.start(rulesOf(), 1);
    world.step([{ kind: 'join', args: { seat: 'south', ...(saved.has('south') && { saved: saved.get('south') }) } }]);
    return { world, players: new KeptPlayers(['south', 'north'], saved) };
  };
  const savedOf = (world: World) => savePlayer(world, world.actors.rowOf(actorOfSeat(world, 'south')));

  it('is all that there is to keep, whenever it is asked', () => {
    const { world, players } = begin();
    for (let round = 0; round < 30; round++) {
      world.step(round % 3 === 0 ? [poke({ do: 'give', attribute: 'scrip', amount: 1 + round })] : []);
      players.changed(world).forEach(({ kept }) => kept());
      expect(players.of('south')).toEqual(savedOf(world));
      expect(players.changed(world)).toEqual([]);
    }
    expect(players.of('north')).toBeUndefined();
  });

  it('stays to be stored until it is', () => {
    const { world, players } = begin();
    players.settle(world);
    world.step([poke({ do: 'give', attribute: 'scrip', amount: 5 })]);
    const [first] = players.changed(world);
    const [again] = players.changed(world);
    expect(again.text).toBe(first.text);
    again.kept();
    expect(players.changed(world)).toEqual([]);
  });

  it('keeps what the rules have no place for, in tables that they know and in others', () => {
    const { world, players } = begin(new Map([['south', { attributes: { scrip: 3, gone: 4 }, unheard: { of: 5 } }]]));
    world.step([poke({ do: 'give', attribute: 'scrip', amount: 5 })]);
    players.settle(world);
    const kept = players.of('south')!;
    expect([kept['attributes']['scrip'], kept['attributes']['gone'], kept['unheard']]).toEqual([8, 4, { of: 5 }]);
  });

  it('is looked at anew once it is called otherwise', () => {
    const { world, players } = begin();
    world.step([poke({ do: 'give', attribute: 'scrip', amount: 5 })]);
    players.settle(world);
    const renamed = rulesOf((document) => {
      const text = JSON.stringify(document)
        .replaceAll('"scrip"', '"clams"')
        .replaceAll(/\bscrip\b/g, 'clams');
      Object.assign(document, JSON.parse(text));
      Object.assign(
        document.attributes.find(({ id }) => id === 'clams')!,
        { formerly: ['scrip'] },
      );
    });
    const next = world.adopt(renamed);
    players.follow(next, world.rules);
    players.settle(next);
    expect(players.of('south')).toEqual(savedOf(next));
    expect(players.of('south')!['attributes']['clams']).toBe(5);
  });
});
