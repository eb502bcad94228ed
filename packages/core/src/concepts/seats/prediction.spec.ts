import brinewick from '../../testing/recorded/brinewick.json' with { type: 'json' };
import {
  actorOfSeat,
  announcementsFor,
  type Announcement,
  type Command,
  compileRuleset,
  Copy,
  placeOf,
  Prediction,
  Publisher,
  wireSchemaOf,
  World,
} from '../../index.js';
import { setGifts } from '../abilities/index.js';
import { join } from '../../testing/rulesets.js';

const DEMO = compileRuleset(brinewick);

/** A seat and a server with some ticks of way between them, each way. */
class Wire {
  readonly world = World.start(DEMO, 1);
  readonly copy = new Copy(wireSchemaOf(DEMO));
  readonly prediction: Prediction;
  private readonly publisher = new Publisher(this.world);
  private readonly out: { due: number; n: number; command: Command }[] = [];
  private heard = 0;
  private readonly back: { due: number; frame: Uint8Array; items: readonly Announcement[] }[] = [];
  private now = 0;
  private inputs = 0;

  constructor(private readonly way: number) {
    this.world.step([join('north', { team: 'petrel' })]);
    this.publisher.capture();
    this.copy.apply(this.publisher.frameFor(this.viewer, 0));
    this.prediction = new Prediction(this.copy, this.row);
  }

  get row(): number {
    return this.world.actors.rowOf(actorOfSeat(this.world, 'north'));
  }
  private get viewer() {
    return { actor: actorOfSeat(this.world, 'north'), team: 0 };
  }

  ask(input: { do: string } & Record<string, unknown>) {
    const n = ++this.inputs;
    this.out.push({ due: this.now + this.way, n, command: { kind: 'input', args: { seat: 'north', input } } });
    return this.prediction.sent(n, input);
  }

  /** A tick on both sides; `held` is the direction that the player holds. */
  tick(held?: { x: number; y: number } | 'stop', more: readonly Command[] = []): void {
    this.now++;
    if (held) this.ask(held === 'stop' ? { do: 'stop' } : { do: 'move', ...held });
    this.prediction.step();
    const due = this.out.filter((item) => item.due < this.now);
    this.out.splice(0, due.length);
    const events = this.world.step([...due.map(({ command }) => command), ...more]);
    this.heard = Math.max(this.heard, ...due.map(({ n }) => n));
    this.publisher.capture();
    this.back.push({
      due: this.now + this.way,
      frame: this.publisher.frameFor(this.viewer, 0, this.heard),
      items: announcementsFor(this.world, events, this.viewer),
    });
    while (this.back.length > 0 && this.back[0].due <= this.now) {
      const { frame, items } = this.back.shift()!;
      this.copy.apply(frame);
      this.prediction.confirmed();
      this.prediction.heard(items);
    }
  }

  get truth() {
    return placeOf(this.world, this.row);
  }
}

describe('A prediction', () => {
  for (const way of [0, 2, 6])
    it(`over ${way} ticks each way moves at once, runs ahead of what is told, and comes to rest where the truth does`, () => {
      const wire = new Wire(way);
      const start = wire.truth.y;
      wire.tick({ x: 0, y: 1 });
      expect(wire.prediction.place()!.y).toBeCloseTo(start + 6, 6);
      for (let i = 0; i < 19; i++) wire.tick({ x: 0, y: 1 });
      expect(wire.prediction.place()!.y).toBeCloseTo(start + 120, 6);
      expect(wire.prediction.ahead()).toBeCloseTo((2 * way + 1) * 6, 6);
      wire.tick('stop');
      for (let i = 0; i < 2 * way + 3; i++) wire.tick();
      expect(wire.prediction.place()).toEqual({ x: wire.truth.x, y: start + 120 });
      expect(wire.truth.y).toBe(start + 120);
      expect(wire.prediction.ahead()).toBe(0);
    });

  it('stops at walls as the server does', () => {
    const wire = new Wire(4);
    for (let i = 0; i < 60; i++) wire.tick({ x: -1, y: -1 });
    wire.tick('stop');
    for (let i = 0; i < 12; i++) wire.tick();
    expect(wire.prediction.place()).toEqual(wire.truth);
  });

  it('is taken back when the server decides otherwise', () => {
    const wire = new Wire(5);
    for (let i = 0; i < 10; i++) wire.tick({ x: 1, y: 0 });
    wire.tick({ x: 1, y: 0 }, [{ kind: 'poke', args: { seat: 'north', action: { do: 'place', x: 500, y: 450 } } }]);
    wire.tick('stop');
    for (let i = 0; i < 14; i++) wire.tick();
    expect(wire.prediction.place()).toEqual(wire.truth);
    expect(wire.truth.y).toBe(450);
  });

  it('stands where its state holds it', () => {
    const wire = new Wire(1);
    wire.tick(undefined, [{ kind: 'poke', args: { seat: 'north', action: { do: 'apply', effect: 'stun' } } }]);
    wire.tick();
    const before = wire.prediction.place();
    for (let i = 0; i < 3; i++) wire.tick({ x: 1, y: 0 });
    expect(wire.prediction.place()).toEqual(before);
  });

  it('of a use waits for the server’s word, and is gone when it comes', () => {
    const wire = new Wire(3);
    expect(wire.ask({ do: 'use', ability: 'sonarPing' })).toBeUndefined();
    expect(wire.prediction.uses.map(({ state }) => state)).toEqual(['waiting']);
    for (let i = 0; i < 9; i++) wire.tick();
    expect(wire.prediction.uses).toEqual([]);
    expect(wire.prediction.refusal('sonarPing')?.reason).toBe('coolingDown');
  });

  it('of a use that the server refuses is taken back, visibly, for a while', () => {
    const wire = new Wire(3);
    // Only the server knows how much air there is to be for it.
    expect(wire.ask({ do: 'use', ability: 'secondWind' })).toBeUndefined();
    for (let i = 0; i < 9; i++) wire.tick();
    expect(wire.prediction.uses.map(({ ability, state }) => [ability, state])).toEqual([['secondWind', 'takenBack']]);
    for (let i = 0; i < 31; i++) wire.tick();
    expect(wire.prediction.uses).toEqual([]);
  });

  it('refuses here already what it knows can’t be', () => {
    const wire = new Wire(2);
    wire.tick(undefined, [{ kind: 'poke', args: { seat: 'north', action: { do: 'set', attribute: 'stamina', value: 3 } } }]);
    for (let i = 0; i < 3; i++) wire.tick();
    expect(wire.ask({ do: 'use', ability: 'towLine' })?.reason).toBe('tooExpensive');
    expect(wire.ask({ do: 'use', ability: 'bite' })?.reason).toBe('notOwned');
    wire.ask({ do: 'move', x: 1, y: 0 });
    expect(wire.ask({ do: 'use', ability: 'cuttingTorch' })?.reason).toBe('moving');
    expect(wire.prediction.uses).toEqual([]);
  });

  it('knows what a use costs one who has learned to do with less', () => {
    const wire = new Wire(2);
    const torch = DEMO.chapters.get('abilities')!.ids.indexOf('cuttingTorch');
    setGifts(wire.world, actorOfSeat(wire.world, 'north'), 1, [], [{ ability: torch, number: 'costs', change: 'add', amount: -8 }]);
    for (const [stamina, refused] of [
      [16, 'tooExpensive'],
      [18, undefined],
    ] as const) {
      wire.tick(undefined, [{ kind: 'poke', args: { seat: 'north', action: { do: 'set', attribute: 'stamina', value: stamina } } }]);
      for (let i = 0; i < 3; i++) wire.tick();
      expect(wire.prediction.refusal('cuttingTorch')?.reason).toBe(refused);
    }
    const others = new Copy(wireSchemaOf(DEMO));
    const publisher = new Publisher(wire.world);
    publisher.capture();
    others.apply(publisher.frameFor({ actor: 0, team: -1 }, 0));
    expect(others.rows('abilityNumbers').filter((row) => others.value('abilityNumbers', row, 'amount') !== undefined)).toEqual([]);
  });
});
