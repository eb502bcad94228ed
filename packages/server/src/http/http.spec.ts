import { request } from 'node:http';
import brinewick from '../../../core/src/testing/recorded/brinewick.json' with { type: 'json' };
import leech from '../../../core/src/testing/version-1/leech.json' with { type: 'json' };
import { Ruleset } from '../database/models.js';
import { Harness } from '../testing/harness.js';

interface Stored {
  readonly id: string;
  readonly revision: number;
  readonly document: Record<string, unknown> & { attributes: { label: string; start?: unknown }[] };
}

describe('The HTTP API', () => {
  let harness: Harness;
  beforeAll(async () => (harness = await Harness.start()));
  afterAll(() => harness.stop());

  const create = async (name: string) =>
    harness.json<Stored>('/api/rulesets', { method: 'POST', body: { document: { ...brinewick, name } } });
  const patch = (id: string, revision: number | string, body: unknown, headers: Record<string, string> = {}) =>
    harness.request(`/api/rulesets/${id}`, { method: 'PATCH', body, headers: { 'if-match': `"${revision}"`, ...headers } });

  it('lists the demo after the first start', async () => {
    const { rulesets } = await harness.json<{ rulesets: { name: string; revision: number; entries: Record<string, number> }[] }>(
      '/api/rulesets',
    );
    const demo = rulesets.find((r) => r.name === 'Brinewick Salvage')!;
    expect(demo.revision).toBe(1);
    expect(demo.entries['attributes']).toBe(brinewick.attributes.length);
  });

  it('keeps a document as it was authored, to the order of its keys', async () => {
    const made = await create('Kept');
    const { document } = await harness.json<Stored>(`/api/rulesets/${made.id}`);
    expect(JSON.stringify(document)).toBe(JSON.stringify({ ...brinewick, name: 'Kept' }));
  });

  it('stores what is of an earlier version of the format as it was meant', async () => {
    const { id, document, revision } = await harness.json<Stored>('/api/rulesets', { method: 'POST', body: { document: leech } });
    const hit = (abilities: unknown) => (abilities as { onHit: { to?: string }[] }[])[0].onHit.map(({ to }) => to);
    expect([document['version'], hit(document['abilities'])]).toEqual([2, ['target', 'self']]);
    // As an earlier version of the server left it.
    await Ruleset.update({ document: leech }, { where: { id } });
    const read = await harness.json<Stored>(`/api/rulesets/${id}`);
    expect([read.document['version'], hit(read.document['abilities'])]).toEqual([2, ['target', 'self']]);
    const added = [{ op: 'add', path: '/abilities/0/onHit/-', value: { do: 'hurt', attribute: 'suit', amount: 1 } }];
    expect((await patch(id, revision, added)).status).toBe(200);
    const after = await harness.json<Stored>(`/api/rulesets/${id}`);
    expect([after.document['version'], hit(after.document['abilities'])]).toEqual([2, ['target', 'self', undefined]]);
    // Who sends the old one whole means what it says.
    expect((await patch(id, revision + 1, [{ op: 'replace', path: '', value: leech }])).status).toBe(200);
    expect(hit((await harness.json<Stored>(`/api/rulesets/${id}`)).document['abilities'])).toEqual(['target', 'self']);
  });

  it('answers strangers with 401, everywhere but at sign-in and join', async () => {
    for (const path of ['/api/rulesets', '/api/session', '/api/rooms/slate-heron', '/metrics', '/api/nothing'])
      expect((await fetch(harness.server.url + path)).status)
        .withContext(path)
        .toBe(401);
    expect((await fetch(`${harness.server.url}/api/join/nonsense`)).status).toBe(404);
    expect((await fetch(`${harness.server.url}/healthz`)).status).toBe(200);
  });

  it('lets a sign-in link work once', async () => {
    expect((await fetch(harness.server.signIn, { redirect: 'manual' })).status).toBe(410);
    expect((await fetch(`${harness.server.url}/enter/guess`, { redirect: 'manual' })).status).toBe(410);
    expect((await harness.request(new URL(harness.server.signIn).pathname)).redirected).toBeTrue();
  });

  it('lets one of those in who come with one link together', async () => {
    await harness.restart();
    const answers = await Promise.all(Array.from({ length: 10 }, () => fetch(harness.server.signIn, { redirect: 'manual' })));
    expect(answers.map(({ status }) => status).sort()).toEqual([302, ...Array.from({ length: 9 }, () => 410)]);
    expect(answers.filter(({ headers }) => headers.has('set-cookie')).length).toBe(1);
  });

  it('does not answer under names that it does not have', async () => {
    const { port } = new URL(harness.server.url);
    const named = (host: string) =>
      new Promise<number | undefined>((done) =>
        request({ port, path: '/healthz', headers: { host } }, (response) => done(response.resume().statusCode)).end(),
      );
    for (const host of ['harbour.invalid', `harbour.invalid:${port}`, 'localhost.harbour.invalid']) expect(await named(host)).toBe(421);
    for (const host of [`127.0.0.1:${port}`, 'localhost', '[::1]']) expect(await named(host)).toBe(200);
  });

  it('takes no write that another site’s page could send', async () => {
    const { id } = await create('Guarded');
    const response = await fetch(`${harness.server.url}/api/rulesets/${id}`, {
      method: 'PATCH',
      headers: { cookie: harness.cookie, 'if-match': '"1"' },
      body: '[]',
    });
    expect(response.status).toBe(403);
  });

  it('edits by JSON Patch on the revision one names', async () => {
    const { id } = await create('Edited');
    const response = await patch(id, 1, [{ op: 'replace', path: '/attributes/6/start', value: 150 }]);
    expect([response.status, response.headers.get('etag')]).toEqual([200, '"2"']);
    const stored = await harness.json<Stored>(`/api/rulesets/${id}`);
    expect([stored.revision, stored.document.attributes[6].start]).toEqual([2, 150]);
  });

  it('answers a stale revision with 412 and the current one', async () => {
    const { id } = await create('Stale');
    await patch(id, 1, [{ op: 'replace', path: '/name', value: 'Other' }]);
    const response = await patch(id, 1, [{ op: 'replace', path: '/name', value: 'Mine' }]);
    expect([response.status, response.headers.get('etag')]).toEqual([412, '"2"']);
    expect(((await response.json()) as { revision: number }).revision).toBe(2);
    expect((await harness.json<Stored>(`/api/rulesets/${id}`)).document['name']).toBe('Other');
  });

  it('stores once what is sent again because no answer came, also while the first is on its way', async () => {
    const { id } = await create('Again');
    const send = (key: string, name = 'Mine') => patch(id, 1, [{ op: 'replace', path: '/name', value: name }], { 'idempotency-key': key });
    const answers = await Promise.all([send('"edit-0001"'), send('edit-0001')]);
    expect(answers.map((r) => [r.status, r.headers.get('etag')])).toEqual([
      [200, '"2"'],
      [200, '"2"'],
    ]);
    await patch(id, 2, [{ op: 'replace', path: '/note', value: 'Later.' }]);
    const late = await send('edit-0001');
    expect([late.status, ((await late.json()) as Stored).revision]).toEqual([200, 2]);
    expect((await send('edit-0002', 'Another')).status).toBe(412);
    expect((await harness.json<Stored>(`/api/rulesets/${id}`)).revision).toBe(3);
  });

  it('says what the key of an edit looks like', async () => {
    const { id } = await create('Keyed');
    const refused = await patch(id, 1, [{ op: 'replace', path: '/name', value: 'Mine' }], { 'idempotency-key': 'a b' });
    expect([refused.status, ((await refused.json()) as { detail: string }).detail]).toEqual([
      400,
      'Idempotency-Key is 8 to 64 letters, digits or dashes.',
    ]);
  });

  it('lets one of two edits on the same revision through', async () => {
    const { id } = await create('Raced');
    const answers = await Promise.all([1, 2, 3, 4].map((n) => patch(id, 1, [{ op: 'replace', path: '/name', value: `Raced ${n}` }])));
    expect(answers.map((r) => r.status).sort()).toEqual([200, 412, 412, 412]);
  });

  it('asks for the revision where none is named', async () => {
    const { id } = await create('Unnamed');
    expect((await harness.request(`/api/rulesets/${id}`, { method: 'PATCH', body: [{ op: 'remove', path: '/note' }] })).status).toBe(428);
  });

  it('refuses what would not be sound, with every problem, and stores nothing', async () => {
    const { id } = await create('Sound');
    const response = await patch(id, 1, [
      { op: 'replace', path: '/attributes/0/max', value: 'lungCapasity' },
      { op: 'add', path: '/attributes/5/start', value: 300 },
    ]);
    expect(response.status).toBe(422);
    expect(response.headers.get('content-type')).toContain('application/problem+json');
    const { problems } = (await response.json()) as { problems: { path: string; message: string }[] };
    expect(problems.map((p) => p.path)).toEqual(['/attributes/0/max', '/attributes/5/start']);
    expect((await harness.json<Stored>(`/api/rulesets/${id}`)).revision).toBe(1);
  });

  it('refuses patches that do not fit or are none', async () => {
    const { id } = await create('Fit');
    expect((await patch(id, 1, [{ op: 'replace', path: '/attributes/99/start', value: 1 }])).status).toBe(422);
    expect((await patch(id, 1, [{ op: 'explode', path: '/' }])).status).toBe(400);
    expect((await patch(id, 1, [{ op: 'add', path: '/__proto__/polluted', value: 1 }])).status).toBe(422);
    expect((await patch(id, 1, [])).status).toBe(400);
    expect(({} as Record<string, unknown>)['polluted']).toBeUndefined();
  });

  it('answers what is not JSON, too large, or not there', async () => {
    expect((await harness.request('/api/rulesets', { method: 'POST', body: '{ "name": NaN }' })).status).toBe(400);
    expect((await harness.request('/api/rulesets', { method: 'POST', body: { name: 'x'.repeat(2 * 1024 * 1024) } })).status).toBe(413);
    expect((await harness.request('/api/rulesets', { method: 'POST', body: { document: { name: 'No' } } })).status).toBe(422);
    for (const id of ['not-an-id', '00000000-0000-4000-8000-000000000000'])
      expect((await harness.request(`/api/rulesets/${id}`)).status).toBe(404);
    expect((await harness.request('/api/nothing')).status).toBe(404);
    expect((await harness.request('/api/rooms', { method: 'POST', body: { ruleset: 3 } })).status).toBe(400);
    const { id } = await create('Party');
    const nobody = await harness.request('/api/rooms', { method: 'POST', body: { ruleset: id, party: ['nobody'] } });
    expect([nobody.status, ((await nobody.json()) as { detail: string }).detail]).toEqual([
      400,
      'Seats are called north, south, east, west.',
    ]);
  });

  it('answers what would exhaust it, and stays up', async () => {
    const deep = '['.repeat(200_000) + ']'.repeat(200_000);
    expect((await harness.request('/api/rulesets', { method: 'POST', body: `{ "document": { "odd": ${deep} } }` })).status).toBe(422);
    const { id } = await create('Deep');
    expect((await patch(id, 1, `[{ "op": "add", "path": "/odd", "value": ${deep} }]`)).status).toBe(422);
    const doubling = Array.from({ length: 25 }, (_, i) => ({ op: 'copy', from: '', path: `/copy${i}` }));
    expect((await patch(id, 1, doubling)).status).toBe(422);
    expect((await harness.request('/api/rulesets', { method: 'POST', body: { document: { arena: { width: 'x', zz: 1 } } } })).status).toBe(
      422,
    );
    expect((await harness.request('/healthz')).status).toBe(200);
  });

  it('sends a strict content policy', async () => {
    const policy = (await harness.request('/healthz')).headers.get('content-security-policy')!;
    expect(policy).toContain("script-src 'self'");
    expect(policy).not.toContain('unsafe-eval');
  });

  it('counts what rooms do', async () => {
    expect(await (await harness.request('/metrics')).text()).toContain('ember_rooms');
  });
});
