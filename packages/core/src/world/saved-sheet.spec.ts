import brinewick from '../testing/recorded/brinewick.json' with { type: 'json' };
import { compileRuleset, renameEntry, type Rules, savedProblems, type SavedPlayer, sheetOf, Upgrade } from '../index.js';
import { join, Trial } from '../testing/rulesets.js';
import { savePlayer } from './saved.js';

type Json = Record<string, unknown>;
const rules = compileRuleset(brinewick);
const edited = (change: (document: Record<string, Json[]>) => void): Rules => {
  const document = structuredClone(brinewick) as unknown as Record<string, Json[]>;
  change(document);
  return compileRuleset(document);
};

/** A player of the demo with something of everything. */
function grown(): SavedPlayer {
  const trial = new Trial(rules, [join('north')]);
  for (const action of [
    { do: 'award', track: 'standing', amount: 5000 },
    { do: 'give', attribute: 'scrip', amount: 12 },
    { do: 'unlock', achievement: 'firstBlood' },
    { do: 'startQuest', quest: 'theManifest' },
  ])
    trial.poke(action);
  for (const node of ['deepBreath', 'deepBreath', 'calm'])
    trial.step({ kind: 'input', args: { seat: 'north', input: { do: 'learn', tree: 'diversTrade', node } } });
  return savePlayer(trial.world, trial.world.actors.rowOf(trial.actor()));
}

const saved = grown();
const withCell = (table: string, column: string, value: unknown) => ({ ...saved, [table]: { ...saved[table], [column]: value } });
const wrong = (value: unknown, strict = true) => savedProblems(rules, value, strict).map(({ path }) => path);

describe('What is kept of a player', () => {
  it('reads as a sheet: in the words of the rules, part by part', () => {
    const { parts, unplaced } = sheetOf(rules, { ...saved, quests: { ...saved['quests'], 'gone.times': 3 } });
    expect(parts.map(({ title }) => title)).toEqual(['Stats', 'Luck', 'Money', 'Purchases', 'Levels', 'Skills', 'Quests', 'Achievements']);
    const row = (table: string, column: string) => parts.find((part) => part.table === table)!.values.find((one) => one.column === column);
    expect(row('tracks', 'standing.level')).toEqual(jasmine.objectContaining({ label: 'Standing, level', range: [1, 20], whole: true }));
    expect(row('quests', 'theManifest')).toEqual(jasmine.objectContaining({ label: 'The Manifest', value: 1 }));
    expect(row('quests', 'theManifest')!.words![1]).toBe('on it');
    expect(row('trees', 'diversTrade.deepBreath.rank')).toEqual(jasmine.objectContaining({ value: 2 }));
    expect(unplaced).toEqual([{ table: 'quests', column: 'gone.times', value: 3 }]);
  });

  it('is sound as it was kept, and read under the names that its entries had before', () => {
    expect(wrong(saved)).toEqual([]);
    const { patch } = renameEntry(rules, 'tracks', 'standing', 'repute');
    const renamed = edited((document) => {
      for (const operation of patch!) {
        const { path, op, value } = operation as { path: string; op: string; value?: unknown };
        const keys = path.slice(1).split('/');
        const holder = keys.slice(0, -1).reduce((at, key) => (at as unknown as Json)[key] as never, document) as unknown as Json;
        if (op !== 'remove') holder[keys.at(-1)!] = value;
      }
    });
    expect(sheetOf(renamed, saved).parts.find(({ table }) => table === 'tracks')!.values[1]).toEqual(
      jasmine.objectContaining({ column: 'repute.level', value: saved['tracks']['standing.level'] }),
    );
    expect(new Upgrade(rules, renamed).lossesOf(saved)).toEqual([]);
  });

  it('is refused where it has more than the rules give, and says where', () => {
    expect(wrong([])).toEqual(['']);
    expect(wrong(withCell('tracks', 'standing.level', 'ten'))).toEqual(['/tracks/standing.level']);
    expect(wrong(withCell('tracks', 'standing.level', 2.5))).toEqual(['/tracks/standing.level']);
    expect(wrong(withCell('tracks', 'standing.level', 99))).toEqual(['/tracks/standing.level']);
    expect(wrong(withCell('achievements', 'firstBlood.done', 2))).toEqual(['/achievements/firstBlood.done']);
    expect(wrong(withCell('quests', 'theManifest', 12))).toEqual(['/quests/theManifest']);
    expect(wrong(withCell('attributes', 'scrip', Number.NaN))).toEqual(['/attributes/scrip']);
    expect(wrong(withCell('trees', 'diversTrade.salvor.rank', 1))).toEqual(['/trees/diversTrade.spent']);
    const withSalvor = withCell('trees', 'diversTrade.salvor.rank', 1);
    delete (withSalvor['trees'] as Json)['diversTrade.spent'];
    expect(wrong(withSalvor)).toEqual(['/trees/diversTrade.salvor.rank']);
    expect(wrong(withCell('trees', 'diversTrade', 1))).toEqual(['/trees/diversTrade']);
  });

  it('that an edit has put out of range is not spoiled; what is of another kind is', () => {
    expect(wrong(withCell('tracks', 'standing.level', 99), false)).toEqual([]);
    expect(wrong(withCell('tracks', 'standing.level', 'ten'), false)).toEqual(['/tracks/standing.level']);
    expect(wrong({ ...saved, of: { something: 'else' } })).toEqual([]);
  });
});

describe('An upgrade', () => {
  it('says what a player would lose: what is deleted, levels above the top, points of a node that goes', () => {
    const losses = (change: (document: Record<string, Json[]>) => void) =>
      new Upgrade(rules, edited(change)).lossesOf(saved).map(({ label, had, has }) => `${label} ${had} ${has ?? '–'}`);
    expect(losses(() => undefined)).toEqual([]);
    expect(losses((document) => (document['tracks'][0]['label'] = 'Repute'))).toEqual([]);
    expect(losses((document) => (document['attributes'][0]['refill'] = { rate: -5 }))).toEqual([]);
    expect(losses((document) => (document['tracks'][0]['levels'] = 5))).toContain(`Standing, level ${saved['tracks']['standing.level']} 5`);
    expect(losses((document) => document['achievements'].shift())).toEqual(['First fall, counted 1 –', 'First fall 1 –']);
    const withoutCalm = losses((document) => {
      const [tree] = document['trees'] as unknown as { nodes: { id: string; needs?: unknown }[] }[];
      tree.nodes = tree.nodes.filter(({ id }) => id !== 'calm').map(({ needs: _needs, ...node }) => node);
      (tree as unknown as Json)['exclusive'] = [];
    });
    expect(withoutCalm).toContain('Calm, ranks 1 –');
    expect(losses((document) => (document['actors'] = document['actors'].filter(({ kind }) => kind !== 'player')))).not.toEqual([]);
  });
});
