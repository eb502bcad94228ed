import { defineConcept } from '../../world/concept.js';
import { compileEffects } from './compile.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { effectsTable } from './tables.js';
import { schema } from './schema.js';
import { adoptEffects, pulseAll, runOut } from './system.js';
import { effects } from './state.js';
import { endEffectsOf, stacksOf, useUp } from './instances.js';
import { moved } from '../attributes/consequences.js';
import { effectChapter } from './schema.js';
import { exactly } from '../../formula/index.js';
import { actions } from './actions.js';

export { effects } from './state.js';
export { type EffectEntry, LIFETIMES, REASONS, type Reason, STACKING } from './schema.js';
export { applyEffect, endEffect, instancesOf } from './system.js';
export { endEffectsOf } from './instances.js';

/** Effects: instances with a lifetime that modify stats, grant statuses and do things for as long as they last. */
export const effectsConcept = defineConcept(effects, {
  consequences: (rules) =>
    effectChapter
      .of(rules)
      .flatMap(({ modifiers, grants }) => [
        ...modifiers.map(({ attribute }) => moved(attribute)),
        ...grants.map((id) => ({ chapter: 'statuses', id })),
      ]),
  alsoCalled: { names: { buff: ['apply'] } },
  sections: {
    effects: {
      kind: 'chapter',
      title: 'Effects',
      entry: schema,
      unused: 'nothing applies it. Apply it from an ability, a pickup, a threshold or another effect, or delete it.',
      absent: 'No action that is ever run applies it.',
    },
  },
  vocabulary: (ids) => ({
    functions: [
      {
        name: 'count',
        chapter: 'effects',
        ids: ids('effects'),
        amounts: 0,
        yields: 'amount',
        noun: 'effect',
        between: (_rules, _id, comesAbout) => (comesAbout ? { low: 0, high: Infinity } : exactly(0)),
        read: (index) => (world, actor) => stacksOf(world, actor, index),
      },
    ],
  }),
  compileInParts: compileEffects,
  tables: ({ entries }) => [effectsTable.under({ see: { column: 'effect', of: entries.map(({ see }) => see) } })],
  attach: (world, compiled) => {
    const table = effectsTable.in(world);
    return { ...compiled, table, of: table.cells, endTimer: world.rules.registry.timer('effects.end') };
  },
  events,
  actions,
  findings,
  timers: { end: (world, _actor, handle) => runOut(world, handle) },
  systems: { regeneration: pulseAll },
  onAnnounce: useUp,
  lifecycle: {
    rulesAdopted: adoptEffects,
    actorLeaving: (world, row) => {
      endEffectsOf(world, world.actors.handle(row), 'ownerGone');
    },
  },
  workbench: async () => (await import('../workbenches.js')).effects,
  display: ({ entries }) => entries.filter((entry) => entry.see !== 'server').map(({ id, label, see }) => ({ id, label, see })),
});
