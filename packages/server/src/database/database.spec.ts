import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Harness } from '../testing/harness.js';
import { migrate } from './migrations.js';
import { Player, Revision, Ruleset, User } from './models.js';
import { seed, theAuthor } from './seed.js';

describe('The database', () => {
  let harness: Harness;
  beforeAll(async () => (harness = await Harness.start()));
  afterAll(() => harness.stop());

  it('is migrated once, and again without harm', async () => {
    expect(await migrate(Ruleset.sequelize!)).toEqual([]);
    const tables = await Ruleset.sequelize!.getQueryInterface().showAllTables();
    for (const name of ['users', 'sessions', 'rulesets', 'revisions', 'rooms', 'seats', 'players']) expect(tables).toContain(name);
  });

  it('has one author, however often asked', async () => {
    const [one, other] = [await theAuthor(), await theAuthor()];
    expect(one.id).toBe(other.id);
    expect(await User.count()).toBe(1);
  });

  it('is given the demo only where it is empty', async () => {
    await Ruleset.create({ name: 'Mine', document: {}, revision: 1 });
    const before = await Ruleset.count();
    await seed('/nowhere/to/be/found.json');
    expect(await Ruleset.count()).toBe(before);
  });

  it('is given nothing that is not sound', async () => {
    await Ruleset.destroy({ where: {} });
    const folder = mkdtempSync(join(tmpdir(), 'ember-seed-'));
    writeFileSync(join(folder, 'bad.json'), '{ "name": "Bad" }');
    await expectAsync(seed(join(folder, 'bad.json'))).toBeRejectedWithError(/format/);
    expect(await Ruleset.count()).toBe(0);
    rmSync(folder, { recursive: true });
    await seed(undefined);
    expect(await Ruleset.count()).toBe(0);
  });

  it('keeps each edit as a patch, by revision', async () => {
    const made = await harness.json<{ id: string }>('/api/rulesets', { method: 'POST', body: { name: 'Edited' } });
    for (const revision of [1, 2])
      await harness.request(`/api/rulesets/${made.id}`, {
        method: 'PATCH',
        headers: { 'if-match': `"${revision}"` },
        body: [{ op: 'replace', path: '/name', value: `Edited ${revision}` }],
      });
    const kept = await Revision.findAll({ where: { rulesetId: made.id }, order: ['revision'] });
    expect(kept.map(({ revision, patch }) => [revision, (patch as { value: string }[])[0].value])).toEqual([
      [2, 'Edited 1'],
      [3, 'Edited 2'],
    ]);
    // What belongs to a ruleset goes with it.
    await Player.create({ rulesetId: made.id, name: 'north', saved: {} });
    await Ruleset.destroy({ where: { id: made.id } });
    expect(await Revision.count({ where: { rulesetId: made.id } })).toBe(0);
    expect(await Player.count({ where: { rulesetId: made.id } })).toBe(0);
  });

  it('opens no room where nobody could take a seat', async () => {
    const made = await harness.json<{ id: string }>('/api/rulesets', { method: 'POST', body: { name: 'Nobody' } });
    const response = await harness.request('/api/rooms', { method: 'POST', body: { ruleset: made.id } });
    expect(response.status).toBe(422);
    expect(((await response.json()) as { detail: string }).detail).toContain('no actor of kind player');
    expect(await harness.json(`/api/rooms?ruleset=${made.id}`)).toEqual({ rooms: [], next: null });
  });
});
