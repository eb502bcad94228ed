import type { Amount, CompileContext } from '../../ruleset/context.js';
import type { Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import { addModifier, attributes, type Operation, removeModifiers, settle } from '../attributes/index.js';
import { changeStatus } from '../statuses/index.js';
import { effects } from './index.js';
import type { EffectEntry } from './schema.js';

export interface Effect {
  readonly id: string;
  readonly ticks: number;
  readonly modifiers: readonly { readonly attribute: number; readonly operation: Operation; readonly amount: Amount }[];
  readonly grants: readonly number[];
}

export interface CompiledEffects {
  readonly entries: readonly EffectEntry[];
  readonly list: readonly Effect[];
}

/** The effects' grip on a world. */
export interface Effects extends CompiledEffects {
  readonly table: Table;
  readonly endTimer: number;
}

export function compileEffects(context: CompileContext): CompiledEffects {
  const entries = context.entries<EffectEntry>('effects');
  const list = entries.map((entry, i): Effect => {
    const ticks = context.ticks(entry.lasts);
    if (ticks < 1) context.problem(['effects', i, 'lasts'], 'An effect lasts longer than nothing.');
    return {
      id: entry.id,
      ticks,
      grants: entry.grants.map((status) => context.index('statuses', status)),
      modifiers: entry.modifiers.map((modifier, k) => {
        const path = ['effects', i, 'modifiers', k];
        const attribute = context.index('attributes', modifier.attribute);
        const target = context.entries<{ label: string; kind: string; max?: unknown }>('attributes')[attribute];
        if (target && target.kind !== 'stat')
          context.problem(
            [...path, 'attribute'],
            `${target.label} is a ${target.kind}: modifiers are for stats. Modify the stat that is its maximum, or hurt and heal it.`,
          );
        return { attribute, operation: modifier.operation, amount: context.amount(modifier.amount, [...path, 'amount'], ['source']) };
      }),
    };
  });
  return { entries, list };
}

/** Starts an instance of an effect on an actor: an instance of its own, whatever else is on. */
export function applyEffect(world: World, actor: number, index: number, source: number): void {
  const row = world.actors.rowOf(actor);
  if (row < 0) return;
  const grip = effects.in(world);
  const effect = grip.list[index];
  const at = grip.table.add();
  const handle = grip.table.handle(at);
  const cells: Record<string, number> = { actor, effect: index, source, ends: world.tick + effect.ticks };
  for (const [name, value] of Object.entries(cells)) grip.table.column(name).data[at] = value;
  const stats = attributes.in(world);
  for (const { attribute, operation, amount } of effect.modifiers)
    addModifier(stats, row, actor, attribute, operation, amount.run(world, { owner: actor, source, target: actor }), handle);
  if (effect.modifiers.length > 0) settle(world, stats, row);
  world.setTimer(grip.endTimer, effect.ticks, actor, handle);
  const started = world.announce('effectStarted', { subject: actor, source }, { effect: effect.id, ticks: effect.ticks });
  world.because(started, () => effect.grants.forEach((status) => changeStatus(world, actor, status, 1)));
}

/** Ends an instance. What the other instances say is then all that holds: nothing is divided back out. */
export function endEffect(world: World, at: number, reason: 'ranOut' | 'removed'): void {
  const { table, list } = effects.in(world);
  const actor = table.column('actor').data[at];
  const source = table.column('source').data[at];
  const effect = list[table.column('effect').data[at]];
  const handle = table.handle(at);
  const row = world.actors.rowOf(actor);
  table.remove(at);
  if (row < 0) return;
  removeModifiers(attributes.in(world), row, handle);
  settle(world, attributes.in(world), row);
  const ended = world.announce('effectEnded', { subject: actor, source }, { effect: effect.id, reason });
  world.because(ended, () => effect.grants.forEach((status) => changeStatus(world, actor, status, -1)));
}

/** The rows of an actor's instances of an effect, in table order. */
export function instancesOf(world: World, actor: number, index: number): number[] {
  const { table } = effects.in(world);
  const owner = table.column('actor').data;
  const kind = table.column('effect').data;
  const rows: number[] = [];
  for (let row = 0; row < table.high; row++) if (table.live[row] === 1 && owner[row] === actor && kind[row] === index) rows.push(row);
  return rows;
}

/**
 * Under edited rules: instances of deleted effects are gone from the table, and with them go their modifiers and grants.
 * Those that remain keep the amounts and the end they started with; their grants follow the edit.
 */
export function adoptEffects(world: World, before: World): void {
  const old = effects.in(before);
  const now = effects.in(world);
  for (let at = 0; at < old.table.high; at++) {
    if (old.table.live[at] === 0) continue;
    const actor = old.table.column('actor').data[at];
    const row = world.actors.rowOf(actor);
    if (row < 0) continue;
    const was = old.list[old.table.column('effect').data[at]];
    const is = now.table.live[at] === 1 ? now.list[now.table.column('effect').data[at]] : undefined;
    if (!is) removeModifiers(attributes.in(world), row, old.table.handle(at));
    moveGrants(world, actor, before, was.grants, is?.grants ?? []);
    settle(world, attributes.in(world), row);
  }
}

function moveGrants(world: World, actor: number, before: World, was: readonly number[], is: readonly number[]): void {
  const oldIds = before.rules.chapters.get('statuses')!.ids;
  const newIds = world.rules.chapters.get('statuses')!.ids;
  const had = was.map((i) => newIds.indexOf(oldIds[i])).filter((i) => i >= 0);
  for (const status of had) if (!is.includes(status)) changeStatus(world, actor, status, -1);
  for (const status of is) if (!had.includes(status)) changeStatus(world, actor, status, 1);
}
