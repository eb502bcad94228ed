import * as fc from 'fast-check';
import {
  compileFormula,
  compileRuleset,
  exp,
  FormulaError,
  log,
  NOBODY,
  parseFormula,
  pow,
  type Vocabulary,
  type World,
} from '../index.js';
import { pool, rulesetWith, stat, Trial } from '../testing/rulesets.js';

const PLACE = { yields: 'amount', parties: ['source'] } as const;
const rules = () =>
  compileRuleset(
    rulesetWith({
      attributes: [pool('suit'), stat('torchPower', 18)],
      statuses: [{ id: 'winded', label: 'Winded' }],
      effects: [{ id: 'silt', label: 'Silt', lasts: '3s' }],
      curves: [
        {
          id: 'pressure',
          label: 'Pressure',
          points: [
            [0, 1],
            [10, 3],
          ],
        },
      ],
    }),
  );
const none = undefined as unknown as World;
const value = (text: string) => compileFormula(text, rules().vocabulary, PLACE).run(none, NOBODY);
const truth = (text: string) => compileFormula(text, rules().vocabulary, { ...PLACE, yields: 'condition' }).run(none, NOBODY);

function errorOf(text: string, yields: 'amount' | 'condition' = 'amount', vocabulary: Vocabulary = rules().vocabulary): FormulaError {
  try {
    compileFormula(text, vocabulary, { ...PLACE, yields });
  } catch (error) {
    if (error instanceof FormulaError) return error;
    throw error;
  }
  throw new Error(`${text} should not compile`);
}

describe('Formulas', () => {
  it('are ordinary arithmetic with the usual strengths', () => {
    expect(value('2 + 3 * 4')).toBe(14);
    expect(value('(2 + 3) * 4')).toBe(20);
    expect(value('10 - 2 - 3')).toBe(5);
    expect(value('-3 + +2')).toBe(-1);
    expect(value('7 % 4')).toBe(3);
    expect(value('0.1 + 0.2')).toBe(0.3);
  });

  it('compare, combine and choose', () => {
    expect(truth('2 < 3 and not (3 <= 2)')).toBe(1);
    expect(truth('1 == 2 or 1 != 2')).toBe(1);
    expect(truth('false or true')).toBe(1);
    expect(value('2 > 1 ? 10 : 20')).toBe(10);
    expect(value('2 < 1 ? 10 : 3 > 2 ? 30 : 20')).toBe(30);
  });

  it('know the listed functions', () => {
    expect(value('min(3, 1, 2) + max(3, 5)')).toBe(6);
    expect(value('clamp(12, 0, 10)')).toBe(10);
    expect(value('floor(1.5) + ceil(1.5) + round(2.5) + abs(-4)')).toBe(1 + 2 + 3 + 4);
    expect(value('sqrt(9) + pow(2, 10)')).toBe(1027);
    expect(value('lerp(10, 20, 0.25)')).toBe(12.5);
  });

  it('never yield what is not a number', () => {
    expect(value('1 / 0')).toBe(0);
    expect(value('5 % 0')).toBe(0);
    expect(value('sqrt(-1)')).toBe(0);
    expect(value('pow(10, 300) * pow(10, 300)')).toBe(1e9);
    fc.assert(
      fc.property(
        fc.integer({ min: -1000, max: 1000 }),
        fc.integer({ min: -1000, max: 1000 }),
        fc.constantFrom('+', '-', '*', '/', '%'),
        (a, b, op) => {
          expect(Number.isFinite(value(`(${a}) ${op} (${b})`))).toBeTrue();
        },
      ),
    );
  });

  it('read the owner by bare names, statuses, counts and curves', () => {
    const trial = Trial.of({
      attributes: [
        pool('suit', { start: 40 }),
        stat('torchPower', 18),
        stat('reach', 'curve(pressure, suit / 10) * 10 + (has(winded) ? 1000 : 0) + count(silt)'),
      ],
      statuses: [{ id: 'winded', label: 'Winded' }],
      effects: [{ id: 'silt', label: 'Silt', lasts: '3s' }],
      curves: [
        {
          id: 'pressure',
          label: 'Pressure',
          points: [
            [0, 1],
            [10, 3],
          ],
        },
      ],
    });
    expect(trial.value('reach')).toBe(18);
  });

  it('say where the mistake is and what was meant', () => {
    expect(errorOf('torchPowr * 2').message).toContain('Did you mean torchPower?');
    expect(errorOf('2 * torchPowr').at).toBe(4);
    expect(errorOf('source.siut + 1').message).toContain('Did you mean suit?');
    expect(errorOf('has(windd) ? 1 : 0').message).toContain('Did you mean winded?');
    expect(errorOf('has(windd) ? 1 : 0').at).toBe(4);
    expect(errorOf('flor(2)').message).toContain('Did you mean floor?');
    expect(errorOf('suit && 2').message).toContain('Write and instead of &&');
    expect(errorOf('suit ** 2').message).toBe('Write ^ instead of **.');
    expect(errorOf('-suit ^ 2').at).toBe(1);
    expect(errorOf('1,5').message).toBe('Write decimals with a point: 1.5.');
    expect(errorOf('target.suit').message).toContain('There is no target here');
    expect(errorOf('level(standing)').message).toContain('needs a level track');
    expect(errorOf('done(firstDescent) ? 1 : 0').message).toContain('needs a quest');
  });

  it('say where reading stopped, and what was expected', () => {
    const said = (text: string) => [errorOf(text).message, errorOf(text).at];
    expect(said('(2 + 3')).toEqual(["This can't be read: it ends too early, a closing parenthesis is expected.", 6]);
    expect(said('2 + )')).toEqual(["This can't be read: a closing parenthesis is not expected here.", 4]);
    expect(said('min(1 2)')).toEqual(["This can't be read: 2 is not expected here, a comma is expected.", 6]);
    expect(said('2 * 12x')).toEqual(["This can't be read: 12x is neither a number nor a name.", 4]);
    expect(said('2 3')).toEqual(['One formula is expected; an operator is missing between two of its parts.', 2]);
  });

  it('refuse what is unfinished or not theirs', () => {
    for (const text of [
      '',
      '  ',
      '2 +',
      '(2',
      '2 3',
      'a.b.c',
      'suit[0]',
      '"text"',
      'this',
      '[1, 2]',
      '1e999',
      'min(1)',
      'constructor',
      '__proto__',
      'suit(1)',
      'a = 2',
      '{}',
      'min(1 2)',
      'min(1, )',
      '5 ()',
      '1,',
      '2s',
      'not',
      'source.',
      'source?.suit',
    ])
      expect(errorOf(text)).withContext(text).toBeInstanceOf(FormulaError);
    expect(errorOf('1 +'.repeat(200) + '1').message).toContain('at most');
    expect(errorOf('('.repeat(60) + '1' + ')'.repeat(60) + '+ abs('.repeat(50) + '1' + ')'.repeat(50))).toBeInstanceOf(FormulaError);
  });

  it('keep numbers and conditions apart', () => {
    expect(errorOf('suit < 20').message).toContain('A number is expected');
    expect(errorOf('suit', 'condition').message).toContain('A condition is expected');
    expect(errorOf('suit + (suit < 20)').message).toContain('A number is expected');
    expect(errorOf('not suit', 'condition').message).toContain('A condition is expected');
    expect(errorOf('true ? 1 : false').message).toContain('A number is expected');
  });

  it('parse anything without throwing anything but their own error', () => {
    const piece = fc.constantFrom(
      'suit',
      '1',
      '+',
      '(',
      ')',
      '?',
      ':',
      'and',
      'not',
      '.',
      ',',
      'min',
      '<',
      ' ',
      '"',
      '[',
      '2.5',
      '-',
      'source',
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 14 }), (pieces) => {
        try {
          parseFormula(pieces.join(' '));
        } catch (error) {
          expect(error).toBeInstanceOf(FormulaError);
          expect((error as FormulaError).at).toBeGreaterThanOrEqual(0);
        }
      }),
    );
  });
});

describe('Powers', () => {
  it('are exact for whole and half exponents', () => {
    expect(pow(3, 4)).toBe(81);
    expect(pow(2, -2)).toBe(0.25);
    expect(pow(4, 1.5)).toBe(8);
    expect(pow(-2, 3)).toBe(-8);
    expect(pow(-2, 0.3)).toBe(0);
  });

  it('agree with the usual functions to a part in 10^12', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-3, max: 1e6, noNaN: true }), fc.double({ min: -8, max: 8, noNaN: true }), (x, y) => {
        expect(Math.abs(pow(x, y) / Math.pow(x, y) - 1)).toBeLessThan(1e-12);
        expect(Math.abs(exp(y) / Math.exp(y) - 1)).toBeLessThan(1e-13);
        expect(Math.abs(log(x) - Math.log(x))).toBeLessThan(1e-13 * Math.max(1, Math.abs(Math.log(x))));
      }),
    );
  });
});
