import { entriesOf, freshId, labelOf } from './entries';

describe('Ids of new entries', () => {
  it('are made of the label, so that none has to be typed', () => {
    expect(freshId('New attribute', [])).toBe('newAttribute');
    expect(freshId('Été & co.', [])).toBe('eteCo');
    expect(freshId('9 lives', [])).toBe('entry9Lives');
    expect(freshId('   ', [])).toBe('entry');
  });

  it('are never taken', () => {
    expect(freshId('Suit', ['suit', 'suit2'])).toBe('suit3');
    expect(freshId('x'.repeat(80), [])).toMatch(/^x{40}$/);
  });
});

describe('Entries', () => {
  it('of a chapter that is not there are none, and unknown ids stand for themselves', () => {
    expect(entriesOf({}, 'effects')).toEqual([]);
    expect(labelOf({ effects: [{ id: 'silt', label: 'Silt' }] }, 'effects', 'gone')).toBe('gone');
  });
});
