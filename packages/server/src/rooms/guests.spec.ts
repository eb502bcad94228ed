import { RoomSnapshot } from '../database/models.js';
import { Harness, type RoomInfo, type Screen } from '../testing/harness.js';

interface Listed {
  readonly players: readonly { readonly name: string; readonly room: string | null }[];
}

describe('A room of guests', () => {
  let harness: Harness;
  let ruleset: string;
  const open: Screen[] = [];

  let demo: object;

  beforeAll(async () => {
    harness = await Harness.start();
    demo = (await harness.json<{ document: object }>(`/api/rulesets/${(await harness.demo()).id}`)).document;
  });
  afterAll(() => harness.stop());
  beforeEach(async () => {
    ruleset = (await harness.json<{ id: string }>('/api/rulesets', { method: 'POST', body: { document: demo } })).id;
  });
  afterEach(async () => {
    for (const screen of open.splice(0)) await screen.close();
  });

  const room = (more: object = {}) => harness.json<RoomInfo>('/api/rooms', { method: 'POST', body: { ruleset, ...more } });
  const truth = async ({ id }: RoomInfo) => {
    const screen = harness.screen(id);
    open.push(screen);
    await screen.ready();
    return screen;
  };
  const rowOf = ({ copy }: Screen, name: string) => copy!.rows('actors').find((row) => copy!.value('actors', row, 'name') === name)!;
  const scrip = (screen: Screen, name = 'north') => screen.value('scrip', rowOf(screen, name));
  const pay = async (screen: Screen, amount: number) => {
    const after = scrip(screen)! + amount;
    screen.poke('north', { do: 'give', attribute: 'scrip', amount });
    await screen.until('it is paid', () => scrip(screen) === after);
    await screen.kept();
  };
  const listed = async () => (await harness.json<Listed>(`/api/rulesets/${ruleset}/players`)).players;

  it('is what one is where nothing is said, and begins as the rules say', async () => {
    const first = await room();
    expect(await harness.json(`/api/rooms/${first.id}`)).toEqual(jasmine.objectContaining({ players: 'guests' }));
    const screen = await truth(first);
    const began = scrip(screen);
    await pay(screen, 70);
    expect(scrip(await truth(await room()))).toBe(began);
  });

  it('runs beside others of the same ruleset, and is in the way of nobody’s players', async () => {
    const [one, other, saved] = [await truth(await room()), await truth(await room()), await truth(await room({ players: 'saved' }))];
    await pay(one, 70);
    await pay(other, 5);
    expect([scrip(one)! - scrip(saved)!, scrip(other)! - scrip(saved)!]).toEqual([70, 5]);
    expect([one, other, saved].map(({ later, closed }) => [later, closed])).toEqual([
      [undefined, undefined],
      [undefined, undefined],
      [undefined, undefined],
    ]);
  });

  it('keeps nothing of them as saved players', async () => {
    await pay(await truth(await room()), 70);
    expect(await listed()).toEqual([]);
    const saved = await room({ players: 'saved' });
    await (await truth(saved)).kept();
    expect((await listed()).map(({ name, room: where }) => [name, where])).toEqual([
      ['north', saved.id],
      ['south', saved.id],
    ]);
  });

  it('has what its guests had after a restart, under names that were changed meanwhile', async () => {
    const info = await room();
    const screen = await truth(info);
    await pay(screen, 70);
    const had = scrip(screen);
    await harness.restart();
    const { document, revision } = await harness.json<{ document: { attributes: { id: string }[] }; revision: number }>(
      `/api/rulesets/${ruleset}`,
    );
    // The whole document, with the coin under another name.
    const text = JSON.stringify(document).replaceAll(/\bscrip\b/g, 'marks');
    const renamed = JSON.parse(text) as typeof document;
    Object.assign(
      renamed.attributes.find(({ id }) => id === 'marks')!,
      { formerly: ['scrip'] },
    );
    const patch = [{ op: 'replace', path: '', value: renamed }];
    const answer = await harness.request(`/api/rulesets/${ruleset}`, {
      method: 'PATCH',
      body: patch,
      headers: { 'if-match': `"${revision}"` },
    });
    expect(answer.status).toBe(200);
    const again = await truth(info);
    expect(again.value('marks', rowOf(again, 'north'))).toBe(had);
  });

  it('sets aside what can’t be read of a guest, and says so', async () => {
    const info = await room();
    await pay(await truth(info), 70);
    await harness.restart();
    const { guests } = (await RoomSnapshot.findByPk(info.id))!;
    const spoiled = { ...guests, north: { ...guests['north'], attributes: { scrip: 'much' } } };
    await RoomSnapshot.update({ guests: spoiled as never }, { where: { roomId: info.id } });
    const again = await truth(info);
    await again.until('that is said', () => again.errors.length > 0);
    expect(again.errors).toEqual([jasmine.stringMatching(/^What was kept of north can’t be read \(.*scrip.*\)\. It is set aside/)]);
    const { aside } = await harness.json<{ aside: readonly { name: string }[] }>(`/api/rulesets/${ruleset}/players`);
    expect(aside.map(({ name }) => name)).toEqual([`north of ${info.id}`]);
  });

  it('says what players there can be', async () => {
    const refused = await harness.request('/api/rooms', { method: 'POST', body: { ruleset, players: 'some' } });
    expect([refused.status, ((await refused.json()) as { detail: string }).detail]).toEqual([400, 'Players are guests, or saved ones.']);
  });
});
