import type { Ability } from './compile.js';
import { abilities } from './state.js';
import { canUse } from './casts.js';
import { PHASES as CAST_PHASES } from './tables.js';
import { fillTooltip, wrapText } from './tooltip.js';
import { numbersOf } from './numbers.js';
import { pricesOf } from './charge.js';
import type { ActorEntry } from '../actors/index.js';
import { attributes, restart } from '../attributes/index.js';
import { withoutFalls } from '../lives/index.js';
import { placeActor, placeOf } from '../movement/index.js';
import { idOf, labelOf, type Rules } from '../../ruleset/rules.js';
import { roundTo } from '../../math/grid.js';
import type { GameEvent } from '../../world/events.js';
import type { Command } from '../../world/commands.js';
import { World } from '../../world/world.js';
import { holderOf, play, type Played, SEAT, seriesOf } from '../situations/play.js';
import { pinsOf, pokesOf, situationOf } from '../situations/situations.js';
import { type Evidence, inWords, NONE, type Span, type Sweep, type SweepPoint } from '../../workbench/evidence.js';
import { castsTable } from './tables.js';
import { actorChapter } from '../actors/schema.js';

/** Uses are counted over the last of these, once what they cost has settled; before that the pools are emptied. */
const [SETTLING, COUNTED] = [30, 60];
/** How far from its user the one stands that an ability is tried on, as a share of its range. */
const AT_RANGE = 0.5;

interface Setting {
  readonly ability: Ability;
  readonly actor: ActorEntry;
  readonly other: ActorEntry;
  /** The attributes that the ability speaks of, which run on as they do. */
  readonly spoken: ReadonlySet<number>;
}

function settingOf(rules: Rules, id: string): Setting | undefined {
  const ability = abilities.of(rules).list.find((candidate) => candidate.id === id);
  const actor = holderOf(rules, (type) => type.abilities.includes(id));
  if (!ability || !actor) return undefined;
  const types = actorChapter.of(rules);
  // A foe of a player is a foe; of a foe a player is one.
  const text = JSON.stringify((rules.chapters.get('abilities')!.entries as readonly unknown[])[ability.index]);
  const spoken = new Set(attributes.of(rules).list.flatMap((attribute, i) => (new RegExp(`\\b${attribute.id}\\b`).test(text) ? [i] : [])));
  const wanted = actor.kind === 'player' ? 'foe' : 'player';
  return {
    ability,
    actor,
    other: types.find((type) => type.kind === wanted && type.life !== undefined) ?? types.find((type) => type.kind === wanted) ?? actor,
    spoken,
  };
}

/** One that is still not used after so many ticks is asked for all the same, so that it is heard why. */
const ASKED_AT = 40;

/** Uses an ability on the other one as soon as it can be, every time. */
function useAlways({ ability, spoken }: Setting) {
  let used = false;
  return (world: World, own: number, other: number): readonly Command[] => {
    const [row, target] = [world.actors.rowOf(own), world.actors.rowOf(other)];
    if (row < 0 || target < 0) return [];
    // What the ability does not speak of must not run out meanwhile: nobody asks how it goes without air.
    if (world.tick % world.rules.tickRate === 0) restart(world, row, spoken);
    if (world.tick === 1) apart(world, ability, row, target, own);
    const { x, y } = placeOf(world, target);
    const aim = { x, y, target };
    const can = canUse(world, own, ability, aim, world.tick + 1);
    if (!can && (used || world.tick !== ASKED_AT)) return [];
    used ||= can;
    return [
      { kind: 'input', args: { seat: SEAT, input: { do: 'use', ability: ability.id, ...(ability.target.at === 'self' ? {} : aim) } } },
    ];
  };
}

/** Puts the two at a distance at which the ability reaches. */
function apart(world: World, ability: Ability, row: number, target: number, own: number): void {
  const range = ability.target.range?.run(world, World.alone(own)) ?? 80;
  placeActor(world, row, 1000, 1000);
  placeActor(world, target, 1000 + Math.max(24, Math.min(400, range * AT_RANGE)), 1000);
}

/** An ability used as soon as it can be, on one that stands in reach: its casts, channels, recoveries and cooldowns. */
export function abilityEvidence(rules: Rules, id: string): Evidence {
  const setting = settingOf(rules, id);
  if (!setting) return NONE;
  const { ability, actor } = setting;
  const costs = [...new Set(ability.costs.map((cost) => cost.id))];
  const situation = situationOf(rules, 'ability', id, () => ({ seconds: 0, pins: [] }));
  const played = playFor(rules, setting, SETTLING + COUNTED, costs, pokesOf(situation));
  const seconds = situation.authored && situation.seconds > 0 ? situation.seconds : spanOf(played, rules);
  const shown = <T extends { readonly t: number }>(list: readonly T[]) => list.filter(({ t }) => t <= seconds);
  return {
    actor: actor.label,
    seconds,
    perSecond: rules.tickRate,
    series: costs.map((cost) => seriesOf(rules, cost, played.values.get(cost)!.slice(0, seconds * rules.tickRate))),
    spans: spansOf(rules, ability, played.events, seconds),
    pins: pinsOf(rules, situation, played.events),
    moments: shown(played.moments),
    facts: [...ratesOf(rules, setting, played), ...pricesInWords(rules, setting), ...brokenFacts(rules, setting), ...refusals(played)],
    situation: { ...situation, seconds },
    ...tooltipOf(rules, setting),
  };
}

function playFor(
  rules: Rules,
  setting: Setting,
  seconds: number,
  watch: readonly string[],
  pokes: ReturnType<typeof pokesOf> = [],
): Played {
  return play(withoutFalls(rules), {
    actor: setting.actor,
    other: setting.other,
    company: true,
    pokes,
    seconds,
    watch,
    drive: useAlways(setting),
  });
}

/** The shortest of a few lengths that shows at least four uses. */
function spanOf({ events }: Played, rules: Rules): number {
  const begun = events.filter((event) => event.name === 'abilityUsed');
  const fourth = begun[Math.min(3, begun.length - 1)]?.tick ?? 0;
  return [10, 20, 30, 60].find((seconds) => begun.length > 3 && seconds * rules.tickRate >= fourth) ?? 60;
}

/** What an ability did of its own to others, and how often it was used, a minute, once it had settled. */
function perMinute(rules: Rules, id: string, { events }: Played): { uses: number; damage: number } {
  const counted = events.filter((event) => event.tick > SETTLING * rules.tickRate);
  const scale = 60 / COUNTED;
  const uses = counted.filter((event) => event.name === 'abilityUsed' && event.data['ability'] === id).length;
  // What went under the bottom counts too: the one that it is tried on never falls.
  const damage = counted
    .filter((event) => event.name === 'attributeChanged' && event.data['how'] === 'hurt' && event.subject !== event.source)
    .reduce((sum, { data }) => sum - Number(data['given']) - Number(data['lost']), 0);
  return { uses: uses * scale, damage: roundTo(damage * scale, 1) };
}

function ratesOf(rules: Rules, { ability, other }: Setting, played: Played): Evidence['facts'] {
  const { uses, damage } = perMinute(rules, ability.id, played);
  const begun = played.events.filter((event) => event.name === 'abilityUsed').map((event) => event.tick / rules.tickRate);
  const gaps = begun.slice(1).map((t, i) => t - begun[i]);
  const hits = ability.onHit ?? ability.channel;
  return [
    { label: 'Uses a minute, sustained', value: inWords(uses) },
    {
      label: 'Shortest time between two',
      value: gaps.length > 0 ? `${inWords(Math.min(...gaps))} s` : begun.length === 1 ? 'only one use' : 'no use',
    },
    ...(hits ? [{ label: `Damage a minute, on one ${other.label.toLowerCase()}`, value: inWords(damage) }] : []),
  ];
}

/** What is paid, and when. */
function pricesInWords(rules: Rules, { ability, actor }: Setting): Evidence['facts'] {
  if (ability.costs.length === 0) return [];
  const [world, own] = alone(rules, actor);
  const words = pricesOf(world, ability, own).map(
    (price, i) => `${inWords(price)} ${labelOf(rules, 'attributes', ability.costs[i].id).toLowerCase()}`,
  );
  const when = !ability.cast
    ? 'at once'
    : ability.chargeAtEnd
      ? `after ${inWords(numbersOf(world, ability, own).cast)} s, when the cast is over`
      : 'when the cast begins';
  return [{ label: 'Paid', value: `${words.join(' and ')}, ${when}` }];
}

function tooltipOf(rules: Rules, { ability, actor }: Setting): Pick<Evidence, 'tooltip'> {
  if (!ability.tooltip) return {};
  const { width, lines: most } = ability.tooltip;
  const [world, own] = alone(rules, actor);
  return { tooltip: { lines: wrapText(fillTooltip(ability.tooltip, world, own, numbersOf(world, ability, own)), width), width, most } };
}

/** An actor by itself, just after it appeared. */
function alone(rules: Rules, actor: ActorEntry): readonly [World, number] {
  let present: readonly [World, number] | undefined;
  play(rules, { actor, seconds: 0.2, watch: [], drive: (world, own) => ((present ??= [world, own]), []) });
  return present!;
}

/** What a use costs that is broken half-way. */
function brokenFacts(rules: Rules, setting: Setting): Evidence['facts'] {
  const { ability } = setting;
  if (!ability.cast && !ability.channel) return [];
  const always = useAlways(setting);
  const half = { ends: 0 };
  const { events } = play(withoutFalls(rules), {
    actor: setting.actor,
    other: setting.other,
    company: true,
    seconds: 60,
    watch: ability.costs.slice(0, 1).map((cost) => cost.id),
    drive: (world, own, other) => {
      if (half.ends < 0) return [];
      const casts = castsTable.in(world);
      if (casts.count > 0) {
        if (half.ends === 0) half.ends = world.tick + Math.floor((casts.cells.ends[0] - world.tick) / 2);
        if (world.tick < half.ends) return [];
        half.ends = -1;
        return [{ kind: 'poke', args: { seat: SEAT, action: { do: 'breakCast' } } }];
      }
      return half.ends === 0 ? always(world, own, other) : [];
    },
    enough: () => half.ends < 0,
  });
  const broken = events.find((event) => event.name === 'castBroken');
  if (!broken) return [];
  const net = new Map<string, number>();
  for (const { name, data } of events)
    if (name === 'attributeChanged' && (data['how'] === 'cost' || data['how'] === 'refund'))
      net.set(String(data['attribute']), (net.get(String(data['attribute'])) ?? 0) - Number(data['given']));
  const lost = [...net]
    .filter(([, amount]) => amount > 0)
    .map(([attribute, amount]) => `${inWords(amount)} ${labelOf(rules, 'attributes', attribute).toLowerCase()}`);
  const cools = ability.broken.cooldown > 0 && (ability.hasCooldown || ability.groups.length > 0);
  const words = [...lost, ...(cools ? ['the cooldown'] : [])];
  return [{ label: 'Broken half-way', value: words.length === 0 ? 'nothing is lost' : `${words.join(' and ')} lost` }];
}

function refusals({ moments }: Played): Evidence['facts'] {
  const used = moments.some((moment) => !moment.refusal && moment.text.includes(' uses '));
  const refused = moments.find((moment) => moment.refusal);
  return used || !refused ? [] : [{ label: 'Refused', value: refused.text }];
}

const KINDS = { casting: 'cast', channelling: 'channel', recovering: 'recovery' } as const;

/** The stretches of time that uses take, as they were announced, and the cooldowns behind them. */
function spansOf(rules: Rules, ability: Ability, events: readonly GameEvent[], seconds: number): readonly Span[] {
  const spans: Span[] = [];
  const add = (kind: Span['kind'], from: number, to: number, ended?: string) => {
    if (from < seconds && to > from)
      spans.push({ kind, from, to: Math.min(seconds, to), label: kind, ...(ended !== undefined && { ended }) });
  };
  const at = (event: GameEvent) => event.tick / rules.tickRate;
  let open: { kind: Span['kind']; from: number } | undefined;
  const close = (event: GameEvent, ended?: string) => {
    if (open) add(open.kind, open.from, at(event), ended);
    open = undefined;
  };
  for (const event of events) {
    if (event.data['ability'] !== ability.id && event.name !== 'stateChanged') continue;
    if (event.name === 'castStarted') open = { kind: KINDS[CAST_PHASES[0]], from: at(event) };
    else if (event.name === 'castBroken') close(event, `broken by ${event.data['reason']}`);
    else if (event.name === 'abilityUsed') {
      close(event);
      if (ability.channel) open = { kind: KINDS[CAST_PHASES[1]], from: at(event) };
    } else if (event.name === 'channelEnded') close(event);
    else if (event.name === 'stateChanged') {
      const recovering = idOf(rules, 'states', ability.recovery?.state ?? -1);
      if (event.data['to'] === recovering) open = { kind: KINDS[CAST_PHASES[2]], from: at(event) };
      else if (event.data['from'] === recovering) close(event);
    }
  }
  if (open) add(open.kind, open.from, seconds);
  return [...spans, ...cooldownsOf(rules, ability, events, seconds)].sort((a, b) => a.from - b.from);
}

/** From each charge until it may be used again. */
function cooldownsOf(rules: Rules, ability: Ability, events: readonly GameEvent[], seconds: number): readonly Span[] {
  const cooldown = ability.cooldown.constant;
  if (!ability.hasCooldown) return [];
  const begins = events.filter(
    (event) =>
      event.name === (ability.cast && !ability.chargeAtEnd ? 'castStarted' : 'abilityUsed') && event.data['ability'] === ability.id,
  );
  return begins.flatMap((event, i): readonly Span[] => {
    const from = event.tick / rules.tickRate;
    const next = begins[i + 1] ? begins[i + 1].tick / rules.tickRate : seconds;
    const to = Math.min(seconds, cooldown === undefined ? next : from + cooldown, next);
    return from < to ? [{ kind: 'cooldown', from, to, label: 'cooldown' }] : [];
  });
}

/** How many points a stat is tried at. */
const STEPS = 7;

/** An ability over the range of the stat that hastens it: how long it casts, how often it is used, and what it does. */
export function abilitySweep(rules: Rules, id: string): Sweep | undefined {
  const setting = settingOf(rules, id);
  const stat = setting && statOf(rules, setting.ability);
  if (!setting || stat === undefined) return undefined;
  const { list } = attributes.of(rules);
  const type = actorChapter.of(rules).indexOf(setting.actor);
  if (!list[stat].present[type]) return undefined;
  const start = list[stat].starts[type]?.amount?.constant ?? 1;
  const low = Math.max(list[stat].min.constant ?? 0, start / 2);
  const high = Math.min(list[stat].max?.constant ?? Infinity, start * 2);
  const { id: attribute } = list[stat];
  return {
    stat: attribute,
    label: labelOf(rules, 'attributes', attribute),
    points: Array.from({ length: STEPS }, (_, i) => pointAt(rules, setting, attribute, roundTo(low + ((high - low) * i) / (STEPS - 1), 3))),
  };
}

function pointAt(rules: Rules, setting: Setting, attribute: string, at: number): SweepPoint {
  let cast = 0;
  const always = useAlways(setting);
  const pokes = [{ at: 0, seat: SEAT, do: 'set', attribute, value: at }];
  const played = play(withoutFalls(rules), {
    actor: setting.actor,
    other: setting.other,
    company: true,
    pokes,
    seconds: SETTLING + COUNTED,
    watch: [],
    drive: (world, own, other) => {
      if (world.tick === 2) cast = numbersOf(world, setting.ability, own).cast;
      return always(world, own, other);
    },
  });
  return { at, cast, ...perMinute(rules, setting.ability.id, played) };
}

/** The stat that hastens an ability; otherwise the first that a number of it reads. */
function statOf(rules: Rules, ability: Ability): number | undefined {
  const haste = [ability.cast, ability.recovery].find((part) => part && part.haste >= 0)?.haste;
  if (haste !== undefined) return haste;
  const read = [ability.cooldown, ...ability.costs.map((cost) => cost.amount), ...(ability.stored ? [ability.stored.refill] : [])].flatMap(
    (amount) => amount.references,
  );
  const { list } = attributes.of(rules);
  const found = read
    .map((reference) => list.findIndex((attribute) => attribute.id === reference.id && attribute.kind === 'stat'))
    .find((index) => index >= 0);
  return found;
}
