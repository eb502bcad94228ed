import { choice, entry } from './choices';
import { amount, amountWith, conditionWith, duration, numberFrom, type PartFormat, start, timeAmount } from './formats';

const DOCUMENT = {
  attributes: [
    { id: 'lungCapacity', label: 'Lung capacity', kind: 'stat' },
    { id: 'suit', label: 'Suit', kind: 'pool' },
  ],
  statuses: [{ id: 'inBell', label: 'In bell' }],
};
const shown = (format: PartFormat, value: unknown) => format.show(value, DOCUMENT).text;
const read = (format: PartFormat, text: string) => {
  const reading = format.read(text, DOCUMENT);
  return reading.error === undefined ? reading.value : reading.error;
};

describe('An amount', () => {
  it('is shown as a figure, a name, a formula or a range', () => {
    expect(shown(amount, 4)).toBe('4');
    expect(amount.show('lungCapacity', DOCUMENT)).toEqual({ text: 'lung capacity', look: 'name' });
    expect(amount.show('suit * 2', DOCUMENT)).toEqual({ text: 'suit * 2', look: 'figure' });
    expect(shown(amount, { random: [1, 5], whole: true })).toBe('1 to 5');
  });

  it('is read from what a person types', () => {
    expect(read(amount, ' -1.5 ')).toBe(-1.5);
    expect(read(amount, 'Lung Capacity')).toBe('lungCapacity');
    expect(read(amount, 'suit * 2')).toBe('suit * 2');
    expect(read(amount, '1 to 5')).toEqual({ random: [1, 5], whole: true });
    expect(read(amount, '0.5 to 2')).toEqual({ random: [0.5, 2] });
    expect(amount.read('', DOCUMENT).error).toBe(
      'Nothing is typed. A number, a name, a formula, or luck such as 1 to 5. Escape keeps what was there.',
    );
    expect(amount.read('1,5', DOCUMENT).error).toBe('Write decimals with a point: 1.5.');
    expect(amount.read('12,500', DOCUMENT).error).toBe('Write it without commas: 12500.');
    expect(amount.read('1e999', DOCUMENT).error).toBe('1e999 is too large: numbers go from -1000000000 to 1000000000.');
  });

  it('has no luck where luck has no part', () => {
    const steady = amountWith([], false);
    expect(read(steady, '1 to 5')).toBe('Luck has no part in this. A number, a name or a formula.');
    expect(read(steady, 'suit * 2')).toBe('suit * 2');
  });

  it('offers names for the word that is being typed, leaving what stands before it', () => {
    expect(amount.choices('2 * lu', DOCUMENT).map((c) => c.text)).toEqual(['2 * lungCapacity']);
    expect(amount.choices('bell', DOCUMENT).map((c) => c.text)).toEqual(['has(inBell)']);
    expect(amount.choices('12', DOCUMENT)).toEqual([]);
  });
});

describe('A time', () => {
  it('is shown with a space and read with or without a unit', () => {
    expect(shown(duration, '250ms')).toBe('250 ms');
    expect(['6', '6s', '6 s', '250 ms'].map((text) => read(duration, text))).toEqual(['6s', '6s', '6s', '250ms']);
    expect(duration.read('soon', DOCUMENT).error).toContain('A time up to a day');
  });

  it('may be a formula of seconds where a cooldown stands', () => {
    expect(read(timeAmount, '8')).toBe('8s');
    expect(read(timeAmount, '2 / suit')).toBe('2 / suit');
    expect([shown(timeAmount, '8s'), shown(timeAmount, 3), shown(timeAmount, '2 / suit')]).toEqual(['8 s', '3 s', '2 / suit']);
  });
});

describe('A choice', () => {
  const seen = choice({ owner: 'its owner', team: 'the crew' });
  it('is picked by what it is called or what it is', () => {
    expect([read(seen, 'The crew'), read(seen, 'owner')]).toEqual(['team', 'owner']);
    expect(seen.read('nobody', DOCUMENT).error).toBe('Pick one of: its owner, the crew.');
    expect(seen.choices('cr', DOCUMENT).map((c) => c.label)).toEqual(['the crew']);
  });

  it('of an entry is by label, among those that fit', () => {
    const stat = entry('attributes', (e) => e['kind'] === 'stat');
    expect(read(stat, 'lung capacity')).toBe('lungCapacity');
    expect(stat.read('suit', DOCUMENT).error).toBe('Nothing here is called suit.');
    expect(shown(stat, 'lungCapacity')).toBe('lung capacity');
  });
});

describe('A number', () => {
  it('is a number within its range, in its unit', () => {
    const some = numberFrom({ least: 0, most: 4, whole: true, unit: 'decimals' });
    expect(some.hint).toBe('A whole number from 0 to 4 decimals.');
    expect(read(some, '4')).toBe(4);
    expect(read(some, '2x')).toBe('A whole number from 0 to 4 decimals. This is 2x.');
    expect(read(some, '2.5')).toBe('A whole number from 0 to 4 decimals. This is 2.5.');
  });

  it('may be said in words', () => {
    expect(shown(numberFrom({ least: 0, most: 1, words: { 0: 'no decimals' } }), 0)).toBe('no decimals');
    const loss = numberFrom({ least: 0, most: 100, says: 'by a loss of {value} or more', absent: 'by no loss' });
    expect(shown(loss, 5)).toBe('by a loss of 5 or more');
    expect(loss.choices('', DOCUMENT).map(({ label }) => label)).toEqual(['by no loss']);
    expect(loss.hint).toBe('A number from 0 to 100, or “by no loss”.');
  });
});

describe('A start', () => {
  it('is full, a share, an amount or luck', () => {
    expect([shown(start, 'full'), shown(start, { share: 0.25 }), shown(start, 40)]).toEqual(['full', '25 % full', '40']);
    expect([read(start, 'Full'), read(start, '12.5 %'), read(start, '7 to 9')]).toEqual([
      'full',
      { share: 0.125 },
      { random: [7, 9], whole: true },
    ]);
    expect(read(start, '140 %')).toBe('A share is 0 % to 100 %.');
  });
});

describe('A formula', () => {
  it('is completed with statuses, effects, parties and what an event carries', () => {
    const texts = (format: PartFormat, typed: string) => format.choices(typed, DOCUMENT).map((c) => c.text);
    expect(texts(conditionWith(), 'suit > 3 and in b')).toEqual(['suit > 3 and has(inBell)']);
    expect(texts(amountWith(['asked', 'given']), '2 * event.a')).toEqual(['2 * event.asked']);
    expect(texts(conditionWith(), 'source.lung')).toEqual(['source.lungCapacity']);
    expect(texts(amountWith(['asked']), 'ask')).toEqual(['event.asked']);
    expect(conditionWith().read(' ', DOCUMENT).error).toContain('A condition, such as');
  });
});
