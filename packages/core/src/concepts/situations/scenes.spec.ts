import brinewick from '../../testing/recorded/brinewick.json' with { type: 'json' };
import {
  compileRuleset,
  containerEvidence,
  dialogueEvidence,
  type Evidence,
  interactionEvidence,
  pickupEvidence,
  reactionEvidence,
  spawnerEvidence,
  zoneEvidence,
} from '../../index.js';

const rules = compileRuleset(brinewick);
const fact = ({ facts }: Evidence, label: string) => facts.find((one) => one.label === label)?.value;

describe('A scene', () => {
  it('of a pickup says who may take it, what it is worth, and when it lies there', () => {
    const token = pickupEvidence(rules, 'copperToken');
    expect([fact(token, 'May take it'), fact(token, 'Once it is taken it is gone')]).toEqual(['Diver', 'for everybody']);
    expect(fact(token, 'Scrip, over 200 takes')).toMatch(/^1 to 5, on average (2\.[5-9]|3\.[0-5])/);
    expect(token.spans.map(({ from, to }) => [from, to])).toEqual([
      [0, 2],
      [14, 30],
    ]);
    expect(fact(pickupEvidence(rules, 'glowKelp'), 'Gone unclaimed after')).toBe('12 s');
    expect(fact(pickupEvidence(rules, 'manifestPage'), 'Once it is taken it is gone')).toBe('for its taker');
  });

  it('of a zone is entered and left', () => {
    const { spans, series } = zoneEvidence(rules, 'coldCurrent');
    expect(spans.map(({ from, to }) => [from, to])).toEqual([[2, 12]]);
    const [stamina] = series;
    expect([stamina.id, stamina.values[39], Math.min(...stamina.values) < 60]).toEqual(['stamina', 100, true]);
  });

  it('of an interaction is served, refused to the next, broken off, and too dear', () => {
    const rest = interactionEvidence(rules, 'rest');
    expect(fact(rest, 'A visit takes')).toBe('8 s');
    expect(fact(rest, 'Another who asks 1 s later')).toBe('reads “Rest and refill: busy with trial for another 7 s.”');
    expect(fact(rest, 'Who walks off after 4 s')).toBe('ends it at once; nothing is given back; no step follows');
    expect(fact(rest, 'Who has no scrip')).toBe('reads “Rest and refill: Forty scrip a night. The sea is free.”');
    expect(fact(interactionEvidence(rules, 'sellPearl'), 'Who walks off after 1.5 s')).toContain('1 tide-pearls given back');
  });

  it('of a dialogue is spoken line by line', () => {
    const { spans } = dialogueEvidence(rules, 'aboutTheWreck');
    expect(spans.map(({ label }) => label.split(':')[0])).toEqual(['Chart-keeper', 'other', 'Chart-keeper', 'Chart-keeper']);
  });

  it('of a container goes through its life, and says what is in many of its kind', () => {
    const crate = containerEvidence(rules, 'supplyCrate');
    expect(crate.spans.map(({ label }) => label).slice(0, 5)).toEqual(['closed', 'opening', 'open', 'closing', 'closed']);
    expect(fact(crate, 'Brass fittings')).toMatch(/^always; 1 to 3, on average (1\.[89]|2)/);
    const [, share] = /50 %, (\d+(?:\.\d+)?) % of 400 opened/.exec(fact(crate, 'Bubble soap')!)!;
    expect(Math.abs(Number(share) - 50)).toBeLessThan(8);
  });

  it('of a spawner counts what is there', () => {
    const nest = spawnerEvidence(rules, 'lampreyNest');
    expect([fact(nest, 'First after'), fact(nest, 'Most at once')]).toEqual(['5.95 s', '3']);
    expect(Math.max(...nest.series[0].values)).toBe(3);
    expect(fact(spawnerEvidence(rules, 'deepLight'), 'It makes something')).toContain('when its event happens');
  });

  it('of a reaction says how it is wired', () => {
    expect(fact(reactionEvidence(rules, 'firstInTheWreck'), 'Set off by')).toBe('The wreck');
  });

  it('of what is not there is empty', () => {
    for (const of of [
      pickupEvidence,
      zoneEvidence,
      interactionEvidence,
      dialogueEvidence,
      containerEvidence,
      spawnerEvidence,
      reactionEvidence,
    ])
      expect(of(rules, 'nothing').actor).toBeUndefined();
  });
});
