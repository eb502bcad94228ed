import jsonPatch from 'fast-json-patch';
import { compileRuleset, findingsOf, readRuleset } from '../index.js';
import { pool, rulesetWith, stat } from '../testing/rulesets.js';

const effect = (id: string, more: Record<string, unknown>) => ({ id, label: id, lasts: '5s', ...more });
const lasting = (id: string, more: Record<string, unknown>) => ({ id, label: id, lifetime: 'lasting', ...more });
const modifier = (operation: string, amount: unknown, more = {}) => ({ attribute: 'speed', operation, amount, ...more });
const STATUSES = [{ id: 'held', label: 'Held' }];

function found(parts: Record<string, unknown>, kind?: string) {
  const document = rulesetWith({ attributes: [stat('speed', 1), stat('weight', 1), pool('suit')], statuses: STATUSES, ...parts });
  const findings = findingsOf(compileRuleset(document));
  return { document, findings: findings.filter((f) => (kind === undefined ? f.kind !== 'unused' : f.kind === kind)) };
}

/** Takes a finding's fix and expects the finding to be gone. */
function fixed(parts: Record<string, unknown>, kind: string) {
  const { document, findings } = found(parts, kind);
  const patch = structuredClone(findings[0].fix!.patch) as never;
  const mended = jsonPatch.applyPatch(structuredClone(document), patch, true).newDocument;
  expect(readRuleset(mended).problems).toEqual([]);
  expect(findingsOf(compileRuleset(mended)).filter((f) => f.kind === kind)).toEqual([]);
  return findings[0];
}

describe('A finding', () => {
  it('is a percent below -100, and a product of nothing', () => {
    expect(fixed({ effects: [effect('e', { modifiers: [modifier('percent', -140)] })] }, 'percentBelow').path).toBe(
      '/effects/0/modifiers/0/amount',
    );
    expect(fixed({ effects: [effect('e', { modifiers: [modifier('times', 0)] })] }, 'timesZero').message).toContain('Times 0');
    expect(found({ effects: [effect('e', { modifiers: [modifier('percent', -100), modifier('times', 0.1)] })] }).findings).toEqual([]);
  });

  it('is a bound that can pass the other', () => {
    const attributes = [pool('suit', { min: 5, max: 'rating' }), stat('rating', 100)];
    expect(fixed({ attributes }, 'crossingBounds').message).toContain('can fall to 0, below its minimum, which can be 5');
    expect(found({ attributes: [pool('suit', { max: 'rating' }), stat('rating', 100, { min: 1 })] }).findings).toEqual([]);
  });

  it('is an effect that nothing ends, or that keeps off what would', () => {
    // What everybody has from the start is meant to last.
    const passive = { id: 'diver', label: 'Diver', kind: 'player', onSpawn: [{ do: 'apply', effect: 'e' }] };
    expect(found({ effects: [lasting('e', {})], actors: [passive] }, 'neverEnds').findings).toEqual([]);
    expect(fixed({ effects: [lasting('e', {})] }, 'neverEnds').path).toBe('/effects/0/lifetime');
    const cure = (blocked: string[]) => ({
      id: 'cure',
      label: 'Cure',
      lifetime: 'instant',
      ends: { effects: ['e'] },
      blocked: { statuses: blocked },
    });
    expect(found({ effects: [lasting('e', { grants: ['held'] }), cure(['held'])] }).findings.map((f) => f.kind)).toEqual(['blocksRemoval']);
    expect(found({ effects: [lasting('e', { grants: ['held'] }), cure([])] }).findings).toEqual([]);
    const ended = {
      abilities: [{ id: 'shake', label: 'Shake', then: [{ do: 'when', if: 'speed > 0', then: [{ do: 'end', effect: 'e' }] }] }],
    };
    expect(found({ effects: [lasting('e', {})], ...ended }).findings).toEqual([]);
  });

  it('is two thresholds that trigger each other, also by way of an effect', () => {
    const heal = { do: 'heal', attribute: 'suit', amount: 50 };
    const hurt = { do: 'hurt', attribute: 'suit', amount: 50 };
    const both = (low: unknown, full: unknown) => [
      pool('suit', {
        thresholds: [
          { id: 'low', end: 'empty', enter: [low] },
          { id: 'top', end: 'full', enter: [full] },
        ],
      }),
    ];
    const { findings } = found({ attributes: both(heal, hurt) });
    expect(findings.map((f) => [f.kind, f.path])).toEqual([['thresholdLoop', '/attributes/0/thresholds/0/enter']]);
    const effects = [effect('e', { onStart: [hurt] })];
    expect(found({ attributes: both(heal, { do: 'apply', effect: 'e' }), effects }).findings.length).toBe(1);
    expect(found({ attributes: both(hurt, heal) }).findings).toEqual([]);
  });

  it('is a periodic effect that is faster than a tick', () => {
    const periodic = (every: string) => ({ effects: [effect('e', { periodic: { every, then: [{ do: 'flourish', text: 'Tick' }] } })] });
    expect(fixed(periodic('20ms'), 'fasterThanTick').fix!.label).toBe('Every 50 ms');
    expect(found(periodic('50ms')).findings).toEqual([]);
  });

  it('is a loop of effects, or one that ends itself', () => {
    const apply = (id: string) => [{ do: 'apply', effect: id }];
    const loop = found({ effects: [effect('e', { onStart: apply('f') }), effect('f', { onStart: apply('e') })] }).findings;
    expect(loop.map((f) => f.message)).toEqual([jasmine.stringContaining('e applies f applies e')]);
    const waits = [{ do: 'wait', for: '1s' }, ...apply('e')];
    expect(found({ effects: [effect('e', { onStart: waits })] }).findings).toEqual([]);
    expect(found({ effects: [effect('e', { onStart: [{ do: 'end', effect: 'e' }] })] }).findings.map((f) => f.path)).toEqual([
      '/effects/0/onStart/0',
    ]);
  });

  it('is a circle of live amounts of different effects', () => {
    const effects = [
      effect('e', { modifiers: [{ attribute: 'speed', operation: 'add', amount: 'weight', live: true }] }),
      effect('f', { modifiers: [{ attribute: 'weight', operation: 'add', amount: 'speed', live: true }] }),
    ];
    expect(fixed({ effects }, 'circle').message).toContain('speed needs weight needs speed');
  });

  it('is whatever nobody speaks of; trying it out is not speaking of it', () => {
    const parts = {
      attributes: [stat('speed', 1)],
      statuses: STATUSES,
      effects: [effect('e', { ends: { effects: ['e'], statuses: [] } })],
      situations: [{ id: 's', label: 'S', effect: 'e', pins: [{ at: '1s', action: { do: 'grant', status: 'held' } }] }],
    };
    expect(found(parts, 'unused').findings.map((f) => f.path)).toEqual(['/statuses/0', '/effects/0']);
    expect(found(parts, 'unused').findings[0].fix!.patch.map((p) => p.path)).toEqual(['/statuses/0', '/situations/0/pins/0']);
    expect(found(parts, 'unused').findings[1].fix!.patch.map((p) => p.path)).toEqual(['/situations/0', '/effects/0']);
  });
});
