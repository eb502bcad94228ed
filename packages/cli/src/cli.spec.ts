import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('../../..', import.meta.url));
const BIN = join(ROOT, 'packages/cli/bin/ember.cjs');
const DEMO = join(ROOT, 'examples/brinewick.json');
const SCRIPT = join(ROOT, 'examples/two-pods.script.json');

function ember(...args: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, [BIN, ...args], { encoding: 'utf8' });
  return { status, stdout, stderr, lines: stdout.split('\n').filter(Boolean) };
}

describe('ember link', () => {
  it('prints the link that the server of this machine gives, and says where there is none', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'ember-link-'));
    const socket = join(folder, 'control.sock');
    const ask = () =>
      new Promise<{ status: number | null; said: string }>((done) => {
        const child = spawn(process.execPath, [BIN, 'link', '--socket', socket]);
        let said = '';
        for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => (said += String(part)));
        child.on('close', (status) => done({ status, said }));
      });
    expect(await ask()).toEqual({
      status: 2,
      said: `No server answers at ${socket}. Start one by npm start, or say where its socket is by --socket.\n`,
    });
    let status = 200;
    const server = createServer((request, response) =>
      response.writeHead(request.method === 'POST' && request.url === '/link' ? status : 404).end('http://127.0.0.1:4600/enter/abc\n'),
    );
    await new Promise<void>((done) => server.listen(socket, done));
    expect(await ask()).toEqual({ status: 0, said: 'http://127.0.0.1:4600/enter/abc\n' });
    status = 500;
    expect(await ask()).toEqual({ status: 2, said: `The server at ${socket} gave no link: it answered 500.\n` });
    await new Promise((done) => server.close(done));
    rmSync(folder, { recursive: true });
  });
});

describe('ember --version', () => {
  it('says which it is', () => {
    const { version } = JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8')) as { version: string };
    expect(ember('--version')).toEqual(jasmine.objectContaining({ status: 0, stdout: `${version}\n` }));
  });
});

describe('ember backup and restore', () => {
  it('say which database they can’t find', () => {
    const home = mkdtempSync(join(tmpdir(), 'ember-home-'));
    const run = (args: readonly string[], env: Record<string, string> = {}) => {
      const { DATABASE_URL: _, ...rest } = process.env;
      const { status, stderr } = spawnSync(process.execPath, [BIN, ...args], {
        encoding: 'utf8',
        env: { ...rest, EMBER_HOME: home, ...env },
      });
      return [status, stderr] as const;
    };
    const file = join(home, 'backup');
    expect(run(['backup', file])).toEqual([
      2,
      `There is no database of npm start (${join(home, 'database.json')}). Say by --database, or in DATABASE_URL, which one is meant.\n`,
    ]);
    expect(run(['restore', file, '--database', 'nonsense'])).toEqual([2, 'A database is a postgres:// address.\n']);
    expect(run(['restore', file], { DATABASE_URL: 'postgres://127.0.0.1:1/none' })).toEqual([2, `There is no file ${file}.\n`]);
    expect(run(['backup', file, '--database', 'postgres://127.0.0.1:1/none'])).toEqual([
      2,
      jasmine.stringMatching(/^The database can’t be reached: .*Start the server, or say by --database/),
    ]);
    rmSync(home, { recursive: true });
  });
});

describe('ember', () => {
  let folder: string;
  beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'ember-cli-'))));
  afterAll(() => rmSync(folder, { recursive: true }));
  const file = (name: string, content: string) => {
    writeFileSync(join(folder, name), content);
    return join(folder, name);
  };

  describe('validate', () => {
    it('says nothing of a sound ruleset', () => {
      expect(ember('validate', DEMO)).toEqual(jasmine.objectContaining({ status: 0, stdout: '', stderr: '' }));
      expect(ember('validate', DEMO, '--json').stdout.trim()).toBe('[]');
    });

    it('lists what is wrong as path and message, exit code 1', () => {
      const bad = file(
        'bad.json',
        JSON.stringify({ format: 'eager-ember/ruleset', version: 2, name: 'Bad', odd: 1, statuses: [{ id: 'in bell', label: 'In bell' }] }),
      );
      const { status, lines } = ember('validate', bad);
      expect(status).toBe(1);
      expect(lines).toContain(jasmine.stringMatching(/^\/odd: "odd" is not known here\. There are note, tickRate, /));
      expect(lines.some((line) => line.startsWith('/statuses/0/id: An id is camelCase'))).toBeTrue();
      const json = JSON.parse(ember('validate', bad, '--json').stdout) as { path: string }[];
      expect(json.map((problem) => problem.path).sort()).toEqual(['/odd', '/statuses/0/id']);
    });

    it('says of what is not JSON that it is not', () => {
      expect(ember('validate', file('text.json', 'not json'))).toEqual(jasmine.objectContaining({ status: 1 }));
      expect(ember('validate', join(folder, 'missing.json')).status).toBe(2);
    });
  });

  describe('run', () => {
    it('prints events, samples and the end as JSON lines', () => {
      const { status, lines, stderr } = ember('run', DEMO, '--script', SCRIPT, '--until', '20s', '--every', '1s', '--json');
      expect([status, stderr]).toEqual([0, '']);
      const records = lines.map((line) => JSON.parse(line) as Record<string, never>);
      const samples = records.filter((r) => 'sample' in r);
      expect(samples.length).toBe(20);
      expect(samples[3]['sample']['north']['finSpeed']).toBe(216 as never);
      expect(records.find((r) => r['event'] === ('abilityRefused' as never))).toEqual(
        jasmine.objectContaining({ t: 7, subject: 'north', reason: 'coolingDown', ticks: 120 }) as never,
      );
      const last = records.at(-1)!;
      expect(last['final']['north']['finSpeed']).toBe(120 as never);
      expect(last['hash']).toMatch(/^[0-9a-f]{16}$/);
    });

    it('is the same every time, and told apart by its seed', () => {
      const hash = (...more: string[]) =>
        (JSON.parse(ember('run', DEMO, '--script', SCRIPT, '--until', '5s', '--json', ...more).lines.at(-1)!) as { hash: string }).hash;
      expect(hash()).toBe(hash());
      expect(hash('--seed', '2')).not.toBe(hash('--seed', '3'));
    });

    it('prints sentences where no JSON is asked for', () => {
      expect(ember('run', DEMO, '--script', SCRIPT, '--until', '8s').stdout).toContain('7.00  Sonar ping is cooling down: ready in 6 s.');
    });

    it('prints nothing on stdout unless both files are sound: exit code 2', () => {
      const cases = [
        ['run', DEMO, '--script', file('odd.json', '{"seats":[]}'), '--until', '1s'],
        ['run', DEMO, '--script', file('broken.json', '{'), '--until', '1s'],
        ['run', DEMO, '--script', join(folder, 'missing.json'), '--until', '1s'],
        ['run', file('empty.json', '{}'), '--script', SCRIPT, '--until', '1s'],
        ['run', DEMO, '--script', SCRIPT, '--until', 'soon'],
        ['run', DEMO, '--script', SCRIPT],
        ['run', DEMO, '--script', SCRIPT, '--until', '1s', '--seed', '1.5'],
        ['dance'],
      ];
      for (const args of cases) {
        const { status, stdout, stderr } = ember(...args);
        expect(status).withContext(args.join(' ')).toBe(2);
        expect(stdout).withContext(args.join(' ')).toBe('');
        expect(stderr).withContext(args.join(' ')).not.toBe('');
      }
    });
  });

  describe('export and schema', () => {
    const committed = (name: string) => readFileSync(join(ROOT, 'docs/formats', name), 'utf8');

    it('print what docs/formats holds of the demo', () => {
      expect(ember('export', DEMO, '--ts').stdout).toBe(committed('brinewick.ts'));
      expect(JSON.parse(ember('schema').stdout)).toEqual(JSON.parse(committed('ruleset.schema.json')));
    });

    it('write TypeScript that compiles, and refuses a name that is none', () => {
      const out = join(folder, 'rules.ts');
      expect(ember('export', DEMO, '--ts', '--out', out).status).toBe(0);
      const use = (name: string) =>
        file(
          `use-${name}.ts`,
          `import { Attributes, type AttributeId, EFFECTS } from './rules.js';
           const own = new Attributes({ value: () => 1, on: () => () => undefined });
           const id: AttributeId = '${name}';
           own.on(id, (now, before) => void [now, before]);
           export const all: readonly unknown[] = [own.oxygen, EFFECTS.slipstream];`,
        );
      const compiled = (...names: readonly string[]) =>
        spawnSync(
          process.execPath,
          [
            join(ROOT, 'node_modules/typescript/bin/tsc'),
            ...[
              '--strict',
              '--noEmit',
              '--skipLibCheck',
              '--target',
              'es2022',
              '--module',
              'nodenext',
              '--noUnusedLocals',
              '--types',
              'node',
              '--typeRoots',
              join(ROOT, 'node_modules/@types'),
            ],
            ...names.map(use),
          ],
          { encoding: 'utf8', cwd: folder },
        );
      const { stdout } = compiled('oxygen', 'oxygn');
      expect(stdout.match(/^\S+(?=\()/gm)).toEqual(['use-oxygn.ts']);
      expect(stdout).toContain('\'"oxygn"\' is not assignable');
    });

    it('print the schema of one ruleset with its own ids', () => {
      const text = ember('schema', DEMO).stdout;
      expect(text).toContain('"slipstream"');
      expect(ember('schema', join(folder, 'none.json')).status).toBe(2);
    });
  });

  describe('findings', () => {
    it('are told as path and message, and as JSON with their fixes', () => {
      const document = JSON.parse(readFileSync(DEMO, 'utf8')) as {
        loot: { entries?: { id: string }[] }[];
        offers: { id: string; then?: unknown[] }[];
      };
      for (const table of document.loot) if (table.entries) table.entries = table.entries.filter(({ id }) => id !== 'soap');
      for (const offer of document.offers) if (offer.id === 'soap') offer.then = [];
      const unused = file('unused.json', JSON.stringify(document));
      expect(ember('findings', DEMO).lines).toEqual([]);
      const { lines, status } = ember('findings', unused);
      expect(status).toBe(0);
      expect(lines.some((line) => line.startsWith('/effects/2: Nobody speaks of Bubble'))).toBeTrue();
      const [first] = JSON.parse(ember('findings', unused, '--json').stdout) as { fix: { patch: unknown[] } }[];
      // The entry goes with the situation that tries it out, and with a pin of another.
      expect(first.fix.patch.length).toBe(3);
    });
  });

  it('has an example of a display that knows only a name', () => {
    const { stdout, status } = spawnSync(process.execPath, [join(ROOT, 'examples/subscribe.mjs')], { encoding: 'utf8' });
    expect(status).toBe(0);
    expect(stdout.split('\n').filter(Boolean)).toEqual([
      'finSpeed: nothing → 120',
      'finSpeed: 120 → 168',
      'finSpeed: 168 → 84',
      'finSpeed: 84 → 60',
      'finSpeed: 60 → 120',
    ]);
  });
});

describe('ember test', () => {
  const folder = mkdtempSync(join(tmpdir(), 'ember-test-'));
  afterAll(() => rmSync(folder, { recursive: true }));
  const keep = (most: number) => ({
    format: 'eager-ember/ruleset',
    version: 2,
    name: 'Keep',
    attributes: [{ id: 'health', label: 'Health', kind: 'pool', max: most, start: 1 }],
    actors: [{ id: 'keeper', label: 'Keeper', kind: 'player', attributes: [{ attribute: 'health' }] }],
    checks: [
      {
        id: 'healing',
        label: 'Healing',
        group: 'Health',
        given: [{ name: 'ada' }],
        stages: [
          { when: [{ on: 'ada', action: { do: 'heal', attribute: 'health', amount: 20 } }], then: [{ value: 'health', amount: 12 }] },
        ],
      },
      { id: 'beginning', label: 'The beginning', given: [{ name: 'ada' }], stages: [{ then: [{ value: 'health', amount: 1 }] }] },
    ],
  });
  const written = (name: string, most: number) => {
    const file = join(folder, name);
    writeFileSync(file, JSON.stringify(keep(most)));
    return file;
  };

  it('lists what holds and what fails, and ends with 1 where something does', () => {
    const { status, stdout } = ember('test', written('sound.json', 12));
    expect([status, stdout.replace(/\d+ ms/, 'so long')]).toEqual([
      0,
      'Health\n  holds  Healing\n  holds  The beginning\n2 checks hold, 0 fail (3 ticks, so long)\n',
    ]);
    const failing = ember('test', written('wrong.json', 10));
    expect(failing.status).toBe(1);
    expect(failing.lines.slice(0, 4)).toEqual([
      'Health',
      '  FAILS  Healing (healing)',
      '           stages/0/then/0, at 0.05 s: ada: health is 10, not 12.',
      '  holds  The beginning',
    ]);
    expect(failing.lines[4]).toMatch(/^1 check holds, 1 fails/);
  });

  it('runs those that are asked for, under another seed, and tells them as JSON', () => {
    const file = written('some.json', 10);
    expect(ember('test', file, '--only', 'begin').status).toBe(0);
    expect(ember('test', file, '--only', 'healing').status).toBe(1);
    expect(ember('test', file, '--only', 'nothing').stderr).toContain('has no check that is called nothing');
    const [result] = JSON.parse(ember('test', file, '--only', 'beginning', '--json', '--seed', '7').stdout) as {
      id: string;
      ok: boolean;
    }[];
    expect([result.id, result.ok]).toEqual(['beginning', true]);
  });

  it('runs as many as it may at once, and says how many it does not', () => {
    const file = join(folder, 'many.json');
    const { checks, ...rest } = keep(12);
    const many = Array.from({ length: 2002 }, (_, i) => ({ ...checks[1], id: `check${i}`, label: `Check ${i}` }));
    writeFileSync(file, JSON.stringify({ ...rest, checks: many }));
    const { status, lines } = ember('test', file);
    expect([status, lines.length, lines.at(-2), lines.at(-1)]).toEqual([
      1,
      2002,
      jasmine.stringMatching(/^2000 checks hold, 0 fail/),
      '2 checks more are not run: at most 2000 are at once. Say --only some.',
    ]);
    expect(ember('test', file, '--only', 'check2001').status).toBe(0);
    expect(ember('findings', file).stdout).toContain(
      '/checks/2000: The first 2000 checks of a ruleset are run; this one and those behind it, 2 in all, are not.',
    );
  });

  it('says which entries at least one check has run', () => {
    const { stdout } = ember('test', written('covered.json', 12), '--coverage');
    expect(stdout.split('\n').slice(4)).toEqual([
      'Run by at least one check:',
      '  Actors                1 of 1',
      '  Stats                 1 of 1',
      '  Actions               0 of 0',
      '  Branches              0 of 0',
      '',
    ]);
  });

  it('writes JUnit XML for build servers', () => {
    const report = join(folder, 'report.xml');
    expect(ember('test', written('junit.json', 10), '--junit', report).status).toBe(1);
    const xml = readFileSync(report, 'utf8');
    expect(xml).toContain('<testsuite name="Health" tests="1" failures="1"');
    expect(xml).toContain('classname="junit.healing" name="Healing"');
    expect(xml).toMatch(/<failure message="stages\/0\/then\/0, at 0.05 s: ada: health is 10, not 12."/);
  });

  it('says what can’t be run, and ends with 2', () => {
    const file = join(folder, 'bad.json');
    writeFileSync(file, '{');
    expect(ember('test', file).status).toBe(2);
    expect(ember('test', join(folder, 'none', 'at.json'), '--watch')).toEqual(
      jasmine.objectContaining({ status: 2, stderr: `There is no file ${join(folder, 'none', 'at.json')}.\n` }),
    );
    writeFileSync(file, JSON.stringify({ ...keep(1), checks: [] }));
    expect(ember('test', file)).toEqual(jasmine.objectContaining({ status: 2, stderr: `${file} has no checks.\n` }));
    writeFileSync(file, JSON.stringify({ ...keep(1), checks: [{ id: 'x' }] }));
    expect(ember('test', file).stderr).toContain('/checks/0/label');
  });

  it('runs them again whenever the file is saved', async () => {
    const file = written('watched.json', 10);
    const child = spawn(process.execPath, [BIN, 'test', file, '--watch']);
    let said = '';
    const until = (text: string) =>
      new Promise<void>((done) => {
        const look = () => {
          if (!said.includes(text)) return;
          child.stdout.off('data', look);
          done();
        };
        child.stdout.on('data', look);
        look();
      });
    child.stdout.on('data', (part) => (said += String(part)));
    await until('Watching');
    expect(said).toContain('1 check holds, 1 fails');
    written('watched.json', 12);
    await until('2 checks hold, 0 fail (3 ticks');
    const { checks, ...rest } = keep(12);
    writeFileSync(file, JSON.stringify({ ...rest, checks: [checks[0], { ...checks[1], label: 'As it begins' }] }));
    await until('2 checks hold, 0 fail (1 run, the others as they were');
    const ended = new Promise((done) => child.on('close', done));
    child.kill('SIGTERM');
    expect(await ended).toBe(0);
  });
});
