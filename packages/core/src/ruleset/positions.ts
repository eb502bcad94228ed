const known = new WeakMap<readonly string[], ReadonlyMap<string, number>>();

/** Where an id first stands in a list that does not change any more, or -1: the same lists are asked again and again. */
export function positionIn(ids: readonly string[], id: string): number {
  let positions = known.get(ids);
  if (!positions) known.set(ids, (positions = new Map(ids.map((one, i) => [one, i] as const).reverse())));
  return positions.get(id) ?? -1;
}
