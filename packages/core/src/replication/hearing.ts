import type { Rules } from '../ruleset/rules.js';
import { visibilityOf } from '../ruleset/visible.js';
import { type EventParty, toldFields } from '../world/event-fields.js';
import type { EventData, EventSpec, GameEvent } from '../world/events.js';
import type { Visibility } from '../world/columns.js';
import type { World } from '../world/world.js';
import type { Viewer } from './publisher.js';

type SeatViewer = Exclude<Viewer, 'truth'>;

/** Whether a seat is told of an event at all. */
export function heardBy(world: World, event: GameEvent, viewer: SeatViewer): boolean {
  const spec = world.rules.registry.events.get(event.name);
  if (!spec || !(typeof spec.announced === 'function' ? spec.announced(event.data) : spec.announced)) return false;
  return maySee(world, hearingOf(world.rules, spec, event), event[partyOf(spec)], viewer);
}

/** What of an event's data a seat may know, were it told of it. */
export function knownTo(
  world: World,
  event: Pick<GameEvent, 'name' | 'subject' | 'source' | 'target' | 'data'>,
  viewer: SeatViewer,
): EventData {
  const { fields = {} } = world.rules.registry.events.get(event.name) ?? {};
  const told = toldFields(fields, event.data, {
    isSubject: event.subject !== 0 && event.subject === viewer.actor,
    seesEntry: (chapter, id, of) => maySee(world, visibilityOf(world.rules, chapter, id), event[of], viewer),
  });
  return Object.fromEntries(Object.entries(event.data).filter(([field]) => told.has(field)));
}

/** Whom the visibility of an event is counted from. */
function partyOf({ see, fields }: EventSpec): EventParty {
  return typeof see === 'object' ? (fields[see.as].of ?? 'subject') : 'subject';
}

function hearingOf(rules: Rules, { see, fields }: EventSpec, { data }: GameEvent): Visibility {
  if (typeof see === 'string') return see;
  if (typeof see === 'function') return see(data);
  return visibilityOf(rules, String(fields[see.as].chapter), String(data[see.as]));
}

/** Whether a viewer may see what an actor has of this visibility. */
function maySee(world: World, see: Visibility, actor: number, viewer: SeatViewer): boolean {
  if (see === 'everyone') return true;
  if (see === 'server' || actor === 0) return false;
  if (actor === viewer.actor) return true;
  const row = world.actors.rowOf(actor);
  return see === 'team' && row >= 0 && viewer.team >= 0 && world.actors.cells.team[row] === viewer.team;
}
