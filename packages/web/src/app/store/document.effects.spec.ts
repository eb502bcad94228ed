import { HttpErrorResponse, provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting, type TestRequest } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { provideEffects } from '@ngrx/effects';
import { provideStore, Store } from '@ngrx/store';
import { failureOf, writeHeader } from '../shared/api';
import { CoreClient } from '../shared/core-client';
import { CoreWithoutWorker } from '../testing/bench';
import { DocumentEffects } from './document.effects';
import { documentActions, documentFeature, editOf } from './document.reducer';
import { pendingStore } from './pending-store';

const DOCUMENT = { format: 'eager-ember/ruleset', version: 2, name: 'Trial', statuses: [{ id: 'wet', label: 'Wet' }] };
const URL = '/api/rulesets/r';

describe('Saving', () => {
  let http: HttpTestingController;
  let store: Store;
  const state = () => store.selectSignal(documentFeature.selectDocumentState)();
  /** Has so much time pass, and all come to rest that was waiting for it. */
  const pass = async (ms: number) => {
    jasmine.clock().tick(ms);
    for (let turn = 0; turn < 50; turn++) await Promise.resolve();
  };
  const until = async (holds: () => boolean) => {
    for (let i = 0; i < 400 && !holds(); i++) await pass(10);
    expect(holds()).withContext(JSON.stringify(state())).toBeTrue();
  };
  const edit = (path: string, value: unknown, label = 'edit') =>
    store.dispatch(documentActions.edit({ edit: editOf(state().document!, [{ op: 'replace', path, value }], label) }));
  /** The next save that is sent. */
  const save = async () => {
    let found = http.match({ method: 'PATCH', url: URL });
    for (let i = 0; i < 400 && found.length === 0; i++) {
      await pass(10);
      found = http.match({ method: 'PATCH', url: URL });
    }
    expect(found.length).toBe(1);
    return found[0];
  };
  const problem = (status: number, more: Record<string, unknown> = {}) =>
    [
      { title: 'No', detail: 'Because.', status, ...more },
      { status, statusText: 'No' },
    ] as const;

  const open = async (revision = 5, document: object = DOCUMENT) => {
    store.dispatch(documentActions.open({ id: 'r' }));
    http.expectOne(URL).flush({ id: 'r', revision, document });
    await until(() => state().document !== undefined);
  };

  beforeEach(() => {
    localStorage.clear();
    jasmine.clock().install().mockDate();
    TestBed.configureTestingModule({
      providers: [
        provideHttpClient(withInterceptors([writeHeader])),
        provideHttpClientTesting(),
        provideStore({ [documentFeature.name]: documentFeature.reducer }),
        provideEffects(DocumentEffects),
        { provide: CoreClient, useClass: CoreWithoutWorker },
      ],
    });
    http = TestBed.inject(HttpTestingController);
    store = TestBed.inject(Store);
  });
  afterEach(() => {
    jasmine.clock().uninstall();
    localStorage.clear();
  });

  it('sends edits made close together as one patch on the revision they were made on', async () => {
    await open();
    edit('/name', 'One');
    edit('/statuses/0/label', 'Soaked');
    const { request } = await save();
    expect(request.headers.get('If-Match')).toBe('"5"');
    expect(request.headers.get('x-eager-ember')).toBe('1');
    expect(request.body).toEqual([
      { op: 'replace', path: '/name', value: 'One' },
      { op: 'replace', path: '/statuses/0/label', value: 'Soaked' },
    ]);
  });

  it('goes on with what was edited meanwhile', async () => {
    await open();
    edit('/name', 'One');
    const first = await save();
    edit('/name', 'Two');
    first.flush({ revision: 6 });
    const second = await save();
    expect(second.request.headers.get('If-Match')).toBe('"6"');
    expect(second.request.body).toEqual([{ op: 'replace', path: '/name', value: 'Two' }]);
    second.flush({ revision: 7 });
    await until(() => state().save === 'saved');
    expect(state().revision).toBe(7);
  });

  it('ends behind another ruleset that is opened meanwhile, and tells nothing of it there', async () => {
    await open();
    edit('/name', 'One');
    const first = await save();
    edit('/name', 'Two');
    store.dispatch(documentActions.open({ id: 'other' }));
    const again = await save();
    http.expectOne('/api/rulesets/other').flush({ id: 'other', revision: 3, document: { ...DOCUMENT, name: 'Other' } });
    await until(() => state().document !== undefined);
    expect(again.request.headers.get('Idempotency-Key')).toBe(first.request.headers.get('Idempotency-Key'));
    first.flush({ revision: 6 });
    again.flush({ revision: 6 });
    const second = await save();
    expect(second.request.headers.get('If-Match')).toBe('"6"');
    expect(second.request.body).toEqual([{ op: 'replace', path: '/name', value: 'Two' }]);
    expect(pendingStore.read('r')!.pending.length).toBe(1);
    second.flush({ revision: 7 });
    await pass(0);
    expect(pendingStore.read('r')).toBeUndefined();
    expect([state().id, state().revision, state().save]).toEqual(['other', 3, 'saved']);
  });

  it('is not held up by what is on its way of another ruleset', async () => {
    await open();
    edit('/name', 'One');
    await save();
    store.dispatch(documentActions.open({ id: 'other' }));
    await save();
    http.expectOne('/api/rulesets/other').flush({ id: 'other', revision: 3, document: DOCUMENT });
    await until(() => state().document !== undefined);
    edit('/name', 'Other');
    await pass(500);
    http.expectOne({ method: 'PATCH', url: '/api/rulesets/other' }).flush({ revision: 4 });
    await until(() => state().save === 'saved');
    expect(state().revision).toBe(4);
  });

  it('keeps edits while the database is gone, and sends them by itself when it is back', async () => {
    await open();
    edit('/name', 'One');
    (await save()).flush(...problem(503));
    await until(() => state().save === 'offline');
    expect(state().obstacle).toContain('The database can’t be reached');
    expect(pendingStore.read('r')!.pending.length).toBe(1);
    (await save()).flush({ revision: 6 });
    await until(() => state().save === 'saved');
    expect(state().obstacle).toBe('');
    expect(pendingStore.read('r')).toBeUndefined();
  });

  it('says so when the server can’t be reached, or one is signed out', async () => {
    await open();
    edit('/name', 'One');
    (await save()).error(new ProgressEvent('error'));
    await until(() => state().obstacle.startsWith('The server can’t be reached'));
    store.dispatch(documentActions.retry());
    (await save()).flush(...problem(401));
    await until(() => state().obstacle.startsWith('You are signed out'));
  });

  it('waits for a decision when the ruleset was edited elsewhere, and reapplies', async () => {
    await open();
    edit('/name', 'Mine');
    (await save()).flush(...problem(412, { revision: 9 }));
    await until(() => state().save === 'conflict');
    expect(state().obstacle).toContain('it is at revision 9 now');
    edit('/statuses/0/label', 'Soaked');
    await pass(300);
    http.expectNone({ method: 'PATCH', url: URL });
    store.dispatch(documentActions.reapply());
    http.expectOne(URL).flush({ id: 'r', revision: 9, document: { ...DOCUMENT, note: 'Theirs.' } });
    const again = await save();
    expect(again.request.headers.get('If-Match')).toBe('"9"');
    expect(state().document).toEqual({ ...DOCUMENT, note: 'Theirs.', name: 'Mine', statuses: [{ id: 'wet', label: 'Soaked' }] });
  });

  it('drops one’s own edits when that is decided', async () => {
    await open();
    edit('/name', 'Mine');
    (await save()).flush(...problem(412, { revision: 9 }));
    await until(() => state().save === 'conflict');
    store.dispatch(documentActions.dropMine());
    http.expectOne(URL).flush({ id: 'r', revision: 9, document: { ...DOCUMENT, name: 'Theirs' } });
    await until(() => state().save === 'saved');
    expect([state().document!['name'], state().pending.length, state().revision]).toEqual(['Theirs', 0, 9]);
  });

  it('does not reapply what does not fit any more, or would not be sound', async () => {
    await open();
    edit('/statuses/0/label', 'Soaked');
    (await save()).flush(...problem(412, { revision: 9 }));
    await until(() => state().save === 'conflict');
    store.dispatch(documentActions.reapply());
    http.expectOne(URL).flush({ id: 'r', revision: 9, document: { ...DOCUMENT, statuses: [] } });
    await until(() => state().obstacle.includes('don’t fit revision 9'));
    store.dispatch(documentActions.reapply());
    http.expectOne(URL).flush({ id: 'r', revision: 10, document: { ...DOCUMENT, odd: true } });
    await until(() => state().obstacle.includes('would not be sound: /odd'));
    expect(state().pending.length).toBe(1);
  });

  it('says what the server refused, and keeps the edit', async () => {
    await open();
    edit('/name', 'Mine');
    (await save()).flush(...problem(422, { problems: [{ path: '/name', message: 'Not that.' }] }));
    await until(() => state().save === 'refused');
    expect(state().obstacle).toContain('/name: Not that.');
  });

  it('puts back what an earlier page could not save', async () => {
    pendingStore.write('r', { revision: 5, pending: [editOf(DOCUMENT, [{ op: 'replace', path: '/name', value: 'Kept' }], 'rename')] });
    await open(5);
    await until(() => state().document!['name'] === 'Kept');
    expect((await save()).request.headers.get('If-Match')).toBe('"5"');
  });

  const NOTED = { ...DOCUMENT, note: 'Old.' };
  /** An edit that takes the note out, as an earlier page sent it from revision 5; and one that it made after that. */
  const leftBehind = () => {
    const taken = editOf(NOTED, [{ op: 'remove', path: '/note' }], 'no note');
    const named = editOf(DOCUMENT, [{ op: 'replace', path: '/name', value: 'After' }], 'rename');
    pendingStore.write('r', { revision: 5, pending: [taken, named], batch: { key: 'sent-before', count: 1 } });
  };
  /** How a request is known again, and how many operations it has. */
  const sentAs = ({ request }: TestRequest) => [
    request.headers.get('Idempotency-Key'),
    request.headers.get('If-Match'),
    (request.body as unknown[]).length,
  ];

  it('does not do again what an earlier page sent, where it came through', async () => {
    leftBehind();
    store.dispatch(documentActions.open({ id: 'r' }));
    http.expectOne(URL).flush({ id: 'r', revision: 6, document: DOCUMENT });
    const again = await save();
    expect(sentAs(again)).toEqual(['"sent-before"', '"5"', 1]);
    again.flush({ revision: 6 });
    await until(() => state().document?.['name'] === 'After');
    expect(state().document).toEqual({ ...DOCUMENT, name: 'After' });
    expect(sentAs(await save()).slice(1)).toEqual(['"6"', 1]);
  });

  it('sends what an earlier page sent as it was sent then, where it may be on its way still', async () => {
    leftBehind();
    await open(5, NOTED);
    const again = await save();
    expect(sentAs(again)).toEqual(['"sent-before"', '"5"', 1]);
    again.flush({ revision: 6 });
    const after = await save();
    expect(sentAs(after).slice(1)).toEqual(['"6"', 1]);
    after.flush({ revision: 7 });
    await until(() => state().save === 'saved');
  });

  it('sends again what got no answer as it was, and what was edited meanwhile after it', async () => {
    await open();
    edit('/name', 'One');
    const first = await save();
    edit('/name', 'Two');
    first.error(new ProgressEvent('error'));
    await until(() => state().save === 'offline');
    const again = await save();
    expect(sentAs(again)).toEqual(sentAs(first));
    again.flush({ revision: 6 });
    expect((await save()).request.body).toEqual([{ op: 'replace', path: '/name', value: 'Two' }]);
  });

  it('puts it on top of what others did meanwhile, or asks', async () => {
    pendingStore.write('r', {
      revision: 3,
      pending: [editOf(DOCUMENT, [{ op: 'replace', path: '/statuses/0/label', value: 'Kept' }], 'rename')],
    });
    await open(5, { ...DOCUMENT, statuses: [] });
    await until(() => state().save === 'conflict');
    expect([state().pending.length, pendingStore.read('r')!.pending.length]).toEqual([1, 1]);
  });

  it('says why a ruleset can’t be opened', async () => {
    store.dispatch(documentActions.open({ id: 'r' }));
    http.expectOne(URL).flush(...problem(401));
    await until(() => state().failure !== '');
    expect(state().failure).toContain('You are not signed in');
    store.dispatch(documentActions.open({ id: 'r' }));
    http.expectOne(URL).flush(...problem(404));
    await until(() => state().failure.startsWith('No. Because.'));
  });
});

describe('A failure', () => {
  it('is read from problem details, as text too, or from nothing at all', () => {
    expect(failureOf(new HttpErrorResponse({ status: 422, error: '{"title":"T","detail":"D","problems":[]}' }))).toEqual({
      status: 422,
      title: 'T',
      detail: 'D',
      problems: [],
      revision: undefined,
      losses: [],
    });
    expect(failureOf(new HttpErrorResponse({ status: 500, error: '<html>' })).title).toBe('The request failed');
    expect(failureOf(new HttpErrorResponse({ status: 0, error: null })).title).toBe('The server can’t be reached');
  });
});
