import { type Command, compileRuleset, Copy, Prediction, Publisher, wireSchemaOf, World } from '@eager-ember/core';
import brinewick from '../../../../core/src/testing/recorded/brinewick.json';
import { openBench, Seen } from '../testing/bench';
import { ArenaView } from './arena-view';

describe('The arena', () => {
  const rules = compileRuleset(brinewick);
  let world: World;
  let publisher: Publisher;
  let copy: Copy;
  let seen: Seen<ArenaView>;
  let row: number;
  let painted: jasmine.Spy;

  /** Plays a tick and tells the seat of it. */
  const tell = (...commands: Command[]) => {
    world.step(commands);
    publisher.capture();
    copy.apply(publisher.frameFor({ actor: world.actors.handle(row), team: world.actors.cells.team[row] }, copy.frame));
  };
  const draw = (prediction?: Prediction) => seen.fixture.componentInstance.draw(copy, prediction);
  /** Whether drawing painted anything. */
  const paints = (prediction?: Prediction) => {
    painted.calls.reset();
    draw(prediction);
    return painted.calls.any();
  };
  /** Draws until all are where they are known to be. */
  const settle = () => {
    for (let pictures = 0; pictures < 200 && paints(); pictures++);
  };

  beforeEach(async () => {
    world = World.start(rules, 3);
    world.step([{ kind: 'join', args: { seat: 'north', team: 'petrel' } }]);
    row = Array.from({ length: world.actors.high }, (_, at) => at).find((at) => world.nameOf(world.actors.handle(at)) === 'north')!;
    publisher = new Publisher(world);
    copy = new Copy(wireSchemaOf(rules, false));
    openBench();
    seen = await Seen.of(ArenaView, { label: 'The arena', marked: row });
    document.body.append(seen.element);
    painted = spyOn(CanvasRenderingContext2D.prototype, 'fillRect').and.callThrough();
    tell();
  });
  afterEach(() => {
    seen.element.remove();
    document.documentElement.removeAttribute('data-theme');
  });

  it('is drawn once for what looks the same, and again for what was told since', () => {
    expect(paints()).toBeTrue();
    settle();
    expect(paints()).toBeFalse();
    tell({ kind: 'input', args: { seat: 'north', input: { do: 'move', x: 1, y: 0 } } });
    expect(paints()).toBeTrue();
  });

  it('is not drawn again for a frame that changes nothing to be seen', () => {
    settle();
    const { frame } = copy;
    tell();
    expect(paints()).toBeFalse();
    expect(copy.frame).toBeGreaterThan(frame);
  });

  it('is drawn again once its letters have come', () => {
    settle();
    document.fonts.dispatchEvent(new Event('loadingdone'));
    expect([paints(), paints()]).toEqual([true, false]);
  });

  it('is drawn on while somebody is on the way to where they are known to be', () => {
    settle();
    for (let ticks = 0; ticks < 4; ticks++) tell({ kind: 'input', args: { seat: 'north', input: { do: 'move', x: 1, y: 0 } } });
    expect([paints(), paints(), paints()]).toEqual([true, true, true]);
    settle();
    expect(paints()).toBeFalse();
  });

  it('is drawn on while its seat expects more than it was told, and once after', () => {
    settle();
    const prediction = new Prediction(copy, row);
    prediction.sent(1, { do: 'move', x: 1, y: 0 });
    const lived = () => {
      prediction.step();
      return paints(prediction);
    };
    expect([lived(), lived()]).toEqual([true, true]);
    expect([paints(), paints()]).toEqual([true, false]);
  });

  it('is drawn anew where another is marked, or the theme is another', async () => {
    settle();
    seen.fixture.componentRef.setInput('marked', undefined);
    await seen.settle();
    expect([paints(), paints()]).toEqual([true, false]);
    document.documentElement.setAttribute('data-theme', 'dark');
    expect([paints(), paints()]).toEqual([true, false]);
  });
});
