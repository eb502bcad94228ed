import { reference } from '../../ruleset/fields.js';
import { type ActionSpec, defineConcept } from '../../world/concept.js';
import type { GameEvent } from '../../world/events.js';
import type { World } from '../../world/world.js';
import { compileEffects } from './compile.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { effectsTable } from './tables.js';
import { type Reason, schema } from './schema.js';
import { adoptEffects, applyEffect, endEffect, instancesOf, pulseAll, runOut } from './system.js';
import { effects } from './state.js';

export { effects } from './state.js';
export { type EffectEntry, LIFETIMES, REASONS, type Reason, STACKING } from './schema.js';
export { applyEffect, endEffect, instancesOf } from './system.js';

const actions: Readonly<Record<string, ActionSpec>> = {
  apply: {
    label: 'apply an effect',
    sentence: 'apply {effect} to {to}',
    causes: ({ effect }) => ['effectStarted', 'effectStacked', 'effectRefused'].map((event) => ({ event, fields: { effect } })),
    args: { effect: reference('effects') },
    compile: (args, context) => {
      const index = context.index('effects', String(args['effect']));
      return (world, actor, parties) => applyEffect(world, actor, index, parties.source);
    },
  },
  end: {
    label: 'end an effect',
    sentence: 'end {effect} on {to}',
    causes: ({ effect }) => [{ event: 'effectEnded', fields: { effect, reason: 'removed' } }],
    args: { effect: reference('effects') },
    compile: (args, context) => {
      const index = context.index('effects', String(args['effect']));
      return (world, actor) => instancesOf(world, actor, index).forEach((row) => endEffect(world, row, 'removed'));
    },
  },
  dispel: {
    label: 'end what grants a status',
    sentence: 'end whatever makes {to} {status}',
    causes: () => [{ event: 'effectEnded', fields: { reason: 'removed' } }],
    args: { status: reference('statuses') },
    compile: (args, context) => {
      const status = context.index('statuses', String(args['status']));
      return (world, actor) => {
        for (const kind of effects.in(world).granting[status])
          for (const at of instancesOf(world, actor, kind)) endEffect(world, at, 'removed');
      };
    },
  },
};

/** Effects: instances with a lifetime that modify stats, grant statuses and do things for as long as they last. */
export const effectsConcept = defineConcept(effects, {
  sections: { effects: { kind: 'chapter', title: 'Effects', entry: schema } },
  vocabulary: (ids) => ({
    functions: [
      {
        name: 'count',
        chapter: 'effects',
        ids: ids('effects'),
        amounts: 0,
        yields: 'amount',
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
  witness: useUp,
  lifecycle: {
    rulesAdopted: adoptEffects,
    actorLeaving: (world, row) => {
      endEffectsOf(world, world.actors.handle(row), 'ownerGone');
    },
  },
  display: ({ entries }) => entries.filter((entry) => entry.see !== 'server').map(({ id, label, see }) => ({ id, label, see })),
});

/** Ends all that is on an actor. */
export function endEffectsOf(world: World, actor: number, reason: Reason): void {
  effects.in(world).table.eachOf(actor, (at) => endEffect(world, at, reason));
}

/** How many of an effect are on an actor: instances, each with its stacks. */
function stacksOf(world: World, actor: number, index: number): number {
  const { of } = effects.in(world);
  return instancesOf(world, actor, index).reduce((sum, at) => sum + of.stacks[at], 0);
}

/** An event uses up what waits for it. What began with this event, or after it, is not used by it. */
function useUp(world: World, event: GameEvent): void {
  const grip = effects.in(world);
  const kinds = grip.usedBy.get(event.name);
  if (!kinds) return;
  for (let at = 0; at < grip.table.high; at++) {
    if (grip.table.live[at] === 0 || !kinds.includes(grip.of.effect[at]) || grip.of.cause[at] >= event.serial) continue;
    const { usedBy } = grip.list[grip.of.effect[at]];
    if (grip.of.cause[at] === 0 || !usedBy!.matches(world, event, grip.of.actor[at])) continue;
    if (--grip.of.uses[at] <= 0) endEffect(world, at, 'used');
  }
}
