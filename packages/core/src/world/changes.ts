import { decode, encode } from '@msgpack/msgpack';
import { nextOther } from './memory.js';
import type { Snapshot } from './world.js';

/** Rises whenever what is stored would be read otherwise. */
const CHANGES_VERSION = 1;
/** Where more than this share of a world has changed, it is stored whole. */
const LARGEST_SHARE = 1 / 4;
/** Up to so many words that are the same are stored along between two that are not: to begin anew takes two. */
const GAP = 2;

const TICK = 0;

const wordsOf = ({ bytes }: Snapshot) => new Int32Array(bytes.buffer, bytes.byteOffset, bytes.length / 4);

/**
 * What has changed in a world from one snapshot to a later one, as bytes (MessagePack), for keeping beside the earlier one:
 * `[version, tick of the earlier one, header, texts that are new, runs]`, the runs as words of 4 bytes: where one begins, how many
 * words it has, and these. Undefined where the world lies otherwise since, has other texts, or has changed so much that it may as
 * well be stored whole.
 * @public
 * @example
 * const changes = storeChanges(before, world.snapshot());
 */
export function storeChanges(before: Snapshot, after: Snapshot): Uint8Array | undefined {
  if (before.layout !== after.layout || !before.texts.every((text, i) => text === after.texts[i])) return undefined;
  const [was, is] = [wordsOf(before), wordsOf(after)];
  const runs: number[] = [];
  const most = is.length * LARGEST_SHARE;
  for (let i = nextOther(was, is, 0, is.length); i < is.length; i = nextOther(was, is, i, is.length)) {
    let end = i + 1;
    for (let same = 0; end + same < is.length && same <= GAP;)
      if (was[end + same] === is[end + same]) same++;
      else [end, same] = [end + same + 1, 0];
    runs.push(i, end - i);
    for (let k = i; k < end; k++) runs.push(is[k]);
    if (runs.length > most) return undefined;
    i = end;
  }
  const words = Int32Array.from(runs);
  return encode([CHANGES_VERSION, before.header[TICK], after.header, after.texts.slice(before.texts.length), new Uint8Array(words.buffer)]);
}

/**
 * The later snapshot, from the earlier one and what has changed since.
 * @throws RangeError where they do not belong together, or were stored by another version
 * @public
 * @example
 * const world = World.restore(rules, readChanges(readSnapshot(stored), changes));
 */
export function readChanges(before: Snapshot, stored: Uint8Array): Snapshot {
  const [version, tick, header, texts, runs] = decode(stored) as [number, number, number[], string[], Uint8Array];
  if (version !== CHANGES_VERSION) throw new RangeError(`Changes of version ${CHANGES_VERSION} are expected; these are of ${version}`);
  if (tick !== before.header[TICK]) throw new RangeError(`Changes since tick ${before.header[TICK]} are expected; these are since ${tick}`);
  const changed = new Int32Array(new Uint8Array(runs).buffer);
  const bytes = before.bytes.slice();
  const words = new Int32Array(bytes.buffer);
  for (let at = 0; at < changed.length;) {
    const [from, count] = [changed[at], changed[at + 1]];
    const run = changed.subarray(at + 2, at + 2 + count);
    if (!(from >= 0 && count > 0 && run.length === count && from + count <= words.length))
      throw new RangeError('Changes to cells that the world does not have');
    words.set(run, from);
    at += 2 + count;
  }
  return { header, texts: [...before.texts, ...texts], layout: before.layout, bytes };
}
