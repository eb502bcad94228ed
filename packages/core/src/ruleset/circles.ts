/** Circles in a directed graph: each once, as the nodes that it goes through, beginning with its smallest. */
export function circlesIn<T extends string>(edges: ReadonlyMap<T, ReadonlySet<T>>): readonly (readonly T[])[] {
  const found = new Map<string, readonly T[]>();
  const done = new Set<T>();
  const trail: T[] = [];
  const visit = (node: T) => {
    const at = trail.indexOf(node);
    if (at >= 0) {
      const circle = trail.slice(at);
      const first = circle.reduce((least, each, i) => (each < circle[least] ? i : least), 0);
      const turned = [...circle.slice(first), ...circle.slice(0, first)];
      found.set(turned.join(' '), turned);
      return;
    }
    if (done.has(node)) return;
    trail.push(node);
    for (const next of edges.get(node) ?? []) visit(next);
    trail.pop();
    done.add(node);
  };
  for (const node of edges.keys()) visit(node);
  return [...found.values()];
}
