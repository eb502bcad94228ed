import { compileRuleset, type GameEvent, readSnapshot, type Rules, storeSnapshot, World } from '../index.js';
import { counter, input, join, pool, rulesetWith, stat, Trial } from './rulesets.js';

/** A quay: divers with money, a Quartermaster who rests them, a Chart-keeper who talks, and a crate between walls. */
export const QUAY = {
  attributes: [stat('finSpeed', 120), pool('suit', { start: 40 }), pool('oxygen', { max: 90, start: 30 }), counter('scrip', { start: 40 })],
  statuses: [{ id: 'inBell', label: 'In bell' }],
  teams: [{ id: 'petrel', label: 'Petrel', colour: '#0e6b6f', pattern: 'stripes', mark: 'P' }],
  actors: [
    {
      id: 'diver',
      label: 'Diver',
      kind: 'player',
      speed: 'finSpeed',
      life: 'suit',
      attributes: ['finSpeed', 'suit', 'oxygen', 'scrip'].map((attribute) => ({ attribute })),
    },
    { id: 'quartermaster', label: 'Quartermaster', kind: 'character', interactions: ['rest'] },
    { id: 'chartKeeper', label: 'Chart-keeper', kind: 'character', interactions: ['ask'] },
    { id: 'crate', label: 'Crate', kind: 'prop', container: 'freight' },
  ],
  interactions: [
    {
      id: 'rest',
      label: 'Rest',
      prompt: 'Rest and refill',
      price: { attribute: 'scrip', amount: 40, say: 'Forty scrip, or sleep in your suit.' },
      busy: '8s',
      then: [
        { do: 'flourish', fade: 1.5 },
        { do: 'wait', for: '1.5s' },
        { do: 'heal', attribute: 'suit', amount: 100 },
        { do: 'heal', attribute: 'oxygen', amount: 90 },
        { do: 'wait', for: '2s' },
        { do: 'flourish', text: 'Rested' },
      ],
    },
    { id: 'ask', label: 'Ask the way', prompt: 'Ask', reach: 80, then: [{ do: 'talk', dialogue: 'wreck' }] },
  ],
  dialogues: [
    {
      id: 'wreck',
      label: 'About the wreck',
      lines: [
        { id: 'hail', text: 'You want the wreck.', for: '2s' },
        { id: 'crewSays', speaker: 'crew', text: 'We all do.', for: '1s' },
        {
          id: 'offer',
          text: 'It is deep. Still?',
          for: '4s',
          choices: [
            { text: 'Yes.', then: [{ do: 'give', attribute: 'scrip', amount: 1 }], next: 'go' },
            { text: 'No.', next: 'end' },
            { text: 'With what money?', if: 'scrip > 1000', next: 'end' },
          ],
        },
        { id: 'go', text: 'Then go.', for: '1s' },
      ],
    },
  ],
  containers: [
    {
      id: 'freight',
      label: 'Freight',
      opening: '1s',
      closing: '500ms',
      holds: [
        { id: 'coins', label: 'Coins', gives: 'scrip', amount: { random: [2, 9], whole: true } },
        { id: 'air', label: 'Air bottle', then: [{ do: 'heal', attribute: 'oxygen', amount: 20 }] },
        { id: 'pearl', label: 'Pearl', gives: 'scrip', amount: 50, chance: 0.2 },
      ],
    },
  ],
  arena: {
    starts: [{ x: 100, y: 100 }],
    placed: [
      { actor: 'quartermaster', x: 300, y: 100 },
      { actor: 'chartKeeper', x: 500, y: 100 },
      { actor: 'crate', x: 700, y: 100 },
    ],
    walls: [{ x: 680, y: 150, width: 40, height: 10 }],
  },
};

export const place = (x: number, y = 100) => ({ do: 'place', x, y });

/** Rules of the quay with parts of its own. */
export const quay = (parts: Record<string, unknown> = {}): Rules => compileRuleset(rulesetWith({ ...QUAY, ...parts }));

/** A world on the quay, with words for what visitors do. */
export class Visit extends Trial {
  static at(x: number, parts: Record<string, unknown> = {}, seats = ['north'], seed = 1): Visit {
    const visit = new Visit(
      quay(parts),
      seats.map((seat) => join(seat, { team: 'petrel' })),
      seed,
    );
    seats.forEach((seat, i) => visit.poke(place(x, 100 + i * 2), seat));
    // That they have come is no part of the visit.
    visit.events = [];
    return visit;
  }

  ask(what: Record<string, unknown> = {}, seat = 'north'): readonly GameEvent[] {
    return this.step(input(seat, { do: 'interact', ...what }));
  }

  take(item?: number, seat = 'north'): readonly GameEvent[] {
    return this.step(input(seat, { do: 'take', ...(item !== undefined && { item }) }));
  }

  /** The live rows of a table, as records. */
  rows(table: string): Readonly<Record<string, number>>[] {
    const { high, live, columns } = this.world.table(table);
    return Array.from({ length: high }, (_, row) => row)
      .filter((row) => live[row] === 1)
      .map((row) => Object.fromEntries([['row', row], ...columns.map((column) => [column.spec.name, column.data[row]])]));
  }

  /** What somebody's window shows, in its order: labels with amounts. */
  window(seat = 'north'): readonly string[] {
    return this.rows('shown')
      .filter(({ visitor }) => visitor === this.actor(seat))
      .sort((a, b) => a.place - b.place)
      .map(({ label, amount }) => `${this.world.text(label)} ${amount}`);
  }

  /** The names of events since some point, without those of attributes. */
  told(from = 0): readonly string[] {
    return this.events
      .slice(from)
      .filter(({ name }) => !['poked', 'asked', 'attributeChanged', 'actorSpawned', 'seatTaken', 'stateChanged'].includes(name))
      .map(({ name, data }) => [name, data['how'] ?? data['reason']].filter(Boolean).join(' '));
  }

  /** Goes on from a snapshot that was stored and read, as a room does after a restart. */
  restart(): this {
    this.world = World.restore(this.rules, readSnapshot(storeSnapshot(this.world.snapshot())));
    return this;
  }
}
