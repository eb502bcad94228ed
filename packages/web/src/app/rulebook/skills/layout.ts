import type { NodeJson } from './chosen-node';

/** Places of a grid between neighbours in a row. */
const APART = 2;

const needed = (node: NodeJson) => [...(node.needs?.all ?? []), ...(node.needs?.any ?? [])].map((wanted) => wanted.node);

/**
 * Places for the nodes of a tree: below all that they need, each over the middle of what hangs on it. What a node needs
 * first is what it hangs on; nodes that need each other in a circle are laid out as if the last link were not there.
 */
export function layOut(nodes: readonly NodeJson[]): readonly { readonly x: number; readonly y: number }[] {
  const index = new Map(nodes.map((node, i) => [node.id, i]));
  const parents = nodes.map((node) => needed(node).flatMap((id) => index.get(id) ?? []));
  const depths = nodes.map(() => -1);
  const depthOf = (i: number, within: ReadonlySet<number>): number => {
    if (depths[i] >= 0) return depths[i];
    if (within.has(i)) return -1;
    const inner = new Set(within).add(i);
    return (depths[i] = parents[i].reduce((deepest, parent) => Math.max(deepest, depthOf(parent, inner) + 1), 0));
  };
  nodes.forEach((_, i) => depthOf(i, new Set()));
  const hangsOn = parents.map((all, i) => all.find((parent) => depths[parent] < depths[i]) ?? -1);
  const xs = nodes.map(() => 0);
  let free = 0;
  const place = (i: number): number => {
    const children = hangsOn.flatMap((parent, child) => (parent === i ? [child] : []));
    if (children.length === 0) {
      xs[i] = free;
      free += APART;
    } else {
      const at = children.map(place);
      xs[i] = Math.round((at[0] + at[at.length - 1]) / 2);
    }
    return xs[i];
  };
  hangsOn.forEach((parent, i) => parent < 0 && place(i));
  return nodes.map((_, i) => ({ x: Math.min(40, xs[i]), y: Math.min(40, depths[i]) }));
}

/** A tree's nodes and choices without one of them: nobody needs it any more. */
export function withoutNode(
  nodes: readonly NodeJson[],
  exclusive: readonly (readonly string[])[],
  id: string,
): { readonly nodes: readonly NodeJson[]; readonly exclusive: readonly (readonly string[])[] } {
  const drop = (list: NonNullable<NodeJson['needs']>['all']) => {
    const rest = (list ?? []).filter(({ node }) => node !== id);
    return rest.length > 0 ? rest : undefined;
  };
  return {
    nodes: nodes
      .filter((node) => node.id !== id)
      .map((node) => {
        if (!node.needs) return node;
        const { all, any, ...others } = node.needs;
        const needs = { ...others, ...(drop(all) && { all: drop(all) }), ...(drop(any) && { any: drop(any) }) };
        const { needs: _needs, ...rest } = node;
        return (Object.keys(needs).length > 0 ? { ...rest, needs } : rest) as NodeJson;
      }),
    exclusive: exclusive.map((group) => group.filter((one) => one !== id)).filter((group) => group.length > 1),
  };
}
