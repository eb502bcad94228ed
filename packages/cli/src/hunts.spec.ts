import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { CheckSession, compileRuleset, type Found, huntsOf, Search } from '@eager-ember/core';

const ROOT = fileURLToPath(new URL('../../..', import.meta.url));
const BIN = join(ROOT, 'packages/cli/bin/ember.cjs');

type Entry = Record<string, unknown> & { readonly id: string };
type Document = Record<string, Entry[]>;
const demo = () => JSON.parse(readFileSync(join(ROOT, 'examples/brinewick.json'), 'utf8')) as Document;
const entry = (document: Document, chapter: string, id: string) => document[chapter].find((one) => one.id === id)!;

/** Most stories that a fault may take to be found: a minute finds as many several times over. */
const MOST_STORIES = 120;
const MOST_STEPS = 5;

/** Searches with one hunt of a copy of the demo that has a hole in it. */
function searched(hunt: string, plant: (document: Document) => void): { readonly found: Found | undefined; readonly document: Document } {
  const document = demo();
  plant(document);
  const rules = compileRuleset(document);
  const search = new Search(
    rules,
    huntsOf(rules).find(({ id }) => id === hunt)!,
  );
  let go = search.go(0, MOST_STORIES);
  while (go.shrinking !== undefined) go = search.go(MOST_STORIES, 1000);
  return { found: go.found, document };
}

describe('The demo’s hunts', () => {
  const reaction = (id: string, on: Record<string, unknown>, amount: number | string) => ({
    id,
    label: id,
    on,
    then: [{ do: 'give', attribute: 'scrip', amount }],
  });
  const faults: readonly {
    readonly what: string;
    readonly hunt: string;
    readonly plant: (document: Document) => void;
    readonly says: RegExp;
  }[] = [
    {
      what: 'money that doubles as somebody comes back',
      hunt: 'noScripFromNowhere',
      plant: (document) => document['reactions'].push(reaction('backPay', { on: 'seatTaken' }, 'scrip')),
      says: /scrip in by backpay, which is no source of it/,
    },
    {
      what: 'money that comes with the end of a day',
      hunt: 'noScripFromNowhere',
      plant: (document) => document['reactions'].push(reaction('tip', { on: 'dayEnded', where: 'brassFittings >= 1' }, 5)),
      says: /5 scrip in by tip, which is no source of it/,
    },
    {
      what: 'a reward that is paid again on a return',
      hunt: 'noScripFromNowhere',
      plant: (document) => document['reactions'].push(reaction('welcomeBack', { on: 'seatTaken', where: 'done(firstDescent)' }, 10)),
      says: /10 scrip in by welcomeback, which is no source of it/,
    },
    {
      what: 'a bound that an effect’s end passes',
      hunt: 'noPoolLeavesItsBounds',
      plant: (document) => {
        delete entry(document, 'attributes', 'stamina')['max'];
        entry(document, 'effects', 'slipstream')['onEnd'] = [{ then: [{ do: 'give', attribute: 'stamina', amount: 15 }] }];
      },
      says: /stamina is 1\d\d(\.\d+)?, not between 0 and 100/,
    },
    {
      what: 'a state that nothing leaves',
      hunt: 'noPoolLeavesItsBounds',
      plant: (document) => {
        document['states'] = [{ id: 'snagged', label: 'Snagged' }];
        (entry(document, 'abilities', 'maw')['onHit'] as object[]).push({ do: 'enter', state: 'snagged', to: 'target' });
      },
      says: /is in Snagged, and nothing leads out of it/,
    },
    {
      what: 'a value that is told to the other crew',
      hunt: 'noPoolLeavesItsBounds',
      plant: (document) => (entry(document, 'attributes', 'oxygen')['see'] = 'everyone'),
      says: /north is told oxygen of east/,
    },
  ];

  for (const { what, hunt, plant, says } of faults)
    it(`find ${what}, and tell it in a few steps`, () => {
      const { found, document } = searched(hunt, plant);
      expect(found?.says).toMatch(says);
      expect(found?.after).toBeLessThanOrEqual(MOST_STEPS);
      // As a check it fails for the same reason.
      const rules = compileRuleset({ ...document, checks: [{ id: 'found', label: 'Found', ...found!.check }] });
      const [check] = rules.document['checks'] as never[];
      expect(new CheckSession(rules).runNow(check).outcomes.flatMap(({ failure }) => failure?.says ?? [])).toEqual([found!.says]);
    });
});

describe('ember test --hunt', () => {
  let folder: string;
  beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'ember-hunts-'))));
  afterAll(() => rmSync(folder, { recursive: true }));

  const ember = (...args: string[]) => spawnSync(process.execPath, [BIN, 'test', ...args], { encoding: 'utf8' });
  const coins = { id: 'coins', label: 'Coins', kind: 'counter', start: 10 };
  const written = (more: Record<string, unknown>, hunt: Record<string, unknown> = {}) => {
    const file = join(folder, 'quay.json');
    const ruleset = {
      format: 'eager-ember/ruleset',
      version: 2,
      name: 'Quay',
      attributes: [coins],
      actors: [{ id: 'keeper', label: 'Keeper', kind: 'player', attributes: [{ attribute: 'coins' }] }],
      hunts: [
        {
          id: 'coinsStay',
          label: 'Coins stay',
          given: [{ name: 'ada' }, { name: 'bo' }],
          may: [{ leaves: 'everyone' }, { input: 'move' }],
          always: [{ conserved: 'coins' }],
          ...hunt,
        },
      ],
      ...more,
    };
    writeFileSync(file, JSON.stringify(ruleset));
    return file;
  };
  const hole = {
    reactions: [{ id: 'gift', label: 'Gift', on: { on: 'seatTaken' }, then: [{ do: 'give', attribute: 'coins', amount: 1 }] }],
  };

  it('says how far it looked where it finds nothing', () => {
    const { status, stdout } = ember(written({}), '--hunt', '1s');
    expect(stdout).toMatch(/^Hunts\n {2}holds {2}Coins stay: \d+ stor(y|ies), \d+ ticks, \d+ a second and thread\n1 hunt holds, 0 fail\n$/);
    expect(status).toBe(0);
  });

  it('tells the shortest story of what it finds, also for build servers, and ends with 1', () => {
    const report = join(folder, 'report.xml');
    const { status, stdout } = ember(written(hole), '--hunt', '20s', '--junit', report);
    expect(stdout).toMatch(/FAILS {2}Coins stay \(coinsStay\): /);
    expect(stdout).toMatch(/1 coins in by gift, which is no source of it\./);
    expect(stdout).toMatch(/steps made into 2:\n *1\. \w+ leaves\n *2\. \w+ comes back\n/);
    expect(status).toBe(1);
    expect(readFileSync(report, 'utf8')).toContain('<testsuite name="Hunts" tests="1" failures="1"');
    const [result] = JSON.parse(ember(written(hole), '--hunt', '20s', '--json').stdout) as { id: string; ok: boolean; found: Found }[];
    expect([result.id, result.ok, result.found.after]).toEqual(['coinsStay', false, 2]);
  });

  it('says what can’t be searched, at its place', () => {
    const { status, stdout } = ember(written({}, { may: [] }), '--hunt', '1s');
    expect(stdout).toContain('may: Nothing may happen in this hunt: say what seats may do.');
    expect(status).toBe(1);
    expect(ember(written({}), '--hunt', '1s', '--watch')).toEqual(
      jasmine.objectContaining({ status: 2, stderr: 'A hunt takes its time: leave out --watch, or --hunt.\n' }),
    );
    expect(ember(written({}), '--hunt', '1s', '--only', 'gulls').stderr).toContain('has no check or hunt that is called gulls');
    expect(ember(written({}), '--hunt', 'soon').status).toBe(2);
  });
});
