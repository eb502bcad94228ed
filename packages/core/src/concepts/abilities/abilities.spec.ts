import { announcementsFor, readRuleset } from '../../index.js';
import { join, pool, rulesetWith, stat, Trial } from '../../testing/rulesets.js';

const parts = {
  attributes: [pool('stamina', { start: 30 }), stat('handling', 1)],
  effects: [{ id: 'marked', label: 'Marked', lasts: '5s', grants: ['marked'] }],
  statuses: [{ id: 'marked', label: 'Marked' }],
  abilities: [
    {
      id: 'sonarPing',
      label: 'Sonar ping',
      cooldown: '8s',
      costs: [{ attribute: 'stamina', amount: 10 }],
      then: [{ do: 'apply', effect: 'marked', to: { nearby: 100, who: 'others' } }],
    },
    { id: 'quick', label: 'Quick', cooldown: '2 / handling' },
  ],
};

describe('An ability', () => {
  it('is paid for, done, and then cools down', () => {
    const trial = Trial.of(parts);
    expect(trial.use('sonarPing').map((e) => e.name)).toEqual(['asked', 'abilityUsed', 'attributeChanged']);
    expect(trial.value('stamina')).toBe(20);
  });

  it('pressed early is refused with the time left, and costs nothing', () => {
    const trial = Trial.of(parts);
    trial.use('sonarPing');
    trial.run(4.75);
    const refused = trial.use('sonarPing').find((e) => e.name === 'abilityRefused')!;
    expect(refused.data).toEqual({ ability: 'sonarPing', reason: 'coolingDown', ticks: 64 });
    expect(announcementsFor(trial.world, [refused], { actor: trial.actor(), team: -1 })[0].text).toBe(
      'Sonar ping is cooling down: ready in 3.2 s.',
    );
    expect(trial.value('stamina')).toBe(20);
  });

  it('is ready again on the tick its cooldown ends', () => {
    const trial = Trial.of(parts);
    trial.use('sonarPing');
    trial.run(7.95);
    expect(trial.use('sonarPing').some((e) => e.name === 'abilityUsed')).toBeTrue();
  });

  it('used twice in one tick is used once', () => {
    const trial = Trial.of(parts);
    const events = trial.step(
      ...[1, 2].map(() => ({ kind: 'input', args: { seat: 'north', input: { do: 'use', ability: 'sonarPing' } } })),
    );
    expect(events.filter((e) => e.name === 'abilityUsed').length).toBe(1);
    expect(events.filter((e) => e.name === 'abilityRefused').length).toBe(1);
  });

  it('that cannot be paid for is refused, and does not cool down', () => {
    const trial = Trial.of(parts);
    trial.poke({ do: 'set', attribute: 'stamina', value: 9.9 });
    const refused = trial.use('sonarPing').find((e) => e.name === 'abilityRefused')!;
    expect(announcementsFor(trial.world, [refused], { actor: trial.actor(), team: -1 })[0].text).toBe(
      'Sonar ping needs 10 stamina, and you have 9.9.',
    );
    trial.poke({ do: 'set', attribute: 'stamina', value: 10 });
    expect(trial.use('sonarPing').some((e) => e.name === 'abilityUsed')).toBeTrue();
    expect(trial.value('stamina')).toBe(0);
  });

  it('may have a cooldown that a stat changes', () => {
    const trial = Trial.of(parts);
    trial.poke({ do: 'set', attribute: 'handling', value: 2 });
    trial.use('quick');
    trial.run(0.9);
    expect(trial.use('quick').at(-1)!.name).toBe('abilityRefused');
    expect(trial.use('quick').at(-1)!.name).toBe('abilityUsed');
  });

  it('is for those within reach and not of the crew', () => {
    const teams = [
      { id: 'petrel', label: 'Petrel' },
      { id: 'gannet', label: 'Gannet' },
    ];
    const arena = {
      starts: [
        { x: 100, y: 100, team: 'petrel' },
        { x: 150, y: 100, team: 'petrel' },
        // The first to come is put far from those who are there.
        { x: 600, y: 100, team: 'gannet' },
        { x: 180, y: 100, team: 'gannet' },
      ],
    };
    const trial = Trial.of({ ...parts, teams, arena }, [
      join('north', { team: 'petrel' }),
      join('mate', { team: 'petrel' }),
      join('far', { team: 'gannet' }),
      join('near', { team: 'gannet' }),
    ]);
    trial.use('sonarPing');
    expect(trial.named('statusGained').map((e) => e.who)).toEqual(['near']);
    expect(trial.named('effectStarted')[0].cause).toBe(trial.named('abilityUsed')[0].serial);
    expect(trial.named('abilityUsed')[0].cause).toBe(trial.named('asked')[0].serial);
  });

  it('nobody has is refused', () => {
    const trial = Trial.of(parts);
    expect(trial.use('harpoon').find((e) => e.name === 'abilityRefused')!.data['reason']).toBe('notOwned');
  });

  it('is not paid for with a stat', () => {
    const reading = readRuleset(
      rulesetWith({
        attributes: [stat('handling', 1)],
        abilities: [{ id: 'a', label: 'A', costs: [{ attribute: 'handling', amount: 1 }] }],
      }),
    );
    expect(reading.problems.map((p) => p.path)).toEqual(['/abilities/0/costs/0/attribute']);
  });
});
