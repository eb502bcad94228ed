import type { Command } from '../index.js';
import { type Mark, type MarkedAttribute, Marking, SEES, type Token } from './marking.js';
import { input, join } from './rulesets.js';

export const GUARDED_SEATS = ['north', 'east', 'south', 'west'] as const;
export const CREWS = ['copper', 'pewter'] as const;
/** Longest that a guarded world is run: ticks then stay below every mark of an attribute. */
export const GUARDED_TICKS = 300;

/** A ruleset in which everything says whose it is, and what random play in it can ask for. */
export interface Guarded {
  readonly ruleset: Record<string, unknown>;
  readonly tokens: readonly Token[];
  readonly marks: readonly Mark[];
  /** What seats and the author do in a tick. */
  commands(): readonly Command[];
  /** Joins all four, two to a crew. */
  readonly joining: readonly Command[];
}

/** A random ruleset with every visibility: each seat has a kind of actor of its own, whose entries are nobody else's. */
export function guardedRuleset(seed: number): Guarded {
  const marking = new Marking(seed);
  const { tokens, marks } = marking;
  const draw = () => marking.draw();
  const one = <T>(of: readonly T[]): T => marking.one(of);
  const below = (n: number) => marking.below(n);
  const name: Marking['name'] = (...of) => marking.name(...of);
  const shown: Marking['shown'] = (...of) => marking.shown(...of);
  // What all have in common; nobody's, but for who may see no other's.
  const coin = marking.attribute(undefined, { kind: 'counter' });
  const gem = marking.attribute(undefined, { kind: 'counter' });
  const shared = [coin, gem].map(({ entry, times }) => ({ ...entry, start: times(5) }));
  const purse = { attribute: coin.entry.id, start: coin.times(5) };
  const pouch = { attribute: gem.entry.id, start: gem.times(5) };
  const buoy = name(undefined, 'everyone');
  const market = name(undefined, 'everyone');
  const shop = name(undefined, 'everyone');
  const offer = name(undefined, 'everyone');

  const bodies = GUARDED_SEATS.map((_, seat) => ({
    air: marking.attribute(seat, { kind: 'pool' }),
    hull: marking.attribute(seat, { kind: 'pool' }),
    silt: marking.attribute(seat, { kind: 'counter' }),
    pull: marking.attribute(seat, { kind: 'stat' }),
  }));
  const changeOf = (attributes: readonly MarkedAttribute[]) => {
    const { entry, times } = one(attributes);
    if (entry['kind'] === 'stat') return { do: 'set', attribute: entry.id, value: times(1 + below(4)) };
    return {
      do: entry['kind'] === 'counter' ? one(['give', 'take']) : one(['hurt', 'heal']),
      attribute: entry.id,
      amount: times(1 + below(4)),
    };
  };
  // Whoever is hit has only what is theirs of it.
  const blow = () => bodies.map(({ air, hull, silt }) => changeOf([air, hull, silt]));

  const sides = bodies.map(({ air, hull, silt, pull }, seat) => {
    const pools = [air, hull];
    const all = [air, hull, silt, pull];
    const [wet, dazed] = [shown(seat), shown(seat)];
    const drifting = { ...shown(seat), while: dazed.id, ...(draw() < 0.7 && { allows: ['move', 'use'] }) };
    const change = (whose = all) => changeOf(whose);
    const modified = { attribute: pull.entry.id, operation: 'add', amount: pull.times(1 + below(3)) };
    const chill = {
      ...shown(seat),
      lifetime: 'timed',
      lasts: '2s',
      ...one([{ stacking: 'refresh', most: 2 }, { stacking: 'once' }, { stacking: 'separate', most: 2 }]),
      modifiers: [modified],
      grants: [wet.id],
    };
    const ward = {
      ...shown(seat),
      lifetime: 'lasting',
      stacking: 'once',
      grants: [dazed.id],
    };
    const sting = {
      ...shown(seat),
      lifetime: 'timed',
      lasts: '3s',
      blocked: { effects: [ward.id], statuses: draw() < 0.5 ? [wet.id] : [] },
      periodic: { every: '500ms', then: [change(pools)] },
      onEnd: [{ then: [change([silt])] }],
    };
    const effects = [chill, ward, sting];
    const own = ['owner', 'team', 'everyone'] as const;
    const cost = (from = [...pools, silt]) => {
      const { entry, times } = one(from);
      return { attribute: entry.id, amount: times(1 + below(6)) };
    };
    const need = () => ({ [one(['has', 'hasNot'])]: one([wet.id, dazed.id]), throughout: draw() < 0.5 });
    const abilities = Array.from({ length: 3 }, (_, n) => ({
      ...shown(seat, own),
      costs: draw() < 0.7 ? [cost()] : [],
      charge: one(['onStart', 'onFinish']),
      ...(draw() < 0.3 && { cooldown: '1s' }),
      ...(draw() < 0.4 && { requires: [need()] }),
      ...(n < 2 && {
        cast: { time: '600ms' },
        brokenBy: { damage: 1, movement: draw() < 0.5, statuses: [dazed.id], player: draw() < 0.5 },
      }),
      then: [change(), { do: one(['apply', 'apply', 'end']), effect: one(effects).id }],
    }));
    const aim = { range: 90, who: 'others', sight: false };
    const strike = {
      ...shown(seat, own),
      ...one<Record<string, unknown>>([
        { target: { at: 'nearest', count: 2, ...aim }, cast: { time: '200ms' } },
        {
          target: { at: 'direction' },
          deliver: { by: 'projectile', count: 3, spread: 90, speed: 200, radius: 8, lifetime: '500ms', pierce: 2, who: 'foes' },
        },
        { target: { at: 'self' }, deliver: { by: 'area', radius: 20, who: 'foes' } },
        { target: { at: 'nearest', ...aim }, channel: { every: '100ms', lasts: '300ms', then: [change()] } },
      ]),
      onHit: blow(),
      then: [{ do: 'end', effect: ward.id }],
      onMiss: [change([silt])],
    };
    const track = {
      ...shown(seat),
      levels: 4,
      needs: [2, 2, 2],
      sources: [{ on: { on: 'abilityUsed', ability: abilities[0].id }, amount: 1 }],
    };
    const [first, second] = [name(seat, 'owner', false), name(seat, 'owner', false)];
    const tree = {
      ...shown(seat),
      points: 4,
      nodes: [
        { ...first, ranks: 2, ...(draw() < 0.5 && { gives: { effect: ward.id } }) },
        { ...second, x: 1, needs: { all: [{ node: first.id }], level: { track: track.id, at: 2 } } },
      ],
      respec: one<Record<string, unknown>>([{ how: 'free' }, { how: 'paid', price: cost() }, { how: 'never' }]),
    };
    // The nodes are known to whoever knows their tree.
    for (const node of [first, second])
      tokens[tokens.findIndex(({ word }) => word === node.id)] = { word: node.id, see: tree.see, seat, unknown: tree.see === 'server' };
    const told = one(own);
    const quest = {
      ...name(seat, told, true),
      see: told,
      if: `level(${track.id}) >= ${1 + below(2)}`,
      begins: one(['accepted', 'atOnce']),
      repeats: 'always',
      steps: [{ id: 'only', label: 'Only', goals: [{ id: 'goal', line: 'Use {have}', on: { on: 'abilityUsed' }, count: 2 }] }],
      then: [change([silt])],
    };
    const hidden = draw() < 0.5;
    const seen = one(SEES);
    const badge = {
      ...name(seat, seen === 'server' ? 'owner' : seen, hidden),
      see: seen,
      secret: hidden,
      on: { on: 'effectStarted', effect: chill.id },
      count: 2,
    };
    const haul = {
      ...name(seat, 'server', true),
      always: [{ id: 'sure', gives: silt.entry.id, quantity: silt.times(2) }],
      entries: [
        { id: 'sting', weight: 1, effect: sting.id },
        { id: 'air', weight: 1, gives: air.entry.id, quantity: air.times(1) },
        { id: 'use', weight: 1, ability: abilities[2].id },
      ],
    };
    const crate = {
      ...name(undefined, 'everyone'),
      loot: haul.id,
      contents: 'perPlayer',
      reach: 1000,
      sight: false,
      who: `${pull.entry.id} > 0`,
    };
    const heard = one(own);
    // What is said in it nobody knows before it is said.
    const words = () => name(seat, heard, true).label;
    const banter = {
      ...name(seat, heard),
      heard,
      lines: [
        {
          id: 'first',
          speaker: one(['character', 'visitor', 'crew']),
          text: words(),
          for: '400ms',
          then: [change()],
          choices: [
            { text: words(), then: [change()] },
            { text: words(), if: `${silt.entry.id} > ${silt.times(2)}`, next: 'end' },
          ],
        },
        { id: 'second', text: words(), for: '300ms', if: `${air.entry.id} > ${air.times(4)}` },
      ],
    };
    const valve = {
      ...name(undefined, 'everyone'),
      prompt: 'Turn',
      reach: 1000,
      sight: false,
      price: { attribute: coin.entry.id, amount: coin.times(1) },
      busy: '200ms',
      serves: 'each',
    };
    const eddy = {
      ...name(undefined, 'everyone'),
      who: `${pull.entry.id} > 0`,
      onEnter: [change()],
      onLeave: [change()],
      every: { time: '700ms', then: [change()] },
    };
    const shell = {
      ...name(undefined, 'everyone'),
      radius: 30,
      who: `${pull.entry.id} > 0`,
      // Those who are refused are all others, and they are told.
      ...(draw() < 0.5 && { refusal: 'Not yours.' }),
      gone: one(['forAll', 'perPlayer']),
      returns: '1s',
      then: [change()],
    };
    const lying = { ...name(seat, 'everyone'), radius: 30, gone: 'forAll', lasts: '2s', then: [change()] };
    const chest = { ...name(undefined, 'everyone'), kind: 'prop', container: crate.id, interactions: [valve.id] };
    const diver = {
      ...name(undefined, 'everyone'),
      kind: 'player',
      attributes: [
        { attribute: air.entry.id, start: air.times(10) },
        { attribute: hull.entry.id, start: hull.times(10) },
        { attribute: silt.entry.id, start: silt.times(3) },
        { attribute: pull.entry.id, start: pull.times(3) },
        purse,
        pouch,
      ],
      abilities: [...abilities, strike].map(({ id }) => id),
      life: hull.entry.id,
      respawn: { after: '1s' },
    };
    const bounded = pools.map(({ entry, times }) => ({
      ...entry,
      max: times(20),
      // Without it, one falls now and then.
      ...(entry !== hull.entry && { refill: { rate: times(20), every: '1s' } }),
    }));
    return {
      attributes: [...bounded, silt.entry, pull.entry],
      statuses: [wet, dazed],
      states: [drifting],
      effects,
      abilities: [...abilities, strike],
      tracks: [track],
      trees: [tree],
      quests: [quest],
      achievements: [badge],
      loot: [haul],
      containers: [crate],
      interactions: [valve],
      dialogues: [banter],
      zones: [eddy],
      pickups: [shell, lying],
      actors: [diver, chest],
      reactions: [{ ...name(seat, 'server', true), on: { on: 'statusGained', status: wet.id }, then: [change([hull])] }],
      diver,
      strike,
      change,
      first,
      second,
    };
  });
  const chapters = [
    'statuses',
    'states',
    'effects',
    'abilities',
    'tracks',
    'trees',
    'quests',
    'achievements',
    'loot',
    'containers',
    'interactions',
    'dialogues',
    'zones',
    'pickups',
    'reactions',
  ] as const;
  const listed = Object.fromEntries(chapters.map((chapter) => [chapter, sides.flatMap((side): readonly unknown[] => side[chapter])]));
  const ruleset = {
    format: 'eager-ember/ruleset',
    version: 2,
    name: 'Guarded',
    tickRate: 20,
    teams: CREWS.map((id) => ({ id, label: id, colour: '#123456' })),
    ...listed,
    attributes: [...shared, ...sides.flatMap(({ attributes }) => attributes)],
    actors: [...sides.flatMap(({ actors }) => actors), { ...buoy, kind: 'prop' }],
    arena: {
      width: 100,
      height: 100,
      starts: GUARDED_SEATS.map((_, n) => ({ x: 20 + n * 20, y: 50, team: CREWS[n >> 1] })),
      placed: sides.flatMap(({ actors: [, chest], zones: [eddy], pickups: [shell] }, n) => [
        { actor: chest.id, x: 20 + n * 20, y: 50 },
        { zone: eddy.id, x: 20 + n * 20, y: 50, radius: 15 },
        { pickup: shell.id, x: 20 + n * 20, y: 60 },
      ]),
    },
    economy: { currency: coin.entry.id },
    markets: [{ ...market, goods: [{ good: gem.entry.id, price: { range: [coin.times(1), coin.times(1)] } }] }],
    offers: [
      { ...offer, costs: [{ attribute: coin.entry.id, amount: coin.times(1) }], gets: [{ attribute: gem.entry.id, amount: gem.times(1) }] },
    ],
    shops: [{ ...shop, sells: [offer.id] }],
  };
  const asking = (seat: number): Command => {
    const side = sides[seat];
    // What somebody may guess: anything that they have no way of knowing.
    const guess = () => one(tokens.filter((token) => token.seat === seat || token.unknown)).word;
    const ability = () => (draw() < 0.9 ? (draw() < 0.4 ? side.strike : one(side.abilities)).id : guess());
    return input(
      GUARDED_SEATS[seat],
      one<() => Record<string, unknown>>([
        () => ({ do: 'use', ability: ability(), x: below(100), y: below(100) }),
        () => ({ do: 'use', ability: ability(), x: below(100), y: below(100) }),
        () => ({ do: 'cancel' }),
        () => ({ do: 'move', x: below(3) - 1, y: below(3) - 1 }),
        () => ({ do: 'learn', tree: draw() < 0.9 ? side.trees[0].id : guess(), node: one([side.first, side.second]).id }),
        () => ({ do: 'unlearn', tree: side.trees[0].id, node: one([side.first, side.second]).id }),
        () => ({ do: 'respec', tree: side.trees[0].id }),
        () => ({ do: one(['acceptQuest', 'declineQuest', 'abandonQuest']), quest: draw() < 0.7 ? side.quests[0].id : guess() }),
        () => ({ do: 'interact' }),
        () => ({ do: 'interact' }),
        () => ({ do: 'choose', choice: below(3) }),
        () => ({ do: 'take', item: below(4) }),
        () => ({ do: 'take', item: below(3) }),
        () => ({ do: 'buy', offer: draw() < 0.8 ? offer.id : guess() }),
        () => ({ do: 'sell', good: draw() < 0.8 ? gem.entry.id : guess(), amount: 1 + below(3) }),
        () => ({ do: 'switch', team: draw() < 0.8 ? one(CREWS) : guess() }),
      ])(),
    );
  };
  const meddling = (seat: number): Command => {
    const side = sides[seat];
    const action = one<() => Record<string, unknown>>([
      () => side.change(),
      () => ({ do: 'apply', effect: one(side.effects).id }),
      () => ({ do: 'end', effect: one(side.effects).id }),
      () => ({ do: 'drop', table: side.loot[0].id }),
      () => ({ do: 'award', track: side.tracks[0].id, amount: 1 }),
      () => ({ do: 'offerQuest', quest: side.quests[0].id }),
      () => ({ do: 'use', ability: one(side.abilities).id }),
      () => ({ do: 'enter', state: side.states[0].id }),
      () => ({ do: 'endDay' }),
      () => ({ do: 'talk', dialogue: side.dialogues[0].id }),
      () => ({ do: 'spawn', pickup: side.pickups[1].id }),
    ])();
    // Who brings a drop about is the one who finds it.
    const from = action['do'] === 'drop' ? GUARDED_SEATS[seat] : one(GUARDED_SEATS);
    return { kind: 'poke', args: { seat: GUARDED_SEATS[seat], from, action } };
  };
  return {
    ruleset,
    tokens,
    marks,
    joining: GUARDED_SEATS.map((seat, n) => join(seat, { team: CREWS[n >> 1], actor: sides[n].diver.id })),
    commands: () => [...(draw() < 0.8 ? [asking(below(4))] : []), ...(draw() < 0.4 ? [meddling(below(4))] : [])],
  };
}
