import { judge, runInLanes } from './lanes.mjs';

describe('What a part of the test comes to', () => {
  it('is what its runner counted', () => {
    expect(judge(0, 'Started\n108 specs, 0 failures\n')).toEqual({ passed: 108, failed: 0 });
    expect(judge(3, '1 spec, 1 failure')).toEqual({ passed: 0, failed: 1 });
    expect(judge(1, 'Executed 90 of 108 (2 FAILED) (3.1 secs)')).toEqual({ passed: 88, failed: 2 });
    expect(judge(0, '\u001b[32mExecuted 108 of 108\u001b[39m SUCCESS')).toEqual({ passed: 108, failed: 0 });
  });

  it('is one test where it is no runner', () => {
    expect([judge(0, ''), judge(2, 'error TS2304')]).toEqual([
      { passed: 1, failed: 0 },
      { passed: 0, failed: 1 },
    ]);
  });

  it('is a failure where its runner could not go on, whatever it counted', () => {
    expect(judge(1, '12 specs, 0 failures\nError in afterAll')).toEqual({ passed: 12, failed: 1 });
    expect(judge(null, 'Executed 339 of 688')).toEqual({ passed: 339, failed: 1 });
  });
});

describe('Parts of the test', () => {
  const part = (title, code = 0) => ({ name: title, title, command: process.execPath, args: ['-e', `process.exit(${code})`] });
  const run = async (parts, lanes, ended = () => false) => {
    const counts = [];
    spyOn(process.stdout, 'write');
    await runInLanes(parts, { lanes, running: new Set(), ended, counted: (count) => counts.push(count) });
    return counts;
  };

  it('are all run and counted once, also where one fails', async () => {
    const counts = await run([part('a'), part('b', 1), part('c')], 2);
    expect(counts.reduce((sum, { passed, failed }) => [sum[0] + passed, sum[1] + failed], [0, 0])).toEqual([2, 1]);
  });

  it('tell once more in the end what has failed, without the dots', async () => {
    const says = 'console.log("....\\n.F.\\nExpected 2 to be 3\\n...."); process.exit(1)';
    await run([{ ...part('a'), args: ['-e', says] }, part('b')], 1);
    expect(process.stdout.write.calls.mostRecent().args[0]).toBe('── a has failed\n.F.\nExpected 2 to be 3\n\n');
  });

  it('wait for what they come after', async () => {
    const order = [];
    const work = (title, after) => ({ title, after, work: () => Promise.resolve(void order.push(title)) });
    await run([work('a', 'c'), work('b'), work('c', 'b')], 2);
    expect(order).toEqual(['b', 'c', 'a']);
  });

  it('are not run after what has failed, nor after what was not run for that', async () => {
    const build = { title: 'build', work: () => Promise.reject(new Error('No room on the disk.')) };
    const after = [
      { ...part('a'), after: 'build' },
      { ...part('b'), after: 'a' },
      { ...part('c'), after: 'b', wide: true },
    ];
    expect(await run([build, ...after], 2)).toEqual([{ passed: 0, failed: 1 }]);
  });

  it('that share out their work themselves are told between how many, when nothing else runs', async () => {
    const shared = { ...part('walks'), args: ['-e', 'process.exit(process.argv.at(-1) === "--parallel=2" ? 0 : 1)', '--'], wide: true };
    expect(await run([shared, part('a')], 2)).toEqual([
      { passed: 1, failed: 0 },
      { passed: 1, failed: 0 },
    ]);
  });

  it('are not begun any more once the whole was ended', async () => {
    const begun = [];
    const work = (title) => ({ title, work: () => Promise.resolve(void begun.push(title)) });
    await run([work('a'), work('b'), { ...part('c'), wide: true }], 1, () => begun.length > 0);
    expect(begun).toEqual(['a']);
  });
});
