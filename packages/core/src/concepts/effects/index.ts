import { reference } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';
import type { ActionSpec } from '../../world/concept.js';
import type { EventData, EventSpec } from '../../world/events.js';
import type { TableSpec, Visibility } from '../../world/table.js';
import { schema } from './schema.js';
import { adoptEffects, applyEffect, compileEffects, type CompiledEffects, type Effects, endEffect, instancesOf } from './system.js';

export type { EffectEntry } from './schema.js';
export { applyEffect, endEffect, instancesOf } from './system.js';

const seenAsEffect = (data: EventData, seeEntry: (chapter: string, id: string) => Visibility) =>
  seeEntry('effects', String(data['effect']));

const events: Readonly<Record<string, EventSpec>> = {
  effectStarted: {
    label: 'an effect starts',
    see: seenAsEffect,
    announced: true,
    sentence: (e, speak) =>
      `${speak.label('effects', String(e.data['effect']))} begins on ${e.who}, for ${speak.time(Number(e.data['ticks']))}`,
  },
  effectEnded: {
    label: 'an effect ends',
    see: seenAsEffect,
    announced: true,
    sentence: (e, speak) =>
      `${speak.label('effects', String(e.data['effect']))} ${e.data['reason'] === 'ranOut' ? 'runs out' : 'is removed'} on ${e.who}`,
  },
};

const actions: Readonly<Record<string, ActionSpec>> = {
  apply: {
    label: 'apply an effect',
    sentence: 'apply {effect} to {to}',
    args: { effect: reference('effects') },
    compile: (args, context) => {
      const index = context.index('effects', String(args['effect']));
      return (world, actor, parties) => applyEffect(world, actor, index, parties.source);
    },
  },
  end: {
    label: 'end an effect',
    sentence: 'end {effect} on {to}',
    args: { effect: reference('effects') },
    compile: (args, context) => {
      const index = context.index('effects', String(args['effect']));
      return (world, actor) => instancesOf(world, actor, index).forEach((row) => endEffect(world, row, 'removed'));
    },
  },
};

function tables({ entries }: CompiledEffects): TableSpec[] {
  const see = { column: 'effect', of: entries.map((entry) => entry.see) };
  return [
    {
      name: 'effects',
      owner: 'actor',
      columns: [
        { name: 'actor', kind: 'actor', see },
        { name: 'effect', kind: 'entry', chapter: 'effects', see },
        { name: 'source', kind: 'actor', see: 'server' },
        { name: 'ends', kind: 'tick', see },
      ],
    },
  ];
}

/** Effects: instances with a lifetime that modify stats and grant statuses for as long as they last. */
export const effects = defineConcept<CompiledEffects, Effects>({
  id: 'effects',
  sections: { effects: { kind: 'chapter', title: 'Effects', entry: schema } },
  vocabulary: (ids) => ({
    functions: [
      {
        name: 'count',
        chapter: 'effects',
        ids: ids('effects'),
        amounts: 0,
        yields: 'amount',
        read: (index) => (world, actor) => instancesOf(world, actor, index).length,
      },
    ],
  }),
  compile: compileEffects,
  tables,
  attach: (world, compiled) => ({ ...compiled, table: world.table('effects'), endTimer: world.rules.registry.timer('effects.end') }),
  events,
  actions,
  timers: {
    end: (world, _actor, handle) => {
      const { table } = effects.in(world);
      const row = table.rowOf(handle);
      if (row >= 0 && table.column('ends').data[row] <= world.tick) endEffect(world, row, 'ranOut');
    },
  },
  lifecycle: { rulesAdopted: adoptEffects },
  display: ({ entries }) => entries.filter((entry) => entry.see !== 'server').map(({ id, label, see }) => ({ id, label, see })),
});
