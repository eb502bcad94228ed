import { Harness } from '../testing/harness.js';

interface ChecksAnswer {
  readonly revision: number;
  readonly ok: boolean;
  readonly ticks: number;
  readonly checks: readonly { readonly id: string; readonly label: string; readonly ok: boolean }[];
  readonly left: readonly string[];
  readonly coverage?: readonly { readonly chapter: string; readonly covered: number; readonly total: number }[];
}
interface HuntsAnswer {
  readonly ok: boolean;
  readonly hunts: readonly {
    readonly id: string;
    readonly ok: boolean;
    readonly stories: number;
    readonly found?: { readonly words: readonly string[]; readonly says: string; readonly check: { readonly stages: readonly unknown[] } };
  }[];
}

const heal = (amount: number) => ({ on: 'ada', action: { do: 'heal', attribute: 'health', amount } });
const KEEP = {
  format: 'eager-ember/ruleset',
  version: 2,
  name: 'Keep',
  attributes: [
    { id: 'health', label: 'Health', kind: 'pool', max: 12, start: 1 },
    { id: 'coin', label: 'Coin', kind: 'counter', start: 5 },
  ],
  actors: [{ id: 'keeper', label: 'Keeper', kind: 'player', attributes: [{ attribute: 'health' }, { attribute: 'coin' }] }],
  reactions: [
    {
      id: 'thanks',
      label: 'Thanks',
      on: { on: 'attributeChanged', attribute: 'health' },
      then: [{ do: 'give', attribute: 'coin', amount: 1 }],
    },
  ],
  checks: [
    {
      id: 'healing',
      label: 'Healing',
      group: 'Health',
      given: [{ name: 'ada' }],
      stages: [{ when: [heal(20)], then: [{ value: 'health', amount: 12 }] }],
    },
    { id: 'coins', label: 'A beginning in coin', given: [{ name: 'ada' }], stages: [{ then: [{ value: 'coin', amount: 5 }] }] },
    {
      id: 'long',
      label: 'All the day',
      given: [{ name: 'ada' }],
      stages: [{ when: [{ pass: '1700s' }], then: [{ value: 'coin', amount: 5 }] }],
      each: { columns: ['n'], rows: Array.from({ length: 500 }, (_, n) => [n]) },
    },
  ],
  hunts: [
    {
      id: 'noCoin',
      label: 'No coin from nowhere',
      given: [{ name: 'ada' }],
      may: [{ action: { do: 'give', attribute: 'coin', amount: 1 } }, { action: { do: 'heal', attribute: 'health', amount: 1 } }],
      always: [{ conserved: 'coin' }],
    },
    {
      id: 'health',
      label: 'Health stays in its bounds',
      given: [{ name: 'ada' }],
      may: [{ action: { do: 'heal', attribute: 'health', amount: 1 } }],
      always: [{ value: 'health', how: 'atMost', amount: 12 }],
    },
  ],
};

describe('Checks and hunts that the server runs', () => {
  let harness: Harness;
  let id: string;
  beforeAll(async () => {
    harness = await Harness.start();
    ({ id } = await harness.json<{ id: string }>('/api/rulesets', { method: 'POST', body: { document: KEEP } }));
  });
  afterAll(() => harness.stop());
  const run = (what: string, body: object, signal?: AbortSignal) =>
    harness.request(`/api/rulesets/${id}/${what}/run`, { method: 'POST', body, ...(signal && { signal }) });
  const checks = async (body: object): Promise<ChecksAnswer> => (await (await run('checks', body)).json()) as ChecksAnswer;
  const hunts = async (body: object): Promise<HuntsAnswer> => (await (await run('hunts', body)).json()) as HuntsAnswer;

  it('says what each check came to, and of which revision', async () => {
    const one = await checks({ only: 'health', coverage: true });
    expect([one.ok, one.revision, one.left, one.checks.map(({ label, ok }) => [label, ok])]).toEqual([true, 1, [], [['Healing', true]]]);
    expect(one.coverage!.find(({ chapter }) => chapter === 'attributes')).toEqual(jasmine.objectContaining({ covered: 2, total: 2 }));
    const less = [{ op: 'replace', path: '/attributes/0/max', value: 10 }];
    await harness.request(`/api/rulesets/${id}`, { method: 'PATCH', body: less, headers: { 'if-match': '"1"' } });
    const after = await checks({ only: 'health' });
    expect([after.revision, after.ok, after.checks[0]]).toEqual([
      2,
      false,
      jasmine.objectContaining({
        id: 'healing',
        outcomes: [jasmine.objectContaining({ holds: false, failure: jasmine.objectContaining({ says: 'ada: health is 10, not 12.' }) })],
      }),
    ]);
    expect((await checks({ only: 'coins', seed: 7 })).ok).toBeTrue();
  });

  it('leaves what there is no time for, and says so', async () => {
    const some = await checks({ seconds: 1 });
    expect([some.ok, some.left, some.checks.map((one) => one.id)]).toEqual([false, ['long'], ['healing', 'coins']]);
  });

  it('hunts, and tells the shortest story that it has found', async () => {
    const { ok, hunts: all } = await hunts({ seconds: 1 });
    expect([ok, all.map((one) => [one.id, one.ok])]).toEqual([
      false,
      [
        ['noCoin', false],
        ['health', true],
      ],
    ]);
    expect(all[0].found!.words.filter((words) => !words.endsWith('pass'))).toEqual([jasmine.stringContaining('health')]);
    expect(all[1].stories).toBeGreaterThan(0);
  });

  it('runs so many at once, and leaves what nobody waits for any more', async () => {
    const gone = new AbortController();
    const { signal } = gone;
    const long = Array.from({ length: 4 }, () => run('checks', { seconds: 120, only: 'long' }, signal).catch(() => undefined));
    // Not too often: who asks thousands of times a minute is refused for that.
    const until = async (status: number) => {
      while ((await run('checks', { only: 'coins' })).status !== status) await new Promise((done) => setTimeout(done, 30));
    };
    await until(503);
    gone.abort();
    await Promise.all(long);
    await until(200);
    expect((await checks({ only: 'coins' })).ok).toBeTrue();
  });

  it('refuses what can’t be run, and says why', async () => {
    const none = await run('checks', { only: 'nothing' });
    expect([none.status, await none.json()]).toEqual([
      422,
      jasmine.objectContaining({
        title: 'There is nothing to run',
        detail: jasmine.stringContaining('has no check that is called nothing'),
      }),
    ]);
    const long = await run('hunts', { seconds: 1000 });
    expect([long.status, await long.json()]).toEqual([400, jasmine.objectContaining({ detail: 'seconds: A time is 1 to 120 seconds.' })]);
    const { status } = await harness.request(`/api/rulesets/${'0'.repeat(8)}-0000-4000-8000-000000000000/checks/run`, {
      method: 'POST',
      body: {},
    });
    expect(status).toBe(404);
  });
});
