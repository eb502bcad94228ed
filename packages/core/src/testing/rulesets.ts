import { actorOfSeat, compileRuleset, type Command, type GameEvent, type Rules, valuesOf, World } from '../index.js';

/** A small ruleset made up for a case: one diver with what the case needs. */
export function rulesetWith(parts: Record<string, unknown> = {}): Record<string, unknown> {
  const attributes = (parts['attributes'] ?? []) as { id: string }[];
  return {
    format: 'eager-ember/ruleset',
    version: 2,
    name: 'Trial',
    tickRate: 20,
    actors: [
      {
        id: 'diver',
        label: 'Diver',
        kind: 'player',
        attributes: attributes.map(({ id }) => ({ attribute: id })),
        ...(attributes.some(({ id }) => id === 'finSpeed') ? { speed: 'finSpeed' } : {}),
        abilities: ((parts['abilities'] ?? []) as { id: string }[]).map(({ id }) => id),
      },
    ],
    ...parts,
  };
}

export const pool = (id: string, more: Record<string, unknown> = {}) => ({ id, label: id, kind: 'pool', max: 100, ...more });
export const stat = (id: string, start: number | string, more: Record<string, unknown> = {}) => ({
  id,
  label: id,
  kind: 'stat',
  start,
  ...more,
});
export const counter = (id: string, more: Record<string, unknown> = {}) => ({ id, label: id, kind: 'counter', ...more });

export const join = (seat: string, more: Record<string, unknown> = {}): Command => ({ kind: 'join', args: { seat, ...more } });
export const input = (seat: string, ask: Record<string, unknown>): Command => ({ kind: 'input', args: { seat, input: ask } });
export const poke = (seat: string, action: Record<string, unknown>): Command => ({ kind: 'poke', args: { seat, action } });

/** A world with a diver on the seat `north`, and short words for what tests do with it. */
export class Trial {
  world: World;
  events: GameEvent[] = [];

  constructor(
    readonly rules: Rules,
    seats: readonly Command[] = [join('north')],
    seed = 1,
  ) {
    this.world = World.start(rules, seed);
    this.step(...seats);
  }

  static of(parts: Record<string, unknown>, seats?: readonly Command[]): Trial {
    return new Trial(compileRuleset(rulesetWith(parts)), seats);
  }

  step(...commands: Command[]): readonly GameEvent[] {
    const events = this.world.step(commands);
    this.events.push(...events);
    return events;
  }

  /** Runs this many seconds, one tick after the other. */
  run(seconds: number): this {
    for (let n = Math.round(seconds * this.rules.tickRate); n > 0; n--) this.step();
    return this;
  }

  poke(action: Record<string, unknown>, seat = 'north'): readonly GameEvent[] {
    return this.step(poke(seat, action));
  }

  use(ability: string, seat = 'north'): readonly GameEvent[] {
    return this.step(input(seat, { do: 'use', ability }));
  }

  /** Goes on from a snapshot of the world in a new one, which something else has happened to before. */
  restore(): this {
    const snapshot = this.world.snapshot();
    this.world = World.start(this.rules, 1);
    this.world.step();
    this.world.rewind(snapshot);
    return this;
  }

  value(attribute: string, seat = 'north'): number {
    return valuesOf(this.world, this.actor(seat))[attribute];
  }

  actor(seat = 'north'): number {
    return actorOfSeat(this.world, seat);
  }

  named(name: string): readonly GameEvent[] {
    return this.events.filter((event) => event.name === name);
  }
}
