import barb from '../testing/version-1/barb.json' with { type: 'json' };
import branches from '../testing/version-1/branches.json' with { type: 'json' };
import brinewick from '../testing/version-1/brinewick.json' with { type: 'json' };
import chances from '../testing/version-1/chances.json' with { type: 'json' };
import leech from '../testing/version-1/leech.json' with { type: 'json' };
import toll from '../testing/version-1/toll.json' with { type: 'json' };
import { compileRuleset, readRuleset, upgradeDocument, VERSION } from '../index.js';
import { ask, fight } from '../testing/fights.js';
import { join, Trial } from '../testing/rulesets.js';

/** Suit, stamina and scrip of who used it three times and of who was hit, as the version that they were written in played them. */
const PLAYED: readonly (readonly [string, unknown, readonly number[]])[] = [
  ['leech', leech, [72, 20, 0, 30, 20, 0]],
  ['branches', branches, [60, 26, 16, 50, 20, 0]],
  ['chances', chances, [60, 15, 10, 60, 20, 0]],
  ['barb', barb, [60, 41, 0, 42, 20, 0]],
  ['toll', toll, [63, 5, 9, 42, 20, 0]],
];

/** Where two documents differ. */
function differences(one: unknown, other: unknown, path = ''): readonly string[] {
  if (JSON.stringify(one) === JSON.stringify(other)) return [];
  if (typeof one !== 'object' || typeof other !== 'object' || one === null || other === null) return [`${path} ${JSON.stringify(other)}`];
  const keys = new Set([...Object.keys(one), ...Object.keys(other)]);
  return [...keys].flatMap((key) =>
    differences((one as Record<string, unknown>)[key], (other as Record<string, unknown>)[key], `${path}/${key}`),
  );
}

describe('A document of version 1', () => {
  for (const [name, document, values] of PLAYED)
    it(`such as ${name} plays as it did`, () => {
      const trial = new Trial(compileRuleset(document), [join('north', { team: 'petrel' }), join('south', { team: 'gannet' })]);
      const target = trial.world.actors.rowOf(trial.actor('south'));
      for (let use = 0; use < 3; use++) {
        trial.step({ kind: 'input', args: { seat: 'north', input: { do: 'use', ability: 'bite', x: 150, y: 100, target } } });
        trial.run(0.5);
      }
      const now = ['north', 'south'].flatMap((seat) => ['suit', 'stamina', 'scrip'].map((id) => trial.value(id, seat)));
      expect(now).toEqual([...values]);
    });

  it('says after its upgrade for whom is what said nothing, and nothing else', () => {
    for (const [name, document] of [...PLAYED, ['brinewick', brinewick] as const]) {
      const upgraded = upgradeDocument(document);
      const [version, ...more] = differences(document, upgraded);
      expect(version).toBe(`/version ${VERSION}`);
      for (const place of more)
        expect(place)
          .withContext(name)
          .toMatch(
            /^\/(abilities\/\d+\/on(Hit|Miss)\/.*\/to "self"|(pickups|arena\/placed)\/\d+\/(with\/)?drawn "taking"|.*\/meanwhile "dropped"|quests\/\d+\/record "own")$/,
          );
      expect(upgradeDocument(upgraded)).toBe(upgraded);
      expect(readRuleset(document).problems).toEqual([]);
    }
    expect(differences(branches, upgradeDocument(branches)).length).toBe(5);
  });

  it('that is none is left as it is, and told of', () => {
    for (const odd of [undefined, null, 3, 'text', [], {}, { version: 1, abilities: 3 }, { version: 1, abilities: [null, { onHit: 3 }] }])
      expect(() => readRuleset(odd)).not.toThrow();
    expect(upgradeDocument({ version: '1' })).toEqual({ version: '1' });
    const { problems } = readRuleset({ format: 'eager-ember/ruleset', version: 3, name: 'Later' });
    expect(problems.map(({ path }) => path)).toEqual(['/version']);
    expect(
      readRuleset({ format: 'eager-ember/ruleset', version: 1, name: 'Bad', abilities: [{ id: 'x', label: 'X', onHit: [{ do: 'nix' }] }] })
        .problems[0].path,
    ).toBe('/abilities/0/onHit/0/do');
  });
});

describe('What follows from a hit', () => {
  it('is for whom was hit where nothing is said, in its branches too', () => {
    const hurt = (amount: number) => ({ do: 'hurt', attribute: 'suit', amount });
    const trial = fight({
      target: { at: 'actor', range: 200 },
      onHit: [
        hurt(10),
        { do: 'when', if: 'target.suit < 95', then: [hurt(1), { do: 'wait', for: '50ms' }, hurt(2)] },
        { do: 'pick', among: [{ weight: 1, then: [hurt(4)] }] },
        { ...hurt(20), to: 'self' },
        { do: 'trade', to: 'self', pays: [{ attribute: 'stamina', amount: 5 }], then: [hurt(30)] },
      ],
    });
    ask(trial, { target: trial.world.actors.rowOf(trial.actor('south')) });
    trial.run(0.2);
    expect([trial.value('suit'), trial.value('suit', 'south')]).toEqual([50, 83]);
  });
});
