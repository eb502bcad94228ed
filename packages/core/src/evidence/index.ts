import type { AbilityEntry } from '../concepts/abilities/index.js';
import type { ActorEntry } from '../concepts/actors/index.js';
import type { AttributeEntry } from '../concepts/attributes/index.js';
import type { EffectEntry } from '../concepts/effects/index.js';
import { actorOfSeat } from '../concepts/seats/index.js';
import { sentenceOf } from '../replication/announcements.js';
import type { Rules } from '../ruleset/rules.js';
import { commandsOf } from '../script/run.js';
import type { Script } from '../script/schema.js';
import { World } from '../world/world.js';

/** How long a situation is played, in seconds. */
export const EVIDENCE_SECONDS = 60;

/** A stretch of time that something held, in seconds. */
export interface Span {
  readonly from: number;
  readonly to: number;
  readonly label: string;
}

export interface Series {
  readonly id: string;
  readonly label: string;
  readonly values: readonly number[];
}

/** What a situation came to: values at every tick, what was on when, what was said. */
export interface Evidence {
  /** The actor it was tried on; undefined where no actor has what is asked about. */
  readonly actor: string | undefined;
  readonly seconds: number;
  readonly perSecond: number;
  readonly series: readonly Series[];
  readonly spans: readonly Span[];
  /** What was done from outside, and when. */
  readonly pins: readonly { readonly t: number; readonly label: string }[];
  readonly moments: readonly { readonly t: number; readonly text: string; readonly refusal: boolean }[];
  /** Answers in a line each: what is asked, and the answer in words. */
  readonly facts: readonly { readonly label: string; readonly value: string }[];
}

const NONE: Evidence = {
  actor: undefined,
  seconds: EVIDENCE_SECONDS,
  perSecond: 1,
  series: [],
  spans: [],
  pins: [],
  moments: [],
  facts: [],
};
const SEAT = 'trial';

interface Situation {
  readonly actor: ActorEntry;
  readonly pokes?: Script['pokes'];
  readonly inputs?: Script['inputs'];
  readonly seconds?: number;
  readonly watch: readonly string[];
  /** Ends the situation early, by what the first watched value came to. The first tick, which sets things up, is always run. */
  readonly enough?: (value: number) => boolean;
}

interface Played {
  readonly values: ReadonlyMap<string, readonly number[]>;
  readonly moments: Evidence['moments'];
}

/** Plays one actor alone on empty ground: what lies about in the arena has no part in a small situation. */
function play(rules: Rules, { actor, pokes = [], inputs = [], seconds = EVIDENCE_SECONDS, watch, enough }: Situation): Played {
  const world = World.start(rules, 1);
  const things = world.tables.get('pickups');
  if (things) for (let row = 0; row < things.high; row++) things.remove(row);
  const commands = commandsOf({ seats: [{ id: SEAT, actor: actor.id }], inputs, pokes }, rules.tickRate);
  const values = new Map(watch.map((id) => [id, [] as number[]]));
  const moments: { t: number; text: string; refusal: boolean }[] = [];
  for (let tick = 1; tick <= seconds * rules.tickRate; tick++) {
    for (const event of world.step(commands.get(tick))) {
      const spec = rules.registry.events.get(event.name);
      if (event.subject !== 0 && spec && !['poked', 'asked', 'actorSpawned', 'seatTaken'].includes(event.name))
        moments.push({ t: tick / rules.tickRate, text: sentenceOf(rules, event), refusal: spec.refusal === true });
    }
    const row = world.actors.rowOf(actorOfSeat(world, SEAT));
    const table = world.table('attributes');
    for (const [id, list] of values) list.push(table.has(id) && row >= 0 ? table.column(id).data[row] : 0);
    if (tick > 1 && enough?.(values.get(watch[0])!.at(-1)!)) break;
  }
  return { values, moments };
}

function holderOf(rules: Rules, has: (actor: ActorEntry) => boolean): ActorEntry | undefined {
  const types = (rules.chapters.get('actors')?.entries ?? []) as unknown as readonly ActorEntry[];
  return types.find((type) => type.kind === 'player' && has(type)) ?? types.find(has);
}

/** Seconds with as many decimals as they need, at most two. */
const inSeconds = (ticks: number, rules: Rules) => `${Number((ticks / rules.tickRate).toFixed(2))} s`;

/** A status that the attribute's refill asks about: the situation has it for a while, so that both rates are seen. */
function askedStatus(rules: Rules, entry: AttributeEntry): { id: string; label: string } | undefined {
  const { rate } = entry.refill ?? {};
  if (typeof rate !== 'string') return undefined;
  const ids = [...rate.matchAll(/\bhas\(\s*([A-Za-z0-9]+)\s*\)/g)].map((m) => m[1]);
  return rules.chapters.get('statuses')?.entries.find((status) => ids.includes(status.id));
}

const WITH_STATUS = { from: 20, to: 34 };

/** When a pool that refills and would otherwise stay full is hurt, so that its refill is seen. */
const HURT_AT = 5;

/**
 * Sixty seconds of an attribute from its start: with a status that its refill asks about from 20 s to 34 s, or, where it
 * asks about none, with half of it lost at 5 s.
 */
export function attributeEvidence(rules: Rules, id: string): Evidence {
  const entry = (rules.chapters.get('attributes')?.entries as unknown as readonly AttributeEntry[]).find((e) => e.id === id);
  const actor = holderOf(rules, (type) => type.attributes.some((a) => a.attribute === id));
  if (!entry || !actor) return NONE;
  const status = askedStatus(rules, entry);
  const grant = (at: number, how: 'grant' | 'withdraw') => ({ at, seat: SEAT, do: how, status: status!.id });
  const granted = status ? [grant(WITH_STATUS.from, 'grant'), grant(WITH_STATUS.to, 'withdraw')] : [];
  const first = play(rules, { actor, pokes: granted, seconds: 1, watch: [id] }).values.get(id)![0];
  const loss = entry.kind === 'pool' && entry.refill && !status && first > 0 ? Math.ceil(first / 2) : 0;
  const pokes = loss > 0 ? [{ at: HURT_AT, seat: SEAT, do: 'hurt', attribute: id, amount: loss }] : granted;
  const watch = [id, ...(entry.max !== undefined && typeof entry.max === 'string' ? [`${id}.max`] : [])];
  const { values, moments } = play(rules, { actor, pokes, watch });
  return {
    actor: actor.label,
    seconds: EVIDENCE_SECONDS,
    perSecond: rules.tickRate,
    series: [{ id, label: entry.label, values: values.get(id)! }],
    spans: status ? [{ ...WITH_STATUS, label: status.label }] : [],
    pins: loss > 0 ? [{ t: HURT_AT, label: `lose ${loss} at ${HURT_AT} s` }] : [],
    moments: moments.filter((m) => m.refusal),
    facts: attributeFacts(rules, entry, actor, status?.id, values.get(id)!, loss > 0),
  };
}

function attributeFacts(
  rules: Rules,
  entry: AttributeEntry,
  actor: ActorEntry,
  status: string | undefined,
  course: readonly number[],
  hurt: boolean,
): Evidence['facts'] {
  const facts = [
    { label: 'Highest', value: text(Math.max(...course)) },
    { label: 'Lowest', value: text(Math.min(...course)) },
    { label: `After ${EVIDENCE_SECONDS} s of this`, value: text(course[course.length - 1]) },
  ];
  if (entry.kind !== 'pool' || !entry.refill) return facts;
  const long = 600;
  const until = (set: number, grants: boolean, done: (now: number) => boolean) => {
    const pokes = [
      ...(grants && status ? [{ at: 0, seat: SEAT, do: 'grant', status }] : []),
      { at: 0, seat: SEAT, do: 'set', attribute: entry.id, value: set },
    ];
    const list = play(rules, { actor, pokes, seconds: long, watch: [entry.id], enough: done }).values.get(entry.id)!;
    return done(list[list.length - 1]) ? inSeconds(list.length, rules) : `not within ${long / 60} minutes`;
  };
  const full = Math.max(...course);
  const label = status ? `, ${(rules.chapters.get('statuses')?.entries.find((s) => s.id === status)?.label ?? status).toLowerCase()}` : '';
  const low = Math.min(0, ...course);
  if (full > low) {
    const top = play(rules, {
      actor,
      pokes: [
        ...(status ? [{ at: 0, seat: SEAT, do: 'grant', status }] : []),
        { at: 0, seat: SEAT, do: 'set', attribute: entry.id, value: 1e6 },
      ],
      seconds: 1,
      watch: [entry.id],
    }).values.get(entry.id)![0];
    facts.push({ label: `Full, from empty${label}`, value: until(-1e6, true, (now) => now >= top) });
    // A loss from outside says nothing of how long it drains by itself.
    if (!hurt && course.some((now, i) => i > 0 && now < course[i - 1]))
      facts.push({ label: 'Empty, from full', value: until(1e6, false, (now) => now <= low) });
  }
  return facts;
}

const text = (value: number) => String(Number(value.toFixed(2)));

/** An effect applied at 2 s and again at 4 s: what it does to the stats it modifies, and each instance with its own end. */
export function effectEvidence(rules: Rules, id: string): Evidence {
  const entry = (rules.chapters.get('effects')?.entries as unknown as readonly EffectEntry[]).find((e) => e.id === id);
  const stats = [...new Set(entry?.modifiers.map((m) => m.attribute) ?? [])];
  const actor = holderOf(rules, (type) => stats.every((stat) => type.attributes.some((a) => a.attribute === stat)));
  if (!entry || !actor) return NONE;
  const starts = [2, 4];
  const seconds = 20;
  const pokes = starts.map((at) => ({ at, seat: SEAT, do: 'apply', effect: id }));
  const { values, moments } = play(rules, { actor, pokes, seconds, watch: stats });
  const lasts = rulesTicks(rules, entry.lasts) / rules.tickRate;
  const label = (stat: string) => rules.chapters.get('attributes')!.entries.find((a) => a.id === stat)!.label;
  const at = (stat: string, t: number) => text(values.get(stat)![Math.min(seconds * rules.tickRate, Math.round(t * rules.tickRate)) - 1]);
  return {
    actor: actor.label,
    seconds,
    perSecond: rules.tickRate,
    series: stats.map((stat) => ({ id: stat, label: label(stat), values: values.get(stat)! })),
    spans: starts.map((from, i) => ({ from, to: Math.min(seconds, from + lasts), label: `${entry.label} ${i + 1}` })),
    pins: [],
    moments,
    facts: stats.flatMap((stat) => [
      { label: `${label(stat)} without it`, value: at(stat, 1) },
      { label: 'with one', value: at(stat, 3) },
      { label: 'with two', value: at(stat, 4.05) },
      { label: 'at the end', value: at(stat, seconds) },
    ]),
  };
}

function rulesTicks(rules: Rules, text: string): number {
  const ms = text.endsWith('ms') ? Number(text.slice(0, -2)) : Number(text.slice(0, -1)) * 1000;
  return Math.ceil((ms * rules.tickRate) / 1000 - 1e-9);
}

/** An ability asked for every quarter of a second for a minute: how often it comes to be used, and what it drains. */
export function abilityEvidence(rules: Rules, id: string): Evidence {
  const entry = (rules.chapters.get('abilities')?.entries as unknown as readonly AbilityEntry[]).find((e) => e.id === id);
  const actor = holderOf(rules, (type) => type.abilities.includes(id));
  if (!entry || !actor) return NONE;
  const inputs = Array.from({ length: EVIDENCE_SECONDS * 4 - 4 }, (_, i) => ({ at: 1 + i / 4, seat: SEAT, do: 'use', ability: id }));
  const watch = [...new Set(entry.costs.map((cost) => cost.attribute))];
  const { values, moments } = play(rules, { actor, inputs, watch });
  const used = moments.filter((m) => !m.refusal && m.text.includes(' uses '));
  const refused = moments.filter((m) => m.refusal);
  const gaps = used.slice(1).map((m, i) => m.t - used[i].t);
  return {
    actor: actor.label,
    seconds: EVIDENCE_SECONDS,
    perSecond: rules.tickRate,
    series: watch.map((cost) => ({
      id: cost,
      label: rules.chapters.get('attributes')!.entries.find((a) => a.id === cost)!.label,
      values: values.get(cost)!,
    })),
    spans: used.map((m, i) => ({ from: m.t, to: Math.min(EVIDENCE_SECONDS, used[i + 1]?.t ?? EVIDENCE_SECONDS), label: `use ${i + 1}` })),
    pins: [],
    moments: used,
    facts: [
      { label: 'Uses in a minute', value: String(used.length) },
      { label: 'Shortest time between two', value: gaps.length > 0 ? `${text(Math.min(...gaps))} s` : 'only one use' },
      { label: 'First refusal', value: refused[0] ? `${refused[0].text}` : 'none' },
    ],
  };
}
