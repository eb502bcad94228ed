import type { ActorEntry } from '../actors/index.js';
import { NO_SPAWNERS, spawners } from '../spawners/index.js';
import { zones } from '../zones/index.js';
import { type Arena, arena } from '../arena/index.js';
import { behaviours } from '../behaviours/index.js';
import { attributes, valueInRow } from '../attributes/index.js';
import { actorOfSeat } from '../seats/index.js';
import { sentenceOf } from '../../replication/announcements.js';
import { idOf, labelOf, type Rules } from '../../ruleset/rules.js';
import { commandsOf } from '../seats/script/run.js';
import type { Script } from '../seats/script/schema.js';
import type { GameEvent } from '../../world/events.js';
import type { Command } from '../../world/commands.js';
import { World } from '../../world/world.js';
import { EVIDENCE_SECONDS, type Evidence, type Series, type Span } from '../../workbench/evidence.js';
import { effectsTable } from '../effects/tables.js';
import { statusesTable } from '../statuses/tables.js';
import { actorChapter } from '../actors/schema.js';
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

/** The same rules on wide ground on which nothing lies, stands or thinks: what is in the arena has no part in a small situation. */
function onEmptyGround(rules: Rules, thinking = false): Rules {
  const ground: Arena = { width: SIDE, height: SIDE, walls: [], starts: [], placed: [] };
  const minds = thinking ? behaviours.of(rules) : behaviours.of(rules).map((mind) => ({ ...mind, behaviour: undefined }));
  return {
    ...rules,
    document: { ...rules.document, arena: ground },
    compiled: new Map<string, unknown>([
      ...rules.compiled,
      [arena.id, ground],
      [behaviours.id, minds],
      [zones.id, []],
      [spawners.id, NO_SPAWNERS],
    ]),
  };
}
const SIDE = 4000;

/** Plays one actor alone on empty ground: what lies about in the arena has no part in a small situation. */
export function play(rules: Rules, situation: Situation): Played {
  const { actor, pokes = [], inputs = [], seconds = EVIDENCE_SECONDS, watch, enough, company = false, other = actor, drive } = situation;
  const world = World.start(onEmptyGround(rules, situation.minds), 1);
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

interface Running {
  from: number;
  to: number;
  label: string;
  kind: Span['kind'];
  ended?: string;
  stacks: number;
  id: string;
}

const ENDINGS: Readonly<Record<string, string>> = {
  ranOut: 'ran out',
  used: 'used up',
  removed: 'removed',
  ownerGone: 'gone with its bearer',
};

/** Watches instances of effects and statuses come and go, as they stand in the world's tables. */
class SpanKeeper {
  private readonly running = new Map<string, Running>();
  private readonly done: Running[] = [];

  constructor(private readonly rules: Rules) {}

  note(world: World, actor: number, row: number, events: readonly GameEvent[]): void {
    const t = world.tick / this.rules.tickRate;
    const present = new Set<string>();
    const table = effectsTable.in(world);
    const { effect: kinds, stacks } = table.cells;
    for (const at of table.rowsOf(actor)) {
      const key = `effect ${table.handle(at)}`;
      present.add(key);
      const id = idOf(this.rules, 'effects', kinds[at]);
      this.on(key, t, id, labelOf(this.rules, 'effects', id), 'effect').stacks = stacks[at];
    }
    if (row >= 0)
      statusesTable.in(world).columns.forEach((column, i) => {
        if (column.data[row] === 0) return;
        present.add(`status ${i}`);
        const id = idOf(this.rules, 'statuses', i);
        this.on(`status ${i}`, t, id, labelOf(this.rules, 'statuses', id), 'status');
      });
    for (const [key, span] of this.running) {
      if (present.has(key)) continue;
      span.to = t;
      const end = events.find((event) => event.name === 'effectEnded' && event.data['effect'] === span.id);
      if (span.kind === 'effect' && end) span.ended = ENDINGS[String(end.data['reason'])];
      this.running.delete(key);
      this.done.push(span);
    }
  }

  private on(key: string, t: number, id: string, label: string, kind: Span['kind']): Running {
    const known = this.running.get(key);
    if (known) {
      known.to = t;
      return known;
    }
    const span = { from: t, to: t, label, kind, stacks: 1, id };
    this.running.set(key, span);
    return span;
  }

  all(): readonly Span[] {
    return [...this.done, ...this.running.values()]
      .sort((a, b) => a.from - b.from)
      .map(({ from, to, label, kind, ended, stacks }) => ({
        from,
        to,
        label,
        kind,
        ...(ended !== undefined && { ended }),
        ...(stacks > 1 && { stacks }),
      }));
  }
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
