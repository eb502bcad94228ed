import { spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './lib/run.mjs';
import { newConcept } from './new-concept.mjs';

/** A tree with all that a concept is made of and in, beside the real one: what it makes is run, and nothing of it stays. */
function treeBeside() {
  mkdirSync(join(ROOT, '.cache'), { recursive: true });
  const root = mkdtempSync(join(ROOT, '.cache/new-concept-'));
  for (const part of ['packages/core', 'packages/web', 'tsconfig.base.json', 'package.json', 'examples'])
    cpSync(join(ROOT, part), join(root, part), { recursive: true, filter: (file) => !/\/(dist|node_modules)(\/|$)/.test(file) });
  symlinkSync(join(ROOT, 'node_modules'), join(root, 'node_modules'));
  return root;
}

describe('A concept that is made anew', () => {
  let root;
  let wrong;
  beforeAll(() => {
    root = treeBeside();
    wrong = newConcept('lanterns', 'lantern', root);
  });
  afterAll(() => rmSync(root, { recursive: true, force: true }));

  const run = (...args) => {
    const { status, stdout, stderr } = spawnSync(process.execPath, args, { cwd: root, encoding: 'utf8' });
    return { status, said: `${stdout}${stderr}` };
  };

  it('needs two names, and room for them', () => {
    expect(newConcept('buoys', undefined, root)).toContain('Say what the concept is called');
    expect(newConcept('Buoys', 'buoy', root)).toContain('Say what the concept is called');
    expect(newConcept('statuses', 'status', root)).toContain('is there already');
  });

  it('is checked, given, stored, saved and told to seats, with nothing else touched', () => {
    expect(wrong).toBe('');
    const spec = run('--import', 'tsx', 'node_modules/jasmine/bin/jasmine.js', 'packages/core/src/concepts/lanterns/lanterns.spec.ts');
    expect(spec.said).toContain('5 specs, 0 failures');
    const types = run('node_modules/typescript/bin/tsc', '--noEmit', '-p', 'packages/core/tsconfig.spec.json');
    expect(types.said).toBe('');
  });

  it('has a page in the book that compiles, template and all', () => {
    const { status, said } = run(
      'node_modules/@angular/compiler-cli/bundles/src/bin/ngc.js',
      '-p',
      'packages/web/tsconfig.app.json',
      '--noEmit',
    );
    expect({ status, said }).toEqual({ status: 0, said: '' });
    const chapters = readFileSync(join(root, 'packages/web/src/app/rulebook/chapters.ts'), 'utf8');
    expect(chapters).toContain("import { lanternsPage } from './lanterns/page';");
    expect(chapters).toMatch(/CHAPTERS[^;]* {2}lanternsPage,\n\];/s);
    expect(readFileSync(join(root, 'packages/web/src/app/rulebook/lanterns/page.ts'), 'utf8')).toContain("import('./lantern-sentences')");
  });
});
