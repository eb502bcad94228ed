import { defineConcept } from '../../world/concept.js';
import { actions } from './actions.js';
import { compileAttributes } from './compile.js';
import { answerCrossings, clipUnsettled } from './crossings.js';
import { invariants } from './invariants.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { attachAttributes } from './attach.js';
import { regenerate } from './regeneration.js';
import { attributeChapter, schema } from './schema.js';
import { attributesTable, crossingsTable, modifierHeadsTable, modifiersTable, restsTable } from './tables.js';
import { noteReturning, returned } from './returning.js';
import { startValues } from './values.js';
import { attributes } from './state.js';
import { adopted, readAttribute } from './system.js';

export { attributes } from './state.js';
export { changeAttribute } from './actions.js';
export { HOWS, type How } from './events.js';
export { ATTRIBUTE_KINDS, type AttributeEntry, FOLLOWS, ICONS, OPERATIONS, type Operation, type ThresholdEntry } from './schema.js';
export type { Attribute } from './compile.js';
export { atStart, startProblem } from './numbers.js';
export type { Attributes } from './state.js';
export { addModifier, combine, modifiersOf, muteModifiers, removeModifiers, stacked, sumModifiers } from './modifiers.js';
export { beginWith, has as hasAttribute, highOf, lowOf, moved, restart, settle } from './values.js';
export { type Start, startOf } from './compile.js';
export { readAttribute, valueInRow, withoutRefill, restPools, poolsRest, type Values, valuesOf } from './system.js';

/** Attributes: pools, stats and counters, their bounds, refill and thresholds, and the modifiers on them. */
export const attributesConcept = defineConcept(attributes, {
  alsoCalled: {
    names: {
      damage: ['hurt'],
      dealDamage: ['hurt'],
      injure: ['hurt'],
      restore: ['heal'],
      add: ['give'],
      remove: ['take'],
      damaged: ['attributeChanged'],
      stats: ['attributes'],
    },
    parts: { base: ['start'], regen: ['refill'], regeneration: ['refill'], stats: ['attributes'] },
  },
  sections: {
    attributes: {
      kind: 'chapter',
      title: 'Stats',
      entry: schema,
      unused: 'no kind of actor carries it and no formula reads it. Have an actor carry it, or delete it.',
      absent: 'No actor that comes into play has it.',
      parts: (rules, attribute) =>
        (attributeChapter.find(rules, attribute)?.thresholds ?? []).flatMap(({ id }) => [
          { at: `thresholds/${id}/enter`, event: events.thresholdEntered.name, part: id },
          { at: `thresholds/${id}/leave`, event: events.thresholdLeft.name, part: id },
        ]),
    },
  },
  vocabulary: (ids) => ({
    names: [{ chapter: 'attributes', ids: ids('attributes'), read: (index) => (world, actor) => readAttribute(world, actor, index) }],
  }),
  compileInParts: compileAttributes,
  tables: ({ list }) => [attributesTable.under(list), modifierHeadsTable, restsTable, crossingsTable, modifiersTable],
  attach: attachAttributes,
  events,
  invariants,
  actions,
  findings,
  lifecycle: {
    actorSpawned: (world, row) => startValues(world, attributes.in(world), row),
    playerLoaded: (world, row) => noteReturning(world, attributes.in(world), row),
    playerReady: (world, row) => returned(world, attributes.in(world), row),
    rulesAdopted: adopted,
  },
  systems: {
    regeneration: (world) => regenerate(world, attributes.in(world)),
    thresholds: (world) => answerCrossings(world, attributes.in(world)),
    removal: (world) => clipUnsettled(world, attributes.in(world)),
  },
  workbench: async () => (await import('../workbenches.js')).attributes,
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
        ...(entry.colour === undefined ? {} : { colour: entry.colour }),
        ...(entry.icon === undefined ? {} : { icon: entry.icon }),
        see: entry.see,
        /** The bounds, where they are always the same; otherwise they are told as `<id>.min` and `<id>.max`. */
        min: compiled.min.constant ?? 0,
        max: compiled.max?.constant,
      })),
});
