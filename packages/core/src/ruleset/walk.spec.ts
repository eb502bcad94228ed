import brinewick from '../testing/recorded/brinewick.json' with { type: 'json' };
import { compileRuleset, describeActions, didYouMean, nearest, pointer, registry, toMilliseconds, usesOf, walk } from '../index.js';

describe('A walk through a document', () => {
  const found = (document: unknown) => {
    const all: string[] = [];
    walk(registry().document, document, [], (mark, value, path) => all.push(`${mark.kind} ${pointer(path)} ${value}`));
    return all;
  };

  it('finds references and formulas wherever they stand', () => {
    const all = found(brinewick);
    for (const line of [
      'formula /attributes/0/refill/rate has(inBell) ? breathRate : -1.5',
      'reference /actors/0/speed finSpeed',
      'reference /actors/0/abilities/0 sonarPing',
      'reference /effects/0/modifiers/0/attribute finSpeed',
      'reference /abilities/0/then/0/effect marked',
      'formula /pickups/2/who oxygen < lungCapacity',
      'reference /arena/starts/0/team petrel',
    ])
      expect(all).withContext(line).toContain(line);
  });

  it('passes over what has another shape', () => {
    for (const odd of [
      null,
      3,
      [],
      { attributes: 3 },
      { effects: [null, 4, { modifiers: 'x' }] },
      { arena: [] },
      { abilities: [{ then: [{ do: 5 }] }] },
    ])
      expect(() => found(odd)).not.toThrow();
  });
});

describe('Uses', () => {
  const rules = compileRuleset(brinewick);
  it('of statuses and effects are found in formulas and actions', () => {
    expect(usesOf(rules, 'statuses', 'inBell').map((use) => use.id)).toEqual([
      'oxygen',
      'divingBell',
      'divingBell',
      'outOfAir',
      'outOfAir',
    ]);
    expect(usesOf(rules, 'effects', 'slipstream').map((use) => use.id)).toEqual(['slipstreamPod']);
    expect(
      usesOf(rules, 'pickups', 'copperToken').every(
        (use) => ['kelpBed', 'quietHull'].includes(use.id ?? '') || use.path.startsWith('/arena/placed/'),
      ),
    ).toBeTrue();
    expect(usesOf(rules, 'effects', 'nothing')).toEqual([]);
  });
});

describe('Actions', () => {
  it('describe themselves for specs: a sentence, and what goes where', () => {
    const apply = describeActions().find((action) => action.do === 'apply')!;
    expect(apply.sentence).toBe('apply {effect} to {to}');
    expect(apply.args).toEqual([{ name: 'effect', optional: false, kind: 'reference', chapter: 'effects' }]);
    const spawn = describeActions().find((action) => action.do === 'spawn')!;
    expect(spawn.args.map(({ name, optional, kind }) => [name, optional, kind])).toEqual([
      ['pickup', false, 'reference'],
      ['x', true, 'number'],
      ['y', true, 'number'],
    ]);
  });

  it('name every argument that has to be given in their sentence', () => {
    for (const { do: name, sentence, args } of describeActions())
      for (const arg of args) if (!arg.optional) expect(sentence).withContext(name).toContain(`{${arg.name}}`);
  });
});

describe('Suggestions', () => {
  it('are near, or none', () => {
    const known = ['finSpeed', 'torchPower', 'suit'];
    expect(nearest('finspede', known)).toBe('finSpeed');
    expect(nearest('siut', known)).toBe('suit');
    expect(nearest('oxygen', known)).toBeUndefined();
    expect(didYouMean('tochPower', known)).toBe(' Did you mean torchPower?');
    expect(didYouMean('', known)).toBe('');
  });
});

describe('Paths and times', () => {
  it('are written by their standards', () => {
    expect(pointer([])).toBe('');
    expect(pointer(['a/b', 0, 'c~d'])).toBe('/a~1b/0/c~0d');
    expect([toMilliseconds('1.5s'), toMilliseconds('250ms')]).toEqual([1500, 250]);
    expect(() => toMilliseconds('soon')).toThrowError(RangeError);
  });
});
