import type { FormulaFunction } from '../../formula/index.js';
import type { Amount, CompileContext, CompiledThen } from '../../ruleset/context.js';
import type { Path } from '../../ruleset/problem.js';
import { placements } from '../arena/index.js';
import { compileNeeds } from '../interactions/index.js';
import type { Drop } from '../loot/compile.js';
import type { ContainerEntry } from './schema.js';

/** One thing that can be in a container. */
export interface Content {
  readonly id: string;
  readonly label: string;
  /** The entry whose label it goes by; undefined where its label is its author's own. */
  readonly named: Drop['named'];
  /** The attribute that it gives; -1 for none. */
  readonly gives: number;
  readonly amount: Amount | undefined;
  readonly chance: Amount | undefined;
  readonly luck: number;
  readonly then: CompiledThen;
}

export interface Container {
  readonly id: string;
  readonly prompt: string;
  /** It, among the rules that act. */
  readonly rule: number;
  readonly reach: number;
  readonly sight: boolean;
  readonly who: FormulaFunction | undefined;
  readonly needs: ReturnType<typeof compileNeeds>;
  readonly opening: number;
  readonly closing: number;
  readonly alone: boolean;
  readonly holds: readonly Content[];
  /** The loot table that is opened with it; -1 for none. */
  readonly loot: number;
  readonly perPlayer: boolean;
  readonly takes: ContainerEntry['takes'];
  /** Ticks after which it is filled anew; 0 for never. */
  readonly refills: number;
}

export interface CompiledContainers {
  readonly list: readonly Container[];
  /** What a placed container says otherwise, by its position among the placed things. */
  readonly variants: ReadonlyMap<number, Container>;
  /** The container that each kind of actor is; -1 for none. */
  readonly ofType: readonly number[];
}

function compileOne(context: CompileContext, entry: ContainerEntry, own: Partial<ContainerEntry>, at: Path, placed: Path): Container {
  const all = { ...entry, ...own };
  const holds = [...('holds' in own ? placed : at), 'holds'];
  all.holds.forEach(({ id, label, gives, amount, then }, k) => {
    if (all.holds.findIndex((other) => other.id === id) < k)
      context.problem([...holds, k, 'id'], `${id} is in it already: ids are unique.`);
    if (gives === undefined && (then ?? []).length === 0)
      context.problem([...holds, k], `${label} gives nothing and does nothing: say what it gives, or what happens to its taker.`);
    if (gives === undefined && amount !== undefined)
      context.problem([...holds, k, 'amount'], `${label} gives nothing that there could be an amount of: say what it gives.`);
    const kind =
      gives === undefined
        ? undefined
        : context.fields<{ kind: string; label: string }, 'kind' | 'label'>('attributes', gives, 'kind', 'label');
    if (kind?.kind === 'stat')
      context.problem([...holds, k, 'gives'], `${kind.label} is a stat: what is taken is given to a pool or a counter.`);
  });
  return {
    id: entry.id,
    prompt: all.prompt,
    rule: context.ruleAt(at),
    reach: all.reach,
    sight: all.sight,
    who: all.who === undefined ? undefined : context.condition(all.who, ['target']),
    needs: compileNeeds(context, all.needs),
    opening: context.ticks(all.opening),
    closing: context.ticks(all.closing),
    alone: all.visitors === 'one',
    loot: all.loot === undefined ? -1 : context.index('loot', all.loot),
    perPlayer: all.contents === 'perPlayer',
    takes: all.takes,
    refills: all.refills === undefined ? 0 : Math.max(1, context.ticks(all.refills)),
    holds: all.holds.map((one, k): Content => {
      // By id: what is in it already stays what it is when the list is reordered.
      const path = [...holds, one.id];
      return {
        id: one.id,
        label: one.label,
        named: undefined,
        gives: one.gives === undefined ? -1 : context.index('attributes', one.gives),
        amount: one.gives === undefined ? undefined : context.amount(one.amount ?? 1, [...path, 'amount']),
        chance: one.chance === undefined ? undefined : context.amount(one.chance, [...path, 'chance']),
        luck: context.purpose([...path, 'there']),
        then: context.then(one.then ?? [], [...holds, k, 'then']),
      };
    }),
  };
}

export function* compileContainers(context: CompileContext): Generator<void, CompiledContainers> {
  const entries = context.entries<ContainerEntry>('containers');
  const types = context.entries<{ id: string; container?: string }>('actors');
  const ofType = types.map((type) => (type.container === undefined ? -1 : context.index('containers', type.container)));
  const variants = placements(context, 'actor').flatMap(({ index, thing }) => {
    const own = thing.with?.holds as Partial<ContainerEntry> | undefined;
    if (own === undefined) return [];
    const at = ['arena', 'placed', index, 'with', 'holds'];
    const i = ofType[types.findIndex(({ id }) => id === thing.actor)] ?? -1;
    if (i < 0) {
      context.problem(at, `${thing.actor} is no container: it holds nothing that could be other here.`);
      return [];
    }
    return [[index, compileOne(context, entries[i], own, ['containers', i], at)] as const];
  });
  return {
    list: yield* context.each('containers', entries, (entry, i) => compileOne(context, entry, {}, ['containers', i], [])),
    variants: new Map(variants),
    ofType,
  };
}
