const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Items of a list by their ids, as far as they have one: an entry is found again wherever it stands. */
const byId = (list: readonly unknown[]) =>
  new Map(list.flatMap((item) => (isObject(item) && 'id' in item ? [[item['id'], item] as const] : [])));

/** The item of an earlier list that one of a later list may say the same as: that of its id, or the one in its place. */
const counterpart = (known: ReadonlyMap<unknown, unknown>, before: readonly unknown[], item: unknown, i: number): unknown =>
  (isObject(item) ? known.get(item['id']) : undefined) ?? before[i];

/** Items of a list that are compared in one part of the work. */
const ITEMS_A_PART = 16;

/**
 * The same as {@link sharing} for a document, as work in parts: whoever has other things to do meanwhile does them between two.
 * @public
 */
export function* sharingInParts<T>(before: unknown, after: T): Generator<void, T> {
  if (before === after || !isObject(before) || !isObject(after)) return sharing(before, after);
  const parts: Record<string, unknown> = {};
  for (const [key, part] of Object.entries(after)) {
    const earlier = Object.hasOwn(before, key) ? before[key] : undefined;
    parts[key] =
      earlier !== part && Array.isArray(earlier) && Array.isArray(part) ? yield* listInParts(earlier, part) : sharing(earlier, part);
    yield;
  }
  // Each part is the earlier one where it says the same.
  return sharing(before, parts) as T;
}

function* listInParts(before: readonly unknown[], after: readonly unknown[]): Generator<void, readonly unknown[]> {
  const known = byId(before);
  const list: unknown[] = [];
  for (const [i, item] of after.entries()) {
    list.push(sharing(counterpart(known, before, item, i), item));
    if (i % ITEMS_A_PART === ITEMS_A_PART - 1) yield;
  }
  return list;
}

/**
 * A value with the objects of an earlier one wherever the two say the same: a document that came from elsewhere, or was copied,
 * then tells by identity what an edit has changed. Neither of the two is changed.
 * @public
 */
export function sharing<T>(before: unknown, after: T): T {
  if (before === after) return after;
  if (Array.isArray(before) && Array.isArray(after)) {
    const known = byId(before);
    const list = after.map((item: unknown, i): unknown => sharing(counterpart(known, before, item, i), item));
    return (list.length === before.length && list.every((item, i) => item === before[i]) ? before : list) as T;
  }
  if (!isObject(before) || !isObject(after)) return after;
  const parts = Object.entries(after).map(
    ([key, part]) => [key, sharing(Object.hasOwn(before, key) ? before[key] : undefined, part)] as const,
  );
  const same =
    parts.length === Object.keys(before).length && parts.every(([key, part]) => Object.hasOwn(before, key) && part === before[key]);
  return (same ? before : Object.fromEntries(parts)) as T;
}
