import { matching } from './matching';

const named = (...labels: readonly string[]) => labels.map((label) => ({ id: label.toLowerCase().replaceAll(' ', '-'), label }));
const found = (typed: string, ...labels: readonly string[]) => matching(named(...labels), typed).map(({ label }) => label);

describe('What fits what was typed', () => {
  it('is all there is where nothing was', () => {
    expect(found(' ', 'Suit', 'Oxygen')).toEqual(['Suit', 'Oxygen']);
  });

  it('is what is called so, then what begins so, then what has a word that does, then the rest', () => {
    expect(found('oxy', 'Foxy', 'Spare oxygen', 'Oxygen', 'Oxy', 'Suit')).toEqual(['Oxy', 'Oxygen', 'Spare oxygen', 'Foxy']);
  });

  it('has all words, in whatever order, in its label or its id', () => {
    expect(found('rate BREATH', 'Breath rate', 'Breath', 'Rate')).toEqual(['Breath rate']);
    expect(matching([{ id: 'finSpeed', label: 'Swimming' }], 'finsp').length).toBe(1);
  });

  it('stays in its order where it fits alike', () => {
    expect(found('suit', 'Suit b', 'Suit a')).toEqual(['Suit b', 'Suit a']);
  });
});
