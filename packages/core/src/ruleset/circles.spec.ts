import * as fc from 'fast-check';
import { componentsOf } from './circles.js';

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
