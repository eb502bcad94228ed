import brinewick from '../../../../core/src/testing/recorded/brinewick.json';
import { actorOfSeat, announcementsFor, compileRuleset, Copy, Publisher, wireSchemaOf, World } from '@eager-ember/core';
import { aimed } from './aiming';
import { castsOf, ownCast } from './casting';
import { actorsOf, difference, hudOf, untold } from './display';
import { pointsOf } from '../rulebook/evidence/evidence-chart';
import { type Ask, Controls } from './controls';

describe('What a seat is shown', () => {
  const rules = compileRuleset(brinewick);
  let world: World;
  let truth: Copy;
  let south: Copy;
  const rowOf = (seat: string) => world.actors.rowOf(actorOfSeat(world, seat));

  beforeEach(() => {
    world = World.start(rules, 1);
    world.step([
      { kind: 'join', args: { seat: 'north', team: 'petrel' } },
      { kind: 'join', args: { seat: 'south', team: 'gannet' } },
    ]);
    world.step([
      { kind: 'input', args: { seat: 'south', input: { do: 'use', ability: 'sonarPing' } } },
      { kind: 'poke', args: { seat: 'south', action: { do: 'apply', effect: 'silt' } } },
    ]);
    for (let i = 0; i < 10; i++) world.step();
    const publisher = new Publisher(world);
    publisher.capture();
    truth = new Copy(wireSchemaOf(rules, true));
    truth.apply(publisher.frameFor('truth', 0));
    south = new Copy(wireSchemaOf(rules));
    south.apply(publisher.frameFor({ actor: actorOfSeat(world, 'south'), team: 1 }, 0));
  });

  it('are what its abilities cost one who has learned to do with less', () => {
    const torch = () => hudOf(south, rowOf('south')).abilities.find(({ id }) => id === 'cuttingTorch')!.lacks;
    const publisher = new Publisher(world);
    const tell = (action: object) => {
      world.step([{ kind: 'poke', args: { seat: 'south', action } }]);
      publisher.capture();
      south = new Copy(wireSchemaOf(rules));
      south.apply(publisher.frameFor({ actor: actorOfSeat(world, 'south'), team: 1 }, 0));
    };
    tell({ do: 'set', attribute: 'stamina', value: 20 });
    expect(torch()).toBe('needs 25 stamina');
    tell({ do: 'award', track: 'standing', amount: 2000 });
    for (const node of ['hotFlame', 'thriftyValve', 'thriftyValve'])
      world.step([{ kind: 'input', args: { seat: 'south', input: { do: 'learn', tree: 'diversTrade', node } } }]);
    tell({ do: 'set', attribute: 'stamina', value: 16 });
    expect(torch()).toBe('needs 17 stamina');
    tell({ do: 'set', attribute: 'stamina', value: 18 });
    expect(torch()).toBe('');
  });

  it('are its own bars, cooldowns, effects and statuses', () => {
    const hud = hudOf(south, rowOf('south'));
    expect(hud.bars.map((bar) => [bar.label, bar.max])).toEqual([
      ['Oxygen', 90],
      ['Suit', 100],
      ['Stamina', 100],
    ]);
    expect(hud.abilities[0]).toEqual(jasmine.objectContaining({ id: 'sonarPing', left: 7.5, lacks: '' }));
    expect(hud.abilities.find(({ id }) => id === 'harpoon')!.store).toBe('2 of 2');
    expect(hud.effects).toEqual([jasmine.objectContaining({ label: 'Silt', left: 2.5 })]);
    expect(hud.statuses).toEqual(['Silted']);
    expect(hud.figures.find((f) => f.id === 'finSpeed')!.text).toBe('60');
  });

  it('is of others what it was told', () => {
    const players = actorsOf(south).filter(({ kind }) => kind === 'player');
    expect(players.map((actor) => [actor.name, actor.team?.label])).toEqual([
      ['north', 'Petrel'],
      ['south', 'Gannet'],
    ]);
    expect(hudOf(south, rowOf('north')).bars).toEqual([]);
    expect(untold(truth, south)).toContain('north’s oxygen');
    expect(untold(truth, truth)).toBe('');
  });

  it('agrees with the truth of the same tick, and a difference is found', () => {
    expect(difference(truth, south)).toBe('');
    south.tick++;
    expect(difference(truth, south)).toBeUndefined();
    south.tick--;
    spyOn(south, 'value').and.returnValue(1);
    expect(difference(truth, south)).toContain('in truth');
  });
});

describe('The keyboard of a seat', () => {
  const asked: Ask[] = [];
  const controls = new Controls(
    (input) => asked.push(input),
    () => ['ping', 'torch'],
  );
  const key = (name: string, down: boolean, more: KeyboardEventInit = {}) =>
    controls.key(new KeyboardEvent('keydown', { key: name, ...more }), down);
  beforeEach(() => {
    controls.release();
    asked.length = 0;
  });

  it('makes a direction of held keys, said once when it changes', () => {
    key('d', true);
    key('d', true);
    key('W', true);
    key('d', false);
    expect(key('q', true)).toBeFalse();
    controls.release();
    expect(asked).toEqual([{ do: 'move', x: 1, y: 0 }, { do: 'move', x: 1, y: -1 }, { do: 'move', x: 0, y: -1 }, { do: 'stop' }]);
  });

  it('uses abilities by their digits, once a press', () => {
    expect([key('2', true), key('2', true, { repeat: true }), key('2', false), key('3', true)]).toEqual([true, false, false, false]);
    expect(asked).toEqual([{ do: 'use', ability: 'torch' }]);
  });

  it('breaks off what is under way with X, and aims where the pointer is', () => {
    expect(key('x', true)).toBeTrue();
    expect(asked).toEqual([{ do: 'cancel' }]);
    const aiming: Ask[] = [];
    const pointing = new Controls(
      (ask) => aiming.push(ask),
      () => ['torch'],
      (ability) => ({ x: 3, y: ability.length }),
    );
    pointing.key(new KeyboardEvent('keydown', { key: '1' }), true);
    expect(aiming).toEqual([{ do: 'use', ability: 'torch', x: 3, y: 5 }]);
  });

  it('leaves the browser’s own keys alone, and lets go of a key also while one of those is held', () => {
    expect(key('d', true, { ctrlKey: true })).toBeFalse();
    key('d', true);
    key('d', false, { ctrlKey: true });
    expect(asked).toEqual([{ do: 'move', x: 1, y: 0 }, { do: 'stop' }]);
  });
});

describe('A course', () => {
  it('is drawn by its corners', () => {
    const evidence = { seconds: 1, perSecond: 10, series: [{ id: 'a', label: 'A', values: [0, 1, 2, 3, 3, 3, 3, 2, 1, 0] }] };
    expect(pointsOf(evidence as never, 0)).toEqual([
      { x: 0.1, y: 0 },
      { x: 0.4, y: 3 },
      { x: 0.7, y: 3 },
      { x: 1, y: 0 },
    ]);
  });
});

describe('What a seat casts', () => {
  const rules = compileRuleset(brinewick);
  /** A diver that has asked for the torch, some ticks later, and what its seat was told. */
  const later = (ticks: number, more: Record<string, unknown>[] = []) => {
    const world = World.start(rules, 1);
    world.step([{ kind: 'join', args: { seat: 'north', team: 'petrel' } }]);
    const actor = actorOfSeat(world, 'north');
    const ask = (input: Record<string, unknown>) => ({ kind: 'input', args: { seat: 'north', input } });
    const heard = [...world.step([ask({ do: 'use', ability: 'cuttingTorch' })])];
    for (let i = 0; i < ticks; i++) heard.push(...world.step(more[i] ? [ask(more[i])] : []));
    const publisher = new Publisher(world);
    publisher.capture();
    const copy = new Copy(wireSchemaOf(rules));
    copy.apply(publisher.frameFor({ actor, team: 0 }, 0));
    return { copy, row: world.actors.rowOf(actor), news: announcementsFor(world, heard, { actor, team: 0 }) };
  };

  it('is a bar that fills, and empties into a recovery', () => {
    const half = later(18);
    expect(ownCast(half.copy, half.row, half.news, [])).toEqual({ text: 'Cutting torch 0.9 s', share: 0.5, look: 'casting' });
    const after = later(40);
    expect(ownCast(after.copy, after.row, after.news, [])!.look).toBe('recovering');
    expect(castsOf(after.copy).get(after.row)!.label).toBe('Cutting torch');
    const done = later(60);
    expect(ownCast(done.copy, done.row, done.news, [])).toBeUndefined();
  });

  it('breaks, and says why for a while', () => {
    const broken = later(8, [{ do: 'stop' }, { do: 'stop' }, { do: 'move', x: 1, y: 0 }]);
    expect(ownCast(broken.copy, broken.row, broken.news, [])).toEqual({
      text: 'north’s cutting torch is broken by moving',
      share: 1,
      look: 'broken',
    });
    const forgotten = later(60, [{ do: 'move', x: 1, y: 0 }]);
    expect(ownCast(forgotten.copy, forgotten.row, forgotten.news, [])).toBeUndefined();
  });

  it('is expected, dotted, before the server has said so', () => {
    const idle = later(70);
    const uses = [{ ability: 'harpoon', n: 3, state: 'waiting', age: 1 }] as const;
    expect(ownCast(idle.copy, idle.row, idle.news, uses)).toEqual({ text: 'Harpoon, not confirmed yet', share: 1, look: 'expected' });
  });

  it('is aimed at whom or where the pointer is, as the ability asks for it', () => {
    const { copy, row } = later(1);
    const crate = actorsOf(copy).find(({ name }) => name === 'Supply crate')!;
    const spot = { x: crate.x + 5, y: crate.y };
    expect(aimed(copy, 'towLine', spot, row)).toEqual({ target: crate.row });
    expect(aimed(copy, 'towLine', { x: 5, y: 500 }, row)).toEqual({});
    expect(aimed(copy, 'depthCharge', { x: 50.04, y: 99.96 }, row)).toEqual({ x: 50, y: 100 });
    expect(aimed(copy, 'secondWind', spot, row)).toEqual({});
    expect(aimed(copy, 'harpoon', undefined, row)).toEqual({});
    expect(aimed(undefined, 'harpoon', spot, row)).toEqual({});
  });
});
