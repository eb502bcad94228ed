import {
  abilitiesNow,
  actorOfSeat,
  Announcer,
  announcementsFor,
  type Command,
  compileRuleset,
  type Viewer,
  wireSchemaOf,
  World,
} from '../index.js';
import { counter, input, join, poke, pool, rulesetWith } from '../testing/rulesets.js';

const ATTRIBUTES = [
  pool('suit', { start: 100, see: 'team' }),
  pool('stamina', { start: 30, see: 'owner' }),
  counter('grace', { label: 'Grace', see: 'server' }),
];
const TEAMS = [
  { id: 'petrel', label: 'Petrel' },
  { id: 'gannet', label: 'Gannet' },
];
const LONG = { cast: { time: '2s' }, brokenBy: { damage: 5, statuses: ['numb'] } };
const BASE = {
  teams: TEAMS,
  attributes: ATTRIBUTES,
  statuses: [
    { id: 'numb', label: 'Numb', see: 'server' },
    { id: 'dazed', label: 'Dazed', see: 'team' },
  ],
  states: [{ id: 'adrift', label: 'Adrift', see: 'server' }],
  abilities: [
    { id: 'weld', label: 'Weld', ...LONG },
    { id: 'haul', label: 'Haul', charge: 'onFinish', costs: [{ attribute: 'stamina', amount: 20 }], cast: { time: '100ms' } },
    { id: 'pray', label: 'Pray', costs: [{ attribute: 'grace', amount: 7 }] },
    { id: 'dive', label: 'Dive', requires: [{ has: 'numb' }, { hasNot: 'dazed' }] },
    { id: 'rise', label: 'Rise', requires: [{ hasNot: 'dazed' }] },
  ],
};

/** Petrel’s `north` with its `mate`, and Gannet’s `south`; tells what each of them hears of what is done. */
class Company {
  readonly world: World;
  private readonly announcers = new Map<string, Announcer>();

  constructor(parts: Record<string, unknown> = {}) {
    this.world = World.start(compileRuleset(rulesetWith({ ...BASE, ...parts })), 1);
    this.world.step([join('north', { team: 'petrel' }), join('mate', { team: 'petrel' }), join('south', { team: 'gannet' })]);
  }

  viewer(seat: string): Viewer {
    const actor = actorOfSeat(this.world, seat);
    return { actor, team: this.world.actors.cells.team[this.world.actors.rowOf(actor)] };
  }

  /** What the three hear, in words, of one event. */
  hear(name: string, ...commands: readonly (readonly Command[])[]): readonly string[] {
    const events = commands.flatMap((list) => [...this.world.step([...list])]).filter((event) => event.name === name);
    return ['north', 'mate', 'south'].map((seat) =>
      announcementsFor(this.world, events, this.viewer(seat))
        .map(({ text, data }) => `${text} ${JSON.stringify(data)}`)
        .join(),
    );
  }

  numbered(seat: string, ...commands: readonly Command[]): readonly (readonly [string, number, number])[] {
    const announcer = this.announcers.get(seat) ?? new Announcer();
    this.announcers.set(seat, announcer);
    return announcer
      .tell(this.world, this.world.step([...commands]), this.viewer(seat))
      .map(({ event, serial, cause }) => [event, serial, cause]);
  }
}

const use = (ability: string, seat = 'north') => [input(seat, { do: 'use', ability })];
const on = (action: Record<string, unknown>, seat = 'north') => [poke(seat, action)];

describe('What breaks a cast', () => {
  it('is told as the value is seen that was lost', () => {
    const [north, mate, south] = new Company().hear('castBroken', use('weld'), on({ do: 'hurt', attribute: 'suit', amount: 12 }));
    expect(north).toContain('north’s weld is broken by a loss of 12');
    expect(mate).toContain('by a loss of 12');
    expect(south).toBe('north’s weld is broken {"ability":"weld","phase":"casting","ticks":39}');
  });

  it('is told as what it could not be paid with is seen', () => {
    const [north, mate, south] = new Company().hear(
      'castBroken',
      use('haul'),
      on({ do: 'take', attribute: 'stamina', amount: 25 }),
      [],
      [],
    );
    expect(north).toContain('it needs 20 stamina, and there is 5');
    for (const other of [mate, south]) expect(other).not.toMatch(/stamina|20|"needs"|"present"|tooExpensive/);
  });

  it('is not named where it is a status or a state that only the server knows', () => {
    const status = new Company().hear('castBroken', use('weld'), on({ do: 'grant', status: 'numb' }));
    const state = new Company().hear('castBroken', use('weld'), on({ do: 'enter', state: 'adrift' }));
    for (const heard of [...status, ...state]) {
      expect(heard).toContain('north’s weld is broken {');
      expect(heard).not.toMatch(/numb|adrift|"(status|state|reason)"/i);
    }
  });
});

describe('A refusal', () => {
  it('says nothing of what only the server knows, neither its name nor how much of it there is', () => {
    const company = new Company();
    const [north, mate] = company.hear('abilityRefused', use('pray'));
    expect([north, mate]).toEqual(['Pray can’t be used just now. {"ability":"pray"}', '']);
    expect(company.hear('abilityRefused', use('dive'))[0]).toBe('Dive can’t be used just now. {"ability":"dive"}');
    company.hear('', on({ do: 'grant', status: 'dazed' }));
    expect(company.hear('abilityRefused', use('rise'))[0]).toContain('Rise: Not while dazed.');
  });

  it('of what was only guessed is the same whether there is such a thing or not', () => {
    const company = new Company({
      actors: [
        { id: 'diver', label: 'Diver', kind: 'player' },
        { id: 'eel', label: 'Eel', kind: 'foe', abilities: ['weld'] },
      ],
      abilities: [{ id: 'weld', label: 'Weld', see: 'owner' }],
      trees: [{ id: 'deep', label: 'Deep', see: 'server', nodes: [{ id: 'one', label: 'One' }] }],
    });
    const said = (event: string, asked: Record<string, unknown>) => company.hear(event, [input('north', asked)])[0];
    const [there, nowhere] = ['weld', 'nothing'].map((ability) => said('abilityRefused', { do: 'use', ability }));
    expect([there, nowhere]).toEqual(Array(2).fill('You have no such ability. {"reason":"notOwned"}'));
    const trees = ['deep', 'nothing'].map((tree) => said('learnRefused', { do: 'learn', tree, node: 'two' }));
    expect(trees).toEqual(Array(2).fill('You have no such skill tree. {}'));
  });

  it('and its numbers are in the tooltip only as far as its player may know', () => {
    const company = new Company();
    const actor = actorOfSeat(company.world, 'north');
    const pray = (whom: Viewer) => abilitiesNow(company.world, actor, whom).find(({ id }) => id === 'pray')!;
    const own = pray(company.viewer('north'));
    expect([own.costs, own.refusal]).toEqual([[], 'Pray can’t be used just now.']);
    expect(pray('truth').costs).toEqual([{ attribute: 'grace', amount: 7 }]);
    expect(pray('truth').refusal).toContain('needs 7 grace');
  });
});

describe('A hit', () => {
  const sneak = (see: string) => ({
    abilities: [
      {
        id: 'sneak',
        label: 'Sneak',
        see,
        target: { at: 'nearest', range: 300, who: 'foes', sight: false },
        onHit: [{ do: 'hurt', attribute: 'suit', amount: 1 }],
      },
    ],
  });
  const heard = (see: string) => new Company(sneak(see)).hear('abilityHit', use('sneak')).map((text) => text.includes('sneak'));

  it('is told to whom it hits only where they may see what it was', () => {
    expect(heard('everyone')).toEqual([true, true, true]);
    expect(heard('team')).toEqual([true, true, false]);
    expect(heard('owner')).toEqual([true, false, false]);
  });
});

describe('What a display is told of the rules', () => {
  it('names no cost, good, price or level in what only the server knows', () => {
    const parts = {
      ...BASE,
      attributes: [...ATTRIBUTES, counter('scrip'), counter('relic', { see: 'server' })],
      tracks: [{ id: 'favour', label: 'Favour', see: 'server', levels: 3 }],
      trees: [
        {
          id: 'craft',
          label: 'Craft',
          points: 1,
          nodes: [{ id: 'knot', label: 'Knot', needs: { level: { track: 'favour', at: 2 } } }],
          respec: { how: 'paid', price: { attribute: 'grace', amount: 3 } },
        },
      ],
      economy: { currency: 'scrip' },
      markets: [{ id: 'quay', label: 'Quay', goods: [{ good: 'relic', price: { range: [3, 3] } }] }],
    };
    const rules = compileRuleset(rulesetWith(parts));
    expect(JSON.stringify(wireSchemaOf(rules)).match(/.{0,60}(grace|relic|favour|numb"|adrift).{0,20}/gi)).toBeNull();
    expect(JSON.stringify(wireSchemaOf(rules, true))).toMatch(/grace/);
  });
});

describe('What a seat hears', () => {
  it('are numbered as a seat hears them: what it does not hear leaves no gap and is no cause', () => {
    const company = new Company();
    expect(company.numbered('south', ...use('weld', 'south'))).toEqual([['castStarted', 1, 0]]);
    company.world.step(on({ do: 'give', attribute: 'grace', amount: 1 }));
    expect(company.numbered('south', ...on({ do: 'hurt', attribute: 'suit', amount: 9 }, 'south'))).toEqual([['castBroken', 2, 0]]);
    const truth = announcementsFor(company.world, company.world.step(on({ do: 'give', attribute: 'grace', amount: 1 })), 'truth');
    expect(truth.map(({ event }) => event)).toEqual(['poked', 'attributeChanged']);
    expect(truth[1].cause).toBe(truth[0].serial);
  });

  it('lead back to what a seat was told', () => {
    const company = new Company({
      effects: [{ id: 'warmth', label: 'Warmth', lasts: '5s' }],
      abilities: [{ id: 'weld', label: 'Weld', then: [{ do: 'apply', effect: 'warmth' }] }],
    });
    const heard = company.numbered('south', ...use('weld', 'south'));
    expect(heard).toEqual([
      ['abilityUsed', 1, 0],
      ['effectStarted', 2, 1],
    ]);
  });
});
