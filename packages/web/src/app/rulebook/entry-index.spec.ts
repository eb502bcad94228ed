import { provideHttpClient } from '@angular/common/http';
import { openBench, Seen, until } from '../testing/bench';
import { EntryIndex, type IndexGroup } from './entry-index';

const entries = (count: number, name: string) =>
  Array.from({ length: count }, (_, i) => ({ id: `${name}${i}`, label: `${name} ${i}`, kind: i % 2 === 0 ? 'pool' : 'stat' }));
const GROUPS: readonly IndexGroup[] = [
  { name: 'Breathing', chapter: 'attributes', entries: entries(400, 'Air') },
  { name: 'Purse', chapter: 'attributes', entries: entries(200, 'Coin') },
];
const NONE = {};

describe('The index of a chapter', () => {
  let seen: Seen<EntryIndex>;
  const root = () => seen.fixture.nativeElement as HTMLElement;
  const filter = () => root().querySelector<HTMLInputElement>('input')!;
  const type = async (text: string) => {
    filter().value = text;
    filter().dispatchEvent(new Event('input'));
    await seen.fixture.whenStable();
  };
  const press = async (key: string, on: Element = document.activeElement!) => {
    on.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    await seen.fixture.whenStable();
  };
  const focused = () => document.activeElement!.textContent!.trim();

  beforeEach(async () => {
    localStorage.removeItem('eager-ember.folded');
    openBench(undefined, [], [provideHttpClient()]);
    seen = await Seen.of(EntryIndex, {
      groups: GROUPS,
      ruleset: 'r',
      tab: 'attributes',
      here: 'attributes/Air3',
      badges: { 'attributes/Air3': 2 },
      refused: NONE,
    });
    root().style.height = '300px';
    await until('lines are drawn', () => root().querySelector('a') !== null);
  });
  afterEach(() => localStorage.removeItem('eager-ember.folded'));

  it('draws of hundreds of entries those that can be seen', () => {
    expect(seen.text('.group .name')).toBe('Breathing');
    const lines = root().querySelectorAll('.line').length;
    expect(lines).toBeGreaterThan(10);
    expect(lines).toBeLessThan(100);
    expect(root().querySelector('.line')!.getAttribute('aria-setsize')).toBe('602');
    expect(root().querySelector('.here')!.getAttribute('aria-current')).toBe('page');
    expect(seen.text('.here .badge')).toContain('2');
  });

  it('finds by a part of a label, an id or a kind, while one types', async () => {
    await type('coin 19');
    expect(seen.texts('a > span:first-child')).toEqual(['Coin 19', ...Array.from({ length: 10 }, (_, i) => `Coin 19${i}`)]);
    expect(seen.text('[role=status]')).toBe('11 of 600');
    await type('nobody');
    expect(seen.text('.none')).toBe('Nothing here is called that.');
    await press('Escape', filter());
    expect(filter().value).toBe('');
    expect(root().querySelector('[role=status]')).toBeNull();
  });

  it('folds a group, and remembers it', async () => {
    root().querySelector<HTMLElement>('.group')!.click();
    await seen.fixture.whenStable();
    expect(seen.text('.group .count')).toBe('400');
    expect(seen.texts('a > span:first-child')[0]).toBe('Coin 0');
    expect(localStorage.getItem('eager-ember.folded')).toBe('["attributes/Breathing"]');
    // What is looked for is found also where it is folded away.
    await type('air 7');
    expect(seen.texts('a > span:first-child')[0]).toBe('Air 7');
    await type('');
    await press('ArrowRight', root().querySelector('.group')!);
    expect(seen.texts('a > span:first-child')[0]).toBe('Air 0');
  });

  it('goes from line to line by the arrow keys, from the filter on, to the end and back', async () => {
    await press('ArrowDown', filter());
    await until('the open entry has the focus', () => focused().startsWith('Air 3'));
    await press('ArrowDown');
    expect(focused()).toContain('Air 4');
    await press('End');
    await until('the last line has the focus', () => focused().startsWith('Coin 199'));
    await press('Home');
    await until('the first line has the focus', () => focused().endsWith('Breathing'));
    await press('ArrowLeft');
    expect(document.activeElement!.getAttribute('aria-expanded')).toBe('false');
    await press('ArrowUp');
    expect(document.activeElement).toBe(filter());
    expect([...root().querySelectorAll('.line [tabindex="0"]')].length).toBe(1);
  });
});
