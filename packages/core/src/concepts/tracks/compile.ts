import { NOBODY } from '../../formula/index.js';
import { toGrid } from '../../math/grid.js';
import type { Amount, CompileContext, CompiledPattern, CompiledThen } from '../../ruleset/context.js';
import { grouped } from '../../ruleset/grouped.js';
import type { Pattern, Then } from '../../ruleset/registry.js';
import type { Rules } from '../../ruleset/rules.js';
import type { World } from '../../world/world.js';
import { playerKinds } from '../actors/index.js';
import type { AttributeEntry } from '../attributes/index.js';
import { LOCALS, PARTIES, type Share, type TrackEntry } from './schema.js';
import { bareWorld } from '../../world/bare-world.js';

const CHAPTER = 'tracks';
/** The least that a level takes, whatever its formula says. */
const LEAST_NEED = 0.001;

export interface Source {
  readonly pattern: CompiledPattern;
  readonly who: NonNullable<Pattern['who']>;
  readonly amount: Amount;
  readonly share: Share | undefined;
}

interface Growth {
  readonly attribute: number;
  readonly amount: Amount;
  /** The number under which the rules keep the amount. */
  readonly live: number;
}

export interface Track {
  readonly index: number;
  readonly id: string;
  readonly label: string;
  readonly levels: number;
  readonly carry: boolean;
  readonly sources: readonly Source[];
  readonly onLevel: readonly { readonly from: number; readonly to: number; readonly every: number; readonly then: CompiledThen }[];
  readonly points: readonly { readonly tree: number; readonly each: number }[];
  readonly growth: readonly Growth[];
  readonly loss: TrackEntry['loss'];
  /** What it takes from a level to the next. */
  readonly need: (rules: Rules, level: number) => number;
}

export interface CompiledTracks {
  readonly entries: readonly TrackEntry[];
  readonly list: readonly Track[];
  /** By kind of actor: players alone have levels. */
  readonly players: readonly boolean[];
  /** By event: the sources that wait for it. */
  readonly on: ReadonlyMap<string, readonly { readonly track: Track; readonly source: Source }[]>;
}

export function* compileTracks(
  context: CompileContext,
  levelOf: (world: World, actor: number, track: number) => number,
): Generator<void, CompiledTracks> {
  const entries = context.entries<TrackEntry>(CHAPTER);
  const list = yield* context.each('tracks', entries, (entry, i) => compileOne(context, entry, i, levelOf));
  const on = grouped(
    list.flatMap((track) => track.sources.map((source) => ({ track, source }))),
    ({ source }) => source.pattern.event,
  );
  return { entries, list, players: playerKinds(context), on };
}

function compileOne(
  context: CompileContext,
  entry: TrackEntry,
  index: number,
  levelOf: (world: World, actor: number, track: number) => number,
): Track {
  const path = [CHAPTER, index];
  if (Array.isArray(entry.needs) && entry.needs.length !== entry.levels - 1)
    context.problem(
      [...path, 'needs'],
      `${entry.levels} levels take ${entry.levels - 1} amounts, one to get from each level to the next; these are ${entry.needs.length}.`,
    );
  return {
    index,
    id: entry.id,
    label: entry.label,
    levels: entry.levels,
    carry: entry.carry,
    sources: entry.sources.map(({ on, amount, share }, k) => ({
      pattern: context.pattern(on as Pattern),
      who: (on as Pattern).who ?? 'subject',
      amount: context.amount(amount, [...path, 'sources', k, 'amount'], PARTIES),
      share,
    })),
    onLevel: entry.onLevel.map(({ from = 2, to = entry.levels, every = 1, then }, k) => {
      if (from > to) context.problem([...path, 'onLevel', k, 'from'], `The first level comes first: ${from} is above ${to}.`);
      return { from, to, every, then: context.then(then as Then, [...path, 'onLevel', k, 'then']) };
    }),
    points: entry.points.map(({ tree, each }) => ({ tree: context.index('trees', tree), each })),
    growth: entry.growth.map(({ attribute: id, amount: written }, k) => {
      const at = [...path, 'growth', k];
      const attribute = context.index('attributes', id);
      const target = context.fields<AttributeEntry, 'kind' | 'label'>('attributes', id, 'kind', 'label');
      if (target && target.kind !== 'stat')
        context.problem([...at, 'attribute'], `${target.label} is a ${target.kind}: what grows is a stat, such as its maximum.`);
      const { run, constant, references } = context.amountOver(written, LOCALS);
      // One object for all: it is asked again at every change.
      const local = { owner: 0, source: 0, target: 0, event: { level: 0 } };
      const amount: Amount = {
        run: (world, { owner, source, target }) => {
          local.owner = owner;
          local.source = source;
          local.target = target;
          local.event.level = levelOf(world, owner, index);
          return run(world, local);
        },
        ...(constant !== undefined && { constant }),
        references,
      };
      return { attribute, amount, live: context.keepAmount([...at, 'amount'], amount) };
    }),
    loss: entry.loss,
    need: compileNeed(context, entry, index),
  };
}

/** What a level takes is the same for everybody: its formula speaks of nobody. */
function compileNeed(context: CompileContext, { needs, label, levels }: TrackEntry, index: number): Track['need'] {
  if (Array.isArray(needs)) return (_, level) => toGrid(Math.max(LEAST_NEED, needs[Math.min(level, needs.length) - 1]));
  const formula = context.amountOver(needs as number | string, LOCALS);
  const read = formula.references.find(({ chapter }) => chapter !== 'curves');
  if (read)
    context.problem(
      [CHAPTER, index, 'needs'],
      `What a level of ${label} takes is the same for everybody: it can read level and curves, and not ${read.id}.`,
    );
  // Curves are read from the rules alone; nothing else of a world can be asked here.
  const asked = (level: number, known: Partial<World> = {}) => formula.run(bareWorld(known), { ...NOBODY, event: { level } });
  if (!read && formula.references.length === 0)
    for (let level = 1; level < levels; level++)
      if (asked(level) <= 0) {
        context.problem(
          [CHAPTER, index, 'needs'],
          `From level ${level} to ${level + 1} this comes to ${asked(level)}: a level takes more than nothing.`,
        );
        break;
      }
  return (rules, level) => Math.max(LEAST_NEED, asked(level, { rules }));
}

/** The whole of a track's table: what each level takes, and all that it takes to get there from level 1. */
export function tableOf(rules: Rules, track: Track): readonly { readonly level: number; readonly need: number; readonly total: number }[] {
  const rows: { level: number; need: number; total: number }[] = [];
  let total = 0;
  for (let level = 1; level <= track.levels; level++) {
    const need = level < track.levels ? track.need(rules, level) : 0;
    rows.push({ level, need, total });
    total = toGrid(total + need);
  }
  return rows;
}
