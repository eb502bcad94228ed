// npm run new:concept -- lanterns lantern: makes a concept with its spec, its page, and the line of each in its registry. What is
// made is whole: it compiles, its spec passes, and its page opens. Then make of it what was meant.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { coreFiles, formsOf } from './concept/core.mjs';
import { webFiles } from './concept/web.mjs';
import { ROOT, say } from './lib/run.mjs';

const CONCEPTS = 'packages/core/src/concepts';
const BOOK = 'packages/web/src/app/rulebook';
const NAME = /^[a-z][A-Za-z]{1,30}$/;

/** Puts a line into a file in front of another. */
function insert(file, before, line) {
  const text = readFileSync(file, 'utf8');
  const at = text.indexOf(before);
  if (at < 0) throw new Error(`${file} has no line ${before.trim()}`);
  writeFileSync(file, text.slice(0, at) + line + text.slice(at));
}

function write(folder, files) {
  mkdirSync(folder, { recursive: true });
  for (const [file, text] of Object.entries(files)) writeFileSync(join(folder, file), text);
}

/**
 * Makes a concept.
 * @param {string} name such as `lanterns`
 * @param {string} one what one of its entries is called, such as `lantern`
 * @param {string} [root] the tree that it is made in
 * @returns {string} what is wrong with the names; empty where the concept was made
 */
export function newConcept(name, one, root = ROOT) {
  if (!NAME.test(name ?? '') || !NAME.test(one ?? '') || name === one)
    return 'Say what the concept is called and what one of its entries is, in camelCase: npm run new:concept -- lanterns lantern';
  const [core, page] = [join(root, CONCEPTS, name), join(root, BOOK, name)];
  for (const folder of [core, page]) if (existsSync(folder)) return `${folder} is there already.`;
  const forms = formsOf(name, one);
  write(core, coreFiles(forms));
  write(page, webFiles(forms));
  const registry = join(root, CONCEPTS, 'index.ts');
  insert(registry, '\n/** Every concept', `import { ${name}Concept } from './${name}/index.js';\n`);
  insert(registry, '] as never[]).concepts;', `  ${name}Concept,\n`);
  const chapters = join(root, BOOK, 'chapters.ts');
  insert(chapters, '\n/** The chapters that have pages', `import { ${name}Page } from './${name}/page';\n`);
  insert(chapters, '];\n\n/** Chapters with a tab', `  ${name}Page,\n`);
  const pieces = join(root, BOOK, 'page-pieces.ts');
  insert(pieces, '\n/**\n * What each chapter', `import { ${name}Pieces } from './${name}/pieces';\n`);
  insert(pieces, '};\n', `  ${name}: ${name}Pieces,\n`);
  return '';
}

if (process.argv[1] === import.meta.filename) {
  const [name, one] = process.argv.slice(2);
  const wrong = newConcept(name, one);
  if (wrong !== '') {
    console.error(wrong);
    process.exitCode = 2;
  } else {
    const folders = [join(CONCEPTS, name), join(BOOK, name)];
    // How long a name is decides where lines break.
    spawnSync('npx', ['prettier', '--write', '--log-level=warn', ...folders], { cwd: ROOT, stdio: 'inherit' });
    say(`Made ${folders.join(' and ')}: their lines stand at the end of each registry. Run npm run docs when it is done.`);
  }
}
