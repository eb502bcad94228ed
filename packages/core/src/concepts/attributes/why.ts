import { z } from 'zod';
import { effects } from '../effects/index.js';
import { attributeChapter, type AttributeEntry, OPERATIONS } from './schema.js';
import { attributes } from './state.js';
import { combine, stacked, sumModifiers } from './modifiers.js';
import { highOf, lowOf } from './values.js';
import { trackOfHolder, tracks } from '../tracks/index.js';
import { roundTo } from '../../math/grid.js';
import { idOf, labelOf, type Rules } from '../../ruleset/rules.js';
import type { World } from '../../world/world.js';
import { type Cause, type History } from '../../replication/history.js';
import { effectChapter, type EffectEntry } from '../effects/schema.js';

const DECIMALS = 4;

/** A modifier as it counts at the moment. */
export const whyModifier = z.strictObject({
  operation: z.enum(OPERATIONS),
  /** One of it, and what it comes to with its stacks. */
  amount: z.number(),
  counts: z.number(),
  stacks: z.int(),
  live: z.boolean(),
  /** It is there and does not count: a stronger one of its kind does. */
  muted: z.boolean(),
  effect: z.string(),
  label: z.string(),
  /** Who put it there; empty where nobody did. */
  source: z.string(),
  /** Seconds left; none where only an event ends it. */
  left: z.number().optional(),
  uses: z.int().optional(),
});

/** What a value is made of, today. */
export const whySchema = z.strictObject({
  attribute: z.string(),
  label: z.string(),
  kind: z.enum(['pool', 'stat', 'counter']),
  unit: z.string(),
  value: z.number(),
  base: z.number(),
  low: z.number(),
  /** No number where there is no upper bound. */
  high: z.number().optional(),
  /** The bounds as their author wrote them. */
  lowText: z.string(),
  highText: z.string(),
  modifiers: z.array(whyModifier),
  /** What the value would be without its bounds. */
  before: z.number(),
  /** Per second at the moment; none where nothing refills it. */
  rate: z.number().optional(),
  /** Seconds that its refill still rests. */
  rests: z.number().optional(),
  /** The line of its making, with today's numbers. */
  line: z.string(),
});
export type Why = z.infer<typeof whySchema>;
export type WhyModifier = z.infer<typeof whyModifier>;

const written = (amount: AttributeEntry['min'] | undefined) => (amount === undefined ? '' : String(amount));
const shown = (value: number) => String(roundTo(value, DECIMALS));

/** What an actor's attribute is made of; undefined where it has none of that name. */
export function why(world: World, actor: number, id: string): Why | undefined {
  const state = attributes.in(world);
  const index = state.compiled.list.findIndex((attribute) => attribute.id === id);
  const row = world.actors.rowOf(actor);
  const attribute = state.compiled.list[index];
  if (row < 0 || !attribute?.present[world.actors.cells.type[row]]) return undefined;
  const entry = state.compiled.entries[index];
  const cells = state.cells[index];
  const low = lowOf(world, attribute, actor);
  const high = attribute.max ? highOf(world, attribute, actor, low) : undefined;
  const modifiers = modifiersOn(world, row, index);
  const base = cells.own.data[row];
  const before = attribute.kind === 'stat' ? combine(base, sumModifiers(world, state, row, index)) : base;
  const { refill } = attribute;
  const own = { owner: actor, source: 0, target: 0 };
  const rate = refill && (refill.while === undefined || refill.while(world, own) !== 0 ? refill.rate.run(world, own) : 0);
  const rests =
    cells.rests && rate !== undefined && rate > 0 ? Math.max(0, cells.rests.data[row] - world.tick) / world.rules.tickRate : undefined;
  const parts: Omit<Why, 'line'> = {
    attribute: id,
    label: entry.label,
    kind: attribute.kind,
    unit: entry.unit ?? '',
    value: cells.value.data[row],
    base,
    low,
    ...(high !== undefined && { high }),
    lowText: written(entry.min),
    highText: written(entry.max),
    modifiers,
    before: roundTo(before, DECIMALS),
    ...(rate !== undefined && { rate }),
    ...(rests !== undefined && { rests }),
  };
  return { ...parts, line: lineOf(parts) };
}

/** Every attribute of an actor with what it is made of. */
export function whyAll(world: World, actor: number): readonly Why[] {
  return attributes.in(world).compiled.list.flatMap(({ id }) => why(world, actor, id) ?? []);
}

function modifiersOn(world: World, row: number, index: number): WhyModifier[] {
  const { heads, of } = attributes.in(world);
  const instances = effects.in(world);
  const found: WhyModifier[] = [];
  for (let at = heads.cells.first[row]; at !== 0; at = of.next[at - 1]) {
    const k = at - 1;
    if (of.attribute[k] !== index) continue;
    const instance = instances.table.rowOf(of.holder[k]);
    const effect = instance < 0 ? '' : idOf(world.rules, 'effects', instances.of.effect[instance]);
    const ends = instance < 0 ? 0 : instances.of.ends[instance];
    const uses = instance < 0 ? 0 : instances.of.uses[instance];
    const operation = of.operation[k];
    found.push({
      operation: OPERATIONS[operation],
      amount: of.amount[k],
      counts: roundTo(stacked(operation, of.amount[k], of.stacks[k]), DECIMALS),
      stacks: of.stacks[k],
      live: of.live[k] !== 0,
      muted: of.muted[k] === 1,
      effect,
      label: effect === '' ? grownBy(world, of.holder[k]) : labelOf(world.rules, 'effects', effect),
      source: world.nameOf(of.source[k]),
      ...(ends > 0 && { left: (ends - world.tick) / world.rules.tickRate }),
      ...(uses > 0 && { uses }),
    });
  }
  // In the order of the line: what is added, then percents, then products, then what sets and holds.
  return found.reverse().sort((a, b) => OPERATIONS.indexOf(a.operation) - OPERATIONS.indexOf(b.operation));
}

/** What a modifier comes from that no effect holds: the level of a track. */
function grownBy(world: World, holder: number): string {
  return holder < 0 ? (tracks.of(world.rules).list[trackOfHolder(holder)]?.label ?? '') : '';
}

/**
 * `clamp(set ?? ((base + add) x (1 + percent) x times), …) = value` with today's numbers. Parts that do nothing stay in the
 * line as 0 and 1: it always has the same shape.
 */
export function lineOf({ kind, base, modifiers, value, low, high }: Omit<Why, 'line'>): string {
  const bounds = `${shown(low)}, ${high === undefined ? 'no end' : shown(high)}`;
  if (kind !== 'stat') return `clamp(${shown(base)}, ${bounds}) = ${shown(value)}`;
  const on = (operation: WhyModifier['operation']) => modifiers.filter((m) => m.operation === operation && !m.muted).map((m) => m.counts);
  const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);
  const sets = on('set');
  const product = on('times').reduce((a, b) => a * b, 1);
  const worked = `((${shown(base)} + ${shown(sum(on('add')))}) × (1 + ${shown(sum(on('percent')) / 100)}) × ${shown(product)})`;
  const inner = sets.length > 0 ? `set ${shown(Math.min(...sets))}` : worked;
  const [atLeast, atMost] = [on('atLeast'), on('atMost')];
  const holds = [
    ...(atLeast.length > 0 ? [`at least ${shown(Math.max(...atLeast))}`] : []),
    ...(atMost.length > 0 ? [`at most ${shown(Math.min(...atMost))}`] : []),
  ];
  return `clamp(${[inner, ...holds, bounds].join(', ')}) = ${shown(value)}`;
}

/** What last changed an actor's attribute, newest first, each with what led to it. */
export function causesOf(history: History, rules: Rules, actor: number, attribute: string, most = 4): readonly (readonly Cause[])[] {
  // What happened before a renaming tells of the former ids.
  const ids = (entry: { readonly id: string; readonly formerly?: readonly string[] }) => [entry.id, ...(entry.formerly ?? [])];
  const own = new Set(attributeChapter.of(rules).flatMap((entry) => (entry.id === attribute ? ids(entry) : [])));
  const changes = (effect: EffectEntry) => effect.modifiers.some((modifier) => modifier.attribute === attribute);
  const modifying = new Set(effectChapter.of(rules).filter(changes).flatMap(ids));
  return history.latest(
    ({ subject, data }) => subject === actor && (own.has(String(data['attribute'] ?? '')) || modifying.has(String(data['effect'] ?? ''))),
    most,
  );
}
