const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Items of a list by their ids, as far as they have one: an entry is found again wherever it stands. */
const byId = (list: readonly unknown[]) =>
  new Map(list.flatMap((item) => (isObject(item) && 'id' in item ? [[item['id'], item] as const] : [])));

/**
 * A value with the objects of an earlier one wherever the two say the same: a document that came from elsewhere, or was copied,
 * then tells by identity what an edit has changed. Neither of the two is changed.
 * @public
 */
export function sharing<T>(before: unknown, after: T): T {
  if (before === after) return after;
  if (Array.isArray(before) && Array.isArray(after)) {
    const known = byId(before);
    const list = after.map((item: unknown, i): unknown => sharing((isObject(item) && known.get(item['id'])) ?? before[i], item));
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
