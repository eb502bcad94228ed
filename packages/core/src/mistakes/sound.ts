import { apply, arena, counter, diver, type Document, give, heal, hurt, lamprey, pool, ruleset, stat } from './parts.js';

const suit = pool('suit');
const swims = stat('swimSpeed', 60);
const crews = [
  { id: 'petrel', label: 'Petrel' },
  { id: 'gannet', label: 'Gannet' },
];
const bitten = { at: 'actor', range: 60, who: 'foes' };
const bite = (more: Record<string, unknown> = {}) => ({
  id: 'bite',
  label: 'Bite',
  target: bitten,
  cooldown: '2s',
  onHit: [hurt('suit', 9)],
  ...more,
});
const hunting = { behaviour: { do: 'chase', within: 200 } };
/** A diver with a life, and a lamprey that bites. */
const fight = (more: Record<string, unknown> = {}, ability: Record<string, unknown> = {}) =>
  ruleset('A fight', {
    attributes: [suit, swims],
    abilities: [bite(ability)],
    actors: [
      diver(['suit'], { life: 'suit', respawn: { after: '3s' } }),
      lamprey(['suit', 'swimSpeed'], { life: 'suit', abilities: ['bite'], ...hunting }),
    ],
    arena: arena({ actor: 'lamprey', x: 300, y: 200 }),
    ...more,
  });
const casts = (ability: Record<string, unknown>, more: Record<string, unknown> = {}) =>
  ruleset('Casting', {
    attributes: [suit, swims, pool('stamina', { refill: { rate: 5 } }), stat('handling', 1, { min: 0.5, max: 2 })],
    abilities: [{ id: 'torch', label: 'Torch', target: bitten, onHit: [hurt('suit', 10)], ...ability }],
    actors: [
      diver(['suit', 'stamina', 'handling'], { abilities: ['torch'], life: 'suit', respawn: { after: '3s' } }),
      lamprey(['suit', 'swimSpeed'], { life: 'suit', behaviour: { do: 'wander' } }),
    ],
    arena: arena({ actor: 'lamprey', x: 300, y: 200 }),
    ...more,
  });
const earning = (more: Record<string, unknown> = {}) => ({
  attributes: [suit, swims, counter('scrip'), counter('felled')],
  actors: [
    diver(['suit', 'scrip', 'felled'], { life: 'suit', respawn: { after: '3s' } }),
    lamprey(['suit', 'swimSpeed'], { life: 'suit', behaviour: { do: 'wander' }, respawn: { after: '5s' } }),
  ],
  arena: arena({ actor: 'lamprey', x: 300, y: 200 }),
  ...more,
});
const FELL = { on: 'actorDefeated', type: 'lamprey', who: 'source' };
const trading = (more: Record<string, unknown> = {}) => ({
  attributes: [counter('scrip', { start: 50 }), counter('brass'), stat('finSpeed', 100)],
  actors: [diver(['scrip', 'brass', 'finSpeed'])],
  economy: { currency: 'scrip', day: { key: true }, ruin: { lastChance: '20s' } },
  ...more,
});

/** Small rulesets in which all is as it should be: nothing may be said of them. */
export const SOUND: Readonly<Record<string, Document>> = {
  breath: ruleset('Breath', {
    attributes: [
      stat('lungCapacity', 90),
      pool('oxygen', {
        max: 'lungCapacity',
        refill: { rate: -1.5 },
        thresholds: [{ id: 'out', end: 'empty', enter: [{ do: 'flourish', text: 'Out of air' }] }],
      }),
    ],
    actors: [diver(['lungCapacity', 'oxygen'])],
  }),
  resistance: ruleset('Resistance', {
    attributes: [
      stat('rating', 0.8, { min: 0, max: 1 }),
      pool('suit', { taken: 'event.asked * rating', refill: { rate: 2, every: '1s', pause: '3s' }, whole: true }),
    ],
    actors: [diver(['rating', 'suit'], { life: 'suit', respawn: { after: '5s' } })],
    arena: arena({ zone: 'vent', x: 100, y: 100, radius: 40 }),
    zones: [{ id: 'vent', label: 'Vent', every: { time: '1s', then: [hurt('suit', 5)] } }],
  }),
  fight: fight(),
  reach: fight({}, { target: { at: 'cone', range: 80, angle: 60, who: 'foes' } }),
  bolt: fight({}, { target: { at: 'actor', range: 200, who: 'foes' }, deliver: { by: 'projectile', speed: 200, lifetime: '2s' } }),
  fan: fight({}, { target: { at: 'direction' }, deliver: { by: 'projectile', count: 8, spread: 360, speed: 120, lifetime: '1s' } }),
  leech: fight({}, { onHit: [hurt('suit', 9), heal('suit', 3, { to: 'self' })] }),
  leap: casts(
    {
      target: { at: 'point', range: 150 },
      deliver: { by: 'area', radius: 60, delay: '2s' },
      then: [apply('aloft')],
      cooldown: '5s',
    },
    {
      statuses: [{ id: 'airborne', label: 'Airborne' }],
      effects: [{ id: 'aloft', label: 'Aloft', lifetime: 'timed', lasts: '2s', grants: ['airborne'] }],
      states: [{ id: 'flying', label: 'Flying', while: 'airborne', allows: ['move'] }],
    },
  ),
  cast: casts({
    cast: { time: '1.8s', haste: 'handling' },
    costs: [{ attribute: 'stamina', amount: 20 }],
    brokenBy: { damage: 5, movement: true },
    cooldown: '4s',
  }),
  channel: casts({ channel: { every: '500ms', lasts: '3s', then: [hurt('suit', 3, { to: 'target' })] }, onHit: undefined, cooldown: '6s' }),
  stored: casts({ stored: { most: 3, refill: '4s' }, groups: ['tools'] }, { groups: [{ id: 'tools', label: 'Tools', lasts: '1s' }] }),
  stunned: casts(
    { requires: [{ hasNot: 'stunned', says: 'Not while stunned.' }], onHit: [apply('shock')] },
    {
      statuses: [{ id: 'stunned', label: 'Stunned' }],
      effects: [{ id: 'shock', label: 'Shock', lifetime: 'timed', lasts: '2s', grants: ['stunned'] }],
      states: [{ id: 'down', label: 'Stunned', while: 'stunned', allows: [] }],
    },
  ),
  swift: ruleset('Swift', {
    attributes: [stat('finSpeed', 100), counter('taken')],
    effects: [
      {
        id: 'swift',
        label: 'Swift',
        lifetime: 'timed',
        lasts: '8s',
        stacking: 'refresh',
        modifiers: [{ attribute: 'finSpeed', operation: 'percent', amount: 40 }],
      },
    ],
    pickups: [{ id: 'fin', label: 'Fin', then: [apply('swift'), give('taken', 1)] }],
    actors: [diver(['finSpeed', 'taken'], { speed: 'finSpeed' })],
    arena: arena({ pickup: 'fin', x: 200, y: 100 }),
  }),
  bubble: fight({
    effects: [
      {
        id: 'bubble',
        label: 'Bubble',
        lifetime: 'untilUsed',
        used: { times: 1, by: { on: 'attributeChanged', attribute: 'suit', how: 'hurt', where: 'event.asked < -5' } },
        modifiers: [],
      },
    ],
    pickups: [{ id: 'jar', label: 'Jar', then: [apply('bubble')] }],
    arena: arena({ actor: 'lamprey', x: 300, y: 200 }, { pickup: 'jar', x: 100, y: 100 }),
  }),
  poison: fight(
    { effects: [{ id: 'poison', label: 'Poison', lifetime: 'timed', lasts: '4s', periodic: { every: '1s', then: [hurt('suit', 2)] } }] },
    { onHit: [apply('poison')] },
  ),
  bulwark: ruleset('Bulwark', {
    attributes: [stat('hull', 100), pool('suit', { max: 'hull', follow: 'share' })],
    effects: [
      { id: 'bulwark', label: 'Bulwark', lifetime: 'timed', lasts: '6s', modifiers: [{ attribute: 'hull', operation: 'add', amount: 40 }] },
    ],
    abilities: [{ id: 'brace', label: 'Brace', cooldown: '10s', then: [apply('bulwark')] }],
    actors: [diver(['hull', 'suit'], { life: 'suit', respawn: { after: '3s' }, abilities: ['brace'] })],
  }),
  rest: ruleset('A place to rest', {
    attributes: [suit, counter('scrip', { start: 5 })],
    interactions: [
      {
        id: 'rest',
        label: 'Rest',
        prompt: 'Rest',
        price: { attribute: 'scrip', amount: 1 },
        busy: '10s',
        refund: 1,
        refundUntil: '2s',
        onBreak: [{ do: 'flourish', text: 'You leave.' }],
        then: [{ do: 'wait', for: '2s' }, heal('suit', 100)],
      },
    ],
    actors: [diver(['suit', 'scrip']), { id: 'keeper', label: 'Keeper', kind: 'character', interactions: ['rest'] }],
    arena: arena({ actor: 'keeper', x: 200, y: 200 }),
  }),
  tale: ruleset('A tale', {
    dialogues: [
      {
        id: 'tale',
        label: 'The tale',
        lines: [
          { id: 'one', text: 'It was a calm night.', for: '2s' },
          { id: 'two', speaker: 'visitor', text: 'Go on.', for: '2s', choices: [{ text: 'And then?', next: 'end' }] },
        ],
      },
    ],
    interactions: [{ id: 'ask', label: 'Ask', prompt: 'Ask', then: [{ do: 'talk', dialogue: 'tale' }] }],
    actors: [diver([]), { id: 'keeper', label: 'Keeper', kind: 'character', interactions: ['ask'] }],
    arena: arena({ actor: 'keeper', x: 200, y: 200 }),
  }),
  crate: ruleset('A crate', {
    attributes: [counter('brass')],
    containers: [
      {
        id: 'crate',
        label: 'Crate',
        opening: '1s',
        holds: [{ id: 'some', label: 'Brass', gives: 'brass', amount: { random: [1, 3], whole: true }, chance: 0.5 }],
      },
    ],
    actors: [diver(['brass']), { id: 'chest', label: 'Chest', kind: 'prop', container: 'crate' }],
    arena: arena({ actor: 'chest', x: 200, y: 200 }),
  }),
  nest: fight({
    spawners: [
      { id: 'nest', label: 'Nest', what: [{ weight: 3, actor: 'lamprey' }, { weight: 1 }], when: { is: 'every', time: '5s' }, most: 4 },
    ],
    arena: arena({ spawner: 'nest', x: 200, y: 200, points: [{ x: 220, y: 220 }] }),
  }),
  standing: ruleset('Standing', {
    ...earning(),
    tracks: [
      {
        id: 'standing',
        label: 'Standing',
        levels: 5,
        needs: '50 * level',
        sources: [{ on: FELL, amount: 20 }],
        onLevel: [{ from: 2, to: 5, every: 1, then: [give('scrip', 5)] }],
      },
    ],
    reactions: [{ id: 'tally', label: 'Tally', on: { on: 'actorDefeated', type: 'lamprey' }, then: [give('felled', 1, { to: 'source' })] }],
  }),
  skills: ruleset('Skills', {
    attributes: [stat('finSpeed', 100)],
    effects: [
      { id: 'fins', label: 'Long fins', lifetime: 'lasting', modifiers: [{ attribute: 'finSpeed', operation: 'add', amount: 10 }] },
    ],
    actors: [diver(['finSpeed'], { speed: 'finSpeed', onSpawn: [{ do: 'givePoints', tree: 'craft', amount: 3 }] })],
    trees: [
      {
        id: 'craft',
        label: 'Craft',
        nodes: [{ id: 'fins', label: 'Long fins', x: 0, y: 0, ranks: 2, cost: 1, gives: { effect: 'fins' } }],
      },
    ],
  }),
  errand: ruleset('An errand', {
    ...earning({
      reactions: [
        { id: 'tally', label: 'Tally', on: { on: 'actorDefeated', type: 'lamprey' }, then: [give('felled', 1, { to: 'source' })] },
      ],
    }),
    quests: [
      {
        id: 'clear',
        label: 'Clear it',
        text: 'Three of them.',
        offered: [{ by: 'start' }],
        steps: [{ id: 'fell', label: 'Fell them', goals: [{ id: 'three', line: 'Felled {have}/{need}', on: FELL, count: 3 }] }],
        then: [give('scrip', 10)],
      },
    ],
  }),
  hunt: ruleset('A hunt of the crew', {
    ...earning({
      reactions: [
        { id: 'tally', label: 'Tally', on: { on: 'actorDefeated', type: 'lamprey' }, then: [give('felled', 1, { to: 'source' })] },
      ],
    }),
    teams: crews,
    dialogues: [{ id: 'ending', label: 'The ending', heard: 'team', lines: [{ id: 'one', text: 'That was the last.', for: '2s' }] }],
    quests: [
      {
        id: 'hunt',
        label: 'The hunt',
        text: 'Six.',
        offered: [{ by: 'start' }],
        takenBy: 'crew',
        see: 'team',
        steps: [
          { id: 'fell', label: 'Fell them', goals: [{ id: 'six', line: 'Felled {have}/{need}', on: FELL, count: 6, counts: 'crew' }] },
        ],
        then: [give('scrip', 10), { do: 'talk', dialogue: 'ending', once: true }],
      },
    ],
  }),
  medal: ruleset('A medal', {
    ...earning({
      reactions: [
        {
          id: 'tally',
          label: 'Tally',
          on: { on: 'actorDefeated', type: 'lamprey' },
          then: [give('felled', 1, { to: 'source' }), give('scrip', 1, { to: 'source' })],
        },
      ],
    }),
    achievements: [
      { id: 'ten', label: 'Ten', text: 'Fell ten.', on: FELL, count: 10 },
      { id: 'rich', label: 'Rich', text: 'Have 50.', if: 'scrip >= 50', holds: '5s' },
    ],
  }),
  crews: ruleset('Crews', {
    attributes: [suit],
    abilities: [bite()],
    teams: [
      { id: 'petrel', label: 'Petrel', capacity: 4 },
      { id: 'gannet', label: 'Gannet', capacity: 4 },
    ],
    teamRules: { assign: 'fewest', switching: 'after', after: '30s' },
    actors: [diver(['suit'], { abilities: ['bite'], life: 'suit', respawn: { after: '3s' } })],
    arena: {
      ...arena(),
      starts: [
        { x: 40, y: 40, team: 'petrel' },
        { x: 600, y: 40, team: 'gannet' },
      ],
    },
  }),
  drops: ruleset('Drops', {
    ...earning({
      reactions: [
        {
          id: 'tally',
          label: 'Tally',
          on: { on: 'actorDefeated', type: 'lamprey' },
          then: [give('felled', 1, { to: 'source' }), { do: 'drop', table: 'spoils', to: 'source' }],
        },
      ],
    }),
    pickups: [{ id: 'token', label: 'Token', then: [give('scrip', 5)], lasts: '20s' }],
    loot: [
      {
        id: 'spoils',
        label: 'Spoils',
        entries: [
          { id: 'token', weight: 3, pickup: 'token' },
          { id: 'none', weight: 7 },
        ],
        streak: { entry: 'token', after: 5, adds: 2, certain: 12 },
      },
    ],
  }),
  market: ruleset('A market', {
    ...trading(),
    pickups: [{ id: 'fitting', label: 'Fitting', then: [give('brass', 1)] }],
    arena: arena({ pickup: 'fitting', x: 100, y: 100 }),
    effects: [
      { id: 'fins', label: 'Long fins', lifetime: 'lasting', modifiers: [{ attribute: 'finSpeed', operation: 'add', amount: 10 }] },
    ],
    markets: [{ id: 'quay', label: 'Quay', goods: [{ good: 'brass', price: { range: [3, 6] } }] }],
    offers: [
      {
        id: 'fins',
        label: 'Fins',
        costs: [{ attribute: 'scrip', amount: '20 * tier' }],
        tiers: 3,
        gets: [],
        then: [apply('fins')],
        upkeep: '2 * tier',
      },
    ],
    shops: [{ id: 'stall', label: 'Stall', sells: ['fins'] }],
  }),
  exchange: ruleset('An exchange', {
    attributes: [counter('scrip', { start: 5 }), counter('brass', { start: 10 })],
    interactions: [
      {
        id: 'swap',
        label: 'Swap',
        prompt: 'Swap five brass for two scrip',
        then: [
          {
            do: 'trade',
            pays: [{ attribute: 'brass', amount: 5 }],
            gets: [{ attribute: 'scrip', amount: 2 }],
            else: [{ do: 'flourish', text: 'Five are asked.' }],
          },
        ],
      },
    ],
    actors: [diver(['scrip', 'brass']), { id: 'broker', label: 'Broker', kind: 'character', interactions: ['swap'] }],
    arena: arena({ actor: 'broker', x: 200, y: 200 }),
  }),
  clip: casts(
    { cast: { time: { clip: 'swing', mark: 'strike' } }, recovery: { time: { clip: 'swing', from: 'strike' } }, cooldown: '3s' },
    { clips: [{ id: 'swing', label: 'Swing', length: '2s', marks: [{ mark: 'strike', at: '1.2s' }] }] },
  ),
  curve: ruleset('A curve', {
    attributes: [stat('depth', 3), stat('cold', 'curve(chill, depth)'), counter('scrip')],
    curves: [
      {
        id: 'chill',
        label: 'Chill',
        points: [
          [0, 0],
          [10, 5],
        ],
      },
    ],
    actors: [diver(['depth', 'cold', 'scrip'])],
  }),
};
