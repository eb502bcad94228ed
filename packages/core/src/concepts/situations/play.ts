import type { ActorEntry } from '../actors/index.js';
import { attributes, valueInRow } from '../attributes/index.js';
import { actorOfSeat } from '../seats/index.js';
import { sentenceOf } from '../../replication/announcements.js';
import type { Rules } from '../../ruleset/rules.js';
import { commandsOf } from '../seats/script/run.js';
import type { Script } from '../seats/script/schema.js';
import type { GameEvent } from '../../world/events.js';
import type { Command } from '../../world/commands.js';
import { World } from '../../world/world.js';
import { EVIDENCE_SECONDS, type Evidence, type Series, type Span } from '../../workbench/evidence.js';
import { SpanKeeper } from './spans.js';
import { actorChapter } from '../actors/schema.js';
import { onBareGround, withoutMinds } from './ground.js';
import { attributeChapter } from '../attributes/schema.js';

/** The seat that is tried on, and the one beside it that things can come from. */
export const SEAT = 'trial';
export const OTHER = 'other';

export interface Situation {
  readonly actor: ActorEntry;
  readonly pokes?: Script['pokes'];
  readonly inputs?: Script['inputs'];
  readonly seconds?: number;
  readonly watch: readonly string[];
  /** Somebody else is there. */
  readonly company?: boolean;
  /** The kind of actor that stands beside it; one of its own kind where nothing is said. */
  readonly other?: ActorEntry;
  /** Behaviours are left on. */
  readonly minds?: boolean;
  /** Puts the two somewhere, and does what they do at a tick. */
  readonly drive?: (world: World, own: number, other: number) => readonly Command[];
  /** Ends the situation early, by what the first watched value came to. The first tick, which sets things up, is always run. */
  readonly enough?: (value: number) => boolean;
}

export interface Played {
  readonly values: ReadonlyMap<string, readonly number[]>;
  readonly moments: Evidence['moments'];
  readonly spans: readonly Span[];
  readonly events: readonly GameEvent[];
}

const QUIET = new Set(['questOffered', 'poked', 'asked', 'actorSpawned', 'seatTaken', 'stateChanged', 'channelPulsed']);

/** Plays one actor alone on empty ground: what lies about in the arena has no part in a small situation. */
export function play(rules: Rules, situation: Situation): Played {
  const { actor, pokes = [], inputs = [], seconds = EVIDENCE_SECONDS, watch, enough, company = false, other = actor, drive } = situation;
  const world = World.start(situation.minds ? onBareGround(rules) : withoutMinds(onBareGround(rules), () => true), 1);
  // Each in a team of their own, where there are two: they are tried on each other.
  const teams = rules.chapters.get('teams')?.ids ?? [];
  const seats = [{ id: SEAT, actor: actor.id, team: teams[0] }, ...(company ? [{ id: OTHER, actor: other.id, team: teams[1] }] : [])];
  const commands = commandsOf({ seats, inputs, pokes }, rules.tickRate);
  const values = new Map(watch.map((id) => [id, [] as number[]]));
  const moments: { t: number; text: string; refusal: boolean }[] = [];
  const events: GameEvent[] = [];
  const spans = new SpanKeeper(rules);
  // That somebody has come, and what follows from that, is no part of what happens to them.
  const coming = new Set<number>();
  for (let tick = 1; tick <= seconds * rules.tickRate; tick++) {
    const driven = drive && tick > 1 ? drive(world, actorOfSeat(world, SEAT), actorOfSeat(world, OTHER)) : [];
    const happened = world.step([...(commands.get(tick) ?? []), ...driven]);
    const own = actorOfSeat(world, SEAT);
    for (const event of happened) {
      const { name, cause, serial } = event;
      const comes = name === 'seatTaken' || (name === 'teamChanged' && tick === 1) || coming.has(cause);
      if (comes) coming.add(serial);
      if (event.subject === 0 || (event.subject !== own && (event.source !== own || !company))) continue;
      events.push(event);
      if (event.subject !== own) continue;
      const spec = rules.registry.events.get(event.name);
      if (spec && !comes && !QUIET.has(name))
        moments.push({ t: tick / rules.tickRate, text: sentenceOf(rules, event), refusal: spec.refusal === true });
    }
    const row = world.actors.rowOf(own);
    for (const [id, list] of values) list.push(valueInRow(world, row, id));
    spans.note(
      world,
      own,
      row,
      happened.filter((event) => event.subject === own),
    );
    if (tick > 1 && enough?.(values.get(watch[0])?.at(-1) ?? 0)) break;
  }
  return { values, moments, events, spans: spans.all() };
}

/** The kind of actor that something is tried on: a player that has it where there is one. */
export function holderOf(rules: Rules, has: (actor: ActorEntry) => boolean): ActorEntry | undefined {
  const types = actorChapter.of(rules);
  return types.find((type) => type.kind === 'player' && has(type)) ?? types.find(has);
}

export function seriesOf(rules: Rules, id: string, values: readonly number[], label?: string): Series {
  const entry = attributeChapter.of(rules).find((e) => e.id === id);
  const decimals = attributes.of(rules).list.find((attribute) => attribute.id === id)?.decimals ?? 1;
  return { id, label: label ?? entry?.label ?? id, decimals, values };
}
