import type { RulesetJson } from '../../shared/api';
import { writtenIn } from '../entries';

/** Where loot tables are rolled: the order of their groups in the index. */
export const LOOT_GROUPS: readonly string[] = ['Dropped', 'In containers', 'Parts of others', 'Elsewhere'];

type Json = Readonly<Record<string, unknown>>;

/** The tables that actions in an entry roll, by the entry: that is the same object until an edit touches it. */
const known = new WeakMap<object, readonly string[]>();
/** What is rolled first of all where, by the document. */
const knownRolls = new WeakMap<RulesetJson, { readonly dropped: Ids; readonly contained: Ids; readonly within: Ids }>();
type Ids = ReadonlySet<unknown>;

/** The tables that actions roll, wherever in a value they stand. */
function dropsIn(value: unknown): readonly string[] {
  if (typeof value !== 'object' || value === null) return [];
  const before = known.get(value);
  if (before) return before;
  const action = value as Json;
  const own = action['do'] === 'drop' && typeof action['table'] === 'string' ? [action['table']] : [];
  const all = [...own, ...Object.values(value).flatMap((part) => dropsIn(part))];
  if ('id' in value) known.set(value, all);
  return all;
}

function rollsIn(document: RulesetJson) {
  const before = knownRolls.get(document);
  if (before) return before;
  const { loot: _own, ...others } = document;
  const linesOf = (table: Json) => ['always', 'entries'].flatMap((list) => (table[list] as readonly Json[] | undefined) ?? []);
  const rolls = {
    dropped: new Set(dropsIn(others)),
    contained: new Set(writtenIn(document, 'containers').map((container) => container['loot'])),
    within: new Set(writtenIn(document, 'loot').flatMap((table) => linesOf(table).map((line) => line['table']))),
  };
  knownRolls.set(document, rolls);
  return rolls;
}

/** Where a loot table is rolled first of all. */
export function lootGroup(document: RulesetJson | undefined, id: string): string {
  if (!document) return 'Elsewhere';
  const { dropped, contained, within } = rollsIn(document);
  return dropped.has(id) ? 'Dropped' : contained.has(id) ? 'In containers' : within.has(id) ? 'Parts of others' : 'Elsewhere';
}
