import brinewick from '../testing/recorded/brinewick.json' with { type: 'json' };
import { compileRuleset, encodeMessage, encodeWelcome, wireSchemaOf } from '../index.js';

describe('A welcome', () => {
  const rules = compileRuleset(brinewick);
  const others = compileRuleset({
    ...brinewick,
    attributes: brinewick.attributes.map((entry) => ({ ...entry, label: `My ${entry.label}` })),
  });
  const welcome = { room: 'slate-heron', ruleset: 'Brinewick', revision: 3, speed: 1 as const, seats: [{ name: 'north', driven: true }] };

  it('is the same bytes as any message, however often it is sent, for each ruleset and for who may see all of it', () => {
    for (let n = 0; n < 2; n++)
      for (const own of [rules, others])
        for (const truth of [true, false]) {
          const { room, ruleset, revision, speed, seats } = welcome;
          expect(encodeWelcome(welcome, own, truth)).toEqual(
            encodeMessage({ t: 'welcome', room, ruleset, revision, speed, seats, schema: wireSchemaOf(own, truth) }),
          );
        }
    const seated = { ...welcome, seat: 'north', row: 3 };
    expect(encodeWelcome(seated, rules, false)).toEqual(encodeMessage({ t: 'welcome', ...seated, schema: wireSchemaOf(rules) }));
  });
});
