import pino from 'pino';
import { TrailEntry } from '../database/models.js';
import { Harness } from '../testing/harness.js';
import { Trail } from './trail.js';

interface Note {
  readonly id: number;
  readonly at: string;
  readonly who: string;
  readonly what: string;
  readonly about: Record<string, unknown>;
}

describe('The trail', () => {
  let harness: Harness;
  beforeAll(async () => (harness = await Harness.start()));
  afterAll(() => harness.stop());
  const notes = async (path: string) => (await harness.json<{ notes: Note[]; next: string | null }>(path)).notes;

  it('tells who did what with a ruleset, the last first, and all of it as JSON lines', async () => {
    const room = await harness.untouchedRoom();
    const { ruleset } = await harness.json<{ ruleset: string }>(`/api/rooms/${room.id}`);
    const at = `/api/rulesets/${ruleset}`;
    const saved = { saved: { attributes: { scrip: 3 } } };
    await harness.request(`${at}/players/visitor`, { method: 'PUT', body: saved });
    await harness.request(`${at}/players/visitor`, { method: 'DELETE' });
    const patch = [{ op: 'replace', path: '/attributes/6/start', value: 150 }];
    await harness.request(at, { method: 'PATCH', headers: { 'if-match': '"1"' }, body: patch });
    // What came to nothing is nobody's deed.
    await harness.request(at, { method: 'PATCH', headers: { 'if-match': '"1"' }, body: patch });
    const truth = harness.screen(room.id);
    await truth.ready();
    truth.poke('nobody', { do: 'give', attribute: 'scrip', amount: 1 });
    truth.poke('north', { do: 'give', attribute: 'scrip', amount: 1 }, 'south');
    await truth.until('the refusal', () => truth.errors.length === 1);
    await truth.kept();
    await truth.close();
    await harness.request(`/api/rooms/${room.id}/seats/north/link`, { method: 'POST' });
    await harness.request(`/api/rooms/${room.id}/seats/south/link`, { method: 'DELETE' });
    await harness.request(`/api/rooms/${room.id}`, { method: 'DELETE' });
    const all = await notes(`${at}/trail`);
    expect(all.map(({ what }) => what)).toEqual([
      'roomClosed',
      'linkEnded',
      'linkReplaced',
      'poked',
      'edited',
      'playerDeleted',
      'playerChanged',
      'roomOpened',
      'begun',
    ]);
    expect(new Set(all.map(({ who }) => who))).toEqual(new Set(['author']));
    const about = Object.fromEntries(all.map((note) => [note.what, note.about]));
    expect(about['edited']).toEqual({ revision: 2, operations: 1, paths: ['/attributes/6/start'] });
    expect(about['poked']).toEqual({
      room: room.id,
      seat: 'north',
      from: 'south',
      action: { do: 'give', attribute: 'scrip', amount: 1 },
    });
    const file = await harness.request(`${at}/trail/lines`);
    expect(file.headers.get('content-disposition')).toBe('attachment; filename=trail.jsonl');
    const lines = (await file.text()).trim().split('\n');
    expect(lines.map((line) => JSON.parse(line) as Note)).toEqual([...all].reverse());
    expect((await harness.request('/api/rulesets/nothing/trail')).status).toBe(404);
  });

  it('tells who signed in and out, apart from all rulesets, a part at a time', async () => {
    const answer = await fetch(harness.server.newLink(), { redirect: 'manual', headers: { 'user-agent': 'a harbour browser' } });
    const cookie = answer.headers.get('set-cookie')!.split(';')[0];
    await harness.request('/api/session', { method: 'DELETE', headers: { cookie } });
    const [out, entered] = await notes('/api/trail');
    expect([out.what, entered.what, entered.about['agent']]).toEqual(['signedOut', 'signedIn', 'a harbour browser']);
    const seen: number[] = [];
    for (let after: string | null = ''; after !== null;) {
      const part: { notes: Note[]; next: string | null } = await harness.json(`/api/trail?limit=1${after === '' ? '' : `&after=${after}`}`);
      seen.push(...part.notes.map(({ id }) => id));
      after = part.next;
    }
    expect(seen.length).toBe(await TrailEntry.count({ where: { rulesetId: null } }));
    expect(new Set(seen).size).toBe(seen.length);
    for (const wrong of ['limit=0', 'limit=x', 'after=nothing']) expect((await harness.request(`/api/trail?${wrong}`)).status).toBe(400);
  });

  it('holds up no edit, whatever waits to be noted', async () => {
    const { id } = await harness.json<{ id: string }>('/api/rulesets', { method: 'POST', body: { name: 'Edited at once' } });
    const edit = (revision: number) =>
      harness.request(`/api/rulesets/${id}`, {
        method: 'PATCH',
        headers: { 'if-match': `"${revision}"` },
        body: [{ op: 'replace', path: '/name', value: `Edited ${revision}` }],
      });
    // Notes of the same ruleset come all the time meanwhile.
    const visits = Array.from({ length: 6 }, (_, n) =>
      harness.request(`/api/rulesets/${id}/players/visitor${n}`, { method: 'PUT', body: { saved: {} } }),
    );
    for (let revision = 1; revision <= 5; revision++) expect((await edit(revision)).status).toBe(200);
    await Promise.all(visits);
    const whats = (await notes(`/api/rulesets/${id}/trail`)).map(({ what }) => what);
    expect(whats.filter((what) => what === 'edited').length).toBe(5);
    expect(whats.at(-1)).toBe('begun');
  });

  it('loses nothing while it can’t be stored', async () => {
    const trail = new Trail(pino({ level: 'silent' }));
    const store = spyOn(TrailEntry, 'bulkCreate').and.rejectWith(new Error('it is away'));
    const before = await TrailEntry.count();
    trail.note({ who: null, ruleset: null, what: 'linkPrinted', about: {} });
    await trail.flush();
    store.and.callThrough();
    trail.note({ who: null, ruleset: null, what: 'linkPrinted', about: {} });
    await trail.flush();
    expect(await TrailEntry.count()).toBe(before + 2);
  });
});
