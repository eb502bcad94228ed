import * as fc from 'fast-check';
import { circlesIn, componentsOf } from './circles.js';

/** What can be come to from a node, itself included. */
function reached(edges: ReadonlyMap<number, readonly number[]>, from: number): ReadonlySet<number> {
  const seen = new Set([from]);
  for (const node of seen) for (const next of edges.get(node) ?? []) seen.add(next);
  return seen;
}

describe('The components of a graph', () => {
  it('are one for two nodes exactly where each leads to the other', () => {
    const graphs = fc.array(fc.array(fc.nat(7), { maxLength: 3 }), { minLength: 8, maxLength: 8 });
    fc.assert(
      fc.property(graphs, (lists) => {
        const edges = new Map(lists.map((list, node) => [node, list] as const));
        const components = componentsOf(edges);
        const pairs = [...edges.keys()].flatMap((a) => [...edges.keys()].map((b) => [a, b] as const));
        const together = pairs.filter(([a, b]) => components.get(a) === components.get(b));
        expect(together).toEqual(pairs.filter(([a, b]) => reached(edges, a).has(b) && reached(edges, b).has(a)));
      }),
    );
  });

  it('are found along a chain of thousands', () => {
    const edges = new Map(Array.from({ length: 3000 }, (_, node) => [node, [(node + 1) % 3000]] as const));
    expect(new Set(componentsOf(edges).values()).size).toBe(1);
  });
});

/** Every circle, found by trying every way. */
function everyCircle(edges: ReadonlyMap<string, ReadonlySet<string>>): readonly string[] {
  const found = new Set<string>();
  const go = (start: string, node: string, trail: readonly string[]) => {
    for (const to of edges.get(node) ?? []) {
      if (to === start) found.add([...trail, node].join(' '));
      else if (to > start && !trail.includes(to) && to !== node) go(start, to, [...trail, node]);
    }
  };
  for (const start of edges.keys()) go(start, start, []);
  return [...found].sort();
}

describe('The circles of a graph', () => {
  const graphOf = (lists: Readonly<Record<string, readonly string[]>>) =>
    new Map(Object.entries(lists).map(([node, list]) => [node, new Set(list)] as const));

  it('are all found, also those that share a part', () => {
    expect(circlesIn(graphOf({ a: ['b', 'c'], b: ['a'], c: ['b'] }))).toEqual([
      ['a', 'b'],
      ['a', 'c', 'b'],
    ]);
    expect(circlesIn(graphOf({ b: ['b'], a: ['x'] }))).toEqual([['b']]);
    const ids = ['a', 'b', 'c', 'd', 'e', 'f'];
    const lists = fc.array(fc.subarray(ids), { minLength: ids.length, maxLength: ids.length });
    fc.assert(
      fc.property(lists, (each) => {
        const edges = new Map(ids.map((id, i) => [id, new Set(each[i])] as const));
        const circles = circlesIn(edges).map((circle) => circle.join(' '));
        expect([...circles].sort()).toEqual(everyCircle(edges));
      }),
    );
  });

  it('are told up to a thousand, however many there are', () => {
    const ids = Array.from({ length: 30 }, (_, i) => `n${i}`);
    expect(circlesIn(new Map(ids.map((id) => [id, new Set(ids)] as const))).length).toBe(1000);
  });
});
