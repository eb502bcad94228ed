import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideHttpClient } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import type { TrailNote } from '../shared/api';
import { openBench, Seen } from '../testing/bench';
import { sentenceOf } from './sentences';
import { TrailPage } from './trail-page';

const note = (id: number, what: string, about: TrailNote['about']): TrailNote => ({
  id,
  at: '2026-11-20T08:00:00Z',
  who: 'author',
  what,
  about,
});

describe('The trail', () => {
  it('reads as sentences, a part at a time, and goes out as JSON lines', async () => {
    openBench(undefined, [], [provideHttpClient(), provideHttpClientTesting()]);
    const http = TestBed.inject(HttpTestingController);
    const seen = await Seen.of(TrailPage);
    http.expectOne('/api/rulesets/r/trail').flush({ notes: [note(2, 'roomOpened', { room: 'slate-heron' })], next: 'a' });
    await seen.settle();
    expect(seen.text('li')).toMatch(/^20 Nov, \d\d:00:00 author opened room slate-heron$/);
    await seen.click('Show more');
    http.expectOne('/api/rulesets/r/trail?after=a').flush({ notes: [note(1, 'begun', { name: 'A' })], next: null });
    await seen.settle();
    expect(seen.texts('li').length).toBe(2);
    expect(seen.texts('button')).toEqual([]);
    expect(seen.element.querySelector('a')!.getAttribute('href')).toBe('/api/rulesets/r/trail/lines');
  });

  it('says that there is nothing, and where it can’t be had', async () => {
    openBench(undefined, [], [provideHttpClient(), provideHttpClientTesting()]);
    const http = TestBed.inject(HttpTestingController);
    const seen = await Seen.of(TrailPage);
    http.expectOne('/api/rulesets/r/trail').flush({ title: 'It can’t be had' }, { status: 503, statusText: '' });
    await seen.settle();
    expect([seen.text('.refusal'), seen.text('li')]).toEqual(['It can’t be had', 'Nothing yet.']);
  });

  it('has a sentence for all that is noted', () => {
    const said = (what: string, about: TrailNote['about'] = {}) => sentenceOf(note(1, what, about));
    expect(said('edited', { revision: 3, operations: 2, paths: ['/attributes/6/start', '/attributes/6/max'] })).toBe(
      'edited attributes 6: revision 3',
    );
    expect(said('edited', { revision: 4, operations: 90, paths: ['/a/0', '/b/1', '/c/2', '/d/3'] })).toBe(
      'edited a 0, b 1, c 2 and more: revision 4',
    );
    expect(
      said('poked', { room: 'slate-heron', seat: 'north', from: 'south', action: { do: 'give', attribute: 'scrip', amount: 1 } }),
    ).toBe('poked north as if from south in slate-heron: give (attribute scrip, amount 1)');
    expect(said('poked', { room: 'slate-heron', action: { do: 'passTime' } })).toBe('poked in slate-heron: passTime');
    for (const what of ['signedIn', 'signedOut', 'sessionEnded', 'linkPrinted', 'playerChanged', 'playerDeleted', 'asideDeleted'])
      expect(said(what)).not.toBe(what);
    for (const what of ['roomClosed', 'linkReplaced', 'linkEnded']) expect(said(what)).toContain('d ');
    expect(said('somethingNew')).toBe('somethingNew');
  });
});
