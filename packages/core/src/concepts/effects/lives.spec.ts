import { readRuleset, World } from '../../index.js';
import { join, poke, pool, rulesetWith, stat, Trial } from '../../testing/rulesets.js';
import { applyTo as apply, effect, SPEED, speedOf as speed, withEffects as of } from '../../testing/effects.js';
import { effectsTable } from './tables.js';
import { modifiersTable } from '../attributes/tables.js';

const problems = (more: Record<string, unknown>) =>
  readRuleset(rulesetWith({ attributes: SPEED, effects: [effect('e', more)] })).problems.map(({ path, message }) => `${path} ${message}`);

describe('An instant effect', () => {
  it('does what follows from it and leaves nothing', () => {
    const trial = of(
      effect('e', { lifetime: 'instant', modifiers: [], onEnd: [], onStart: [{ do: 'hurt', attribute: 'suit', amount: 30 }] }),
    );
    apply(trial);
    expect(trial.value('suit')).toBe(70);
    expect(effectsTable.in(trial.world).count).toBe(0);
    expect(trial.named('effectStarted').length).toBe(1);
  });

  it('has no time, modifiers or end', () => {
    const found = problems({ lifetime: 'instant', lasts: '2s' });
    expect(found.map((p) => p.split(' ')[0])).toEqual(['/effects/0/lasts', '/effects/0/modifiers', '/effects/0/onEnd']);
  });
});

describe('A lasting effect', () => {
  it('stays until something ends it', () => {
    const trial = of(effect('e', { lifetime: 'lasting' }));
    apply(trial);
    trial.run(60);
    expect(speed(trial)).toBe(110);
    trial.poke({ do: 'end', effect: 'e' });
    expect([speed(trial), trial.value('ends')]).toEqual([100, 1]);
  });

  it('goes with its bearer, and says so', () => {
    const trial = of(effect('e', { lifetime: 'lasting' }));
    apply(trial);
    trial.step({ kind: 'leave', args: { seat: 'north' } });
    expect(trial.named('effectEnded')[0].data).toEqual({ effect: 'e', reason: 'ownerGone' });
    expect(modifiersTable.in(trial.world).count).toBe(0);
  });
});

describe('An effect that is used up', () => {
  const bubble = (more: Record<string, unknown> = {}, times = 1) =>
    effect('e', { lifetime: 'untilUsed', used: { times, by: { on: 'attributeChanged', attribute: 'suit', how: 'hurt' } }, ...more });
  const hurt = (amount: number) => poke('north', { do: 'hurt', attribute: 'suit', amount });

  it('takes one hit and is gone, also where two come in one tick', () => {
    const absorbing = [pool('suit', { taken: 'has(bubbled) ? 0 : event.asked' }), ...SPEED.filter((a) => a.id !== 'suit')];
    const trial = Trial.of({
      attributes: absorbing,
      statuses: [{ id: 'bubbled', label: 'B' }],
      effects: [bubble({ grants: ['bubbled'] })],
    });
    apply(trial);
    trial.step(hurt(30), hurt(30));
    expect(trial.value('suit')).toBe(70);
    expect([speed(trial), trial.value('usedUp'), trial.value('ends')]).toEqual([100, 1, 1]);
    expect(trial.named('effectEnded')[0].data['reason']).toBe('used');
  });

  it('counts its uses, and only those of its bearer and its event', () => {
    const trial = new Trial(of(bubble({}, 2)).rules, [join('north'), join('south')]);
    apply(trial);
    trial.step(poke('south', { do: 'hurt', attribute: 'suit', amount: 5 }), poke('north', { do: 'heal', attribute: 'suit', amount: 5 }));
    trial.step(hurt(5));
    expect(speed(trial)).toBe(110);
    trial.step(hurt(5));
    expect(speed(trial)).toBe(100);
  });

  it('is not used by what began it', () => {
    const trial = of(bubble({ onStart: [{ do: 'hurt', attribute: 'suit', amount: 5 }] }, 1));
    apply(trial);
    expect(speed(trial)).toBe(110 - 10); // hurt after it had begun: that is a use
    const other = of(
      bubble(),
      effect('both', {
        lifetime: 'instant',
        modifiers: [],
        onEnd: [],
        onStart: [
          { do: 'hurt', attribute: 'suit', amount: 5 },
          { do: 'apply', effect: 'e' },
        ],
      }),
    );
    apply(other, 'both');
    expect(speed(other)).toBe(110);
  });

  it('asks what the event carries', () => {
    const by = { on: 'attributeChanged', attribute: 'suit', where: 'event.given < 0 - 20' };
    const trial = of(effect('e', { lifetime: 'untilUsed', used: { times: 1, by } }));
    apply(trial);
    trial.step(hurt(20));
    expect(speed(trial)).toBe(110);
    trial.step(hurt(21));
    expect(speed(trial)).toBe(100);
  });

  it('may run out as well', () => {
    const trial = of(bubble({ lasts: '2s' }));
    apply(trial);
    trial.run(2);
    expect(trial.named('effectEnded')[0].data['reason']).toBe('ranOut');
  });

  it('says which event, and nothing that is none', () => {
    expect(problems({ lifetime: 'untilUsed' })[0]).toContain('/effects/0/used This is missing');
    expect(problems({ lifetime: 'timed', lasts: '1s', used: { by: { on: 'abilityUsed' } } })[0]).toContain(
      '/effects/0/used Only an effect',
    );
    expect(problems({ lifetime: 'untilUsed', used: { by: { on: 'abilityUsd' } } })[0]).toContain(
      'No event is called abilityUsd. Did you mean abilityUsed?',
    );
    expect(problems({ lifetime: 'untilUsed', used: { by: { on: 'attributeChanged', attribute: 'siut' } } })[0]).toContain(
      '/effects/0/used/by/attribute',
    );
    expect(problems({ lifetime: 'untilUsed', used: { by: { on: 'attributeChanged', where: 'event.gvien < 0' } } })[0]).toContain(
      'Did you mean given?',
    );
  });
});

describe('Periodic', () => {
  it('acts each interval, the last time as it ends', () => {
    const trial = of(effect('e', { lasts: '3s', periodic: { every: '1s', then: [{ do: 'hurt', attribute: 'suit', amount: 5 }] } }));
    apply(trial);
    trial.run(0.95);
    expect(trial.value('suit')).toBe(100);
    trial.run(0.05);
    expect(trial.value('suit')).toBe(95);
    trial.run(5);
    expect(trial.value('suit')).toBe(85);
  });

  it('may act at once, wherever in a tick it begins', () => {
    const trial = Trial.of({
      attributes: [...SPEED, pool('oxygen', { thresholds: [{ id: 'out', end: 'empty', enter: [{ do: 'apply', effect: 'e' }] }] })],
      effects: [
        effect('e', { lifetime: 'lasting', periodic: { every: '1s', atOnce: true, then: [{ do: 'hurt', attribute: 'suit', amount: 5 }] } }),
      ],
    });
    trial.poke({ do: 'hurt', attribute: 'oxygen', amount: 100 });
    trial.step();
    expect(trial.value('suit')).toBe(95);
    trial.run(1);
    expect(trial.value('suit')).toBe(90);
  });
});

describe('Blocks and dispels', () => {
  const blocked = effect('e', { lasts: '5s', blocked: { statuses: ['winded'], effects: ['shield'] } });
  const shield = effect('shield', { lasts: '5s', modifiers: [] });

  it('keep an effect off while they are there, and say which', () => {
    const trial = of(blocked, shield);
    apply(trial, 'shield');
    apply(trial);
    expect(speed(trial)).toBe(100);
    expect(trial.named('effectRefused')[0].data).toEqual({ effect: 'e', why: 'blocked', by: 'shield', chapter: 'effects' });
    trial.poke({ do: 'end', effect: 'shield' });
    trial.poke({ do: 'grant', status: 'winded' });
    apply(trial);
    expect(trial.named('effectRefused')[1].data['by']).toBe('winded');
    trial.poke({ do: 'withdraw', status: 'winded' });
    apply(trial);
    expect(speed(trial)).toBe(110);
  });

  it('end effects by name, and whatever grants a status', () => {
    const silt = effect('silt', { lifetime: 'lasting', grants: ['silted'] });
    const cleanse = effect('cleanse', { lifetime: 'instant', modifiers: [], onEnd: [], ends: { statuses: ['silted'], effects: ['e'] } });
    const trial = of(effect('e', { lasts: '9s' }), silt, cleanse);
    for (const id of ['e', 'silt', 'silt', 'cleanse']) apply(trial, id);
    expect(speed(trial)).toBe(100);
    expect(trial.named('statusLost').length).toBe(1);
    expect(trial.named('effectEnded').map((e) => e.data['reason'])).toEqual(['removed', 'removed', 'removed']);
    apply(trial, 'silt');
    trial.poke({ do: 'dispel', status: 'silted' });
    expect(effectsTable.in(trial.world).count).toBe(0);
  });
});

describe('Live amounts', () => {
  const live = (amount: string, on = 'finSpeed') =>
    effect('e', { lifetime: 'lasting', modifiers: [{ attribute: on, operation: 'add', amount, live: true }] });

  it('follow what they read, at once and tick by tick', () => {
    const trial = of(live('suit'));
    apply(trial);
    expect(speed(trial)).toBe(200);
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 60 });
    expect(speed(trial)).toBe(140);
  });

  it('follow their source, and are nothing when it has gone', () => {
    const trial = new Trial(of(live('source.suit')).rules, [join('north'), join('south')]);
    apply(trial, 'e', 'south');
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 40 }, 'south');
    expect(speed(trial)).toBe(160);
    trial.step({ kind: 'leave', args: { seat: 'south' } });
    trial.step();
    expect(speed(trial)).toBe(100);
  });

  it('settle through each other within the tick', () => {
    const trial = Trial.of({
      attributes: [stat('a', 1), stat('b', 1), stat('c', 1)],
      effects: [
        { id: 'x', label: 'X', lifetime: 'lasting', modifiers: [{ attribute: 'c', operation: 'add', amount: 'b', live: true }] },
        { id: 'y', label: 'Y', lifetime: 'lasting', modifiers: [{ attribute: 'b', operation: 'add', amount: 'a', live: true }] },
      ],
    });
    for (const id of ['x', 'y']) trial.poke({ do: 'apply', effect: id });
    trial.poke({ do: 'set', attribute: 'a', value: 10 });
    expect([trial.value('b'), trial.value('c')]).toEqual([11, 12]);
  });

  it('of luck are refused', () => {
    const modifiers = [{ attribute: 'finSpeed', operation: 'add', amount: { random: [1, 5] }, live: true }];
    expect(problems({ lifetime: 'lasting', modifiers })[0]).toContain('/effects/0/modifiers/0/live Luck is drawn once');
  });

  it('that read what they change are refused', () => {
    expect(
      problems({ lifetime: 'lasting', modifiers: [{ attribute: 'finSpeed', operation: 'add', amount: 'finSpeed * 0.1', live: true }] })[0],
    ).toContain('This goes in a circle');
  });

  it('go on being live after a restart', () => {
    const trial = of(live('suit'));
    apply(trial);
    const snapshot = trial.world.snapshot();
    trial.world = World.restore(trial.rules, snapshot);
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 60 });
    expect(speed(trial)).toBe(140);
  });
});

describe('Operations', () => {
  it('set the lowest, then hold between at least and at most, then between the bounds', () => {
    const on = (id: string, operation: string, amount: number) =>
      effect(id, { lasts: '9s', modifiers: [{ attribute: 'finSpeed', operation, amount }] });
    const trial = of(
      on('e', 'add', 400),
      on('low', 'set', 50),
      on('high', 'set', 80),
      on('floor', 'atLeast', 60),
      on('roof', 'atMost', 300),
    );
    apply(trial);
    expect(speed(trial)).toBe(500);
    apply(trial, 'roof');
    expect(speed(trial)).toBe(300);
    apply(trial, 'high');
    apply(trial, 'low');
    expect(speed(trial)).toBe(50);
    apply(trial, 'floor');
    expect(speed(trial)).toBe(60);
    for (const id of ['low', 'high', 'floor', 'roof', 'e']) trial.poke({ do: 'end', effect: id });
    expect(speed(trial)).toBe(100);
  });
});

describe('Loops', () => {
  it('of effects that put each other on are cut, told, and the world runs on', () => {
    const trial = of(
      effect('e', { lasts: '1s', onStart: [{ do: 'apply', effect: 'f' }] }),
      effect('f', { lasts: '1s', onStart: [{ do: 'apply', effect: 'e' }] }),
    );
    apply(trial);
    expect(trial.named('loopCut').length).toBe(1);
    expect(trial.named('effectStarted').length).toBeLessThan(40);
    trial.run(3);
    expect(speed(trial)).toBe(100);
    expect(modifiersTable.in(trial.world).count).toBe(0);
  });

  it('of an effect that ends itself in its own start, or begins itself at its end', () => {
    const trial = of(
      effect('e', { lasts: '2s', onStart: [{ do: 'end', effect: 'e' }] }),
      effect('f', {
        lasts: '1s',
        onEnd: [
          {
            reason: 'any',
            then: [
              { do: 'apply', effect: 'f' },
              { do: 'end', effect: 'f' },
            ],
          },
        ],
      }),
    );
    apply(trial);
    expect([speed(trial), trial.named('effectEnded').length]).toEqual([100, 1]);
    apply(trial, 'f');
    trial.run(1.5);
    expect(trial.named('loopCut').length).toBeGreaterThan(0);
    trial.run(5);
    expect(effectsTable.in(trial.world).count).toBeLessThan(3);
  });
});
