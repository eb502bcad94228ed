import { checkAction, compileRuleset, readRuleset } from '../../index.js';
import { counter, pool, poke, rulesetWith, stat, Trial } from '../../testing/rulesets.js';

const problems = (parts: Record<string, unknown>) =>
  readRuleset(rulesetWith(parts)).problems.map(({ path, message }) => `${path}: ${message}`);
const pickup = (action: Record<string, unknown>) => ({ pickups: [{ id: 'pod', label: 'Pod', then: [action] }] });
const ONE_LESS = [{ id: 'diver', label: 'Diver', kind: 'player', attributes: [{ attribute: 'suit' }] }];

describe('An action on an attribute', () => {
  it('that is a stat is refused where it would move it for ever', () => {
    for (const [how, kind] of [
      ['heal', 'stat'],
      ['hurt', 'stat'],
      ['give', 'stat'],
      ['take', 'stat'],
    ]) {
      const [problem, ...more] = problems({
        attributes: [stat('finSpeed', 100)],
        ...pickup({ do: how, attribute: 'finSpeed', amount: 5 }),
      });
      expect(more).toEqual([]);
      expect(problem).toContain(`/pickups/0/then/0/attribute: finSpeed is a ${kind}`);
      expect(problem).toContain(`${how} is for pools and counters`);
    }
    const rules = compileRuleset(rulesetWith({ attributes: [stat('finSpeed', 100), pool('suit'), counter('scrip')] }));
    expect(checkAction(rules, { do: 'heal', attribute: 'finSpeed', amount: 5 }).problems.map(({ path }) => path)).toEqual(['/attribute']);
    for (const attribute of ['suit', 'scrip'])
      expect(checkAction(rules, { do: 'give', attribute, amount: 5 }).problems)
        .withContext(attribute)
        .toEqual([]);
    expect(checkAction(rules, { do: 'set', attribute: 'finSpeed', value: 5 }).problems).toEqual([]);
  });

  it('that its actor does not have changes nothing, and says who lacks what', () => {
    const trial = Trial.of({ attributes: [pool('suit'), counter('scrip')], actors: ONE_LESS });
    for (const how of ['hurt', 'heal', 'give', 'take', 'set']) {
      const events = trial.poke({ do: how, attribute: 'scrip', [how === 'set' ? 'value' : 'amount']: 3 });
      expect(
        events.filter(({ name }) => name !== 'poked').map(({ name, who, data }) => [name, who, data['attribute'], data['how']]),
      ).toEqual([['attributeLacking', 'north', 'scrip', how]]);
    }
    expect(trial.step(poke('north', { do: 'hurt', attribute: 'scrip', amount: 0 })).map(({ name }) => name)).toEqual(['poked']);
  });
});

describe('An actor', () => {
  it('has what the bounds and starts of what it has follow from', () => {
    const attributes = [pool('suit', { max: 'hull * 2' }), stat('hull', 50)];
    expect(problems({ attributes, actors: ONE_LESS })).toEqual([
      '/actors/0/attributes/0/attribute: Diver has suit, whose maximum follows from hull, but not hull: it would be 0. Add hull to its attributes.',
    ]);
    expect(problems({ attributes })).toEqual([]);
    expect(problems({ attributes: [pool('suit', { min: 'hull', max: 100 }), attributes[1]], actors: ONE_LESS })[0]).toContain(
      'whose minimum',
    );
    expect(problems({ attributes: [pool('suit', { start: 'hull' }), attributes[1]], actors: ONE_LESS })[0]).toContain('whose start');
    const owns = [{ ...ONE_LESS[0], attributes: [{ attribute: 'suit', start: 40 }] }];
    expect(problems({ attributes: [pool('suit', { start: 'hull' }), attributes[1]], actors: owns })).toEqual([]);
  });

  it('that is placed begins within the bounds of what it has', () => {
    const place = (starts: unknown[]) =>
      problems({
        attributes: [pool('suit', { max: 'hull', min: -10, whole: true }), stat('hull', 50), counter('scrip')],
        actors: [
          { id: 'diver', label: 'Diver', kind: 'player', attributes: [{ attribute: 'suit' }, { attribute: 'hull' }] },
          {
            id: 'eel',
            label: 'Eel',
            kind: 'foe',
            attributes: [
              { attribute: 'suit', start: 7 },
              { attribute: 'hull', start: 20 },
            ],
          },
        ],
        arena: { placed: [{ actor: 'eel', x: 100, y: 100, with: { starts } }] },
      });
    const at = '/arena/placed/0/with/starts/0';
    expect(place([{ attribute: 'suit', start: 20 }])).toEqual([]);
    expect(place([{ attribute: 'suit', start: 'full' }])).toEqual([]);
    expect(place([{ attribute: 'suit', start: 21 }])).toEqual([`${at}/start: The start 21 is above the maximum 20.`]);
    expect(place([{ attribute: 'suit', start: -11 }])).toEqual([`${at}/start: The start -11 is below the minimum -10.`]);
    expect(place([{ attribute: 'suit', start: 2.5 }])).toEqual([`${at}/start: suit is a whole number, and 2.5 is not.`]);
    expect(place([{ attribute: 'suit', start: { random: [3, 30], whole: true } }])).toEqual([
      `${at}/start: The start 30 is above the maximum 20.`,
    ]);
    expect(place([{ attribute: 'scrip', start: 1 }])).toEqual([
      `${at}/attribute: Eel does not have scrip: add it to its attributes, or take this out.`,
    ]);
  });
});
