import type { Path } from './problem.js';
import type { Then } from './registry.js';

/** An action wherever it stands in a list, with its place. */
export interface PlacedAction {
  readonly action: Then[number];
  readonly path: Path;
  /** It comes after a wait: not in the same breath as what began the list. */
  readonly later: boolean;
}

interface Steering {
  readonly then?: Then;
  readonly else?: Then;
  readonly among?: readonly { readonly then: Then }[];
}

/** Every action of a list, with those in its branches. */
export function placedActions(list: Then | undefined, path: Path, later = false): readonly PlacedAction[] {
  const found: PlacedAction[] = [];
  let waited = later;
  (list ?? []).forEach((action, i) => {
    const at = [...path, i];
    found.push({ action, path: at, later: waited });
    const { then: yes, else: no, among } = action as Steering;
    if (Array.isArray(yes)) found.push(...placedActions(yes, [...at, 'then'], waited));
    if (Array.isArray(no)) found.push(...placedActions(no, [...at, 'else'], waited));
    among?.forEach((branch, k) => found.push(...placedActions(branch.then, [...at, 'among', k, 'then'], waited)));
    if (action.do === 'wait' || found.some((inner) => inner.action.do === 'wait')) waited = true;
  });
  return found;
}

export type AnyAction = Then[number] & Readonly<Record<string, unknown>>;

/** What was found in entries: they are the same objects as long as no edit touches them. */
const known = new WeakMap<object, readonly AnyAction[]>();

/** Every action of a document, wherever in it a list of them stands. */
export function everyAction(value: unknown): readonly AnyAction[] {
  if (typeof value !== 'object' || value === null) return [];
  const before = known.get(value);
  if (before) return before;
  const inner = Object.values(value).flatMap((part) => everyAction(part));
  const all = typeof (value as { do?: unknown }).do === 'string' ? [value as Then[number], ...inner] : inner;
  if ('id' in value && 'label' in value) known.set(value, all);
  return all;
}
