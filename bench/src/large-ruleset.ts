type Json = Record<string, unknown>;
type Entry = Json & { id: string };
type Ruleset = Record<string, Entry[]> & { arena: { width: number; height: number; placed: Json[] } };

/** Numbers that look drawn, the same for the same seed: from 0 to below 1. */
function luckOf(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    // A linear congruential generator (Numerical Recipes, 2nd edition, section 7.1), its upper bits.
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return (state >>> 8) / 0x1000000;
  };
}

const FIRST = [
  'brine',
  'kelp',
  'coral',
  'tide',
  'silt',
  'brass',
  'lantern',
  'anchor',
  'gull',
  'rope',
  'hull',
  'reef',
  'squall',
  'bell',
  'salt',
  'drift',
];
const THEN = ['Ward', 'Veil', 'Hook', 'Song', 'Grip', 'Surge', 'Lamp', 'Shell', 'Knot', 'Drum', 'Mark', 'Spark', 'Toll', 'Draught'];

/** What share of the new entries each chapter has, in thousandths: as in a game that has grown for years, a third are effects. */
const SHARES: Readonly<Record<string, number>> = {
  statuses: 50,
  attributes: 80,
  effects: 310,
  abilities: 140,
  actors: 60,
  pickups: 100,
  loot: 50,
  quests: 60,
  achievements: 60,
  reactions: 40,
  zones: 15,
  spawners: 15,
  interactions: 20,
};

/** How many abilities an actor may have. */
const MOST_ABILITIES = 20;
/** What share of the formulas reads torch power: the stat that everything leans on. */
const LEANING = 0.45;

/**
 * The demo, grown to so many entries as a game grows: each new entry speaks of entries that were there before, most of its own
 * part of the game, some of one that all lean on. The same for the same seed, and sound.
 * @param entries how many entries it has in all, from those of the demo on
 */
export function largeRuleset(demo: object, entries: number, seed: number): Json {
  // It is not the demo, and is not to be taken for it.
  const document = { ...structuredClone(demo), name: `Brinewick of ${entries} entries` } as unknown as Ruleset;
  const luck = luckOf(seed);
  const below = (count: number) => Math.floor(luck() * count);
  const chapters = Object.keys(document).filter((key) => Array.isArray(document[key]) && document[key][0]?.id !== undefined);
  const missing = entries - chapters.reduce((sum, key) => sum + document[key].length, 0);
  const queue = Object.entries(SHARES).flatMap(([chapter, share]) =>
    Array.from({ length: Math.round((share * missing) / 1000) }, () => chapter),
  );
  while (queue.length < missing) queue.push('effects');
  queue.length = Math.max(0, missing);
  const diver = document['actors'].find(({ id }) => id === 'diver') as unknown as { attributes: Json[]; abilities: string[] };
  let made = 0;
  const named = () => {
    const [first, then] = [FIRST[below(FIRST.length)], THEN[below(THEN.length)]];
    const id = `${first}${then}${++made}`;
    return { id, label: `${first[0].toUpperCase()}${first.slice(1)} ${then.toLowerCase()} ${made}` };
  };
  /** Entries that nothing speaks of yet, the longest waiting first. */
  const unspoken = new Map<string, Entry[]>();
  /** An entry of a chapter: most of the time one that waits for it, or one of all. */
  const one = (chapter: string, fits: (entry: Entry) => boolean = () => true): string => {
    const waiting = unspoken.get(chapter) ?? [];
    const at = luck() < 0.75 ? waiting.findIndex(fits) : -1;
    if (at >= 0) return waiting.splice(at, 1)[0].id;
    const all = document[chapter].filter(fits);
    return all[below(all.length)].id;
  };
  const kind = (wanted: string) => (entry: Entry) => entry['kind'] === wanted;
  /** A stat that divers have. */
  const stat = () => {
    const own = new Set(diver.attributes.map(({ attribute }) => attribute));
    return one('attributes', ({ id, kind: of }) => of === 'stat' && own.has(id));
  };
  const number = (least: number, most: number) => least + below(most - least + 1);
  const formula = () =>
    luck() < LEANING ? `${number(1, 9)} + 0.1 * torchPower` : luck() < 0.3 ? `0.5 * ${stat()} + ${number(1, 9)}` : number(1, 12);
  const place = () => ({ x: 20 + below(document.arena.width - 40), y: 20 + below(document.arena.height - 40) });
  const placeSome = (thing: Json) => {
    if (below(3) === 0) document.arena.placed.push({ ...thing, ...place() });
  };
  const give = () => ({ do: 'give', attribute: one('attributes', kind('counter')), amount: number(1, 5) });
  const make: Readonly<Record<string, () => Json>> = {
    statuses: () => ({}),
    attributes: () =>
      luck() < 0.6
        ? { kind: 'stat', start: number(5, 50), max: 900, group: 'Further' }
        : { kind: 'pool', max: number(50, 200), refill: { rate: luck() < 0.5 ? number(1, 4) : 'breathRate' }, group: 'Further' },
    effects: () => ({
      lasts: `${number(2, 20)}s`,
      modifiers: [{ attribute: stat(), operation: ['add', 'percent'][below(2)], amount: formula() }],
      ...(luck() < 0.4 && { grants: [one('statuses')] }),
      ...(luck() < 0.2 && { periodic: { every: '1s', then: [{ do: 'hurt', attribute: 'suit', amount: formula() }] } }),
    }),
    abilities: () => ({
      cooldown: `${number(2, 30)}s`,
      costs: [{ attribute: 'stamina', amount: formula() }],
      ...(luck() < 0.5 && { cast: { time: `${number(2, 12) * 100}ms` } }),
      then: [{ do: 'apply', effect: one('effects'), ...(luck() < 0.5 && { to: { nearby: number(80, 300), who: 'others' } }) }],
      requires: luck() < 0.3 ? [{ hasNot: one('statuses') }] : [],
    }),
    actors: () => ({
      kind: 'foe',
      radius: 12,
      speed: 'finSpeed',
      attributes: ['suit', 'suitRating', 'finSpeed', 'stamina'].map((attribute) => ({ attribute })),
      abilities: [one('abilities'), one('abilities'), one('abilities')],
      life: 'suit',
      onDefeat: [{ do: 'drop', table: one('loot') }],
      behaviour: { do: 'wander', within: 60 },
    }),
    pickups: () => ({
      radius: 10,
      returns: `${number(10, 90)}s`,
      lasts: '60s',
      who: 'lungCapacity > 0',
      then: [{ do: 'apply', effect: one('effects') }, give()],
    }),
    loot: () => ({
      entries: [
        { id: 'nothing', weight: number(10, 60) },
        { id: 'first', weight: number(5, 20), pickup: one('pickups') },
        { id: 'second', weight: formula(), pickup: one('pickups') },
      ],
    }),
    quests: () => ({
      text: 'Somebody has to.',
      offered: [{ by: 'start' }],
      steps: [
        {
          id: 'first',
          label: 'First',
          goals: [
            { id: 'take', line: 'Taken {have}/{need}', on: { on: 'pickupTaken', pickup: one('pickups') }, count: number(1, 5) },
            {
              id: 'fell',
              line: 'Felled {have}/{need}',
              on: { on: 'actorDefeated', type: one('actors', kind('foe')), who: 'source' },
              count: 2,
            },
          ],
        },
      ],
      then: [give(), { do: 'award', track: 'standing', amount: number(5, 40) }],
    }),
    achievements: () => ({ text: 'Take some.', on: { on: 'pickupTaken', pickup: one('pickups') }, count: number(1, 20) }),
    reactions: () => ({
      on: { on: 'effectStarted', effect: one('effects') },
      then: [{ do: 'flourish', text: 'Something stirs' }],
      atMost: { times: 1, every: '5s' },
    }),
    zones: () => ({ who: 'lungCapacity > 0', onEnter: [{ do: 'apply', effect: one('effects') }] }),
    spawners: () => ({
      what: Array.from({ length: 4 }, () => ({ weight: 1, actor: one('actors', kind('foe')) })),
      when: { is: 'wave', pause: '30s' },
      count: 1,
    }),
    interactions: () => ({ prompt: 'Ask', reach: 40, who: 'lungCapacity > 0', then: [{ do: 'apply', effect: one('effects') }] }),
  };
  for (const chapter of shuffled(queue, below)) {
    const { id, label } = named();
    const entry = { id, label, ...make[chapter]() };
    document[chapter].push(entry);
    unspoken.set(chapter, [...(unspoken.get(chapter) ?? []), entry]);
    if (chapter === 'pickups') placeSome({ pickup: id });
    if (chapter === 'zones') document.arena.placed.push({ zone: id, radius: 30, ...place() });
    if (chapter === 'spawners') document.arena.placed.push({ spawner: id, ...place() });
    // A diver comes to have some of what is new, as far as anybody may.
    if (chapter === 'attributes' && luck() < 0.3) diver.attributes.push({ attribute: id });
    if (chapter === 'abilities' && luck() < 0.1 && diver.abilities.length < MOST_ABILITIES) diver.abilities.push(id);
  }
  return document;
}

/** In an order that luck gives (R. Durstenfeld, 1964). */
function shuffled<T>(list: readonly T[], below: (count: number) => number): readonly T[] {
  const mixed = [...list];
  for (let i = mixed.length - 1; i > 0; i--) {
    const k = below(i + 1);
    [mixed[i], mixed[k]] = [mixed[k], mixed[i]];
  }
  return mixed;
}
