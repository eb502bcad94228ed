import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { compileRuleset, sheetOf } from '@eager-ember/core';
import { of, throwError } from 'rxjs';
import brinewick from '../../../../../core/src/testing/recorded/brinewick.json';
import { Api } from '../../shared/api';
import { openBench, Seen } from '../../testing/bench';
import { PlayersPage } from './players-page';

const rules = compileRuleset(brinewick);
const saved = { attributes: { scrip: 12 }, tracks: { 'standing.level': 3 }, quests: { theManifest: 1, quietHull: 0 } };

/** The page on a server that holds one player, and refuses levels above 20. */
async function page(aside: unknown[] = []) {
  openBench();
  let kept: Record<string, Record<string, number>> = saved;
  const puts: unknown[] = [];
  spyOn(TestBed.inject(Api), 'players').and.callFake(() =>
    of({
      all: 1,
      items: [{ name: 'lantern', revision: 1, updatedAt: '2026-01-01T00:00:00Z', room: null }],
      next: null,
      aside: aside as never,
    }),
  );
  spyOn(TestBed.inject(Api), 'player').and.callFake((_ruleset, name) =>
    of({ name, revision: 1, updatedAt: '2026-01-01T00:00:00Z', saved: kept, problems: [], sheet: sheetOf(rules, kept), etag: '"1"' }),
  );
  spyOn(TestBed.inject(Api), 'keepPlayer').and.callFake((_ruleset, name, value, etag) => {
    puts.push([name, etag]);
    if ((value as typeof kept)['tracks']?.['standing.level'] > 20)
      return throwError(
        () => new HttpErrorResponse({ status: 422, error: { title: 'No', problems: [{ path: '', message: '1 to 20 is expected.' }] } }),
      );
    kept = value as typeof kept;
    return of({});
  });
  const seen = await Seen.of(PlayersPage, { player: 'lantern' });
  const type = async (label: string, value: string) => {
    const field = seen.element.querySelector<HTMLInputElement>(`[aria-label="${label}"]`)!;
    field.value = value;
    field.dispatchEvent(new Event('change'));
    await seen.settle();
    return field;
  };
  return { seen, type, puts, now: () => kept };
}

describe('The players page', () => {
  it('reads as a sheet, without what is as at the beginning', async () => {
    const { seen } = await page();
    expect(seen.text('h1')).toBe('lantern');
    expect(seen.texts('[data-part="quests"] dt')).toEqual(['The Manifest']);
    seen.element.querySelector<HTMLInputElement>('input[type="checkbox"]')!.click();
    await seen.settle();
    expect(seen.texts('[data-part="quests"] dt')).toEqual(['The Manifest', 'Quiet Hull']);
  });

  it('changes one value, takes it back, and says what is refused', async () => {
    const { seen, type, now, puts } = await page();
    await type('Scrip', '40');
    expect([now()['attributes']['scrip'], seen.text('.done'), puts]).toEqual([40, 'Scrip: 40', [['lantern', '"1"']]]);
    await seen.click('Undo: Scrip: 40');
    expect(now()['attributes']['scrip']).toBe(12);
    const field = await type('Standing, level', '99');
    expect([seen.text('.refusal'), field.value, now()['tracks']['standing.level']]).toEqual(['No.', '3', 3]);
    expect(seen.texts('.refusal')[1]).toBe('1 to 20 is expected.');
    await type('Scrip', 'much');
    expect(seen.text('.refusal')).toBe('Scrip: a number is expected.');
    await type('The Manifest', '3');
    expect(now()['quests']['theManifest']).toBe(3);
  });

  it('resets a part, and nothing else', async () => {
    const { seen, now } = await page();
    seen.element.querySelector<HTMLButtonElement>('[aria-label="Reset Levels"]')!.click();
    await seen.settle();
    expect(now()).toEqual({ attributes: saved.attributes, quests: saved.quests } as never);
  });

  it('tells of what was set aside, and why', async () => {
    const aside = { id: 'x', name: 'north', reason: '/attributes/scrip: a number is expected.', at: '2026-01-01T00:00:00Z', saved: {} };
    const { seen } = await page([aside]);
    expect(seen.text('[data-aside="north"]')).toContain('a number is expected');
  });

  it('shows a long list a part at a time, and keeps what is shown when something changes', async () => {
    const { seen } = await page();
    const one = (name: string) => ({ name, revision: 1, updatedAt: '2026-01-01T00:00:00Z', room: null });
    const parts = new Map([
      [null, { items: [one('anchor'), one('lantern')], next: 'a' }],
      ['a', { items: [one('sounder'), one('thole')], next: null }],
    ]);
    (TestBed.inject(Api).players as jasmine.Spy).and.callFake((_ruleset: string, after: string | null = null) =>
      of({ all: 4, aside: [], ...parts.get(after)! }),
    );
    seen.element.querySelector<HTMLElement>('[data-part="quests"] h2 button')!.click();
    await seen.settle();
    expect(seen.texts('.index a')).toEqual(['anchor', 'lantern']);
    expect(seen.text('.index p')).toBe('Show more of 4');
    await seen.click('Show more');
    expect(seen.texts('.index a')).toEqual(['anchor', 'lantern', 'sounder', 'thole']);
    seen.element.querySelector<HTMLElement>('[data-part="tracks"] h2 button')!.click();
    await seen.settle();
    expect(seen.texts('.index a')).toEqual(['anchor', 'lantern', 'sounder', 'thole']);
    expect(seen.texts('.index p')).toEqual([]);
  });
});
