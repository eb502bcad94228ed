import type { FormulaFunction, Parties } from '../../formula/index.js';
import { cosine } from '../../math/angles.js';
import type { Amount, CompileContext, CompiledThen } from '../../ruleset/context.js';
import type { AmountSource } from '../../ruleset/fields.js';
import type { Path } from '../../ruleset/problem.js';
import type { Then } from '../../ruleset/registry.js';
import type { World } from '../../world/world.js';
import type { Who } from '../actors/index.js';
import { readAttribute } from '../attributes/index.js';
import { type ClipSpan, spanSeconds } from '../clips/index.js';
import { compileDelivery, type Delivery } from '../deliveries/compile.js';
import { hasStatus } from '../statuses/index.js';
import { adjustable } from './gifts.js';
import type { AbilityNumber } from './tables.js';
import type { AbilityEntry, GroupEntry } from './schema.js';
import { compileTooltip, type Tooltip } from './tooltip.js';

const CHAPTER = 'abilities';

interface Cost {
  readonly attribute: number;
  readonly id: string;
  readonly amount: Amount;
}

export interface Requirement {
  readonly test: FormulaFunction;
  /** What the player reads where it is not met. */
  /** What the player reads where it is not met, and the status that these words speak of, where their author wrote none. */
  readonly words: { readonly says: string; readonly status?: string };
  readonly throughout: boolean;
  /** The status that it asks for; -1 where it asks for something else. */
  readonly status: number;
}

/** A part of a use that takes time: how long for whom, the state it puts its user in, and whether that may move. */
export interface Stretch {
  readonly seconds: FormulaFunction;
  readonly state: number;
  readonly move: boolean;
  /** Seconds where nothing changes them, and the stat that divides them. */
  readonly base: number | undefined;
  readonly haste: number;
}

export interface Target {
  readonly at: 'self' | 'actor' | 'point' | 'direction' | 'cone' | 'nearest';
  readonly range: Amount | undefined;
  readonly who: Who;
  readonly sight: boolean;
  readonly count: number;
  /** Degrees, and the cosine of half of them. */
  readonly angle: number;
  readonly edge: number;
}

/** A cooldown group: using one of its abilities keeps all of them waiting for so many ticks. */
interface Group {
  readonly id: string;
  readonly members: readonly number[];
  readonly ticks: number;
}

export interface Ability {
  readonly index: number;
  readonly rule: number;
  readonly id: string;
  readonly label: string;
  readonly costs: readonly Cost[];
  readonly chargeAtEnd: boolean;
  /** Seconds. */
  readonly cooldown: Amount;
  readonly hasCooldown: boolean;
  readonly groups: readonly Group[];
  readonly stored: { readonly most: number; readonly refill: Amount } | undefined;
  readonly requires: readonly Requirement[];
  readonly cast: Stretch | undefined;
  readonly channel:
    (Stretch & { readonly every: Amount; readonly then: CompiledThen; readonly onEnd: CompiledThen | undefined }) | undefined;
  readonly recovery: Stretch | undefined;
  readonly breaks: {
    readonly damage: number | undefined;
    readonly movement: boolean;
    readonly statuses: readonly number[];
    readonly player: boolean;
  };
  /** Shares of costs and cooldown that a broken cast takes. */
  readonly broken: { readonly costs: number; readonly cooldown: number };
  readonly target: Target;
  readonly deliver: Delivery | undefined;
  readonly onStart: CompiledThen | undefined;
  readonly then: CompiledThen;
  readonly onHit: CompiledThen | undefined;
  readonly onMiss: CompiledThen | undefined;
  readonly onBreak: CompiledThen | undefined;
  readonly tooltip: Tooltip | undefined;
}

export interface CompiledAbilities {
  readonly entries: readonly AbilityEntry[];
  readonly list: readonly Ability[];
}

export function* compileAbilities(context: CompileContext): Generator<void, CompiledAbilities> {
  const entries = context.entries<AbilityEntry>(CHAPTER);
  const groups = new Map(context.entries<GroupEntry>('groups').map((group) => [group.id, compileGroup(context, group)]));
  entries.forEach((entry, i) => new Set(entry.groups).forEach((id) => groups.get(id)?.members.push(i)));
  const list = yield* context.each('abilities', entries, (entry, i) => compileOne(context, entry, i));
  const inGroups = (ability: Ability, i: number): Ability => ({
    ...ability,
    groups: entries[i].groups.map((id) => groups.get(id) ?? NO_GROUP),
  });
  return { entries, list: list.map((ability, i) => (entries[i].groups.length > 0 ? inGroups(ability, i) : ability)) };
}

/** An ability, but for its groups: those have all their members. */
function compileOne(context: CompileContext, entry: AbilityEntry, index: number): Ability {
  const path = [CHAPTER, index];
  const list = (field: 'onStart' | 'onHit' | 'onMiss' | 'onBreak') => {
    const actions = entry[field] as Then | undefined;
    // What follows from a hit or a miss is for whom was hit.
    const whom = field === 'onHit' || field === 'onMiss' ? 'target' : 'self';
    return actions === undefined || actions.length === 0 ? undefined : context.then(actions, [...path, field], undefined, whom);
  };
  const { cast, channel, recovery, brokenBy = {}, broken = {} } = entry;
  const chargeAtEnd = entry.charge === 'onFinish';
  checkShape(context, entry, path);
  return {
    index,
    rule: context.ruleAt(path),
    id: entry.id,
    label: entry.label,
    costs: entry.costs.map((cost, k) => compileCost(context, cost, index, [...path, 'costs', k])),
    chargeAtEnd,
    cooldown: adjustable(context.seconds(entry.cooldown ?? 0, [...path, 'cooldown']), index, 'cooldown'),
    hasCooldown: entry.cooldown !== undefined,
    groups: [],
    stored: entry.stored && { most: entry.stored.most, refill: context.seconds(entry.stored.refill, [...path, 'stored', 'refill']) },
    requires: entry.requires.map((requirement) => compileRequirement(context, requirement)),
    cast: cast && stretch(context, cast, [...path, 'cast'], cast.state ?? 'casting', cast.move),
    channel: channel && {
      ...stretch(context, { time: channel.lasts }, [...path, 'channel', 'lasts'], channel.state ?? 'channelling', channel.move),
      every: context.seconds(channel.every, [...path, 'channel', 'every']),
      then: context.then(channel.then, [...path, 'channel', 'then']),
      onEnd: channel.onEnd && context.then(channel.onEnd, [...path, 'channel', 'onEnd']),
    },
    recovery: recovery && stretch(context, recovery, [...path, 'recovery'], recovery.state ?? 'recovering'),
    breaks: {
      damage: brokenBy.damage,
      movement: brokenBy.movement ?? false,
      statuses: (brokenBy.statuses ?? []).map((id) => context.index('statuses', id)),
      player: brokenBy.player ?? false,
    },
    broken: { costs: broken.costs ?? (chargeAtEnd ? 0 : 1), cooldown: broken.cooldown ?? (chargeAtEnd ? 0 : 1) },
    target: compileTarget(context, entry.target, index, path),
    deliver:
      entry.deliver && compileDelivery(context, entry.deliver, [...path, 'deliver'], entry.target.at === 'cone' ? entry.target.angle : 0),
    onStart: list('onStart'),
    then: context.then(entry.then, [...path, 'then']),
    onHit: list('onHit'),
    onMiss: list('onMiss'),
    onBreak: list('onBreak'),
    tooltip: entry.tooltip && compileTooltip(context, entry.tooltip),
  };
}

/** What its parts say that can't go together. */
function checkShape(context: CompileContext, entry: AbilityEntry, path: Path): void {
  const { deliver, target } = entry;
  if (deliver?.by === 'area' && (target.at === 'direction' || target.at === 'cone'))
    context.problem(
      [...path, 'deliver', 'by'],
      `An area lands at a point or on somebody: aim ${entry.label} at a point, an actor or self.`,
    );
  if (deliver?.by === 'projectile' && (target.at === 'self' || target.at === 'nearest'))
    context.problem(
      [...path, 'deliver', 'by'],
      `A projectile flies somewhere: aim ${entry.label} in a direction, a cone, at a point or an actor.`,
    );
  if (target.at === 'direction' && !deliver)
    context.problem(
      [...path, 'target', 'at'],
      `In a direction there is nobody until something flies there: have ${entry.label} deliver a projectile.`,
    );
  if (entry.broken && !entry.cast && !entry.channel)
    context.problem([...path, 'broken'], `${entry.label} has no cast and no channel that could be broken.`);
  if (entry.brokenBy && !entry.cast && !entry.channel)
    context.problem([...path, 'brokenBy'], `${entry.label} has no cast and no channel that could be broken.`);
  if (entry.brokenBy?.movement === true && (entry.cast?.move === true || entry.channel?.move === true))
    context.problem([...path, 'brokenBy', 'movement'], `${entry.label} lets its user move and is broken by it: one of the two.`);
}

function compileCost(context: CompileContext, cost: AbilityEntry['costs'][number], ability: number, path: Path): Cost {
  const attribute = context.index('attributes', cost.attribute);
  const target = context.fields<{ label: string; kind: string }, 'label' | 'kind'>('attributes', cost.attribute, 'label', 'kind');
  if (target?.kind === 'stat')
    context.problem([...path, 'attribute'], `${target.label} is a stat, which is not spent: costs are paid from pools and counters.`);
  return { attribute, id: cost.attribute, amount: adjustable(context.amount(cost.amount, [...path, 'amount']), ability, 'costs') };
}

function compileGroup(context: CompileContext, { id, lasts }: GroupEntry): Group & { readonly members: number[] } {
  return { id, members: [], ticks: context.ticks(lasts) };
}

/** One that does not exist, which the references' own check has reported. */
const NO_GROUP: Group = { id: '', members: [], ticks: 0 };

function compileRequirement(context: CompileContext, requirement: AbilityEntry['requires'][number]): Requirement {
  const throughout = requirement.throughout ?? false;
  if ('if' in requirement) return { test: context.condition(requirement.if), words: { says: requirement.says }, throughout, status: -1 };
  const wanted = 'has' in requirement;
  const id = wanted ? requirement.has : requirement.hasNot;
  const status = context.index('statuses', id);
  const label = context.fields<{ label: string }, 'label'>('statuses', id, 'label')?.label ?? id;
  const unsaid = wanted ? `Only while ${label.toLowerCase()}.` : `Not while ${label.toLowerCase()}.`;
  return {
    test: (world, { owner }) => (hasStatus(world, owner, status) === wanted ? 1 : 0),
    words: requirement.says === undefined ? { says: unsaid, status: id } : { says: requirement.says },
    throughout,
    status: wanted ? status : -1,
  };
}

interface StretchSource {
  readonly time: AmountSource | ClipSpan;
  readonly rate?: AmountSource;
  readonly haste?: string;
}

/** A time, over the rate at which it is played, over the stat that hastens it. */
function stretch(context: CompileContext, source: StretchSource, path: Path, state: string, move = false): Stretch {
  const { time, rate = 1 } = source;
  const plain =
    typeof time === 'object' && 'clip' in time
      ? context.amount(spanSeconds(context, time, [...path, 'time']), path)
      : context.seconds(time, [...path, 'time']);
  const [, ability, part] = path;
  const seconds = adjustable(plain, Number(ability), part as AbilityNumber);
  const speed = context.amount(rate, [...path, 'rate']);
  const haste = source.haste === undefined ? -1 : context.index('attributes', source.haste);
  return {
    seconds: (world: World, parties: Parties) => {
      const hastened = haste < 0 ? 1 : readAttribute(world, parties.owner, haste);
      return Math.max(0, seconds.run(world, parties)) / (Math.max(SLOWEST, speed.run(world, parties)) * Math.max(SLOWEST, hastened));
    },
    state: context.index('states', state),
    move,
    base: seconds.constant !== undefined && speed.constant !== undefined ? seconds.constant / Math.max(SLOWEST, speed.constant) : undefined,
    haste,
  };
}

/** Nothing is stretched to more than a hundred times its length. */
const SLOWEST = 0.01;

function compileTarget(context: CompileContext, target: AbilityEntry['target'], ability: number, path: Path): Target {
  const angle = target.at === 'cone' ? target.angle : 0;
  return {
    at: target.at,
    range:
      'range' in target && target.range !== undefined
        ? adjustable(context.amount(target.range, [...path, 'target', 'range']), ability, 'range')
        : undefined,
    who: ('who' in target ? target.who : undefined) ?? 'foes',
    sight: 'sight' in target && target.sight === true,
    count: target.at === 'nearest' ? target.count : 1,
    angle,
    edge: cosine(angle / 2),
  };
}
