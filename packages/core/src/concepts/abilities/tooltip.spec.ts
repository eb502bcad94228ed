import { abilitiesNow, renameEntry, wrapText } from '../../index.js';
import { FIGHT, fight } from '../../testing/fights.js';

const tooltip = { text: 'Takes {ability.cast} s, burns for {suit / 4}.', width: 20, lines: 3 };
const effects = [{ id: 'haste', label: 'Haste', lasts: '5s', modifiers: [{ attribute: 'handling', operation: 'times', amount: 2 }] }];
const torch = { cast: { time: '1.8s', haste: 'handling' }, cooldown: '3s', costs: [{ attribute: 'stamina', amount: 25 }], tooltip };

describe('A tooltip', () => {
  it('tells today’s numbers of its bearer, and others when they change', () => {
    const trial = fight(torch, { effects });
    const now = () => abilitiesNow(trial.world, trial.actor())[0];
    expect(now().lines).toEqual(['Takes 1.8 s, burns', 'for 25.']);
    trial.poke({ do: 'apply', effect: 'haste' });
    trial.poke({ do: 'set', attribute: 'suit', value: 50 });
    expect(now().lines.join(' ')).toBe('Takes 0.9 s, burns for 12.5.');
    expect(now().numbers).toEqual({ cast: 0.9, cooldown: 3, recovery: 0, channel: 0, range: 0, stored: 0 });
    expect(now().refusal).toBeUndefined();
    trial.poke({ do: 'set', attribute: 'stamina', value: 3 });
    expect(now().refusal).toBe('Torch needs 25 stamina, and you have 3.');
  });

  it('asks nothing of luck, and moves nothing', () => {
    const trial = fight(torch);
    const before = trial.world.hash();
    abilitiesNow(trial.world, trial.actor());
    expect(trial.world.hash()).toBe(before);
  });

  it('is rewritten when what it speaks of is renamed', () => {
    const { rules } = fight(torch);
    const { patch } = renameEntry(rules, 'attributes', 'suit', 'armour');
    expect(patch).toContain({ op: 'replace', path: '/abilities/0/tooltip/text', value: 'Takes {ability.cast} s, burns for {armour / 4}.' });
  });

  it('is of nobody who has gone', () => {
    expect(abilitiesNow(fight(torch, { attributes: FIGHT.attributes }).world, 0)).toEqual([]);
  });
});

describe('Text in a box', () => {
  it('breaks between words, and within one that is longer than a line', () => {
    expect(wrapText('one two three', 7)).toEqual(['one two', 'three']);
    expect(wrapText('one two three', 6)).toEqual(['one', 'two', 'three']);
    expect(wrapText('abcdefghij k', 4)).toEqual(['abcd', 'efgh', 'ij k']);
    expect(wrapText('a\nb', 9)).toEqual(['a', 'b']);
    expect(wrapText('', 9)).toEqual(['']);
  });
});
