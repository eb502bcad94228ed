import type { ColumnSpec, TableSpec } from '../world/columns.js';
import { sameList } from './recording.js';

/** Whether two values of a column say the same: plain ones, lists of such, and rules that are looked up by a list. */
function isSame(one: unknown, other: unknown): boolean {
  if (Object.is(one, other)) return true;
  if (typeof one !== 'object' || typeof other !== 'object' || one === null || other === null) return false;
  if (Array.isArray(one)) return Array.isArray(other) && sameList(one, other) === one;
  return hasSame(one, other, isSame);
}

function hasSame(one: object, other: object, same: (a: unknown, b: unknown) => boolean): boolean {
  const keys = Object.keys(one);
  const others = other as Readonly<Record<string, unknown>>;
  return keys.length === Object.keys(other).length && Object.entries(one).every(([key, value]) => key in other && same(value, others[key]));
}

/**
 * Tables as an earlier compilation had them, as far as they are the same: whatever was laid out or worked out for them still
 * holds then.
 */
export function sameTables(before: readonly TableSpec[], now: readonly TableSpec[]): readonly TableSpec[] {
  const known = new Map(before.map((table) => [table.name, table]));
  return now.map((table) => {
    const earlier = known.get(table.name);
    if (!earlier) return table;
    const { columns: own, ...rest } = table;
    const { columns: earlierColumns, ...earlierRest } = earlier;
    const columns: readonly ColumnSpec[] = sameList(
      earlierColumns,
      own.map((column, i) => (earlierColumns[i] && isSame(column, earlierColumns[i]) ? earlierColumns[i] : column)),
    );
    return columns === earlierColumns && hasSame(rest, earlierRest, isSame) ? earlier : { ...rest, columns };
  });
}
