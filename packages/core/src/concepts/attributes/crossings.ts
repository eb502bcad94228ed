import { World } from '../../world/world.js';
import type { Attributes } from './state.js';
import { events } from './events.js';
import { edgesAt, inside } from './edges.js';
import { clip, has, lowOf } from './values.js';

/**
 * Notes what a value crossed by what has just been done to it: an end, or the edge of a range. What follows waits for the
 * thresholds' turn and follows then in the order in which it was noted, whatever the value has become by then.
 * @param cause the event that moved it; 0 where it moved by itself
 */
export function noteCrossings(world: World, a: Attributes, row: number, index: number, cause: number): void {
  const attribute = a.compiled.list[index];
  if (!has(world, attribute, row)) return;
  const cells = a.cells[index];
  const value = cells.value.data[row];
  attribute.thresholds.forEach((threshold, k) => {
    const was = cells.inside[k].data[row];
    const is = inside(value, edgesAt(world, attribute, cells, threshold, row), was) ? 1 : 0;
    if (is !== was) noteCrossing(world, a, { row, index, k, cause });
  });
  if (attribute.kind === 'pool' && value <= lowOf(world, attribute, world.actors.handle(row)))
    world.rules.registry.lifecycle('poolEmptied', world, row, index, cause);
}

interface Noted {
  readonly row: number;
  readonly index: number;
  /** Which of its attribute's thresholds. */
  readonly k: number;
  readonly cause: number;
}

/** Notes that a value is on the other side of a threshold now. */
export function noteCrossing(world: World, a: Attributes, { row, index, k, cause }: Noted): void {
  const { crossings, cells } = a;
  const side = cells[index].inside[k].data;
  side[row] = 1 - side[row];
  const turn = crossings.count;
  crossings.write(crossings.add(), {
    actor: world.actors.handle(row),
    attribute: index,
    threshold: k,
    entered: side[row],
    value: cells[index].value.data[row],
    turn,
    cause,
  });
}

/** Answers what was crossed since the thresholds' last turn, in the order in which it was noted. What follows may cross again: that waits. */
export function answerCrossings(world: World, a: Attributes): void {
  const { crossings } = a;
  if (crossings.count === 0) return;
  const [actor, attribute, threshold, entered, value, turn, cause] = crossings.columns.map(({ data }) => data);
  const waiting: (Crossing & { readonly turn: number })[] = [];
  for (let at = 0; at < crossings.high; at++) {
    if (crossings.live[at] === 0) continue;
    waiting.push({
      actor: actor[at],
      index: attribute[at],
      k: threshold[at],
      entered: entered[at] === 1,
      value: value[at],
      turn: turn[at],
      cause: cause[at],
    });
    crossings.remove(at);
  }
  waiting.sort((one, other) => one.turn - other.turn);
  for (const crossing of waiting) {
    if (world.actors.rowOf(crossing.actor) >= 0) world.since(crossing.cause, () => answer(world, a, crossing));
  }
}

interface Crossing {
  readonly actor: number;
  readonly index: number;
  readonly k: number;
  readonly entered: boolean;
  readonly value: number;
  readonly cause: number;
}

function answer(world: World, a: Attributes, { actor, index, k, entered, value }: Crossing): void {
  const attribute = a.compiled.list[index];
  const threshold = attribute.thresholds[k];
  const now = () => a.cells[index].value.data[world.actors.rowOf(actor)];
  const data = { attribute: attribute.id, threshold: threshold.id, value };
  world.follow(entered ? events.thresholdEntered : events.thresholdLeft, { subject: actor, source: actor }, data, () => {
    const before = now();
    (entered ? threshold.enter : threshold.leave)(world, World.alone(actor));
    // What an end leads to may save from falling at it; a refill does not.
    const row = world.actors.rowOf(actor);
    if (entered && threshold.end === 'empty' && row >= 0 && now() > before) world.rules.registry.lifecycle('poolRaised', world, row, index);
  });
}

/** Has an actor's pools rest, since it is about to fall, or not. */
export function restPool(world: World, a: Attributes, actor: number, rests: boolean): void {
  const row = world.actors.rowOf(actor);
  if (row >= 0) a.rests.cells.rests[row] = rests ? 1 : 0;
}

/**
 * Has bounds clip what was moved in this tick, and notes what is crossed by that. All that comes and goes in one tick is in
 * place by now: in which order it came leaves no trace.
 */
export function clipUnsettled(world: World, a: Attributes): void {
  const rows = [...a.unsettled].sort(([one], [other]) => one - other);
  a.unsettled.clear();
  for (const [row, cause] of rows) {
    if (world.actors.live[row] === 0) continue;
    clip(world, a, row);
    for (const index of a.watched[world.actors.cells.type[row]]) noteCrossings(world, a, row, index, cause);
  }
}

/** Under edited rules what was crossed and not yet answered is so at the same threshold, where there is one still. */
export function adoptCrossings(now: Attributes, then: Attributes): void {
  const { crossings } = now;
  const { attribute, threshold } = crossings.cells;
  for (let at = 0; at < crossings.high; at++) {
    if (crossings.live[at] === 0) continue;
    const { id } = then.compiled.list[then.crossings.cells.attribute[at]].thresholds[threshold[at]];
    threshold[at] = now.compiled.list[attribute[at]].thresholds.findIndex((one) => one.id === id);
    if (threshold[at] < 0) crossings.remove(at);
  }
}
