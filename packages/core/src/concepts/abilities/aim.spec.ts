import { announcementsFor } from '../../index.js';
import { ask, at, FIGHT, fight, HITS, story } from '../../testing/fights.js';
import { input, join, poke, Trial } from '../../testing/rulesets.js';

const hits = (trial: Trial) => trial.named('abilityHit').map((event) => event.who);
const words = (trial: Trial) => {
  const refused = trial.named('abilityRefused').at(-1)!;
  return announcementsFor(trial.world, [refused], { actor: trial.actor(), team: 0 })[0].text;
};

describe('An aim', () => {
  it('at an actor takes the nearest that counts, or the one that is named', () => {
    const nearest = fight({ target: { at: 'actor', range: 100 }, onHit: HITS });
    ask(nearest);
    expect(hits(nearest)).toEqual(['south']);
    const named = fight({ target: { at: 'actor', range: 100, who: 'anyone' }, onHit: HITS });
    ask(named, { target: 'south' });
    ask(named, { target: named.world.actors.rowOf(named.actor('south')) });
    expect(hits(named)).toEqual(['south', 'south']);
  });

  const refused: readonly (readonly [string, Record<string, unknown>, Record<string, unknown>, string])[] = [
    ['out of range', { at: 'actor', range: 40 }, { target: 'south' }, 'Torch reaches 40, and this is 48 away.'],
    ['at nobody in range', { at: 'actor', range: 40 }, {}, 'Torch: nobody is there to use it on.'],
    ['at one that does not count', { at: 'actor', range: 90, who: 'crew' }, { target: 'south' }, 'Torch is not for this one.'],
    ['at oneself', { at: 'actor', range: 90, who: 'anyone' }, { target: 'north' }, 'Torch is not for this one.'],
    ['at one that has gone', { at: 'actor', range: 90 }, { target: 'nobody' }, 'Torch: whom it was aimed at has gone.'],
    ['at a row that was never there', { at: 'actor', range: 90 }, { target: 999 }, 'Torch: whom it was aimed at has gone.'],
    ['at a point out of range', { at: 'point', range: 90 }, { x: 300, y: 100 }, 'Torch reaches 90, and this is 200 away.'],
    ['at a point outside the arena', { at: 'point', range: 900 }, { x: -5, y: 100 }, 'Torch can’t be aimed outside the arena.'],
  ];
  for (const [what, target, aim, told] of refused)
    it(`${what} is refused, with nothing charged`, () => {
      const trial = fight({ target, costs: [{ attribute: 'stamina', amount: 5 }], cooldown: '2s', onHit: HITS });
      ask(trial, aim);
      expect(words(trial)).toBe(told);
      expect(trial.value('stamina')).toBe(30);
      expect(trial.named('abilityUsed')).toEqual([]);
    });

  it('through a wall is refused where sight is needed', () => {
    const arena = { ...FIGHT.arena, walls: [{ x: 128, y: 60, width: 4, height: 80 }] };
    const trial = fight({ target: { at: 'actor', range: 90, sight: true }, onHit: HITS }, { arena });
    ask(trial, { target: 'south' });
    expect(words(trial)).toBe('Torch: a wall is in the way.');
    const over = fight({ target: { at: 'actor', range: 90 }, onHit: HITS }, { arena });
    ask(over, { target: 'south' });
    expect(hits(over)).toEqual(['south']);
  });

  it('into a cone holds those within its angle and range', () => {
    const cone = { target: { at: 'cone', range: 100, angle: 60 }, onHit: HITS };
    for (const [x, y, hit] of [
      [200, 100, true],
      [200, 150, true],
      [200, 175, false],
      [50, 100, false],
    ] as const) {
      const trial = fight(cone);
      ask(trial, { x, y });
      expect(hits(trial))
        .withContext(`${x}, ${y}`)
        .toEqual(hit ? ['south'] : []);
      expect(trial.named('abilityMissed').length).toBe(hit ? 0 : 1);
    }
  });

  it('of nothing goes where the user looks', () => {
    const trial = fight({ target: { at: 'cone', range: 100, angle: 60 }, onHit: HITS });
    trial.step(input('north', { do: 'move', x: -1, y: 0 }));
    trial.step(input('north', { do: 'stop' }));
    ask(trial);
    expect(hits(trial)).toEqual([]);
    ask(trial, { target: 'south' });
    expect(hits(trial)).toEqual(['south']);
  });

  it('at the nearest takes as many as it says, nearest first, and never those that are down', () => {
    const seats = ['petrel', 'gannet', 'gannet', 'gannet'].map((team, i) => join(`s${i}`, { team }));
    const arena = {
      width: 800,
      height: 400,
      starts: [100, 250, 150, 200].map((x, i) => ({ x, y: 100, ...(i === 0 ? { team: 'petrel' } : { team: 'gannet' }) })),
    };
    const trial = Trial.of(
      { ...FIGHT, arena, abilities: [{ id: 'torch', label: 'Torch', target: { at: 'nearest', count: 2, range: 400 }, onHit: HITS }] },
      seats,
    );
    ask(trial, {}, 's0');
    expect(hits(trial)).toEqual(['s2', 's3']);
    trial.step(poke('s2', { do: 'fell' }));
    trial.events = [];
    ask(trial, {}, 's0');
    expect(hits(trial)).toEqual(['s3', 's1']);
  });
});

describe('Requirements', () => {
  it('are refused in the author’s words', () => {
    const trial = fight({ requires: [{ if: 'stamina < 10', says: 'You have breath enough.' }, { hasNot: 'winded' }] });
    ask(trial);
    expect(words(trial)).toBe('Torch: You have breath enough.');
    trial.poke({ do: 'set', attribute: 'stamina', value: 5 });
    trial.poke({ do: 'grant', status: 'winded' });
    ask(trial);
    expect(words(trial)).toBe('Torch: Not while winded.');
  });

  it('of a state: nothing is begun in one that forbids it', () => {
    const trial = fight({});
    trial.poke({ do: 'grant', status: 'stunned' });
    ask(trial);
    expect(words(trial)).toBe('Torch can’t be used while stunned.');
    trial.poke({ do: 'withdraw', status: 'stunned' });
    ask(trial);
    expect(story(trial)).toBe('refused state, used');
  });
});

describe('What is kept in store', () => {
  const STORED = { stored: { most: 2, refill: '2s' } };
  it('is used up and comes back one by one', () => {
    const trial = fight(STORED);
    ask(trial);
    ask(trial);
    ask(trial);
    expect(story(trial)).toBe('used, used, refused noneStored');
    expect(words(trial)).toBe('Torch is used up: the next is ready in 1.9 s.');
    trial.run(1.85);
    ask(trial);
    ask(trial);
    expect(story(trial)).toBe('used, used, refused noneStored, used, refused noneStored');
    trial.run(4);
    ask(trial);
    ask(trial);
    expect(trial.named('abilityUsed').length).toBe(5);
  });

  it('is not taken by what is refused', () => {
    const trial = fight({ ...STORED, requires: [{ if: 'stamina < 10', says: 'No.' }] });
    for (let i = 0; i < 4; i++) ask(trial);
    trial.poke({ do: 'set', attribute: 'stamina', value: 5 });
    ask(trial);
    ask(trial);
    expect(trial.named('abilityUsed').length).toBe(2);
  });
});

describe('A cooldown group', () => {
  const groups = [{ id: 'tools', label: 'Tools', lasts: '1s' }];
  const other = { id: 'knife', label: 'Knife', groups: ['tools'], cooldown: '0.2s' };
  it('keeps all of it waiting when one is used, and shortens no longer wait', () => {
    const trial = fight({ groups: ['tools'], cooldown: '5s' }, { groups, abilities: [other] });
    ask(trial);
    trial.use('knife');
    expect(story(trial)).toBe('used, refused coolingDown');
    trial.run(1);
    trial.use('knife');
    expect(trial.named('abilityUsed').map((e) => e.data['ability'])).toEqual(['torch', 'knife']);
    ask(trial);
    expect(trial.named('abilityRefused').at(-1)!.data['ticks']).toBeGreaterThan(60);
  });
});

describe('What pushes', () => {
  it('moves away or nearer, not past and not through walls', () => {
    const arena = { ...FIGHT.arena, walls: [{ x: 200, y: 0, width: 10, height: 200 }] };
    const push = (distance: number) => {
      const trial = fight({ target: { at: 'actor', range: 200 }, onHit: [{ do: 'push', distance, to: 'target' }] }, { arena });
      ask(trial);
      return at(trial, 'south').x;
    };
    expect(push(20)).toBe(180);
    expect(push(500)).toBe(188);
    expect(push(-20)).toBe(140);
    expect(push(-500)).toBe(124);
  });
});
