import type { Amount, CompiledThen, CompileContext } from '../../ruleset/context.js';
import type { Table } from '../../world/table.js';
import { World } from '../../world/world.js';
import { typeOf } from '../actors/index.js';
import { changeAttribute, readAttribute } from '../attributes/index.js';
import { abilities } from './index.js';
import type { AbilityEntry } from './schema.js';

export interface Ability {
  readonly id: string;
  readonly label: string;
  readonly costs: readonly { readonly attribute: number; readonly label: string; readonly id: string; readonly amount: Amount }[];
  /** Seconds. */
  readonly cooldown: Amount;
  readonly then: CompiledThen;
}

/** The abilities' grip on a world. */
export interface Abilities {
  readonly list: readonly Ability[];
  readonly table: Table;
}

export function compileAbilities(context: CompileContext): readonly Ability[] {
  return context.entries<AbilityEntry>('abilities').map((entry, i) => {
    const path = ['abilities', i];
    const { cooldown = 0 } = entry;
    return {
      id: entry.id,
      label: entry.label,
      costs: entry.costs.map((cost, k) => {
        const attribute = context.index('attributes', cost.attribute);
        const target = context.entries<{ label: string; kind: string }>('attributes')[attribute];
        if (target?.kind === 'stat')
          context.problem(
            [...path, 'costs', k, 'attribute'],
            `${target.label} is a stat, which is not spent: costs are paid from pools and counters.`,
          );
        return {
          attribute,
          id: cost.attribute,
          label: target?.label ?? cost.attribute,
          amount: context.amount(cost.amount, [...path, 'costs', k, 'amount']),
        };
      }),
      cooldown: context.seconds(cooldown, [...path, 'cooldown']),
      then: context.then(entry.then, [...path, 'then']),
    };
  });
}

/** Gives an actor a row for each ability of its type that it does not have yet, and takes those away that it should not have. */
export function giveAbilities(world: World, row: number): void {
  const { table, list } = abilities.in(world);
  const actor = world.actors.handle(row);
  const wanted = typeOf(world, row).abilities.map((id) => list.findIndex((ability) => ability.id === id));
  const owner = table.column('actor').data;
  const ability = table.column('ability').data;
  const present = new Set<number>();
  for (let at = 0; at < table.high; at++) {
    if (table.live[at] === 0 || owner[at] !== actor) continue;
    if (wanted.includes(ability[at])) present.add(ability[at]);
    else table.remove(at);
  }
  for (const index of wanted) {
    if (present.has(index)) continue;
    const at = table.add();
    table.column('actor').data[at] = actor;
    table.column('ability').data[at] = index;
  }
}

/** The row of an actor's ability, or -1. */
function rowOf(world: World, actor: number, id: string): number {
  const { table, list } = abilities.in(world);
  const owner = table.column('actor').data;
  const ability = table.column('ability').data;
  for (let at = 0; at < table.high; at++) if (table.live[at] === 1 && owner[at] === actor && list[ability[at]].id === id) return at;
  return -1;
}

/** A player asks to use an ability: it is refused with a reason and no cost, or paid for and done. */
export function useAbility(world: World, actor: number, id: string): void {
  const { table, list } = abilities.in(world);
  const refuse = (reason: string, data: Record<string, number | string> = {}) =>
    world.emit('abilityRefused', { subject: actor }, { ability: id, reason, ...data });
  const at = rowOf(world, actor, id);
  if (at < 0) return refuse('notOwned');
  const ability = list[table.column('ability').data[at]];
  const ready = table.column('ready').data;
  if (ready[at] > world.tick) return refuse('coolingDown', { ticks: ready[at] - world.tick });
  const parties = World.alone(actor);
  const prices = ability.costs.map((cost) => Math.max(0, cost.amount.run(world, parties)));
  for (let i = 0; i < prices.length; i++) {
    const { attribute, id: pool } = ability.costs[i];
    // Two costs on one pool are asked together.
    const needs = prices.reduce((sum, price, k) => (ability.costs[k].attribute === attribute ? sum + price : sum), 0);
    const present = readAttribute(world, actor, attribute);
    if (present < needs) return refuse('tooExpensive', { attribute: pool, needs, present });
  }
  const cooldown = Math.max(0, Math.ceil(ability.cooldown.run(world, parties) * world.rules.tickRate - 1e-9));
  ready[at] = world.tick + cooldown;
  table.column('cooldown').data[at] = cooldown;
  world.follow('abilityUsed', { subject: actor, source: actor }, { ability: id }, () => {
    ability.costs.forEach((cost, i) => changeAttribute(world, actor, cost.attribute, -prices[i], actor, 'cost'));
    ability.then(world, parties);
  });
}
