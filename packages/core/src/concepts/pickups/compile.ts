import type { FormulaFunction } from '../../formula/index.js';
import type { Amount, CompileContext, CompiledThen } from '../../ruleset/context.js';
import { placedActions } from '../../ruleset/actions.js';
import type { AmountSource } from '../../ruleset/fields.js';
import type { Path } from '../../ruleset/problem.js';
import { placements } from '../arena/index.js';
import type { PickupEntry } from './schema.js';

export interface Pickup {
  readonly id: string;
  readonly label: string;
  readonly radius: number;
  readonly shape: PickupEntry['shape'];
  readonly rule: number;
  readonly who: FormulaFunction | undefined;
  /** The condition as it is written, and what its author says to whom it refuses. */
  readonly condition: string;
  readonly refusal: string | undefined;
  readonly then: CompiledThen;
  readonly perPlayer: boolean;
  /** Its luck is drawn as it appears. */
  readonly drawnBefore: boolean;
  /** What it gives of an attribute by that luck, as anybody may see who sees the pickup; undefined where nothing is. */
  readonly worth: { readonly attribute: string; readonly amount: Amount } | undefined;
  readonly lasts: number;
  readonly returns: number;
}

export interface CompiledPickups {
  readonly list: readonly Pickup[];
  /** Those that a placed thing has otherwise, by its position among the placed things. */
  readonly variants: ReadonlyMap<number, Pickup>;
  /** What a player's taking is remembered as. */
  readonly taken: number;
  /** What the luck is for of one that is laid down, by its kind; and of one that the arena places, by its position there. */
  readonly lucks: readonly number[];
  readonly placedLucks: ReadonlyMap<number, number>;
}

function compilePickup(context: CompileContext, entry: PickupEntry, path: Path, rule: number): Pickup {
  const ticks = (time: string | undefined) => (time === undefined ? 0 : Math.max(1, context.ticks(time)));
  return {
    id: entry.id,
    label: entry.label,
    radius: entry.radius,
    shape: entry.shape,
    rule,
    who: entry.who === undefined ? undefined : context.condition(entry.who),
    condition: entry.who ?? '',
    refusal: entry.refusal,
    then: context.then(entry.then, [...path, 'then']),
    perPlayer: entry.gone === 'perPlayer',
    drawnBefore: entry.drawn === 'appearing' && hasLuck(entry),
    worth: entry.drawn === 'appearing' ? worthOf(context, entry, path) : undefined,
    lasts: ticks(entry.lasts),
    returns: ticks(entry.returns),
  };
}

/** Whether luck decides anything of what a pickup does. */
const hasLuck = ({ then }: PickupEntry): boolean =>
  placedActions(then, []).some(({ action }) => action.do === 'pick' || Object.values(action).some((one) => isRandom(one)));

const isRandom = (value: unknown): boolean => typeof value === 'object' && value !== null && 'random' in value;

/** What the first action of a pickup's list that gives by luck comes to. */
function worthOf(context: CompileContext, { then }: PickupEntry, path: Path): Pickup['worth'] {
  const i = then.findIndex(({ do: what, amount }) => (what === 'give' || what === 'heal') && isRandom(amount));
  if (i < 0) return undefined;
  const { attribute, amount } = then[i];
  // In the same place as in the list, and so by the same luck.
  return { attribute: String(attribute), amount: context.amount(amount as AmountSource, [...path, 'then', i, 'amount']) };
}

export function* compilePickups(context: CompileContext): Generator<void, CompiledPickups> {
  const entries = context.entries<PickupEntry>('pickups');
  const placed = placements(context, 'pickup');
  const variants = placed.flatMap(({ index, thing }) => {
    const entry = context.entry<PickupEntry>('pickups', thing.pickup);
    if (thing.with === undefined || !entry) return [];
    const i = context.index('pickups', thing.pickup);
    // What is not said anew keeps its place, and with it its luck.
    const own = { ...entry, ...(thing.with as Partial<PickupEntry>) };
    const path = 'then' in thing.with ? ['arena', 'placed', index, 'with'] : ['pickups', i];
    return [[index, compilePickup(context, own, path, context.ruleAt(['pickups', i]))] as const];
  });
  return {
    list: yield* context.each('pickups', entries, (entry, i) =>
      compilePickup(context, entry, ['pickups', i], context.ruleAt(['pickups', i])),
    ),
    variants: new Map(variants),
    taken: context.purpose(['pickups', 'taken']),
    lucks: yield* context.each('luck', entries, (_, i) => context.purpose(['pickups', i, 'luck'])),
    placedLucks: new Map(placed.map(({ index }) => [index, context.purpose(['arena', 'placed', index, 'luck'])])),
  };
}
