import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { RulesetCompiler, runChecks } from '@eager-ember/core';

const ROOT = fileURLToPath(new URL('../../..', import.meta.url));
const CHANGES = 40;
const LEAST_SHARE = 0.8;
const SEED = 2026;

type Path = readonly (string | number)[];
interface Place {
  readonly path: Path;
  readonly kind: 'number' | 'list';
}

/** What brings nothing about: other trials, what is only told, and where things are drawn. */
const BESIDE = new Set(['checks', 'hunts', 'situations', 'arena', 'tickRate', 'version']);
const SHOWN = new Set(['tooltip', 'colour', 'decimals', 'shake', 'fade', 'lineRoom']);
const isShown = (path: Path): boolean => {
  const key = path.at(-1);
  if (SHOWN.has(String(key))) return true;
  return (path[0] === 'trees' && (key === 'x' || key === 'y')) || (path[0] === 'achievements' && key === 'points');
};

/** The numbers of a ruleset that rules go by, and its lists within entries. */
function placesIn(value: unknown, path: Path = []): readonly Place[] {
  if (isShown(path) || (path.length === 1 && BESIDE.has(String(path[0])))) return [];
  if (typeof value === 'number') return [{ path, kind: 'number' }];
  if (typeof value !== 'object' || value === null) return [];
  const own: readonly Place[] = Array.isArray(value) && path.length > 1 && value.length > 0 ? [{ path, kind: 'list' }] : [];
  const keys = Array.isArray(value) ? [...value.keys()] : Object.keys(value);
  return [...own, ...keys.flatMap((key) => placesIn((value as Record<string | number, unknown>)[key], [...path, key]))];
}

function withAt(value: unknown, [key, ...rest]: Path, make: (old: unknown) => unknown): unknown {
  if (key === undefined) return make(value);
  if (Array.isArray(value)) return value.map((one: unknown, i) => (i === key ? withAt(one, rest, make) : one));
  return { ...(value as object), [key]: withAt((value as Record<string, unknown>)[key], rest, make) };
}

/** Half as much again, and for whole numbers one more at least. */
const more = (value: number) => (Number.isInteger(value) ? value + Math.max(1, Math.round(Math.abs(value) / 2)) : value * 1.5);

/** All of what is worked out in parts. */
function allOf<T>(parts: Generator<void, T>): T {
  for (;;) {
    const { done, value } = parts.next();
    if (done) return value;
  }
}

describe('The demo’s checks', () => {
  it(`notice ${LEAST_SHARE * 100} of a hundred single changes to its numbers and lists`, () => {
    const document = JSON.parse(readFileSync(join(ROOT, 'examples/brinewick.json'), 'utf8')) as object;
    const places = placesIn(document);
    // The constants of a linear congruential generator from “Numerical Recipes”.
    let state = SEED;
    const draw = (count: number) => Math.floor(((state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32) * count);
    const compiler = new RulesetCompiler();
    expect(allOf(runChecks(compiler.read(document).rules!)).filter(({ ok }) => !ok)).toEqual([]);
    const missed: string[] = [];
    for (let tried = 0; tried < CHANGES;) {
      const { path, kind } = places[draw(places.length)];
      const out = draw(1000);
      const changed = withAt(document, path, (old) =>
        kind === 'number' ? more(old as number) : (old as readonly unknown[]).filter((_, i, list) => i !== out % list.length),
      );
      const { rules } = compiler.read(changed);
      // What is no sound ruleset any more is noticed before any check is run.
      if (!rules) continue;
      tried++;
      if (allOf(runChecks(rules)).every(({ ok }) => ok)) missed.push(path.join('/'));
    }
    expect(1 - missed.length / CHANGES)
      .withContext(`not noticed: ${missed.join(', ')}`)
      .toBeGreaterThanOrEqual(LEAST_SHARE);
  });
});
