import { Player, SetAside } from '../database/models.js';
import { Harness, type RoomInfo } from '../testing/harness.js';

interface Sheet {
  readonly name: string;
  readonly revision: number;
  readonly saved: Record<string, Record<string, number | string>>;
  readonly sheet: { readonly parts: readonly { readonly title: string }[] };
}
interface List {
  readonly all: number;
  readonly players: readonly { readonly name: string; readonly room: string | null }[];
  readonly aside: readonly { readonly id: string; readonly name: string; readonly reason: string; readonly saved: unknown }[];
}

describe('What is kept of players, over HTTP', () => {
  let harness: Harness;
  let ruleset: string;
  const at = (path = '') => `/api/rulesets/${ruleset}/players${path}`;
  const read = async (name: string) => {
    const response = await harness.request(at(`/${name}`));
    return { ...((await response.json()) as Sheet), etag: response.headers.get('etag')! };
  };
  const put = (name: string, saved: unknown, etag?: string) =>
    harness.request(at(`/${name}`), { method: 'PUT', body: { saved }, ...(etag !== undefined && { headers: { 'if-match': etag } }) });
  const problem = async (response: Response) => ({
    status: response.status,
    ...((await response.json()) as {
      title: string;
      detail: string;
      problems?: { path: string }[];
      losses?: { player: string; label: string }[];
    }),
  });
  const patch = (operations: unknown, revision: number, headers: Record<string, string> = {}) =>
    harness.request(`/api/rulesets/${ruleset}`, {
      method: 'PATCH',
      body: operations,
      headers: { 'content-type': 'application/json-patch+json', 'if-match': `"${revision}"`, ...headers },
    });

  beforeAll(async () => {
    harness = await Harness.start();
    ruleset = (await harness.demo()).id;
  });
  afterAll(() => harness.stop());

  it('begins with eight players of the demo, at different standing', async () => {
    const { players, all } = await harness.json<List>(at());
    expect([all, players.length, players[0].room]).toEqual([8, 8, null]);
    const anchor = await read('anchor');
    expect(anchor.sheet.parts.map(({ title }) => title)).toEqual([
      'Stats',
      'Luck',
      'Money',
      'Purchases',
      'Levels',
      'Skills',
      'Quests',
      'Achievements',
    ]);
    expect(anchor.saved['quests']['theManifest.times']).toBe(1);
    const levels = await Promise.all(players.map(async ({ name }) => (await read(name)).saved['tracks']['standing.level']));
    expect(new Set(levels).size).toBeGreaterThan(4);
  });

  it('is put right, reset in part, carried over and taken out; what somebody else changed is not overwritten', async () => {
    const { saved, etag } = await read('sounder');
    expect((await put('sounder', saved)).status).toBe(428);
    expect((await put('sounder', { ...saved, attributes: { ...saved['attributes'], scrip: 77 } }, etag)).status).toBe(200);
    expect((await put('sounder', saved, etag)).status).toBe(412);
    const now = await read('sounder');
    expect(now.saved['attributes']['scrip']).toBe(77);
    const { quests: _reset, ...rest } = now.saved;
    expect((await put('sounder', rest, now.etag)).status).toBe(200);
    expect((await read('sounder')).saved['quests']).toBeUndefined();
    expect((await put('brought', now.saved)).status).toBe(200);
    expect((await harness.request(at('/brought'), { method: 'DELETE' })).status).toBe(204);
    expect((await harness.request(at('/brought'))).status).toBe(404);
  });

  it('is refused where it was made up by hand, with every place; nothing is stored', async () => {
    const { saved, etag } = await read('thole');
    const refused = async (change: Record<string, unknown>) => problem(await put('thole', { ...saved, ...change }, etag));
    const level = await refused({ tracks: { ...saved['tracks'], 'standing.level': 4000 } });
    expect([level.status, level.problems!.map(({ path }) => path)]).toEqual([422, ['/tracks/standing.level']]);
    expect((await refused({ trees: { ...saved['trees'], diversTrade: 0 } })).problems!.length).toBe(1);
    expect((await refused({ quests: { theManifest: 'done' } })).status).toBe(422);
    expect((await put('thole', 'all of it', etag)).status).toBe(422);
    expect((await put('not a name!', saved)).status).toBe(400);
    expect((await read('thole')).saved).toEqual(saved);
  });

  it('is shown before an edit of the rules takes something, and follows renamings', async () => {
    const { document, revision } = await harness.json<{ document: { tracks: unknown[] }; revision: number }>(`/api/rulesets/${ruleset}`);
    expect(document.tracks.length).toBe(1);
    const shorter = [{ op: 'replace', path: '/tracks/0/levels', value: 6 }];
    const losing = await problem(await patch(shorter, revision));
    expect([losing.status, losing.title]).toEqual([409, 'Saved players would lose something']);
    expect(losing.losses).toContain(jasmine.objectContaining({ player: 'anchor', label: 'Standing, level', has: 6 }));
    expect((await harness.json<{ revision: number }>(`/api/rulesets/${ruleset}`)).revision).toBe(revision);
    const renamed = [
      { op: 'replace', path: '/achievements/0/id', value: 'firstFall' },
      { op: 'add', path: '/achievements/0/formerly', value: ['firstBlood'] },
    ];
    expect((await patch(renamed, revision)).status).toBe(200);
    const { saved, revision: under } = await read('anchor');
    expect(['firstFall' in saved['achievements'], 'firstBlood' in saved['achievements'], under]).toEqual([true, false, revision + 1]);
    const gone = [{ op: 'remove', path: '/achievements/1' }];
    expect((await patch(gone, revision + 1)).status).toBe(409);
    expect((await patch(gone, revision + 1, { 'x-losses': 'accept' })).status).toBe(200);
  });

  it('that can’t be read is set aside untouched and said, and its player begins anew', async () => {
    const spoiled = { attributes: { scrip: 'a great deal' } };
    const room = await harness.untouchedRoom();
    const { id } = await harness.demo();
    await Player.create({ rulesetId: id, name: 'north', saved: spoiled as never });
    const north = harness.screen(room.id, room.seats[0].join);
    await north.ready();
    expect(north.value('scrip')).toBe(0);
    const [truth, south] = [harness.screen(room.id), harness.screen(room.id, room.seats[1].join)];
    await Promise.all([truth.ready(), south.ready()]);
    await north.until('it is said', () => north.errors.length > 0);
    await truth.until('it is said', () => truth.errors.length > 0);
    // What was in it is for who can mend it, and none of the other players' business.
    expect(north.errors).toEqual(['What was kept of you can’t be read. It is set aside untouched, and you begin anew.']);
    expect(truth.errors).toEqual([jasmine.stringContaining('What was kept of north can’t be read (/attributes/scrip: Scrip: a number')]);
    expect(south.errors).toEqual([]);
    const { aside } = await harness.json<List>(`/api/rulesets/${id}/players`);
    expect(aside.map(({ name, saved, reason }) => [name, saved, reason])).toEqual([
      ['north', spoiled, '/attributes/scrip: Scrip: a number is expected, and this is "a great deal".'],
    ]);
    expect(await SetAside.count({ where: { rulesetId: id } })).toBe(1);
    await north.close();
    expect((await harness.request(`/api/rulesets/${id}/players/aside/${aside[0].id}`, { method: 'DELETE' })).status).toBe(204);
    expect((await harness.request(at('/aside/nothing'), { method: 'DELETE' })).status).toBe(404);
  });
});

describe('A player', () => {
  let harness: Harness;
  beforeAll(async () => (harness = await Harness.start()));
  afterAll(() => harness.stop());

  it('is not played in two rooms at once, nor changed from outside meanwhile', async () => {
    const one = await harness.untouchedRoom();
    const other: RoomInfo = await harness.newRoom();
    const { id } = await harness.demo();
    const there = harness.screen(one.id, one.seats[0].join);
    await there.ready();
    const truth = harness.screen(one.id);
    await truth.ready();
    truth.poke('north', { do: 'give', attribute: 'scrip', amount: 5 });
    await there.until('it is given', () => there.value('scrip') === 5);
    const here = harness.screen(other.id, other.seats[1].join);
    await here.until('it is refused', () => here.closed !== undefined);
    expect([here.later, here.closed]).toEqual([jasmine.stringContaining(`play in room ${one.id} just now`), 1013]);
    await there.until('it is stored', () => there.stored > 0);
    const path = `/api/rulesets/${id}/players/north`;
    const saved = { attributes: { scrip: 1 } };
    expect((await harness.request(path, { method: 'PUT', body: { saved }, headers: { 'if-match': '"1"' } })).status).toBe(409);
    await Promise.all([there, truth].map((screen) => screen.close()));
    // What it has goes along into the room that opens next.
    const after = harness.screen(other.id, other.seats[0].join);
    await after.ready();
    expect(after.value('scrip')).toBe(5);
    await after.close();
    const { headers } = await harness.request(path);
    expect((await harness.request(path, { method: 'PUT', body: { saved }, headers: { 'if-match': headers.get('etag')! } })).status).toBe(
      200,
    );
    const last = harness.screen(one.id, one.seats[0].join);
    await last.ready();
    expect(last.value('scrip')).toBe(1);
    await last.close();
  });
});
