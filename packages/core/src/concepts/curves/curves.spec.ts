import { readRuleset } from '../../index.js';
import { rulesetWith, stat, Trial } from '../../testing/rulesets.js';
import { heightAt } from './index.js';

describe('A curve', () => {
  it('is straight between its points and level beyond them', () => {
    const points: [number, number][] = [
      [0, 10],
      [10, 20],
      [20, 0],
    ];
    expect([-5, 0, 5, 10, 15, 20, 99].map((x) => heightAt(points, x))).toEqual([10, 10, 15, 20, 10, 0, 0]);
  });

  it('is read in formulas with anything computed', () => {
    const curves = [
      {
        id: 'pressure',
        label: 'Pressure',
        points: [
          [0, 1],
          [100, 5],
        ],
      },
    ];
    expect(Trial.of({ curves, attributes: [stat('depth', 50), stat('squeeze', 'curve(pressure, depth + 25)')] }).value('squeeze')).toBe(4);
  });

  it('goes from left to right', () => {
    const at = (points: unknown) => readRuleset(rulesetWith({ curves: [{ id: 'c', label: 'C', points }] })).problems.map((p) => p.path);
    expect(
      at([
        [1, 1],
        [0, 2],
      ]),
    ).toEqual(['/curves/0/points']);
    expect(at([[1, 1]])).toEqual(['/curves/0/points']);
    expect(
      at([
        [1, 1],
        [2, 'x'],
      ]),
    ).toEqual(['/curves/0/points/1/1']);
  });
});
