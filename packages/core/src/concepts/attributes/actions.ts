import { toGrid, toWhole } from '../../math/grid.js';
import { amount, type AmountSource, reference } from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';
import type { ActionSpec } from '../../world/concept.js';
import type { World } from '../../world/world.js';
import type { How } from './events.js';
import { attributes } from './state.js';
import type { AttributeEntry } from './schema.js';
import { noteCrossings } from './crossings.js';
import { changeBy, has } from './values.js';
import { events } from './events.js';
import { hurt, moved, raised } from './consequences.js';

const PARTIES = ['source', 'target'] as const;

type Changing = 'hurt' | 'heal' | 'give' | 'take';
const CONSEQUENCE = { hurt, heal: raised, give: raised, take: moved };

/** An action that changes a pool or counter by an amount. `sign` is the direction. */
function changing(how: Changing, opposite: Changing, says: string, label: string, sentence: string, sign: 1 | -1): ActionSpec {
  return {
    label,
    sentence,
    causes: ({ attribute }) => [{ event: 'attributeChanged', fields: { attribute, how } }],
    args: {
      attribute: reference('attributes', ['pool', 'counter']),
      amount: described(amount(PARTIES), { amount: says, of: 'attribute', opposite }),
    },
    ofAttribute: true,
    consequences: ({ attribute }) => [CONSEQUENCE[how](String(attribute))],
    compile: (args, context, path) => {
      const index = context.index('attributes', String(args['attribute']));
      const { kind, label: name } = context.entry<AttributeEntry>('attributes', String(args['attribute'])) ?? {};
      if (kind === 'stat')
        context.problem(
          [...path, 'attribute'],
          `${name} is a stat, which follows from its base and what is on its actor: ${how} is for pools and counters. Apply an effect that modifies it, or set its base.`,
        );
      const by = context.amount(args['amount'] as AmountSource, [...path, 'amount'], PARTIES);
      // A negative amount is nothing, not the opposite: what harms must not turn into healing.
      return (world, actor, parties) =>
        changeAttribute(world, actor, index, sign * Math.max(0, by.run(world, { ...parties, owner: actor })), parties.source, how);
    },
  };
}

export const actions: Readonly<Record<string, ActionSpec>> = {
  hurt: changing('hurt', 'heal', 'hurts by {value}', 'lower a pool', 'lower {attribute} by {amount} for {to}', -1),
  heal: changing('heal', 'hurt', 'heals by {value}', 'raise a pool', 'raise {attribute} by {amount} for {to}', 1),
  give: changing('give', 'take', 'gives {value}', 'give of a counter', 'give {amount} {attribute} to {to}', 1),
  take: changing('take', 'give', 'takes {value}', 'take of a counter', 'take {amount} {attribute} from {to}', -1),
  set: {
    label: 'set an attribute',
    sentence: 'set {attribute} to {value} for {to}',
    causes: ({ attribute }) => [{ event: 'attributeChanged', fields: { attribute, how: 'set' } }],
    ofAttribute: true,
    consequences: ({ attribute }) => [raised(String(attribute))],
    args: { attribute: reference('attributes'), value: amount(PARTIES) },
    compile: (args, context, path) => {
      const index = context.index('attributes', String(args['attribute']));
      const value = context.amount(args['value'] as AmountSource, [...path, 'value'], PARTIES);
      return (world, actor, parties) => {
        const asked = value.run(world, { ...parties, owner: actor });
        // What it is set to is rounded, not the way there: whatever it was before, it comes to the same.
        const wanted = attributes.in(world).compiled.list[index].whole ? toWhole(asked) : asked;
        changeAttribute(world, actor, index, wanted - currentOf(world, actor, index), parties.source, 'set');
      };
    },
  },
};

/** What a change counts from: a stat's base, any other's value. */
function currentOf(world: World, actor: number, index: number): number {
  return attributes.in(world).cells[index].own.data[world.actors.rowOf(actor)];
}

/**
 * Changes an attribute and announces what it came to: what was asked, what its resistance kept off, what was given, and
 * what was lost over the top or under the bottom. `asked = given + lost + resisted`.
 */
export function changeAttribute(world: World, actor: number, index: number, by: number, source: number, how: How): void {
  const row = world.actors.rowOf(actor);
  if (row < 0 || by === 0) return;
  const state = attributes.in(world);
  // Whoever does not have it has nothing to change, and is told so: it was meant for somebody else.
  if (!has(world, state.compiled.list[index], row))
    return world.emit(events.attributeLacking, { subject: actor, source }, { attribute: state.compiled.list[index].id, asked: by, how });
  const { id, taken, whole: counted } = state.compiled.list[index];
  // Less than half of a whole thing is nothing.
  if (counted && toWhole(by) === 0) return;
  const through =
    how === 'hurt' && taken ? -Math.max(0, taken.run(world, { owner: actor, source, target: actor, event: { asked: -by } })) : by;
  const { from, to, asked, given, lost } = changeBy(world, state, row, index, through);
  // Whole pools round what is asked of them; only what its resistance did is told as resisted.
  const whole = through === by ? asked : by;
  const resisted = toGrid(whole - asked);
  const changed = world.announce(
    events.attributeChanged,
    { subject: actor, source },
    { attribute: id, from, to, asked: whole, given, lost, ...(resisted !== 0 && { resisted }), how },
  );
  noteCrossings(world, state, row, index, changed?.serial ?? world.cause);
}
