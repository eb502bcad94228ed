import { meantPath, valueAt } from './meant-path';

describe('What a path means', () => {
  const table = {
    rolls: 1,
    entries: [
      { id: 'brass', weight: 5 },
      { id: 'pearl', weight: 1 },
      { id: 'kelp', weight: 2 },
    ],
  };
  const without = (id: string) => ({ ...table, entries: table.entries.filter((one) => one.id !== id) });

  it('is a value below another, or nothing', () => {
    expect(valueAt(table, 'entries/1/weight')).toBe(1);
    expect(valueAt(table, 'streak/after')).toBeUndefined();
  });

  it('is found again by its id, wherever it stands by then', () => {
    const place = meantPath(table, 'entries/2/weight');
    expect(place(table)).toBe('entries/2/weight');
    expect(place(without('brass'))).toBe('entries/1/weight');
    expect(place({ entries: [...table.entries].reverse() })).toBe('entries/0/weight');
  });

  it('is gone with what has the id', () => {
    expect(meantPath(table, 'entries/1/weight')(without('pearl'))).toBeUndefined();
    expect(meantPath(table, 'entries/1')(without('pearl'))).toBeUndefined();
  });

  it('is the same one of what has no id, and stands where it stood once that was changed', () => {
    const spec = { points: [{ x: 1 }, { x: 2 }, { x: 3 }], grants: ['silt', 'marked'] };
    expect(meantPath(spec, 'points/2/x')({ points: [{ x: 2 }, { x: 3 }] })).toBe('points/1/x');
    expect(meantPath(spec, 'points/0/x')({ points: [{ x: 9 }, { x: 2 }] })).toBe('points/0/x');
    expect(meantPath(spec, 'grants/1')({ grants: ['marked'] })).toBe('grants/0');
  });

  it('is where it stood among several that are the same', () => {
    const costs = { costs: [{ amount: 10 }, { amount: 10 }] };
    expect(meantPath(costs, 'costs/0/amount')({ costs: [{ amount: 25 }, { amount: 10 }] })).toBe('costs/0/amount');
  });

  it('goes through lists within lists', () => {
    const quest = {
      steps: [
        { id: 'a', goals: [{ id: 'x' }] },
        { id: 'b', goals: [{ id: 'y' }, { id: 'z' }] },
      ],
    };
    const place = meantPath(quest, 'steps/1/goals/1/count');
    expect(place({ steps: [{ id: 'b', goals: [{ id: 'z' }] }] })).toBe('steps/0/goals/0/count');
    expect(place({ steps: [{ id: 'a', goals: [] }] })).toBeUndefined();
  });

  it('may lead to what is not there yet', () => {
    expect(meantPath(table, 'streak/after')(without('brass'))).toBe('streak/after');
    expect(meantPath(table, 'entries/7')(table)).toBe('entries/7');
  });
});
