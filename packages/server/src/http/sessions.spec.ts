import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pino from 'pino';
import { openControl } from '../control.js';
import { Session } from '../database/models.js';
import { Harness, type RoomInfo } from '../testing/harness.js';
import { Trail } from '../trail/trail.js';
import { LASTS_MS, LINK_LASTS_MS, LONGEST_MS, Sessions } from './sessions.js';

interface Listed {
  readonly key: string;
  readonly agent: string;
  readonly here: boolean;
}
const HOUR_MS = 3_600_000;

describe('A session', () => {
  let harness: Harness;
  let room: RoomInfo;
  beforeAll(async () => {
    harness = await Harness.start();
    room = await harness.untouchedRoom();
  });
  afterAll(() => harness.stop());

  /** Signs in once more, and returns what a request of it carries. */
  const another = async (agent = 'a harbour browser', headers: Record<string, string> = {}) => {
    const response = await fetch(harness.server.newLink(), { redirect: 'manual', headers: { 'user-agent': agent, ...headers } });
    const cookie = response.headers.get('set-cookie')!;
    return { cookie: cookie.split(';')[0], whole: cookie };
  };
  const listed = async (cookie = harness.cookie) =>
    (await harness.json<{ sessions: Listed[] }>('/api/sessions', { headers: { cookie } })).sessions;
  const statusOf = async (cookie: string) => (await harness.request('/api/session', { headers: { cookie } })).status;

  it('is listed beside the others, with the browser that it is of, and ended from any of them', async () => {
    const { cookie } = await another('another browser');
    const all = await listed();
    const [other] = all.filter(({ agent }) => agent === 'another browser');
    expect(all.filter(({ here }) => here).length).toBe(1);
    expect(other.here).toBeFalse();
    expect((await harness.request(`/api/sessions/${other.key}`, { method: 'DELETE' })).status).toBe(204);
    expect([await statusOf(cookie), await statusOf(harness.cookie)]).toEqual([401, 200]);
    for (const key of [other.key, 'nothing', '%25'])
      expect((await harness.request(`/api/sessions/${key}`, { method: 'DELETE' })).status).toBe(404);
  });

  it('takes along what is open by it', async () => {
    const { cookie } = await another();
    const [own, others] = [harness.screen(room.id, undefined, { cookie }), harness.screen(room.id)];
    await Promise.all([own.ready(), others.ready()]);
    expect((await harness.request('/api/session', { method: 'DELETE', headers: { cookie } })).status).toBe(204);
    await own.until('it has to go', () => own.closed !== undefined);
    expect([own.errors, own.closed, others.closed]).toEqual([['You are signed out.'], 1008, undefined]);
    expect(await statusOf(cookie)).toBe(401);
    await others.close();
  });

  it('ends by itself, later where it is used, and in the end all the same', async () => {
    const { cookie } = await another('a browser of long ago');
    const session = (await Session.findOne({ where: { agent: 'a browser of long ago' } }))!;
    const near = (a: Date, b: number) => Math.abs(a.getTime() - b) < HOUR_MS;
    expect(near(session.expiresAt, Date.now() + LASTS_MS)).toBeTrue();
    const used = await harness.request('/api/session', { headers: { cookie } });
    expect(used.headers.get('set-cookie')).toBeNull();
    await session.update({ seenAt: new Date(Date.now() - 30 * HOUR_MS), expiresAt: new Date(Date.now() + HOUR_MS) });
    const again = await harness.request('/api/session', { headers: { cookie } });
    expect(again.headers.get('set-cookie')).toContain(cookie);
    expect(near((await session.reload()).expiresAt, Date.now() + LASTS_MS)).toBeTrue();
    const old = Date.now() - LONGEST_MS + 2 * HOUR_MS;
    await Session.update({ seenAt: new Date(0), createdAt: new Date(old) }, { where: { id: session.id } });
    await harness.request('/api/session', { headers: { cookie } });
    expect(near((await session.reload()).expiresAt, old + LONGEST_MS)).toBeTrue();
    await session.update({ expiresAt: new Date(Date.now() - 1) });
    expect(await statusOf(cookie)).toBe(401);
  });

  it('is sent over safe connections alone where it was begun by one', async () => {
    const { whole } = await another();
    expect(whole).toMatch(/HttpOnly/);
    expect(whole).not.toMatch(/Secure/);
    // Nobody may say so but a proxy that is trusted.
    expect((await another('a', { 'x-forwarded-proto': 'https' })).whole).not.toMatch(/Secure/);
    await harness.restart({ TRUSTED_PROXIES: 'loopback', PUBLIC_URL: 'https://ember.example' });
    const link = new URL(harness.server.newLink());
    expect(link.origin).toBe('https://ember.example');
    const response = await fetch(harness.server.url + link.pathname, {
      redirect: 'manual',
      headers: { 'x-forwarded-proto': 'https', 'x-forwarded-for': '192.0.2.7' },
    });
    expect(response.headers.get('set-cookie')).toMatch(/Secure/);
    await harness.restart();
  });

  it('is not begun by a link that nobody has opened for a day', async () => {
    const sessions = new Sessions(new Trail(pino({ level: 'silent' })));
    const token = sessions.newLink();
    const now = Date.now();
    const clock = spyOn(Date, 'now').and.returnValue(now + LINK_LASTS_MS + 1);
    const entering = Promise.resolve(sessions.enter({ params: { token }, headers: {} } as never, {} as never, () => undefined));
    clock.and.callThrough();
    await expectAsync(entering).toBeRejectedWith(jasmine.objectContaining({ status: 410 }));
  });
});

describe('The control socket', () => {
  const log = pino({ level: 'silent' });
  let folder: string;
  beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'ember-control-'))));
  afterEach(() => rmSync(folder, { recursive: true }));
  const ask = (socketPath: string, method: string, path: string) =>
    new Promise<{ status: number | undefined; text: string }>((done, fail) => {
      const asking = request({ socketPath, method, path }, (response) => {
        let text = '';
        response.setEncoding('utf8').on('data', (part: string) => (text += part));
        response.on('end', () => done({ status: response.statusCode, text }));
      });
      asking.on('error', fail).end();
    });

  it('gives a new link to the owner of the server, each time another', async () => {
    const path = join(folder, 'control.sock');
    let links = 0;
    const close = (await openControl(path, () => `link ${++links}`, log))!;
    expect(statSync(path).mode & 0o777).toBe(0o600);
    expect(await ask(path, 'POST', '/link')).toEqual({ status: 200, text: 'link 1\n' });
    expect((await ask(path, 'POST', '/link')).text).toBe('link 2\n');
    expect([(await ask(path, 'GET', '/link')).status, (await ask(path, 'POST', '/')).status]).toEqual([404, 404]);
    // Another server does not take it away from this one.
    expect(await openControl(path, () => 'mine', log)).toBeUndefined();
    expect((await ask(path, 'POST', '/link')).text).toBe('link 3\n');
    await close();
    const next = (await openControl(path, () => 'after it', log))!;
    expect((await ask(path, 'POST', '/link')).text).toBe('after it\n');
    await next();
  });

  it('is left out where its path can’t be had', async () => {
    expect(await openControl(join(folder, 'x'.repeat(120)), () => '', log)).toBeUndefined();
    expect(await openControl(join(folder, 'nowhere', 'control.sock'), () => '', log)).toBeUndefined();
  });
});
