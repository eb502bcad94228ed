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

/** At most so many circles are told: a graph of a few dozen nodes can have more of them than anybody could read. */
const MOST_CIRCLES = 1000;

/**
 * Circles in a directed graph: each once, as the nodes that it goes through, beginning with its smallest; the first thousand
 * where there are more. Dead ends are gone into once for each beginning (D. B. Johnson, 1975).
 */
export function circlesIn<T extends string>(edges: ReadonlyMap<T, ReadonlySet<T>>): readonly (readonly T[])[] {
  const order = [...edges.keys()].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
  const place = new Map(order.map((node, i) => [node, i] as const));
  const components = componentsOf(edges);
  const found: (readonly T[])[] = [];
  for (const [from, start] of order.entries()) {
    const next = (node: T) =>
      [...(edges.get(node) ?? [])].filter((to) => (place.get(to) ?? -1) >= from && components.get(to) === components.get(start));
    const trail: T[] = [];
    const blocked = new Set<T>();
    const waiting = new Map<T, Set<T>>();
    const unblock = (node: T) => {
      if (!blocked.delete(node)) return;
      for (const other of waiting.get(node) ?? []) unblock(other);
      waiting.delete(node);
    };
    /** Whether a node leads back to the start. */
    const visit = (node: T): boolean => {
      if (found.length >= MOST_CIRCLES) return false;
      trail.push(node);
      blocked.add(node);
      let leads = false;
      const all = next(node);
      for (const to of all) {
        if (to === start) {
          found.push([...trail]);
          leads = true;
        } else if (!blocked.has(to) && visit(to)) leads = true;
      }
      if (leads) unblock(node);
      else for (const to of all) waiting.set(to, (waiting.get(to) ?? new Set<T>()).add(node));
      trail.pop();
      return leads;
    };
    visit(start);
  }
  return found;
}
