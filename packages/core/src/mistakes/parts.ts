/** A document in the making: any part of it may be wrong. */
export type Document = Readonly<Record<string, unknown>>;
type Parts = Readonly<Record<string, unknown>>;

export const ruleset = (name: string, parts: Parts): Document => ({
  format: 'eager-ember/ruleset',
  version: 2,
  name,
  tickRate: 20,
  ...parts,
});

export const pool = (id: string, more: Parts = {}) => ({ id, label: name(id), kind: 'pool', max: 100, ...more });
export const stat = (id: string, start: unknown, more: Parts = {}) => ({ id, label: name(id), kind: 'stat', start, ...more });
export const counter = (id: string, more: Parts = {}) => ({ id, label: name(id), kind: 'counter', ...more });
export const diver = (attributes: readonly string[], more: Parts = {}) => ({
  id: 'diver',
  label: 'Diver',
  kind: 'player',
  ...having(attributes),
  ...more,
});
export const lamprey = (attributes: readonly string[], more: Parts = {}) => ({
  id: 'lamprey',
  label: 'Lamprey',
  kind: 'foe',
  ...having(attributes),
  speed: 'swimSpeed',
  ...more,
});
export const having = (attributes: readonly string[]) => ({ attributes: attributes.map((attribute) => ({ attribute })) });
export const hurt = (attribute: string, amount: unknown, more: Parts = {}) => ({ do: 'hurt', attribute, amount, ...more });
export const give = (attribute: string, amount: unknown, more: Parts = {}) => ({ do: 'give', attribute, amount, ...more });
export const heal = (attribute: string, amount: unknown, more: Parts = {}) => ({ do: 'heal', attribute, amount, ...more });
export const apply = (effect: string, more: Parts = {}) => ({ do: 'apply', effect, ...more });
export const arena = (...placed: Parts[]) => ({ width: 640, height: 400, placed });

/** `tidePearl` as `Tide pearl`. */
export const name = (id: string) =>
  id.replace(/^[a-z]/, (c) => c.toUpperCase()).replace(/[A-Z]/g, (c, i: number) => (i === 0 ? c : ` ${c.toLowerCase()}`));
