import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('../../..', import.meta.url));
const BIN = join(ROOT, 'packages/cli/bin/ember.mjs');
const DEMO = join(ROOT, 'examples/brinewick.json');
const SCRIPT = join(ROOT, 'examples/two-pods.script.json');

function ember(...args: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, [BIN, ...args], { encoding: 'utf8' });
  return { status, stdout, stderr, lines: stdout.split('\n').filter(Boolean) };
}

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
        JSON.stringify({ format: 'eager-ember/ruleset', version: 1, name: 'Bad', odd: 1, statuses: [{ id: 'in bell', label: 'In bell' }] }),
      );
      const { status, lines } = ember('validate', bad);
      expect(status).toBe(1);
      expect(lines).toContain('/odd: "odd" is not known here.');
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
});
