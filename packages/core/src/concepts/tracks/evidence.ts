import { levelOf } from './levels.js';
import { tableOf } from './compile.js';
import { tracks } from './state.js';
import { sentenceOf } from '../../replication/announcements.js';
import { patternWords } from '../../analysis/collect.js';
import type { Pattern } from '../../ruleset/registry.js';
import type { Rules } from '../../ruleset/rules.js';
import type { GameEvent } from '../../world/events.js';
import { World } from '../../world/world.js';
import { actorOfSeat } from '../seats/index.js';
import { SEAT } from '../situations/play.js';

/** What a track comes to: its table, where its experience comes from, and what a grant does to somebody at level 1. */
export interface TrackEvidence {
  readonly label: string;
  readonly rows: readonly { readonly level: number; readonly need: number; readonly total: number }[];
  readonly sources: readonly { readonly words: string; readonly amount: string }[];
  readonly grant: {
    readonly amount: number;
    readonly level: number;
    readonly left: number;
    readonly lost: number;
    /** Each level that is reached, with all that follows from it, in order. */
    readonly reached: readonly { readonly level: number; readonly follows: readonly string[] }[];
  };
}

/** Plays one grant in a world with one player of the first kind, and tells what a track is; undefined where it is not there. */
export function trackEvidence(rules: Rules, id: string, amount: number): TrackEvidence | undefined {
  const { list, entries } = tracks.of(rules);
  const track = list.find((one) => one.id === id);
  if (!track) return undefined;
  const world = World.start(rules, 1);
  world.step([{ kind: 'join', args: { seat: SEAT } }]);
  const events = amount > 0 ? world.step([{ kind: 'poke', args: { seat: SEAT, action: { do: 'award', track: id, amount } } }]) : [];
  const reached = events.filter(({ name, data }) => name === 'levelReached' && data['track'] === id);
  const gained = events.find(({ name, data }) => name === 'experienceGained' && data['track'] === id);
  const actor = actorOfSeat(world, SEAT);
  const row = world.actors.rowOf(actor);
  return {
    label: track.label,
    rows: tableOf(rules, track),
    sources: entries[track.index].sources.map(({ on, amount: written, share }) => ({
      words: patternWords(rules, on as Pattern),
      amount: `${wordsOf(written)}${share ? `, shared ${share.how === 'help' ? 'by help' : share.how === 'full' ? 'in full' : 'in equal parts'}` : ''}`,
    })),
    grant: {
      amount,
      level: levelOf(world, actor, track.index),
      left: row < 0 ? 0 : tracks.in(world).cells[track.index].experience.data[row],
      lost: Number(gained?.data['lost'] ?? 0),
      reached: reached.map((event) => ({
        level: Number(event.data['level']),
        follows: following(events, event)
          .filter(({ name }) => name !== 'levelReached')
          .map((one) => sentenceOf(rules, one)),
      })),
    },
  };
}

/** All that followed from an event, however far. */
function following(events: readonly GameEvent[], from: GameEvent): readonly GameEvent[] {
  const known = new Set([from.serial]);
  return events.filter(({ serial, cause }) => known.has(cause) && known.add(serial));
}

function wordsOf(amount: unknown): string {
  const range = (amount as { random?: readonly [number, number] }).random;
  return range ? `${range[0]} to ${range[1]}` : String(amount);
}
