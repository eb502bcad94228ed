import { TestBed } from '@angular/core/testing';
import brinewick from '../../../../core/src/testing/recorded/brinewick.json';
import { CoreWithoutWorker } from '../testing/bench';
import type { RulesetJson } from './api';
import { applied } from './patched';

const demo = structuredClone(brinewick) as unknown as RulesetJson;
const rate = (value: number) => [{ op: 'replace' as const, path: '/attributes/0/label', value: `Air ${value}` }];

describe('What the worker is told of a document', () => {
  let client: CoreWithoutWorker;
  const posted = () => client.posted.splice(0);
  const bytes = (messages: readonly unknown[]) => JSON.stringify(messages).length;

  beforeEach(() => {
    TestBed.configureTestingModule({});
    client = TestBed.runInInjectionContext(() => new CoreWithoutWorker());
  });

  it('is the whole of it once, and of an edit what it has changed, however much there is', async () => {
    expect(await client.core.check(demo)).toEqual([]);
    expect(bytes(posted())).toBeGreaterThan(30_000);
    await client.core.uses(demo, 'attributes', 'oxygen');
    expect(posted()).toEqual([['answer', 1, 'uses', ['attributes', 'oxygen']]]);
    const edited = applied(demo, rate(1));
    await client.core.check(edited);
    const evidence = await client.core.evidence(edited, 'attributes', 'oxygen');
    expect(evidence!.series[0].label).toBe('Air 1');
    const messages = posted();
    expect(messages.map(([name]) => name)).toEqual(['derive', 'answer', 'answer']);
    expect(bytes(messages)).toBeLessThan(300);
  });

  it('reaches it although several edits came before anybody asked', async () => {
    await client.core.check(demo);
    posted();
    const twice = applied(applied(demo, rate(1)), rate(2));
    await client.core.check(twice);
    expect(posted().map(([name]) => name)).toEqual(['derive', 'derive', 'answer']);
    expect((await client.core.evidence(twice, 'attributes', 'oxygen'))!.series[0].label).toBe('Air 2');
  });

  it('is the whole of it again where it let go of it', async () => {
    await client.core.check(demo);
    for (let n = 0; n < 10; n++) await client.core.check(structuredClone({ ...demo, name: `Other ${n}` }));
    posted();
    await client.core.check(demo);
    expect(posted().map(([name]) => name)).toEqual(['hold', 'answer']);
  });

  it('is one document where an edit is tried out and then made', () => {
    const patch = rate(3);
    expect(applied(demo, patch)).toBe(applied(demo, patch));
    expect(applied(demo, rate(3))).not.toBe(applied(demo, patch));
  });

  it('says what is wrong where it can’t be compiled', async () => {
    const wrong = applied(demo, [{ op: 'replace', path: '/attributes/0/id', value: 7 }]);
    expect((await client.core.check(wrong)).length).toBeGreaterThan(0);
    await expectAsync(client.core.evidence(wrong, 'attributes', 'oxygen')).toBeRejectedWithError(/attributes\/0\/id/);
  });
});
