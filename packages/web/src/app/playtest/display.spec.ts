import brinewick from '../../../../../examples/brinewick.json';
import { actorOfSeat, compileRuleset, Copy, Publisher, wireSchemaOf, World } from '@eager-ember/core';
import { actorsOf, difference, hudOf, untold } from './display';
import { pointsOf } from '../rulebook/evidence/evidence-chart';
import { type Ask, Controls } from './controls';

describe('What a seat is shown', () => {
  const rules = compileRuleset(brinewick);
  let world: World;
  let truth: Copy;
  let south: Copy;

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

  it('are its own bars, cooldowns, effects and statuses', () => {
    const hud = hudOf(south, 1);
    expect(hud.bars.map((bar) => [bar.label, bar.max])).toEqual([
      ['Oxygen', 90],
      ['Suit', 100],
      ['Stamina', 100],
    ]);
    expect(hud.abilities).toEqual([jasmine.objectContaining({ id: 'sonarPing', left: 7.5, lacks: '' })]);
    expect(hud.effects).toEqual([jasmine.objectContaining({ label: 'Silt', left: 2.5 })]);
    expect(hud.statuses).toEqual(['Silted']);
    expect(hud.figures.find((f) => f.id === 'finSpeed')!.text).toBe('60');
  });

  it('is of others what it was told', () => {
    expect(actorsOf(south).map((actor) => [actor.name, actor.team?.label])).toEqual([
      ['north', 'Petrel'],
      ['south', 'Gannet'],
    ]);
    expect(hudOf(south, 0).bars).toEqual([]);
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
    expect(key('x', true)).toBeFalse();
    controls.release();
    expect(asked).toEqual([{ do: 'move', x: 1, y: 0 }, { do: 'move', x: 1, y: -1 }, { do: 'move', x: 0, y: -1 }, { do: 'stop' }]);
  });

  it('uses abilities by their digits, once a press', () => {
    expect([key('2', true), key('2', true, { repeat: true }), key('2', false), key('3', true)]).toEqual([true, false, false, false]);
    expect(asked).toEqual([{ do: 'use', ability: 'torch' }]);
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
