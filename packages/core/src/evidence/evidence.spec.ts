import brinewick from '../../../../examples/brinewick.json' with { type: 'json' };
import { abilityEvidence, attributeEvidence, compileRuleset, effectEvidence } from '../index.js';
import { pool, rulesetWith, stat } from '../testing/rulesets.js';

const rules = compileRuleset(brinewick);

describe('Evidence', () => {
  it('of oxygen shows its drain, and its refill while in the bell', () => {
    const { series, spans, facts, actor } = attributeEvidence(rules, 'oxygen');
    const at = (seconds: number) => series[0].values[seconds * 20 - 1];
    expect(actor).toBe('Diver');
    expect(spans).toEqual([{ from: 20, to: 34, label: 'In bell' }]);
    expect([at(10), at(19), at(30), at(44)].map((v) => Math.round(v))).toEqual([75, 62, 90, 75]);
    expect(facts).toContain({ label: 'Full, from empty, in bell', value: '6.45 s' });
    expect(facts).toContain({ label: 'Empty, from full', value: '60 s' });
  });

  it('of an effect shows both instances with their own ends', () => {
    const { series, spans, facts } = effectEvidence(rules, 'slipstream');
    expect(spans.map(({ from, to }) => [from, to])).toEqual([
      [2, 8],
      [4, 10],
    ]);
    expect(Math.max(...series[0].values)).toBe(216);
    expect(facts.map((f) => f.value)).toEqual(['120', '168', '216', '120']);
  });

  it('of an ability counts its uses in a minute', () => {
    const { facts } = abilityEvidence(rules, 'sonarPing');
    expect(facts[0]).toEqual({ label: 'Uses in a minute', value: '8' });
    expect(facts[1].value).toBe('8 s');
    expect(facts[2].value).toBe('Sonar ping is cooling down: ready in 7.8 s.');
  });

  it('of what nobody has is empty', () => {
    const lone = compileRuleset(
      rulesetWith({ attributes: [pool('suit'), stat('idle', 1)], actors: [{ id: 'diver', label: 'Diver', kind: 'player' }] }),
    );
    expect(attributeEvidence(lone, 'suit').actor).toBeUndefined();
    expect(attributeEvidence(lone, 'no such').series).toEqual([]);
  });
});

describe('Evidence of a pool that would stay full', () => {
  it('hurts it, so that its rest and refill are seen', () => {
    const { series, pins, facts } = attributeEvidence(rules, 'suit');
    const at = (seconds: number) => series[0].values[seconds * 20 - 1];
    expect(pins).toEqual([{ t: 5, label: 'lose 50 at 5 s' }]);
    expect([at(4), at(6), at(8), at(12), at(30)]).toEqual([100, 50, 50, 66, 100]);
    expect(facts.find((f) => f.label === 'Full, from empty')!.value).toBe('28 s');
  });
});
