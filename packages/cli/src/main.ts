import { readFileSync } from 'node:fs';
import type { Load } from './backup.js';
import { Command, CommanderError, InvalidArgumentError, Option } from 'commander';

// What a command needs is loaded when it is asked for: most need no server, and some not even the core.
const written = () => import('./export.js');

/** A time such as `20s`, in milliseconds. */
function time(text: string): number {
  const [, amount, unit] = /^(\d{1,7}(?:\.\d{1,3})?)(ms|s)$/.exec(text) ?? [];
  if (amount === undefined) throw new InvalidArgumentError('A time is expected, such as 20s or 250ms.');
  return Number(amount) * (unit === 's' ? 1000 : 1);
}

function seed(text: string): number {
  const value = Number(text);
  if (!Number.isInteger(value) || Math.abs(value) > 0x7fffffff) throw new InvalidArgumentError('A whole number of 32 bits is expected.');
  return value;
}

const versionOf = () =>
  (JSON.parse(readFileSync(new URL('../package.json', import.meta.url), 'utf8')) as { readonly version: string }).version;

/**
 * The command line. Returns the exit code: 0 sound, 1 a ruleset with problems, 2 what could not be done at all.
 * @param load loads what is not in the one file that the command line is
 */
export async function main(args: readonly string[], load: Load): Promise<number> {
  let code = 0;
  const program = new Command('ember')
    .description('Validates and plays Eager Ember rulesets, without a server; looks after the server of this machine.')
    .version(versionOf(), '-V, --version', 'prints the version of the command line and of the core')
    .exitOverride();
  program
    .command('validate')
    .description('says what is wrong with a ruleset: nothing and exit code 0 where it is sound, exit code 1 where it is not')
    .argument('<file>', 'a ruleset, as JSON')
    .option('--json', 'problems as one JSON list')
    .action(async (file: string, options: { json?: boolean }) => {
      const { validate } = await import('./validate.js');
      code = validate(file, options.json === true);
    });
  program
    .command('findings')
    .description('says what a sound ruleset’s author will hardly have meant')
    .argument('<file>', 'a ruleset, as JSON')
    .option('--json', 'findings as one JSON list, with the patches that mend them')
    .action(async (file: string, options: { json?: boolean }) => {
      code = (await written()).findings(file, options.json === true);
    });
  program
    .command('export')
    .description('writes a ruleset in another form')
    .argument('<file>', 'a ruleset, as JSON')
    .requiredOption('--ts', 'TypeScript: ids as unions, an accessor for each attribute')
    .option('--out <file>', 'where to; printed where nothing is said')
    .action(async (file: string, options: { out?: string }) => {
      code = (await written()).exportTypes(file, options.out);
    });
  program
    .command('upgrade')
    .description('writes a ruleset of an earlier version of the format as one of today’s that means the same')
    .argument('<file>', 'a ruleset, as JSON')
    .option('--out <file>', 'where to, which may be the file itself; printed where nothing is said')
    .action(async (file: string, options: { out?: string }) => {
      code = (await written()).upgrade(file, options.out);
    });
  program
    .command('schema')
    .description('prints the JSON Schema of rulesets')
    .argument('[file]', 'a ruleset: references are then to the ids that it has')
    .option('--out <file>', 'where to; printed where nothing is said')
    .action(async (file: string | undefined, options: { out?: string }) => {
      code = (await written()).schema(file, options.out);
    });
  program
    .command('run')
    .description('plays a script and prints what happens, as one JSON value a line')
    .argument('<file>', 'a ruleset, as JSON')
    .requiredOption('--script <file>', 'who sits where and does what when')
    .addOption(new Option('--until <time>', 'how long to play, such as 20s').argParser(time).makeOptionMandatory())
    .option('--seed <n>', 'the seed of all luck', seed, 1)
    .option('--every <time>', 'how often to sample the attributes of every seat', time)
    .option('--json', 'print JSON lines (otherwise sentences)')
    .action(async (file: string, options: { script: string; until: number; seed: number; every?: number; json?: boolean }) => {
      const { run } = await import('./run.js');
      code = run(file, options.script, options);
    });
  program
    .command('test')
    .description('runs the checks of a ruleset: exit code 0 where all hold, 1 where one fails, 2 where nothing could be run')
    .argument('<file>', 'a ruleset, as JSON')
    .option('--only <text>', 'the check of this id, or those with this in their label or group')
    .option('--seed <n>', 'this seed of all luck instead of each check’s own', seed)
    .option('--junit <file>', 'where to write the results as JUnit XML as well')
    .option('--json', 'results as one JSON list')
    .option('--coverage', 'which entries at least one check has run, and how many of their actions')
    .option('--watch', 'run them again whenever the file is saved')
    .option('--hunt <time>', 'search with the hunts for so long as well, all of them together, such as 60s', time)
    .action(
      async (
        file: string,
        options: {
          only?: string;
          seed?: number;
          junit?: string;
          json?: boolean;
          coverage?: boolean;
          watch?: boolean;
          hunt?: number;
        },
      ) => {
        const { test } = await import('./checks.js');
        code = await test(file, options);
      },
    );
  program
    .command('link')
    .description('prints a new link that signs in, once, to the server that runs here')
    .option('--socket <path>', 'the control socket of the server, where it is not that of the start command')
    .action(async (options: { socket?: string }) => {
      const { link } = await import('./link.js');
      code = await link(options.socket);
    });
  const database = () => new Option('--database <url>', 'which database, where it is neither that of DATABASE_URL nor that of npm start');
  program
    .command('backup')
    .description('writes a backup of all that the server keeps, or of one ruleset with its history and players')
    .argument('<file>', 'where to; only its owner can read it')
    .option('--ruleset <id>', 'this ruleset alone')
    .addOption(database())
    .action(async (file: string, options: { ruleset?: string; database?: string }) => {
      const { backup } = await import('./backup.js');
      code = await backup(file, options, load);
    });
  program
    .command('restore')
    .description('puts a backup back: all of it or nothing')
    .argument('<file>', 'what backup wrote')
    .option('--replace', 'a whole backup takes the place of all there is')
    .option('--copy', 'one ruleset goes beside the one that is there')
    .addOption(database())
    .action(async (file: string, options: { replace?: boolean; copy?: boolean; database?: string }) => {
      const { restore } = await import('./backup.js');
      code = await restore(file, options, load);
    });
  try {
    await program.parseAsync(args, { from: 'user' });
  } catch (error) {
    if (!(error instanceof CommanderError)) throw error;
    return error.exitCode === 0 ? 0 : 2;
  }
  return code;
}
