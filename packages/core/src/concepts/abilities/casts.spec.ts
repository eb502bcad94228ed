import { compileRuleset } from '../../index.js';
import { ask, at, cooling, doing, FIGHT, fight, HITS, story } from '../../testing/fights.js';
import { input, poke, rulesetWith } from '../../testing/rulesets.js';
import type { Trial } from '../../testing/rulesets.js';
import { castsTable } from './tables.js';

const CAST = {
  cast: { time: '1s' },
  costs: [{ attribute: 'stamina', amount: 25 }],
  cooldown: '4s',
  brokenBy: { damage: 5, movement: true, player: true },
};
const CHANNEL = {
  channel: { every: '0.5s', lasts: '2s' },
  costs: [{ attribute: 'stamina', amount: 20 }],
  cooldown: '4s',
  brokenBy: { damage: 5, movement: true, player: true },
};

/** What gets in the way, half a second into the cast or channel. */
const INTERRUPTIONS: Record<string, (trial: Trial) => void> = {
  nothing: () => undefined,
  damage: (trial) => void trial.poke({ do: 'hurt', attribute: 'suit', amount: 6 }),
  scratch: (trial) => void trial.poke({ do: 'hurt', attribute: 'suit', amount: 4 }),
  movement: (trial) => void trial.step(input('north', { do: 'move', x: 1, y: 0 })),
  push: (trial) => void trial.step({ kind: 'poke', args: { seat: 'north', from: 'south', action: { do: 'push', distance: 9 } } }),
  stun: (trial) => void trial.poke({ do: 'grant', status: 'stunned' }),
  cancel: (trial) => void trial.step(input('north', { do: 'cancel' })),
  fall: (trial) => void trial.poke({ do: 'fell' }),
  poor: (trial) => void trial.poke({ do: 'set', attribute: 'stamina', value: 2 }),
};

/** [what kind of use, when it is charged, what comes between] = [what was announced, stamina left of 30, ticks of cooldown left]. */
const TABLE: readonly (readonly [
  'cast' | 'channel',
  'onStart' | 'onFinish',
  keyof typeof INTERRUPTIONS & string,
  string,
  number,
  boolean,
])[] = [
  ['cast', 'onFinish', 'nothing', 'begins, used, cost 25', 5, true],
  ['cast', 'onFinish', 'damage', 'begins, broken damage', 30, false],
  ['cast', 'onFinish', 'scratch', 'begins, used, cost 25', 5, true],
  ['cast', 'onFinish', 'movement', 'begins, broken movement', 30, false],
  ['cast', 'onFinish', 'push', 'begins, broken movement', 30, false],
  ['cast', 'onFinish', 'stun', 'begins, broken state', 30, false],
  ['cast', 'onFinish', 'cancel', 'begins, broken player', 30, false],
  ['cast', 'onFinish', 'fall', 'begins, broken state', 30, false],
  ['cast', 'onFinish', 'poor', 'begins, broken tooExpensive', 2, false],
  ['cast', 'onStart', 'nothing', 'begins, cost 25, used', 5, true],
  ['cast', 'onStart', 'damage', 'begins, cost 25, broken damage', 5, true],
  ['cast', 'onStart', 'movement', 'begins, cost 25, broken movement', 5, true],
  ['cast', 'onStart', 'stun', 'begins, cost 25, broken state', 5, true],
  ['cast', 'onStart', 'cancel', 'begins, cost 25, broken player', 5, true],
  ['cast', 'onStart', 'poor', 'begins, cost 25, used', 2, true],
  ['channel', 'onStart', 'nothing', 'used, cost 20, pulse, pulse, pulse, pulse, ends', 10, true],
  ['channel', 'onStart', 'damage', 'used, cost 20, pulse, broken damage', 10, true],
  ['channel', 'onStart', 'movement', 'used, cost 20, pulse, broken movement', 10, true],
  ['channel', 'onStart', 'stun', 'used, cost 20, pulse, broken state', 10, true],
  ['channel', 'onStart', 'cancel', 'used, cost 20, pulse, broken player', 10, true],
  ['channel', 'onFinish', 'poor', 'used, cost 20, pulse, pulse, pulse, pulse, ends', 2, true],
];

describe('A use that takes time', () => {
  for (const [kind, charge, between, told, left, cools] of TABLE)
    it(`(${kind}, charged ${charge}, ${between}): ${told}`, () => {
      const trial = fight({ ...(kind === 'cast' ? CAST : CHANNEL), charge });
      ask(trial);
      trial.run(0.5);
      INTERRUPTIONS[between](trial);
      trial.run(1.6);
      expect(story(trial)).toBe(told);
      expect(trial.value('stamina')).toBe(left);
      expect(cooling(trial) > 0).toBe(cools);
    });

  it('takes as long as it says, to the tick', () => {
    const trial = fight(CAST);
    ask(trial);
    trial.run(0.95);
    expect(story(trial)).toBe('begins, cost 25');
    trial.step();
    expect(story(trial)).toBe('begins, cost 25, used');
  });

  it('gives back the share that its author says when it breaks, and waits as much less', () => {
    const trial = fight({ ...CAST, broken: { costs: 0.4, cooldown: 0.5 } });
    ask(trial);
    trial.step(input('north', { do: 'cancel' }));
    expect(story(trial)).toBe('begins, cost 25, broken player, refund 15');
    expect(cooling(trial)).toBe(39);
  });

  it('charges a share of what it had not charged yet', () => {
    const trial = fight({ ...CAST, charge: 'onFinish', broken: { costs: 0.4, cooldown: 1 } });
    ask(trial);
    trial.step(input('north', { do: 'cancel' }));
    expect(story(trial)).toBe('begins, broken player, cost 10');
    expect(cooling(trial)).toBe(80);
  });

  it('can’t be taken back where its author does not let it', () => {
    const trial = fight({ cast: { time: '1s' } });
    ask(trial);
    trial.step(input('north', { do: 'cancel' }));
    expect(story(trial)).toBe('begins, refused notToBeBroken');
  });

  it('is not begun on the way somewhere, where moving would break it', () => {
    const trial = fight(CAST);
    trial.step(input('north', { do: 'move', x: 1, y: 0 }));
    ask(trial);
    expect(story(trial)).toBe('refused moving');
    expect(trial.value('stamina')).toBe(30);
  });

  it('holds its user still, unless it may move', () => {
    for (const move of [false, true]) {
      const trial = fight({ cast: { time: '1s', move } });
      ask(trial);
      trial.step(input('north', { do: 'move', x: 1, y: 0 }));
      trial.run(0.5);
      expect(at(trial).x > 100).toBe(move);
      trial.run(1);
      expect(at(trial).x).toBeGreaterThan(100);
    }
  });

  it('is shortened by haste and by the rate at which its clip is played', () => {
    const clips = [{ id: 'sweep', label: 'Sweep', length: '2.4s', marks: [{ mark: 'strike', at: '1.8s' }] }];
    const time = { clip: 'sweep', mark: 'strike' };
    for (const [handling, rate, ticks] of [
      [1, 1, 36],
      [2, 1, 18],
      [0.5, 1, 72],
      [1, 1.5, 24],
      [2, 1.5, 12],
    ]) {
      const trial = fight({ cast: { time, rate, haste: 'handling' } }, { clips });
      trial.poke({ do: 'set', attribute: 'handling', value: handling });
      const started = ask(trial).find((event) => event.name === 'castStarted')!;
      expect(started.data['ticks']).toBe(ticks);
    }
  });

  it('recovers for the rest of its clip, able to move and not to act', () => {
    const clips = [{ id: 'sweep', label: 'Sweep', length: '2s', marks: [{ mark: 'strike', at: '1s' }] }];
    const trial = fight(
      { cast: { time: { clip: 'sweep', mark: 'strike' } }, recovery: { time: { clip: 'sweep', from: 'strike' } } },
      { clips },
    );
    ask(trial);
    expect(doing(trial)).toBe('casting');
    trial.run(1);
    expect(doing(trial)).toBe('recovering');
    ask(trial);
    expect(story(trial)).toBe('begins, used, refused state');
    trial.run(1);
    expect(doing(trial)).toBe('idle');
  });

  it('ends when whom it is on gets out of reach', () => {
    const trial = fight({ ...CHANNEL, target: { at: 'actor', range: 80 }, onHit: HITS });
    ask(trial);
    trial.run(0.6);
    trial.step(poke('south', { do: 'place', x: 700, y: 100 }));
    trial.run(0.1);
    expect(story(trial)).toBe('used, cost 20, pulse, hit, broken outOfRange');
  });

  it('comes to nothing where whom it is for falls before it is over', () => {
    const trial = fight({ ...CAST, charge: 'onFinish', target: { at: 'actor', range: 80 }, onHit: HITS });
    ask(trial);
    trial.poke({ do: 'fell' }, 'south');
    trial.run(2);
    expect(story(trial)).toBe('begins, broken targetGone');
    expect(trial.value('stamina')).toBe(30);
  });

  it('that has to hold throughout breaks when it does not any more', () => {
    const trial = fight({ ...CAST, charge: 'onFinish', requires: [{ hasNot: 'winded', throughout: true }] });
    ask(trial);
    trial.poke({ do: 'grant', status: 'winded' });
    trial.step();
    expect(story(trial)).toBe('begins, broken requirement');
  });

  it('can be put into a state of its author’s own', () => {
    const states = [{ id: 'braced', label: 'Braced', allows: [] }];
    const trial = fight({ cast: { time: '1s', state: 'braced' } }, { states });
    ask(trial);
    expect(doing(trial)).toBe('braced');
    trial.run(1);
    expect(doing(trial)).toBe('idle');
  });

  it('goes on over a snapshot as if nothing had been', () => {
    const run = (cut: boolean) => {
      const trial = fight({ ...CAST, ...CHANNEL, recovery: { time: '0.5s' }, cast: { time: '1s' } });
      ask(trial);
      trial.run(0.7);
      if (cut) trial.restore();
      trial.run(4);
      return trial.world.hash();
    };
    expect(run(true)).toBe(run(false));
  });

  it('of an ability that is edited away is over, and its user is free', () => {
    const edited = (from: Record<string, unknown>, to: Record<string, unknown> | undefined, seconds = 0.5) => {
      const trial = fight(from);
      ask(trial);
      trial.run(seconds);
      trial.world = trial.world.adopt(
        compileRuleset(rulesetWith({ ...FIGHT, abilities: to ? [{ id: 'torch', label: 'Torch', ...to }] : [] })),
      );
      trial.run(3);
      expect(castsTable.in(trial.world).count).toBe(0);
      trial.step(input('north', { do: 'move', x: 1, y: 0 }));
      trial.run(0.2);
      expect(at(trial).x).toBeGreaterThan(100);
      return trial;
    };
    edited({ cast: { time: '2s' } }, undefined);
    edited(CHANNEL, undefined);
    edited(CHANNEL, { cooldown: '1s' });
    expect(edited({ cast: { time: '2s' } }, { cooldown: '1s' }).named('abilityUsed').length).toBe(1);
    edited({ recovery: { time: '2s', state: 'casting' } }, {});
  });

  it('that lets its user move goes on doing so under edited rules', () => {
    const trial = fight({ cast: { time: '2s', move: true } });
    ask(trial);
    trial.world = trial.world.adopt(
      compileRuleset(rulesetWith({ ...FIGHT, abilities: [{ id: 'torch', label: 'Torch', cast: { time: '2s', move: true } }] })),
    );
    trial.step(input('north', { do: 'move', x: 1, y: 0 }));
    trial.run(0.5);
    expect(at(trial).x).toBeGreaterThan(100);
  });

  it('is charged once where what it does stuns its own user', () => {
    for (const charge of ['onStart', 'onFinish']) {
      const trial = fight({
        ...CAST,
        charge,
        broken: { costs: 1, cooldown: 1 },
        channel: { every: '0.2s', lasts: '1s' },
        then: [{ do: 'grant', status: 'stunned' }],
      });
      ask(trial);
      trial.run(3);
      expect(story(trial)).toBe(charge === 'onStart' ? 'begins, cost 25, used' : 'begins, used, cost 25');
      expect(trial.value('stamina')).toBe(5);
      expect(doing(trial)).toBe('stunned');
    }
  });

  it('makes way for what its own list has its user begin', () => {
    const other = { id: 'knife', label: 'Knife', cast: { time: '0.5s' } };
    const trial = fight(
      {
        cast: { time: '0.5s' },
        recovery: { time: '2s' },
        then: [
          { do: 'leave', state: 'casting' },
          { do: 'use', ability: 'knife' },
        ],
      },
      { abilities: [other] },
    );
    ask(trial);
    trial.run(0.55);
    expect(doing(trial)).toBe('casting');
    trial.run(0.6);
    expect(trial.named('abilityUsed').map((event) => event.data['ability'])).toEqual(['torch', 'knife']);
    expect(doing(trial)).toBe('idle');
  });
});
