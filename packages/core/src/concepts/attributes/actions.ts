import { amount, reference } from '../../ruleset/fields.js';
import type { AmountSource } from '../../ruleset/fields.js';
import type { ActionSpec } from '../../world/concept.js';
import type { World } from '../../world/world.js';
import { attributes } from './index.js';
import { changeBy } from './values.js';

const PARTIES = ['source', 'target'] as const;

/** An action that changes a pool or counter by an amount. `sign` is the direction. */
function changing(label: string, sentence: string, sign: 1 | -1): ActionSpec {
  return {
    label,
    sentence,
    args: { attribute: reference('attributes'), amount: amount(PARTIES) },
    compile: (args, context, path) => {
      const index = context.index('attributes', String(args['attribute']));
      const by = context.amount(args['amount'] as AmountSource, [...path, 'amount'], PARTIES);
      // A negative amount is nothing, not the opposite: a resistance above 100 % must not turn harm into healing.
      return (world, actor, parties) =>
        changeAttribute(world, actor, index, sign * Math.max(0, by.run(world, { ...parties, owner: actor })), parties.source);
    },
  };
}

export const actions: Readonly<Record<string, ActionSpec>> = {
  hurt: changing('lower a pool', 'lower {attribute} by {amount} for {to}', -1),
  heal: changing('raise a pool', 'raise {attribute} by {amount} for {to}', 1),
  give: changing('give of a counter', 'give {amount} {attribute} to {to}', 1),
  take: changing('take of a counter', 'take {amount} {attribute} from {to}', -1),
  set: {
    label: 'set an attribute',
    sentence: 'set {attribute} to {value} for {to}',
    args: { attribute: reference('attributes'), value: amount(PARTIES) },
    compile: (args, context, path) => {
      const index = context.index('attributes', String(args['attribute']));
      const value = context.amount(args['value'] as AmountSource, [...path, 'value'], PARTIES);
      return (world, actor, parties) =>
        changeAttribute(
          world,
          actor,
          index,
          value.run(world, { ...parties, owner: actor }) - currentOf(world, actor, index),
          parties.source,
        );
    },
  },
};

/** What a change counts from: a stat's base, any other's value. */
function currentOf(world: World, actor: number, index: number): number {
  const { compiled, table } = attributes.in(world);
  const { id, kind } = compiled.list[index];
  return table.column(kind === 'stat' ? `${id}.base` : id).data[world.actors.rowOf(actor)];
}

/** Changes an attribute and announces what it came to: asked, given, and what was lost over the top or under the bottom. */
export function changeAttribute(world: World, actor: number, index: number, by: number, source: number): void {
  const row = world.actors.rowOf(actor);
  if (row < 0 || by === 0) return;
  const grip = attributes.in(world);
  const change = changeBy(world, grip, row, index, by);
  const { from, to, asked, given, lost } = change;
  world.emit('attributeChanged', { subject: actor, source }, { attribute: grip.compiled.list[index].id, from, to, asked, given, lost });
}
