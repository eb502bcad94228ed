import { spawn } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const SCRIPT = fileURLToPath(new URL('../testing/a-run.mjs', import.meta.url));
const PATIENCE_MS = 120_000;

/** Starts a run, and waits until it says what it has started. */
async function started(command = process.execPath, args = [SCRIPT], env = {}) {
  const run = spawn(command, args, { stdio: ['pipe', 'pipe', 'inherit'], env: { ...process.env, ...env } });
  const gone = new Promise((done) => run.once('exit', (code, signal) => done(signal ?? code)));
  const said = await new Promise((done, fail) => {
    let text = '';
    run.stdout.setEncoding('utf8').on('data', (part) => {
      text += part;
      const line = /^\{.*\}$/m.exec(text);
      if (line) done(JSON.parse(line[0]));
    });
    void gone.then((how) => fail(new Error(`It ended with ${how}, and said ${text}`)));
  });
  return { run, gone, ...said };
}

function alive(pid) {
  try {
    return !/^State:\s+[ZX]/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'));
  } catch {
    return false;
  }
}

/** Waits until nothing is left of a run; what is left all the same is named. */
async function cleared({ home, processes }) {
  const left = () => [...processes.filter(alive), ...(existsSync(home) ? [home] : [])];
  for (const end = Date.now() + PATIENCE_MS; left().length > 0 && Date.now() < end;) await new Promise((next) => setTimeout(next, 50));
  expect(left()).toEqual([]);
}

describe('A run of a script', () => {
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
    it(`that is ended by ${signal} takes along all that it has started, and ends by that signal`, async () => {
      const trial = await started();
      expect(trial.processes.every(alive)).toBeTrue();
      trial.run.kill(signal);
      expect(await trial.gone).toBe(signal);
      await cleared(trial);
    });

  it('that is killed leaves nothing behind either', async () => {
    const trial = await started();
    trial.run.kill('SIGKILL');
    expect(await trial.gone).toBe('SIGKILL');
    await cleared(trial);
  });

  it('that npm has started through a shell ends when npm is killed', async () => {
    // As npm does: it waits for a shell, and the shell for the script.
    const npm = `const { status } = require('node:child_process').spawnSync('sh', ['-c', '"$0" "$1"; exit $?', process.execPath, ${JSON.stringify(SCRIPT)}], { stdio: 'inherit' }); process.exit(status);`;
    const trial = await started(process.execPath, ['-e', npm], { npm_lifecycle_event: 'test' });
    trial.run.kill('SIGKILL');
    expect(await trial.gone).toBe('SIGKILL');
    await cleared(trial);
  });

  it('that nobody listens to any more ends as when its terminal is closed', async () => {
    const trial = await started();
    trial.run.stdout.destroy();
    trial.run.kill('SIGTERM');
    expect(['SIGHUP', 'SIGTERM']).toContain(await trial.gone);
    await cleared(trial);
  });

  it('that comes to its end has cleared away before', async () => {
    const trial = await started();
    trial.run.stdin.end();
    expect(await trial.gone).toBe(0);
    expect([...trial.processes.filter(alive), existsSync(trial.home)]).toEqual([false]);
  });
});
