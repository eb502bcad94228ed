import brinewick from '../../testing/recorded/brinewick.json' with { type: 'json' };
import { compileRuleset, findingsOf, readRuleset, World } from '../../index.js';
import { counter, input, join, pool, rulesetWith, stat, Trial } from '../../testing/rulesets.js';
import { pickupsTable } from '../pickups/tables.js';
import { effectsTable } from '../effects/tables.js';
import { roomStreaksTable, streaksTable } from './tables.js';
import { contentsTable } from '../containers/tables.js';

const PARTS = {
  attributes: [
    stat('finSpeed', 120),
    pool('oxygen', { max: 90, start: 30 }),
    counter('scrip'),
    counter('brass'),
    counter('pearls'),
    counter('rank'),
  ],
  effects: [{ id: 'slip', label: 'Slipstream', lasts: '5s' }],
  abilities: [{ id: 'ping', label: 'Ping', cooldown: '8s' }],
  pickups: [{ id: 'token', label: 'Token', lasts: '10s', then: [{ do: 'give', attribute: 'scrip', amount: 1 }] }],
  arena: { starts: [{ x: 100, y: 100 }] },
};
/** What drops lies under its finder, and would be taken at once: these lie for a higher rank. */
const LYING = { pickups: [{ ...PARTS.pickups[0], who: 'rank > 5' }] };
const table = (more: Record<string, unknown>, id = 'haul') => ({ id, label: id, ...more });
const rulesOf = (loot: readonly unknown[], more: Record<string, unknown> = {}) => rulesetWith({ ...PARTS, loot, ...more });
const roll = (trial: Trial, id = 'haul', seat = 'north') => trial.poke({ do: 'drop', table: id }, seat);
const trialOf = (loot: readonly unknown[], seats = ['north'], more: Record<string, unknown> = {}, seed = 1) =>
  new Trial(
    compileRuleset(rulesOf(loot, more)),
    seats.map((seat) => join(seat)),
    seed,
  );
const drawn = (trial: Trial) => trial.named('lootRolled').map(({ data }) => String(data['entry']));
const brass = (weight: number, more: Record<string, unknown> = {}) => ({ id: 'brass', weight, gives: 'brass', ...more });
const pearl = (weight: number, more: Record<string, unknown> = {}) => ({ id: 'pearl', weight, gives: 'pearls', ...more });
const nothing = (weight: number) => ({ id: 'nothing', weight });

describe('A loot table', () => {
  it('gives a lone entry for certain, whatever its weight', () => {
    const trial = trialOf([table({ entries: [brass(0.01)] })]);
    for (let n = 0; n < 20; n++) roll(trial);
    expect(trial.value('brass')).toBe(20);
    expect(trial.named('lootRolled').every(({ data }) => data['chance'] === 1)).toBeTrue();
  });

  it('has entries less often the more there are, nothing among them', () => {
    const trial = trialOf([table({ entries: [brass(1), nothing(3)] })]);
    for (let n = 0; n < 400; n++) roll(trial);
    expect(trial.value('brass')).toBeGreaterThan(70);
    expect(trial.value('brass')).toBeLessThan(130);
    expect(new Set(trial.named('lootRolled').map(({ data }) => data['chance']))).toEqual(new Set([0.25, 0.75]));
    expect(trial.named('lootFound').length).toBe(trial.value('brass'));
  });

  it('draws as often as it says, gives what is always there, and amounts in their range', () => {
    const trial = trialOf([
      table({ rolls: 2, always: [{ id: 'pay', gives: 'scrip', quantity: { random: [5, 12], whole: true } }], entries: [brass(1)] }),
    ]);
    for (let n = 0; n < 50; n++) roll(trial);
    expect(trial.value('brass')).toBe(100);
    const pays = trial.named('lootRolled').filter(({ data }) => data['entry'] === 'pay');
    expect(pays.length).toBe(50);
    expect(new Set(pays.map(({ data }) => data['amount'])).size).toBe(8);
    expect(Math.min(...pays.map(({ data }) => Number(data['amount'])))).toBe(5);
    expect(Math.max(...pays.map(({ data }) => Number(data['amount'])))).toBe(12);
  });

  it('opens a nested table as often as its quantity says', () => {
    const trial = trialOf([
      table({ entries: [{ id: 'change', weight: 1, table: 'change', quantity: 3 }] }),
      table({ entries: [brass(1)] }, 'change'),
    ]);
    roll(trial);
    expect(trial.value('brass')).toBe(3);
    expect(drawn(trial)).toEqual(['change', 'brass', 'brass', 'brass']);
  });

  it('asks conditions and weights of the one who rolls', () => {
    const trial = trialOf([table({ entries: [brass(1), pearl(1, { weight: 'rank', if: 'rank >= 3' })] })], ['north', 'south']);
    trial.poke({ do: 'give', attribute: 'rank', amount: 2 });
    trial.poke({ do: 'give', attribute: 'rank', amount: 1_000_000 }, 'south');
    for (let n = 0; n < 30; n++) {
      roll(trial);
      roll(trial, 'haul', 'south');
    }
    expect([trial.value('brass'), trial.value('pearls')]).toEqual([30, 0]);
    expect(trial.value('pearls', 'south')).toBe(30);
  });

  it('does not draw again what it drew at this opening, and gives nothing when it has run dry', () => {
    const trial = trialOf([table({ rolls: 4, withoutReplacement: true, entries: [brass(5), pearl(1), nothing(2)] })]);
    for (let n = 0; n < 30; n++) {
      trial.events = [];
      roll(trial);
      expect(drawn(trial).sort()).toEqual(['brass', 'nothing', 'pearl']);
    }
  });

  it('puts pickups down, applies effects, uses abilities and runs actions', () => {
    const trial = trialOf(
      [
        table({
          always: [
            { id: 'tokens', pickup: 'token', quantity: 3 },
            { id: 'slip', effect: 'slip' },
            { id: 'ping', ability: 'ping' },
            { id: 'air', label: 'Air', then: [{ do: 'heal', attribute: 'oxygen', amount: 20 }] },
          ],
        }),
      ],
      ['north'],
      LYING,
    );
    roll(trial);
    expect(pickupsTable.in(trial.world).count).toBe(3);
    expect(effectsTable.in(trial.world).count).toBe(1);
    expect(trial.named('abilityUsed').length + trial.named('castFinished').length).toBeGreaterThan(0);
    expect(trial.value('oxygen')).toBe(50);
  });

  it('is rolled for the one who did it, for each, or once for all', () => {
    const of = (rolled: string) => {
      const trial = trialOf([table({ rolled, entries: [{ id: 'token', weight: 1, pickup: 'token' }] })], ['north', 'south'], LYING);
      roll(trial);
      const pickups = pickupsTable.in(trial.world);
      return Array.from({ length: pickups.high }, (_, row) => trial.world.nameOf(pickups.cells.owner[row]));
    };
    expect(of('doer')).toEqual(['north']);
    expect(of('each')).toEqual(['north', 'south']);
    expect(of('once')).toEqual(['']);
  });

  it('gives nothing to nobody: a foe that falls to no player drops what is once for all, and no more', () => {
    const actors = [
      ...(rulesetWith(PARTS)['actors'] as object[]),
      {
        id: 'eel',
        label: 'Eel',
        kind: 'foe',
        attributes: [{ attribute: 'oxygen' }],
        life: 'oxygen',
        onDefeat: [{ do: 'drop', table: 'haul' }],
      },
    ];
    for (const [rolled, count] of [
      ['doer', 0],
      ['once', 1],
    ] as const) {
      const loot = [table({ rolled, entries: [{ id: 'token', weight: 1, pickup: 'token' }] })];
      const placed = [{ actor: 'eel', x: 400, y: 400, with: { starts: [{ attribute: 'oxygen', start: 0 }] } }];
      const trial = new Trial(compileRuleset(rulesOf(loot, { actors, ...LYING, arena: { ...PARTS.arena, placed } })));
      trial.run(0.2);
      expect(trial.named('actorDefeated').length).toBe(1);
      expect(pickupsTable.in(trial.world).count).toBe(count);
    }
  });

  it('is taken by its owner alone, and seen by its owner alone', () => {
    const trial = trialOf([table({ rolled: 'doer', entries: [{ id: 'token', weight: 1, pickup: 'token' }] })], ['north', 'south'], LYING);
    trial.poke({ do: 'place', x: 300, y: 300 });
    roll(trial);
    trial.poke({ do: 'place', x: 900, y: 300 });
    trial.poke({ do: 'give', attribute: 'rank', amount: 9 });
    trial.poke({ do: 'give', attribute: 'rank', amount: 9 }, 'south');
    trial.poke({ do: 'place', x: 300, y: 300 }, 'south');
    trial.run(0.5);
    expect([trial.value('scrip'), trial.value('scrip', 'south')]).toEqual([0, 0]);
    trial.poke({ do: 'place', x: 300, y: 300 });
    trial.run(0.2);
    expect([trial.value('scrip'), trial.value('scrip', 'south')]).toEqual([1, 0]);
  });

  it('has the same drops under the same seed, and another table’s rolls change none of them', () => {
    const own = table({ rolls: 2, entries: [brass(3), pearl(1), nothing(4)] });
    const other = table({ entries: [brass(1), nothing(1)] }, 'other');
    const play = (also: boolean, seed = 7) => {
      const trial = trialOf([own, other], ['north'], {}, seed);
      for (let n = 0; n < 40; n++) {
        if (also) roll(trial, 'other');
        roll(trial);
      }
      return trial
        .named('lootRolled')
        .filter(({ data }) => data['table'] === 'haul')
        .map(({ data }) => data['entry']);
    };
    expect(play(true)).toEqual(play(false));
    expect(play(false, 8)).not.toEqual(play(false));
  });

  it('drops the same in every engine', () => {
    const world = World.start(compileRuleset(brinewick), 7);
    world.step([join('north')]);
    const seen: string[] = [];
    for (let n = 0; n < 30; n++)
      for (const { name, data } of world.step([{ kind: 'poke', args: { seat: 'north', action: { do: 'drop', table: 'strongbox' } } }]))
        if (name === 'lootRolled') seen.push(`${data['entry']} ${data['amount']}`);
    expect(seen.slice(0, 8)).toEqual(['pay 12', 'change 1', 'coins 3', 'glass 1', 'pay 7', 'brass 1', 'change 1', 'coins 4']);
    expect(world.hash()).toBe('265224234e375ff3');
  });

  it('goes on with the same luck after a restart', () => {
    const loot = [table({ entries: [brass(3), pearl(1), nothing(4)], streak: { entry: 'pearl', after: 3, adds: 1 } })];
    const through = trialOf(loot);
    const halved = trialOf(loot);
    for (let n = 0; n < 40; n++) {
      roll(through);
      if (n % 7 === 3) halved.restore();
      roll(halved);
    }
    expect(halved.world.hash()).toBe(through.world.hash());
  });
});

describe('A streak breaker', () => {
  const pity = (streak: Record<string, unknown>) => [table({ entries: [pearl(1), nothing(9)], streak: { entry: 'pearl', ...streak } })];
  const chances = (trial: Trial) => trial.named('lootRolled').map(({ data }) => [data['entry'], Number(Number(data['chance']).toFixed(4))]);

  it('raises the weight after so many openings in a row, until it falls', () => {
    const trial = trialOf(pity({ after: 3, adds: 10 }));
    for (let n = 0; n < 60; n++) roll(trial);
    let dry = 0;
    for (const [entry, chance] of chances(trial)) {
      const weight = 1 + (dry >= 3 ? 10 * (dry - 2) : 0);
      const own = weight / (weight + 9);
      expect(chance).toBeCloseTo(entry === 'pearl' ? own : 1 - own, 4);
      dry = entry === 'pearl' ? 0 : dry + 1;
    }
  });

  it('makes it certain at the opening that it says', () => {
    const trial = trialOf(pity({ after: 4, certain: 5 }));
    let dry = 0;
    for (let n = 0; n < 200; n++) {
      trial.events = [];
      roll(trial);
      dry = drawn(trial)[0] === 'pearl' ? 0 : dry + 1;
      expect(dry).toBeLessThan(5);
    }
  });

  it('is each player’s own, and kept with them', () => {
    const rules = compileRuleset(rulesOf(pity({ after: 1, adds: 1 })));
    const trial = new Trial(rules, [join('north'), join('south')]);
    const streaks = streaksTable.in(trial.world).cells.haul;
    for (let n = 0; n < 3; n++) roll(trial);
    const row = (seat: string) => trial.world.actors.rowOf(trial.actor(seat));
    expect(streaks[row('south')]).toBe(0);
    const before = streaks[row('north')];
    const saved = { streaks: { haul: 5 } };
    const again = new Trial(rules, [join('north', { saved })]);
    expect(streaksTable.in(again.world).cells.haul[again.world.actors.rowOf(again.actor())]).toBe(5);
    expect(before).toBeGreaterThanOrEqual(0);
  });

  it('follows a table that is renamed, and is the room’s own where it is rolled once for all', () => {
    const loot = [{ ...pity({ after: 1, adds: 1 })[0], rolled: 'once' }];
    const trial = trialOf(loot);
    for (let n = 0; n < 20; n++) roll(trial);
    const room = roomStreaksTable.in(trial.world);
    expect(room.count).toBe(1);
    const dry = room.cells.dry[0];
    const renamed = compileRuleset(rulesOf([{ ...loot[0], id: 'catch', formerly: ['haul'] }]));
    const on = trial.world.adopt(renamed);
    expect(roomStreaksTable.in(on).cells.dry[0]).toBe(dry);
  });
});

describe('A ruleset with loot', () => {
  const problems = (loot: readonly unknown[]) => readRuleset(rulesOf(loot)).problems.map(({ path, message }) => `${path}: ${message}`);

  it('refuses tables that are in themselves, at any depth', () => {
    const nest = (id: string, of: string) => table({ entries: [{ id: 'in', weight: 1, table: of }] }, id);
    expect(problems([nest('a', 'a')])[0]).toContain('/loot/0/entries/0/table: a is in itself');
    expect(problems([nest('a', 'b'), nest('b', 'c'), nest('c', 'a')]).length).toBe(3);
    expect(problems([nest('a', 'b'), table({ entries: [brass(1)] }, 'b')])).toEqual([]);
  });

  it('refuses what is no drop, with its place', () => {
    const one = (entry: Record<string, unknown>) => problems([table({ entries: [{ id: 'one', weight: 1, ...entry }] })])[0] ?? '';
    expect(one({ gives: 'brass', pickup: 'token' })).toContain('gives one thing: pickup or gives');
    expect(one({ gives: 'finSpeed' })).toContain('is a stat');
    expect(one({ then: [{ do: 'flourish', text: 'Well done' }] })).toContain('only shows something');
    expect(one({ weight: -1, gives: 'brass' })).toContain('not below nothing');
    expect(one({ quantity: 3 })).toContain('no amount of nothing');
    expect(one({ gives: 'bras' })).toContain('brass');
    expect(problems([table({ entries: [brass(1), brass(2)] })])[0]).toContain('/loot/0/entries/1/id');
    expect(problems([table({ entries: [brass(1)], streak: { entry: 'bras', after: 3, adds: 1 } })])[0]).toContain('no entry bras');
    expect(problems([table({ entries: [brass(1)], streak: { entry: 'brass', after: 3 } })])[0]).toContain('adds nothing');
    expect(problems([table({ entries: [brass(1)], streak: { entry: 'brass', after: 9, certain: 5 } })])[0]).toContain('comes later');
  });

  const kinds = (loot: readonly unknown[]) =>
    findingsOf(compileRuleset(rulesOf(loot)))
      .filter(({ path }) => path.startsWith('/loot'))
      .map(({ kind }) => kind)
      .filter((kind) => kind !== 'unused');

  it('is told of weights that are not what they seem', () => {
    expect(kinds([table({ entries: [brass(0.01)] })])).toEqual(['weightsAreShares']);
    expect(kinds([table({ entries: [brass(40), nothing(55)] })])).toEqual(['weightsAreShares']);
    expect(kinds([table({ entries: [brass(4), nothing(5)] })])).toEqual([]);
    expect(kinds([table({ entries: [brass(0), nothing(0)] })])).toContain('noWeight');
    expect(kinds([table({ entries: [brass(0), nothing(5)] })])).toContain('neverFalls');
    expect(kinds([table({ entries: [brass(1), nothing(5_000_000)] })])).toContain('hardlyEver');
  });

  it('is told of lines that can never fall, of what nobody can have, and of what fills the arena', () => {
    expect(kinds([table({ entries: [brass(1, { if: 'rank > 5' }), nothing(2)] })])).toEqual(['neverFalls']);
    expect(kinds([table({})])).toEqual(['emptyTable']);
    expect(kinds([table({ rolls: 3, withoutReplacement: true, entries: [brass(1), nothing(2)] })])).toEqual(['tooManyRolls']);
    const stays = {
      ...rulesOf([table({ entries: [{ id: 'token', weight: 2, pickup: 'token' }, nothing(2)] })]),
      pickups: [{ id: 'token', label: 'Token' }],
    };
    expect(findingsOf(compileRuleset(stays)).map(({ kind }) => kind)).toContain('dropsStay');
  });
});

describe('A container with a loot table', () => {
  const parts = {
    ...PARTS,
    actors: [...(rulesetWith(PARTS)['actors'] as object[]), { id: 'crate', label: 'Crate', kind: 'prop', container: 'crate' }],
    loot: [
      table({
        rolls: 2,
        always: [{ id: 'pay', gives: 'scrip', quantity: 7 }],
        entries: [
          brass(2),
          { id: 'air', label: 'Air bottle', weight: 1, then: [{ do: 'heal', attribute: 'oxygen', amount: 20 }] },
          { id: 'token', weight: 1, pickup: 'token' },
        ],
      }),
    ],
    containers: [{ id: 'crate', label: 'Crate', reach: 80, loot: 'haul' }],
    arena: { starts: [{ x: 100, y: 100 }], placed: [{ actor: 'crate', x: 140, y: 100 }] },
  };
  const inside = (world: World) => {
    const { high, live, columns } = contentsTable.in(world);
    const what = columns.findIndex(({ spec }) => spec.name === 'what');
    return Array.from({ length: high }, (_, row) => row)
      .filter((row) => live[row] === 1)
      .map((row) => world.text(columns[what].data[row]));
  };

  it('holds what was rolled at the first opening, until it is taken', () => {
    const trial = new Trial(compileRuleset(rulesetWith(parts)));
    trial.step(input('north', { do: 'interact' }));
    const first = inside(trial.world);
    expect(first.length).toBe(3);
    expect(first[0]).toBe('haul.pay');
    trial.step(input('north', { do: 'interact' }));
    trial.restore();
    trial.step(input('north', { do: 'interact' }));
    expect(inside(trial.world)).toEqual(first);
    expect(trial.named('lootRolled').length).toBe(3);
    trial.step(input('north', { do: 'take' }));
    expect(inside(trial.world)).toEqual([]);
    expect(trial.value('scrip')).toBe(7 + first.filter((one) => one === 'haul.token').length);
    expect(trial.value('brass')).toBe(first.filter((one) => one === 'haul.brass').length);
    expect(trial.value('oxygen')).toBe(Math.min(90, 30 + 20 * first.filter((one) => one === 'haul.air').length));
  });
});
