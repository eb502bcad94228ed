import brinewick from '../../testing/recorded/brinewick.json' with { type: 'json' };
import {
  abilityEvidence,
  actorEvidence,
  abilitySweep,
  attributeEvidence,
  compileRuleset,
  effectEvidence,
  evidenceCsv,
  followEvidence,
} from '../../index.js';
import { pool, rulesetWith, stat } from '../../testing/rulesets.js';

const rules = compileRuleset(brinewick);
const withAbility = (id: string, more: Record<string, unknown>) =>
  compileRuleset({
    ...brinewick,
    abilities: brinewick.abilities.map((ability) => (ability.id === id ? { ...ability, ...more } : ability)),
  });

describe('Evidence', () => {
  it('of oxygen shows its drain, and its refill while in the bell', () => {
    const { series, spans, facts, actor } = attributeEvidence(rules, 'oxygen');
    const at = (seconds: number) => series[0].values[seconds * 20 - 1];
    expect(actor).toBe('Diver');
    expect(spans).toEqual([{ from: 20, to: 34, label: 'In bell', kind: 'status' }]);
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

  it('of an ability counts its uses, and how long lies between them', () => {
    const { facts, series } = abilityEvidence(rules, 'sonarPing');
    expect(facts.map(({ value }) => value)).toEqual(['8', '8 s', '10 stamina, at once']);
    expect(series[0].id).toBe('stamina');
  });

  it('of an ability with a cast shows its parts, and what is paid when', () => {
    const evidence = (charge: string) => abilityEvidence(withAbility('cuttingTorch', { charge }), 'cuttingTorch');
    const finish = evidence('onFinish');
    expect(finish.spans.slice(0, 3).map(({ kind, from, to }) => [kind, Number((to - from).toFixed(2))])).toEqual([
      ['cast', 1.8],
      ['recovery', 0.6],
      ['cooldown', 2],
    ]);
    const fact = ({ facts }: typeof finish, label: string) => facts.find((f) => f.label === label)!.value;
    expect(fact(finish, 'Paid')).toBe('25 stamina, after 1.8 s, when the cast is over');
    expect(fact(finish, 'Broken half-way')).toBe('nothing is lost');
    const start = evidence('onStart');
    expect(fact(start, 'Paid')).toBe('25 stamina, when the cast begins');
    expect(fact(start, 'Broken half-way')).toBe('25 stamina and the cooldown lost');
    expect(Number(fact(finish, 'Damage a minute, on one lamprey'))).toBeGreaterThan(0);
  });

  it('of an ability fills its tooltip with today’s numbers', () => {
    expect(abilityEvidence(rules, 'cuttingTorch').tooltip).toEqual({
      lines: ['After 1.8 s five sparks fly, each', 'of which burns for 18. Stand', 'still, and keep clear of harm.'],
      width: 34,
      most: 4,
    });
  });

  it('of an ability that refuses says why', () => {
    const never = abilityEvidence(withAbility('sonarPing', { requires: [{ if: 'oxygen > 500', says: 'Breathe more.' }] }), 'sonarPing');
    expect(never.facts.map(({ value }) => value)).toContain('Sonar ping: Breathe more.');
  });

  it('of an ability over the stat that hastens it rises with it, until what it costs holds it back', () => {
    const { stat: varied, points } = abilitySweep(rules, 'cuttingTorch')!;
    expect(varied).toBe('handling');
    expect(points.map(({ at }) => at)).toEqual([0.5, 0.75, 1, 1.25, 1.5, 1.75, 2]);
    expect([points[0].cast, points[2].cast, points[6].cast]).toEqual([3.6, 1.8, 0.9]);
    expect(points[6].uses).toBeGreaterThan(points[0].uses);
    expect(points[6].damage).toBeGreaterThan(points[0].damage);
    expect(abilitySweep(rules, 'depthCharge')).toBeUndefined();
  });

  it('of an actor leaves it to itself near somebody who stands still', () => {
    const { facts, series, moments } = actorEvidence(rules, 'lamprey');
    expect(series[0].values[0]).toBeGreaterThan(150);
    expect(Math.min(...series[0].values)).toBeLessThan(20);
    expect(facts[0]).toEqual({ label: 'First harm to a diver who stands 195 away', value: 'after 2.15 s' });
    expect(Number(facts[1].value)).toBeGreaterThan(300);
    expect(facts.at(-1)).toEqual({ label: 'Fin speed, as it appears', value: '95' });
    expect(moments.some(({ text }) => text.includes('uses bite'))).toBeTrue();
    expect(actorEvidence(rules, 'supplyCrate').facts).toEqual([]);
    expect(actorEvidence(rules, 'nobody').actor).toBeUndefined();
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
    const alone = compileRuleset({ ...brinewick, situations: [] });
    const { series, pins, facts, situation } = attributeEvidence(alone, 'suit');
    const at = (seconds: number) => series[0].values[seconds * 20 - 1];
    expect(pins).toEqual([{ t: 5, label: 'lose 50 suit' }]);
    expect(situation).toEqual({
      authored: false,
      seconds: 60,
      pins: [{ at: '5s', action: { do: 'hurt', attribute: 'suit', amount: 50 } }],
    });
    expect([at(4), at(6), at(8), at(12), at(30)]).toEqual([100, 50, 50, 66, 100]);
    expect(facts.find((f) => f.label === 'Full, from empty')!.value).toBe('28 s');
  });
});

describe('Evidence of a situation', () => {
  it('names what was lost over the top, under the bottom and by resistance', () => {
    const { pins, facts, seconds } = attributeEvidence(rules, 'suit');
    expect(seconds).toBe(40);
    expect(pins.map((pin) => pin.lost)).toEqual([undefined, undefined, undefined, undefined, undefined, '90 over-heal lost']);
    expect(facts).toContain({ label: 'Over-heal, lost', value: '90' });
    expect(facts).toContain({ label: 'Kept off by its resistance', value: '20' });
    const winded = effectEvidence(rules, 'winded');
    expect(winded.pins[0].lost).toBe('2.92 overkill lost');
  });

  it('shows instances as they come and go in the world, with the reason', () => {
    const bubble = effectEvidence(rules, 'bubble').spans.filter((span) => span.kind === 'effect');
    expect(bubble).toEqual([{ from: 2, to: 6, label: 'Bubble', kind: 'effect', ended: 'used up' }]);
    const eyes = effectEvidence(rules, 'keenEye').spans.map(({ from, to }) => [from, to]);
    expect(eyes).toEqual([
      [2, 9],
      [4, 11],
      [6, 13],
    ]);
    expect(effectEvidence(rules, 'warmth').spans.map(({ from, to }) => [from, to])).toEqual([[2, 18]]);
  });

  it('compares the three ways in which a pool follows its maximum', () => {
    const moved = compileRuleset({
      ...brinewick,
      situations: [
        {
          id: 's',
          label: 'S',
          attribute: 'oxygen',
          pins: [
            { at: '2s', action: { do: 'set', attribute: 'oxygen', value: 45 } },
            { at: '4s', action: { do: 'set', attribute: 'lungCapacity', value: 'lungCapacity * 2' } },
          ],
        },
      ],
    });
    const { series } = followEvidence(moved, 'oxygen');
    expect(series.map((s) => [s.id, Math.round(s.values[4 * 20 - 1])])).toEqual([
      ['keep', 42],
      ['share', 84],
      ['along', 132],
    ]);
    expect(followEvidence(moved, 'finSpeed').series).toEqual([]);
  });

  it('can be taken away as a table', () => {
    const [head, first] = evidenceCsv(attributeEvidence(rules, 'oxygen')).split('\r\n');
    expect(head).toBe('seconds,oxygen');
    expect(first).toBe('0.05,89.925');
  });
});
