import type { RulesetJson } from '../../shared/api';
import { writtenIn } from '../entries';

/** Where loot tables are rolled: the order of their groups in the index. */
export const LOOT_GROUPS: readonly string[] = ['Dropped', 'In containers', 'Parts of others', 'Elsewhere'];

type Json = Readonly<Record<string, unknown>>;

/** Whether an action that rolls a table stands anywhere in a value. */
function drops(value: unknown, id: string): boolean {
  if (typeof value !== 'object' || value === null) return false;
  const action = value as Json;
  return (action['do'] === 'drop' && action['table'] === id) || Object.values(value).some((part) => drops(part, id));
}

/** Where a loot table is rolled first of all. */
export function lootGroup(document: RulesetJson | undefined, id: string): string {
  const { loot: _own, ...others } = (document ?? {}) as Json;
  if (drops(others, id)) return 'Dropped';
  if (writtenIn(document, 'containers').some((container) => container['loot'] === id)) return 'In containers';
  const within = writtenIn(document, 'loot').some((table) =>
    ['always', 'entries'].some((list) => ((table[list] as readonly Json[] | undefined) ?? []).some((line) => line['table'] === id)),
  );
  return within ? 'Parts of others' : 'Elsewhere';
}
