import { spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
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

  /** What a compiler says of one file, and of all that it imports, under a package's settings. */
  const compiled = (settings, file, compiler) => {
    const alone = settings.replace('tsconfig', 'tsconfig.alone');
    const config = { extends: `./${settings.split('/').at(-1)}`, files: [file], include: ['src/**/*.d.ts'], references: [] };
    writeFileSync(join(root, alone), JSON.stringify(config));
    const { status, said } = run(`node_modules/${compiler}`, '-p', alone, '--noEmit');
    return status === 0 ? said : `${said}ended with ${status}`;
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
    expect(compiled('packages/core/tsconfig.spec.json', 'src/concepts/lanterns/lanterns.spec.ts', 'typescript/bin/tsc')).toBe('');
  });

  it('has a page in the book that compiles, template and all', () => {
    const page = 'src/app/rulebook/lanterns/pieces.ts';
    expect(compiled('packages/web/tsconfig.app.json', page, '@angular/compiler-cli/bundles/src/bin/ngc.js')).toBe('');
    const chapters = readFileSync(join(root, 'packages/web/src/app/rulebook/chapters.ts'), 'utf8');
    expect(chapters).toContain("import { lanternsPage } from './lanterns/page';");
    expect(chapters).toMatch(/CHAPTERS[^;]* {2}lanternsPage,\n\];/s);
    const pieces = readFileSync(join(root, 'packages/web/src/app/rulebook/page-pieces.ts'), 'utf8');
    expect(pieces).toContain("import { lanternsPieces } from './lanterns/pieces';");
    expect(pieces).toMatch(/PAGE_PIECES[^;]* {2}lanterns: lanternsPieces,\n\};/s);
  });
});
