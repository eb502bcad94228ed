/**
 * Numbers the nodes of a directed graph: two have the same number where each leads to the other. These are its strongly
 * connected components, in time that grows with its edges (R. Tarjan, 1972).
 */
export function componentsOf<T>(edges: ReadonlyMap<T, Iterable<T>>): ReadonlyMap<T, number> {
  const found = new Map<T, number>();
  const components = new Map<T, number>();
  const open: T[] = [];
  /** Returns the earliest found of those that a node leads to and that may lead back. */
  const visit = (node: T): number => {
    const own = found.size;
    let earliest = own;
    found.set(node, own);
    open.push(node);
    for (const next of edges.get(node) ?? []) {
      const at = found.get(next);
      if (at === undefined) earliest = Math.min(earliest, visit(next));
      else if (!components.has(next)) earliest = Math.min(earliest, at);
    }
    if (earliest === own) for (const member of open.splice(open.lastIndexOf(node))) components.set(member, own);
    return earliest;
  };
  for (const node of edges.keys()) if (!found.has(node)) visit(node);
  return components;
}

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
