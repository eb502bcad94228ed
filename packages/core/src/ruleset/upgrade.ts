/** The version of the format that this core reads and writes. Documents of earlier ones are upgraded as they are read. */
export const VERSION = 2;

type Json = Readonly<Record<string, unknown>>;

/** From each version to the one after it. What has landed is never edited: what a version meant is settled. */
const STEPS: Readonly<Record<number, (document: Json) => Json>> = { 1: toSecond };

/**
 * A document of an earlier version as one of this version that means the same. What is not a ruleset, or of no version that
 * is known, comes back as it is. Entries and actions keep their places.
 */
export function upgradeDocument(value: unknown): unknown {
  let document = value;
  for (;;) {
    if (!isObject(document)) return document;
    const { version } = document;
    const step = typeof version === 'number' ? STEPS[version] : undefined;
    if (!step) return document;
    document = step(document);
  }
}

const isObject = (value: unknown): value is Json => typeof value === 'object' && value !== null && !Array.isArray(value);

/** Actions of version 1 that steer their list and are for nobody in particular. */
const STEERING = new Set(['wait', 'when', 'pick', 'endDay', 'passTime']);

/**
 * Version 2. What follows from a hit or a miss is for whom was hit where nothing is said; in version 1 it was for the user. The
 * luck of a pickup is drawn as it appears; it was drawn as the pickup was taken. A dialogue waits while its visitor hears
 * another; it was dropped. What is to count whoever did it counts for every player; it counted for whom the event is about. A
 * quest that several take is one record; each had their own.
 */
function toSecond(document: Json): Json {
  const spoken = spokenAtOnce(document) as Json;
  const { abilities, pickups, arena, quests, achievements } = spoken;
  const each = (list: unknown, work: (entry: Json) => unknown) =>
    Array.isArray(list) ? list.map((entry: unknown) => (isObject(entry) ? work(entry) : entry)) : list;
  const parts = {
    abilities: each(abilities, hitsForSelf),
    pickups: each(pickups, drawnAtTaking),
    quests: each(quests, (quest) => countedForOne(eachTheirOwn(quest))),
    achievements: each(achievements, countedForOne),
    arena: isObject(arena) ? placedAtTaking(arena) : arena,
  };
  const own = Object.entries(parts).filter(([key]) => spoken[key] !== undefined);
  return { ...spoken, version: 2, ...Object.fromEntries(own) };
}

/** No ruleset is nested deeper: what is comes back as it is, to be told so. */
const DEEPEST = 80;

function hitsForSelf(ability: Json): Json {
  const { onHit, onMiss } = ability;
  return { ...ability, ...(onHit !== undefined && { onHit: forSelf(onHit) }), ...(onMiss !== undefined && { onMiss: forSelf(onMiss) }) };
}

/** Patterns of an entry that wait for anyone: in version 1 that was whom the event is about, as where nothing is said. */
function countedForOne(value: unknown, depth = 0): unknown {
  if (depth > DEEPEST) return value;
  if (Array.isArray(value)) return value.map((part) => countedForOne(part, depth + 1));
  if (!isObject(value)) return value;
  const isPattern = typeof value['on'] === 'string' && value['who'] === 'anyone';
  const kept = Object.entries(value).filter(([key]) => !(isPattern && key === 'who'));
  return Object.fromEntries(kept.map(([key, part]) => [key, countedForOne(part, depth + 1)]));
}

/** A quest that several take says that each has their own. */
const eachTheirOwn = (quest: Json): Json => (['crew', 'everyone'].includes(String(quest['takenBy'])) ? { ...quest, record: 'own' } : quest);

/** What begins a dialogue says that it is dropped while another is heard. */
function spokenAtOnce(value: unknown, depth = 0): unknown {
  if (depth > DEEPEST) return value;
  if (Array.isArray(value)) return value.map((part) => spokenAtOnce(part, depth + 1));
  if (!isObject(value)) return value;
  const inner = Object.fromEntries(Object.entries(value).map(([key, part]) => [key, spokenAtOnce(part, depth + 1)]));
  return value['do'] === 'talk' ? { ...inner, meanwhile: 'dropped' } : inner;
}

/** A pickup that says when its luck is drawn, where it has any. */
function drawnAtTaking(pickup: unknown): unknown {
  return isObject(pickup) && hasLuck(pickup['then']) ? { ...pickup, drawn: 'taking' } : pickup;
}

const hasLuck = (list: unknown) => /"(random|among)":/.test(JSON.stringify(list ?? []));

/** An arena in which what lies there otherwise than its kind does says so as well. */
function placedAtTaking(arena: Json): Json {
  const { placed } = arena;
  if (!Array.isArray(placed)) return arena;
  const own = placed.map((thing: unknown) =>
    isObject(thing) && thing['pickup'] !== undefined && isObject(thing['with']) ? { ...thing, with: drawnAtTaking(thing['with']) } : thing,
  );
  return { ...arena, placed: own };
}

/** A list of actions that says of each whom it is for. */
function forSelf(list: unknown, depth = 0): unknown {
  if (!Array.isArray(list) || depth > DEEPEST) return list;
  return list.map((action: unknown) => {
    if (!isObject(action)) return action;
    const inner: Record<string, unknown> = {};
    for (const key of ['then', 'else']) if (action[key] !== undefined) inner[key] = forSelf(action[key], depth + 1);
    const { among } = action;
    if (Array.isArray(among))
      inner['among'] = among.map((branch: unknown) =>
        isObject(branch) ? { ...branch, then: forSelf(branch['then'], depth + 1) } : branch,
      );
    const says = action['to'] !== undefined || STEERING.has(String(action['do'])) ? {} : { to: 'self' };
    return { ...action, ...says, ...inner };
  });
}
