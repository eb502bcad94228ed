import { CHAPTERS } from './chapters';
import { entriesOf, freshId, labelOf } from './entries';
import { PAGE_PIECES } from './page-pieces';

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

describe('Chapters', () => {
  it('have the pieces of a page each, and no pieces are left over', () => {
    expect(Object.keys(PAGE_PIECES)).toEqual(CHAPTERS.map(({ key }) => key));
  });
});
