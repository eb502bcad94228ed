import type { ActionSpec } from '../../world/concept.js';
import { applyEffect, endEffect, instancesOf } from './system.js';
import { effects } from './state.js';
import { mention, reference } from '../../ruleset/fields.js';

export const actions: Readonly<Record<string, ActionSpec>> = {
  apply: {
    label: 'apply an effect',
    sentence: 'apply {effect} to {to}',
    causes: ({ effect }) => ['effectStarted', 'effectStacked', 'effectRefused'].map((event) => ({ event, fields: { effect } })),
    consequences: ({ effect }) => [{ chapter: 'effects', id: String(effect) }],
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
    args: { effect: mention('effects') },
    compile: (args, context) => {
      const index = context.index('effects', String(args['effect']));
      return (world, actor) => instancesOf(world, actor, index).forEach((row) => endEffect(world, row, 'removed'));
    },
  },
  dispel: {
    label: 'end what grants a status',
    sentence: 'end whatever makes {to} {status}',
    causes: () => [{ event: 'effectEnded', fields: { reason: 'removed' } }],
    args: { status: mention('statuses') },
    compile: (args, context) => {
      const status = context.index('statuses', String(args['status']));
      return (world, actor) => {
        for (const kind of effects.in(world).granting[status])
          for (const at of instancesOf(world, actor, kind)) endEffect(world, at, 'removed');
      };
    },
  },
};
