const known = new WeakMap<readonly string[], ReadonlyMap<string, number>>();

/** Where each id first stands in a list that does not change any more: the same lists are asked again and again. */
export function positionsIn(ids: readonly string[]): ReadonlyMap<string, number> {
  let positions = known.get(ids);
  if (!positions) known.set(ids, (positions = new Map(ids.map((one, i) => [one, i] as const).reverse())));
  return positions;
}

/** Where an id first stands in such a list, or -1. */
export const positionIn = (ids: readonly string[], id: string): number => positionsIn(ids).get(id) ?? -1;
