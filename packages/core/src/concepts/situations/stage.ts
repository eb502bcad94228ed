import type { ActorEntry } from '../actors/index.js';
import type { Placed } from '../arena/index.js';
import { actorOfSeat } from '../seats/index.js';
import { sentenceOf } from '../../replication/announcements.js';
import { compileRuleset } from '../../ruleset/compile.js';
import { grouped } from '../../ruleset/grouped.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import type { GameEvent } from '../../world/events.js';
import type { Command } from '../../world/commands.js';
import { World } from '../../world/world.js';
import type { Evidence, Series, Span } from '../../workbench/evidence.js';
import { valueInRow } from '../attributes/index.js';
import { actorChapter } from '../actors/schema.js';

/** The seats that a scene has: the one that it is about, and one who comes by. */
export const VISITOR = 'trial';
export const PASSER = 'other';
/** Where the thing of a scene stands, and a place out of its reach. */
export const MIDDLE = { x: 600, y: 300 };
export const AWAY = { x: 60, y: 300 };

const QUIET = new Set(['poked', 'asked', 'actorSpawned', 'seatTaken', 'stateChanged', 'pickupAppeared']);
/** A scene tells at most so much. */
const MOST_MOMENTS = 60;
/** At most so many values have a line of their own. */
const MOST_LINES = 3;

export interface Act {
  /** Seconds. */
  readonly at: number;
  readonly commands: readonly Command[];
}

/** The same rules with nothing in the arena but what a scene needs, and without reactions that belong to the whole game. */
export function staged(rules: Rules, placed: readonly (Placed | Record<string, unknown>)[]): Rules {
  const arena = { width: 1200, height: 600, walls: [], starts: [], placed };
  return compileRuleset(JSON.parse(JSON.stringify({ ...rules.document, arena, situations: [] })));
}

export const playerOf = (rules: Rules): ActorEntry | undefined => actorChapter.of(rules).find(({ kind }) => kind === 'player');

const join = (seat: string, actor: string, team: string | undefined): Command => ({
  kind: 'join',
  args: { seat, actor, ...(team !== undefined && { team }) },
});
export const put = (seat: string, { x, y }: { x: number; y: number }): Command => poke(seat, { do: 'place', x, y });
export const poke = (seat: string, action: Record<string, unknown>): Command => ({ kind: 'poke', args: { seat, action } });
export const ask = (seat: string, input: Record<string, unknown>): Command => ({ kind: 'input', args: { seat, input } });

/** Everything that a scene came to. */
export interface Scene {
  readonly world: World;
  readonly events: readonly (GameEvent & { readonly t: number })[];
  readonly moments: Evidence['moments'];
  readonly lines: readonly Series[];
}

/** Plays a scene with one or two players. What is told of is whatever is announced of either. */
export function perform(
  rules: Rules,
  seconds: number,
  acts: readonly Act[],
  { company = false, each }: { company?: boolean; each?: (world: World, t: number) => void } = {},
): Scene {
  const player = playerOf(rules)!;
  const world = World.start(rules, 1);
  const events: (GameEvent & { t: number })[] = [];
  const moments: { t: number; text: string; refusal: boolean }[] = [];
  const values = new Map<string, number[]>();
  const due = grouped(acts, ({ at }) => Math.max(2, Math.round(at * rules.tickRate) + 1));
  const [team] = rules.chapters.get('teams')?.ids ?? [];
  const first = [join(VISITOR, player.id, team), ...(company ? [join(PASSER, player.id, team)] : []), put(VISITOR, AWAY)];
  for (let tick = 1; tick <= seconds * rules.tickRate; tick++) {
    const now =
      tick === 1
        ? [...first, ...(company ? [put(PASSER, { x: AWAY.x, y: 500 })] : [])]
        : (due.get(tick) ?? []).flatMap(({ commands }) => commands);
    const happened = world.step(now);
    const t = (tick - 1) / rules.tickRate;
    for (const event of happened) {
      events.push({ ...event, t });
      if (!QUIET.has(event.name) && moments.length < MOST_MOMENTS && tick > 1)
        moments.push({ t, text: sentenceOf(rules, event), refusal: rules.registry.events.get(event.name)?.refusal === true });
    }
    const row = world.actors.rowOf(actorOfSeat(world, VISITOR));
    for (const { attribute } of player.attributes) {
      if (!values.has(attribute)) values.set(attribute, []);
      values.get(attribute)!.push(valueInRow(world, row, attribute));
    }
    each?.(world, t);
  }
  const touched = new Set(events.filter(({ name }) => name === 'attributeChanged').map(({ data }) => String(data['attribute'])));
  const lines = [...values]
    .filter(([id, list]) => touched.has(id) && list.some((value) => value !== list[0]))
    .slice(0, MOST_LINES)
    .map(([id, list]): Series => ({ id, label: labelOf(rules, 'attributes', id), decimals: 1, values: list }));
  return { world, events, moments, lines };
}

/** The stretch between two events, as a span. */
export const span = (from: number, to: number, label: string, kind: Span['kind'], ended?: string): Span => ({
  from,
  to,
  label,
  kind,
  ...(ended !== undefined && { ended }),
});

/** Seconds in words. */
export const inSeconds = (seconds: number) => `${Number(seconds.toFixed(2))} s`;
