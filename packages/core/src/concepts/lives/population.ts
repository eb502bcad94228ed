import type { CompileContext } from '../../ruleset/context.js';
import type { Path } from '../../ruleset/problem.js';
import type { World } from '../../world/world.js';
import { type ActorEntry, removeActor, spawnActor } from '../actors/index.js';
import { followPlaced, type PlacedAs, placements } from '../arena/index.js';
import { type AttributeEntry, attributes, beginWith, type Start, startOf, startProblem } from '../attributes/index.js';
import { face, placeActor, placeOf } from '../movement/index.js';
import { lives } from './state.js';
import { settleAt } from './system.js';
import { events } from './events.js';
import { isRoomForOne } from './capacity.js';
import { actorChapter } from '../actors/schema.js';

/** What is other about an actor that the arena places than its kind says. */
export interface PlacedLife {
  readonly label: string | undefined;
  readonly starts: readonly { readonly attribute: number; readonly start: Start }[];
}

/** What is other about placed actors, by their position among the placed things. */
export function compilePlaced(context: CompileContext): ReadonlyMap<number, PlacedLife> {
  return new Map(
    placements(context, 'actor').flatMap(({ index, thing, thing: { with: own } }) =>
      own === undefined
        ? []
        : [
            [
              index,
              {
                label: own.label,
                starts: (own.starts ?? []).map(({ attribute, start }, i) =>
                  compileStart(context, thing, attribute, start, ['arena', 'placed', index, 'with', 'starts', i]),
                ),
              },
            ] as const,
          ],
    ),
  );
}

/** What one placed actor begins with otherwise than its kind. */
function compileStart(
  context: CompileContext,
  { actor }: PlacedAs<'actor'>,
  attribute: string,
  source: NonNullable<AttributeEntry['start']>,
  path: Path,
): PlacedLife['starts'][number] {
  const index = context.index('attributes', attribute);
  const start = startOf(context, source, [...path, 'start']);
  const kind = context.entry<ActorEntry>('actors', actor);
  const compiled = attributes.of(context);
  if (kind && context.entry('attributes', attribute)) {
    if (!kind.attributes.some((one) => one.attribute === attribute))
      context.problem([...path, 'attribute'], `${kind.label} does not have ${attribute}: add it to its attributes, or take this out.`);
    else {
      const wrong = startProblem(context, compiled, index, context.index('actors', actor), source, start);
      if (wrong) context.problem([...path, 'start'], wrong);
    }
  }
  return { attribute: index, start };
}

const positionIn = (world: World, chapter: string, id: string | undefined) =>
  id === undefined ? -1 : world.rules.chapters.get(chapter)!.ids.indexOf(id);

/** For so many who join there is room from the beginning. */
const PLAYERS = 8;

/** Puts those into a new world that its arena places. */
export function populate(world: World): void {
  const placed = placements(world.rules, 'actor');
  world.actors.reserve(placed.length + PLAYERS);
  for (const { index, thing } of placed) bringPlaced(world, index, thing);
}

function bringPlaced(world: World, index: number, thing: PlacedAs<'actor'>): void {
  bringIn(world, positionIn(world, 'actors', thing.actor), positionIn(world, 'teams', thing.team), thing, { listed: index + 1 });
}

interface Point {
  readonly x: number;
  readonly y: number;
}

/**
 * Brings a new actor in at a point, which is its home from then on. Nothing where the arena is full.
 * @param from one more than the position of the placed thing that it is, or of the spawner that made it; or what it is to be called
 * @returns its handle, or 0
 */
export function bringIn(
  world: World,
  type: number,
  team: number,
  { x, y }: Point,
  from: { listed?: number; made?: number; name?: string } = {},
): number {
  const entry = actorChapter.of(world.rules)[type];
  if (!entry) return 0;
  const { names, placed, values } = lives.in(world);
  if (!isRoomForOne(world, values, type)) {
    world.emit(events.arenaFull, {}, { type: entry.id });
    return 0;
  }
  const own = placed.get((from.listed ?? 0) - 1);
  const name = names.free(world, from.name ?? own?.label ?? entry.label);
  const actor = spawnActor(world, type, team, name);
  names.note(world, name);
  const row = world.actors.rowOf(actor);
  if (row < 0) return 0;
  for (const { attribute, start } of own?.starts ?? []) beginWith(world, row, attribute, start);
  placeActor(world, row, x, y);
  face(world, row, -1, 0);
  // As far as a wall let it.
  const { x: homeX, y: homeY } = placeOf(world, row);
  settleAt(world, row, homeX, homeY, from);
  return actor;
}

/**
 * Under edited rules those whom the arena still places stay who they are: where they were placed elsewhere, they go there.
 * Those that it no longer places go, and those that are new come in.
 */
export function followPopulation(world: World, before: World): void {
  const moved = followPlaced(before.rules, world.rules, 'actor');
  const now = new Map(placements(world.rules, 'actor').map(({ index, thing }) => [index, thing]));
  const old = new Map(placements(before.rules, 'actor').map(({ index, thing }) => [index, thing]));
  const listed = lives.in(world).table.cells.listed;
  const here = new Set<number>();
  for (let row = 0; row < world.actors.high; row++) {
    if (world.actors.live[row] === 0 || listed[row] === 0) continue;
    const was = old.get(listed[row] - 1);
    const index = moved.get(listed[row] - 1) ?? -1;
    const thing = now.get(index);
    // Who begins as somebody else is somebody else.
    if (!was || !thing || thing.team !== was.team || JSON.stringify(who(thing)) !== JSON.stringify(who(was))) {
      removeActor(world, world.actors.handle(row));
      continue;
    }
    here.add(index);
    listed[row] = index + 1;
    if (thing.x === was.x && thing.y === was.y) continue;
    placeActor(world, row, thing.x, thing.y);
    const { x, y } = placeOf(world, row);
    settleAt(world, row, x, y, { listed: index + 1 });
  }
  for (const [index, thing] of now) {
    const known = [...moved].find(([, to]) => to === index);
    // One that fell for good stays gone; one that was placed anew, or begins as somebody else, comes in.
    const same = known && JSON.stringify(who(old.get(known[0])!)) === JSON.stringify(who(thing)) && old.get(known[0])!.team === thing.team;
    if (!here.has(index) && !same) bringPlaced(world, index, thing);
  }
}

/** What makes a placed actor who it is from its beginning. */
const who = ({ with: own }: PlacedAs<'actor'>) => ({ label: own?.label, starts: own?.starts });
