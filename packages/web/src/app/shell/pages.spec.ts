import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting, type TestRequest } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { Store } from '@ngrx/store';
import { documentActions, editOf } from '../store/document.reducer';
import { Lobby } from '../playtest/lobby';
import { OpenRoom } from '../playtest/open-room';
import { Rulesets } from '../rulesets/rulesets';
import { documentNow, openBench, Seen, until } from '../testing/bench';
import { Theme } from '../shared/theme';
import { Workbench } from './workbench';

const HTTP = [provideHttpClient(), provideHttpClientTesting()];
const problem = (status: number) =>
  [
    { title: 'No', detail: 'Because.' },
    { status, statusText: 'No' },
  ] as const;

describe('The list of rulesets', () => {
  const listed = [
    {
      id: 'r',
      name: 'Brinewick Salvage',
      revision: 4,
      updatedAt: '2026-11-23T08:00:00Z',
      entries: { attributes: 11, effects: 1, teams: 0 },
    },
  ];
  let http: HttpTestingController;
  beforeEach(() => {
    openBench(undefined, [{ path: '**', children: [] }], HTTP);
    http = TestBed.inject(HttpTestingController);
  });
  const file = async (seen: Seen<Rulesets>, name: string, text: string) => {
    const input = seen.element.querySelector<HTMLInputElement>('input[type="file"]')!;
    const files = new DataTransfer();
    files.items.add(new File([text], name));
    input.files = files.files;
    input.dispatchEvent(new Event('change'));
    await seen.settle();
  };

  it('says what each is made of', async () => {
    const seen = await Seen.of(Rulesets);
    http.expectOne('/api/rulesets').flush({ rulesets: listed, next: null });
    await seen.settle();
    expect(seen.text('li')).toMatch(/^Brinewick Salvage 11 stats, 1 effect rev 4 · 23 Nov/);
  });

  it('says what to do when there is none, when one is signed out, and when nobody answers', async () => {
    const seen = await Seen.of(Rulesets);
    http.expectOne('/api/rulesets').flush(...problem(503));
    await seen.settle();
    expect(seen.text('[role="alert"]')).toBe('No. Because. Try again');
    await seen.click('Try again');
    http.expectOne('/api/rulesets').flush({ rulesets: [], next: null });
    await seen.settle();
    expect(seen.text('li')).toContain('No ruleset yet');
    TestBed.resetTestingModule();
    openBench(undefined, [], HTTP);
    const other = await Seen.of(Rulesets);
    TestBed.inject(HttpTestingController)
      .expectOne('/api/rulesets')
      .flush(...problem(401));
    await other.settle();
    expect(other.text('[role="alert"]')).toContain('You are not signed in');
  });

  it('takes no file in that is not sound, and lists why', async () => {
    const seen = await Seen.of(Rulesets);
    http.expectOne('/api/rulesets').flush({ rulesets: [], next: null });
    await file(seen, 'odd.json', '{ "odd": 1 }');
    // What it says is for the server to judge.
    let sent: TestRequest[] = [];
    await until(
      'it is sent',
      () => (sent = http.match({ method: 'POST', url: '/api/rulesets' })).length > 0,
      () => seen.settle(),
    );
    expect(seen.text('.doing')).toContain('Checking and storing it');
    const problems = [
      { path: '/odd', message: 'It is not known here.' },
      { path: '/name', message: 'It is missing.' },
    ];
    sent[0].flush({ title: 'No', detail: 'Nothing was stored.', status: 422, problems }, { status: 422, statusText: 'No' });
    await until(
      'it is looked at',
      () => seen.text('.problems h2') !== '',
      () => seen.settle(),
    );
    expect(seen.text('.problems h2')).toBe('odd.json was not taken in: 2 problems');
    expect(seen.texts('.problems code')).toEqual(['/odd', '/name']);
    expect(seen.texts('.doing')).toEqual([]);
    // What is written wrong is told before, with all else that is.
    await file(seen, 'twice.json', '{ "name": "One", "name": "Two", "odd": 1e999 }');
    await until(
      'it is looked at as well',
      () => seen.text('.problems h2').startsWith('twice.json'),
      () => seen.settle(),
    );
    expect(seen.text('.problems')).toContain('"name" stands here twice.');
    expect(seen.texts('.problems code')).toContain('/odd');
    await file(seen, 'text.json', 'hello');
    await until(
      'the other is looked at',
      () => seen.text('.problems h2').startsWith('text.json'),
      () => seen.settle(),
    );
    expect(seen.text('.problems')).toContain('1 problem / This is not JSON');
    http.verify();
  });

  it('opens what was taken in or begun', async () => {
    const seen = await Seen.of(Rulesets);
    http.expectOne('/api/rulesets').flush({ rulesets: [], next: null });
    await file(seen, 'new.json', JSON.stringify({ format: 'eager-ember/ruleset', version: 2, name: 'New' }));
    const sentUp: TestRequest[] = [];
    await until('it is sent', () => sentUp.push(...http.match({ method: 'POST', url: '/api/rulesets' })) > 0);
    sentUp[0].flush({ id: 'x' });
    await seen.settle();
    expect(TestBed.inject(Router).url).toBe('/r/x');
    seen.element.querySelector<HTMLInputElement>('form input')!.value = '';
    await seen.click('Begin it');
    const sent = http.expectOne({ method: 'POST', url: '/api/rulesets' });
    expect(sent.request.body).toEqual({ name: 'New ruleset' });
    sent.flush(...problem(500));
    await seen.settle();
    expect(seen.text('.problems')).toContain('No. Because.');
  });
});

describe('The frame', () => {
  let store: Store;
  beforeEach(() => {
    store = openBench(undefined, [{ path: '**', children: [] }], HTTP);
  });
  const rename = () =>
    store.dispatch(documentActions.edit({ edit: editOf(documentNow(), [{ op: 'replace', path: '/name', value: 'Other' }], 'rename') }));
  const key = (name: string, more: KeyboardEventInit = {}) => document.dispatchEvent(new KeyboardEvent('keydown', { key: name, ...more }));

  it('says how the document stands towards the server, and what can be done', async () => {
    const seen = await Seen.of(Workbench, { id: 'r' });
    expect(seen.text('[role="status"]')).toBe('saved · rev 1');
    rename();
    await seen.settle();
    expect(seen.text('[role="status"]')).toBe('saving …');
    store.dispatch(documentActions.saveFailed({ id: 'r', save: 'conflict', obstacle: 'Edited elsewhere.' }));
    await seen.settle();
    expect(seen.text('.banner')).toBe('Edited elsewhere. Reapply my 1 edit Drop mine');
    store.dispatch(documentActions.saveFailed({ id: 'r', save: 'offline', obstacle: 'Gone.' }));
    await seen.settle();
    expect([seen.text('.banner'), seen.text('[role="status"]')]).toEqual(['Gone. Try now', '1 edit not saved yet']);
  });

  it('undoes and redoes by keys, but not while somebody types', async () => {
    const seen = await Seen.of(Workbench, { id: 'r' });
    rename();
    key('z', { ctrlKey: true });
    expect(documentNow()['name']).toBe('Brinewick Salvage' as never);
    key('Z', { ctrlKey: true, shiftKey: true });
    expect(documentNow()['name']).toBe('Other' as never);
    document.body.append(seen.element);
    seen.element
      .querySelector('.name')!
      .dispatchEvent(new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, bubbles: true, composed: true }));
    expect(documentNow()['name']).toBe('Other' as never);
    key('y', { metaKey: true });
    seen.element.remove();
  });

  it('renames the ruleset, and keeps its name where none is given', async () => {
    const seen = await Seen.of(Workbench, { id: 'r' });
    const box = seen.element.querySelector<HTMLInputElement>('.name')!;
    for (const [typed, becomes] of [
      ['  Harbour  ', 'Harbour'],
      ['   ', 'Harbour'],
    ]) {
      box.value = typed;
      box.dispatchEvent(new Event('change'));
      await seen.settle();
      expect(documentNow()['name']).toBe(becomes as never);
    }
  });

  it('says why no room could be opened', async () => {
    const seen = await Seen.of(Workbench, { id: 'r' });
    await seen.click('Play with two seats');
    TestBed.inject(HttpTestingController)
      .expectOne({ method: 'POST', url: '/api/rooms' })
      .flush(...problem(422));
    await seen.settle();
    expect(seen.text('footer [role="alert"]')).toBe('No. Because.');
  });

  it('has the theme that was chosen, also next time', async () => {
    const seen = await Seen.of(Workbench, { id: 'r' });
    const theme = TestBed.inject(Theme);
    const before = theme.dark();
    await seen.click(before ? 'Light' : 'Dark');
    expect(document.documentElement.getAttribute('data-theme')).toBe(before ? 'light' : 'dark');
    expect(localStorage.getItem('eager-ember.theme')).toBe(before ? 'light' : 'dark');
    localStorage.removeItem('eager-ember.theme');
  });
});

describe('The lobby', () => {
  it('offers a room, or one of the earlier ones', async () => {
    openBench(undefined, [{ path: '**', children: [] }], HTTP);
    const http = TestBed.inject(HttpTestingController);
    const seen = await Seen.of(Lobby);
    const listed = (id: string) => ({ id, createdAt: '2026-11-23T08:00:00Z', open: id === 'slate-heron', players: 'saved' });
    http.expectOne('/api/rooms?ruleset=r').flush({ rooms: [listed('slate-heron')], next: 'a' });
    await seen.settle();
    expect(seen.text('li')).toMatch(/^slate-heron 23 Nov, \d\d:00 saved players awake close$/);
    await seen.click('Show more');
    http.expectOne('/api/rooms?ruleset=r&after=a').flush({ rooms: [listed('brass-quay')], next: null });
    await seen.settle();
    expect(seen.texts('li').map((text) => text.split(' ')[0])).toEqual(['slate-heron', 'brass-quay']);
    await seen.click('Play with two seats');
    http.expectOne({ method: 'POST', url: '/api/rooms' }).flush({ id: 'amber-quay' });
    await seen.settle();
    expect(TestBed.inject(Router).url).toBe('/r/r/playtest/amber-quay');
  });

  it('closes a room once it is sure, and says where that failed', async () => {
    openBench(undefined, [{ path: '**', children: [] }], HTTP);
    const http = TestBed.inject(HttpTestingController);
    const seen = await Seen.of(Lobby);
    const rooms = ['slate-heron', 'brass-quay'].map((id) => ({
      id,
      createdAt: '2026-11-23T08:00:00Z',
      open: false,
      players: id === 'slate-heron' ? 'saved' : 'guests',
    }));
    http.expectOne('/api/rooms?ruleset=r').flush({ rooms, next: null });
    await seen.settle();
    await seen.click('close');
    await seen.click('Keep it');
    await seen.click('close');
    expect(seen.text('[role="alertdialog"]')).toContain('Its join links end with it; what its players have is kept.');
    await seen.click('Close it');
    http.expectOne({ method: 'DELETE', url: '/api/rooms/slate-heron' }).flush({ title: 'It can’t be' }, { status: 503, statusText: '' });
    await seen.settle();
    expect([seen.text('.refusal'), seen.texts('li').length]).toEqual(['It can’t be', 2]);
    await seen.click('close');
    await seen.click('Close it');
    http.expectOne({ method: 'DELETE', url: '/api/rooms/slate-heron' }).flush(null);
    await seen.settle();
    expect([seen.text('.refusal'), seen.texts('li').map((text) => text.split(' ')[0])]).toEqual(['', ['brass-quay']]);
    await seen.click('close');
    expect(seen.text('[role="alertdialog"]')).toContain('Its join links end with it, and what its guests have.');
  });

  it('says who comes as a party', async () => {
    openBench(undefined, [{ path: '**', children: [] }], HTTP);
    const http = TestBed.inject(HttpTestingController);
    const seen = await Seen.of(Lobby);
    for (const seat of ['☐ north', '☐ east', '☐ west', '☑ west']) await seen.click(seat, '[role="checkbox"]');
    await seen.click('Play with four seats');
    expect(http.expectOne({ method: 'POST', url: '/api/rooms' }).request.body).toEqual({
      ruleset: 'r',
      seats: 4,
      players: 'guests',
      party: ['north', 'east'],
    });
  });

  it('opens a room of fresh guests, or of saved players where that is chosen', async () => {
    openBench(undefined, [{ path: '**', children: [] }], HTTP);
    const http = TestBed.inject(HttpTestingController);
    const seen = await Seen.of(Lobby);
    const [guests, saved] = seen.element.querySelectorAll<HTMLInputElement>('[name="players"]');
    expect([guests.checked, saved.checked]).toEqual([true, false]);
    saved.click();
    await seen.settle();
    await seen.click('Play with two seats');
    expect(http.expectOne({ method: 'POST', url: '/api/rooms' }).request.body).toEqual({ ruleset: 'r', seats: 2, players: 'saved' });
  });
});

describe('The open room', () => {
  it('is of one ruleset, and none until it is opened', () => {
    openBench();
    const room = TestBed.inject(OpenRoom);
    expect([room.of('r'), room.status()]).toEqual([undefined, '']);
    room.close();
    expect(room.session()).toBeUndefined();
  });
});
