import { roundTo } from '../../math/grid.js';
import { defineConcept } from '../../world/concept.js';
import type { World } from '../../world/world.js';
import { actions } from './actions.js';
import { type CompiledAttributes, compileAttributes } from './compile.js';
import { events } from './events.js';
import { regenerate } from './regeneration.js';
import { schema } from './schema.js';
import { attributeTables, columnsOf } from './tables.js';
import { attachAttributes, type Attributes, has, relinkModifiers, settle, startValues } from './values.js';

export { changeAttribute } from './actions.js';
export { ATTRIBUTE_KINDS, OPERATIONS, type AttributeEntry, type Operation } from './schema.js';
export type { Attribute } from './compile.js';
export { addModifier, removeModifiers, settle } from './values.js';

/** Attributes: pools, stats and counters, their bounds, their refill, and the modifiers on them. */
export const attributes = defineConcept<CompiledAttributes, Attributes>({
  id: 'attributes',
  sections: { attributes: { kind: 'chapter', title: 'Stats', entry: schema } },
  vocabulary: (ids) => ({
    names: [{ chapter: 'attributes', ids: ids('attributes'), read: (index) => (world, actor) => readAttribute(world, actor, index) }],
  }),
  compile: compileAttributes,
  tables: attributeTables,
  attach: attachAttributes,
  events,
  actions,
  lifecycle: {
    actorSpawned: (world, row) => startValues(world, attributes.in(world), row),
    playerLoaded: (world, row) => settle(world, attributes.in(world), row),
    rulesAdopted: adopted,
  },
  systems: { regeneration: (world) => regenerate(world, attributes.in(world)) },
  display: ({ entries, list }) =>
    entries
      .map((entry, i) => ({ entry, compiled: list[i] }))
      .filter(({ entry }) => entry.see !== 'server')
      .map(({ entry, compiled }) => ({
        id: entry.id,
        label: entry.label,
        kind: entry.kind,
        decimals: compiled.decimals,
        unit: entry.unit ?? '',
        group: entry.group ?? '',
        see: entry.see,
        min: compiled.min.constant ?? 0,
        /** The maximum, where it is always the same; otherwise it is told as `<id>.max`. */
        max: compiled.max?.constant,
      })),
});

/** An actor's present value of an attribute; 0 where it has gone or never had it. */
export function readAttribute(world: World, actor: number, index: number): number {
  const row = world.actors.rowOf(actor);
  if (row < 0) return 0;
  const { compiled, table } = attributes.in(world);
  return table.column(compiled.list[index].id).data[row];
}

/** The values of an actor by attribute, with the decimals their author gives them. */
export type Values = Readonly<Record<string, number>>;

/** An actor's attributes by id; none where it has gone. */
export function valuesOf(world: World, actor: number): Values {
  const row = world.actors.rowOf(actor);
  if (row < 0) return {};
  const { compiled, table } = attributes.in(world);
  const own = compiled.list.filter((attribute) => has(world, attribute, row));
  return Object.fromEntries(own.map(({ id, decimals }) => [id, roundTo(table.column(id).data[row], decimals)]));
}

/** Under edited rules a stat's base follows the author's change, unless something in the game had moved it. */
function adopted(world: World, before: World): void {
  const now = attributes.in(world);
  const then = attributes.in(before);
  relinkModifiers(world, now);
  const { list } = now.compiled;
  for (let row = 0; row < world.actors.high; row++) {
    if (world.actors.live[row] === 0) continue;
    const actor = world.actors.handle(row);
    const anew = new Set<number>();
    list.forEach((attribute, i) => {
      const k = then.compiled.list.findIndex((old) => old.id === attribute.id);
      const old = then.compiled.list[k];
      const oldType = before.actors.column('type').data[row];
      if (!old || old.kind !== attribute.kind || !old.present[oldType]) return void anew.add(i);
      if (attribute.kind !== 'stat') return;
      const base = then.table.column(columnsOf.base(old.id)).data[row];
      const start = (old.starts[oldType] ?? old.max)?.run(before, { owner: actor, source: 0, target: 0 });
      if (start === base) anew.add(i);
    });
    startValues(world, now, row, anew);
    settle(world, now, row);
  }
}
