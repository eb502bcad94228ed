import { actorOfSeat, announcementsFor, compileRuleset, Copy, Publisher, shownTo, type Viewer, wireSchemaOf, World } from '../../index.js';
import { FIGHT, HITS } from '../../testing/fights.js';
import { input, join, poke, rulesetWith } from '../../testing/rulesets.js';

const abilities = (see: string) => [
  {
    id: 'torch',
    label: 'Torch',
    see,
    cast: { time: '0.5s' },
    recovery: { time: '0.5s' },
    target: { at: 'cone', range: 100, angle: 60 },
    deliver: { by: 'projectile', speed: 100, lifetime: '2s' },
    onHit: HITS,
  },
  { id: 'charge', label: 'Charge', see, target: { at: 'point', range: 300 }, deliver: { by: 'area', radius: 20, delay: '2s' } },
];

/** What each seat was told over two seconds in which `north` casts and throws: rows of tables, and announcements. */
function told(see: string) {
  const rules = compileRuleset(rulesetWith({ ...FIGHT, abilities: abilities(see) }));
  const world = World.start(rules, 1);
  world.step([join('north', { team: 'petrel' }), join('mate', { team: 'petrel' }), join('south', { team: 'gannet' })]);
  world.step([poke('south', { do: 'place', x: 700, y: 300 })]);
  const publisher = new Publisher(world);
  const heard: Record<string, Set<string>> = {};
  const copies = Object.fromEntries(['north', 'mate', 'south'].map((seat) => [seat, new Copy(wireSchemaOf(rules))]));
  for (let tick = 0; tick < 40; tick++) {
    const use = (ability: string) => input('north', { do: 'use', ability, x: 200, y: 200 });
    const events = world.step(tick === 0 ? [use('torch')] : tick === 25 ? [use('charge')] : []);
    publisher.capture();
    for (const [seat, copy] of Object.entries(copies)) {
      const actor = actorOfSeat(world, seat);
      const viewer: Viewer = { actor, team: world.actors.cells.team[world.actors.rowOf(actor)] };
      copy.apply(publisher.frameFor(viewer, copy.frame));
      expect(copy.contents()).toEqual(shownTo(world, viewer));
      const set = (heard[seat] ??= new Set());
      for (const table of ['casts', 'projectiles', 'areas']) if (copy.rows(table).length > 0) set.add(table);
      for (const { event } of announcementsFor(world, events, viewer)) set.add(event);
    }
  }
  return Object.fromEntries(Object.entries(heard).map(([seat, set]) => [seat, [...set].sort().join(' ')]));
}

const ALL = 'abilityUsed areas castStarted casts projectiles';

describe('What an ability does is seen', () => {
  it('by everybody, the crew, or its user alone, on the wire, as its author says', () => {
    expect(told('everyone')).toEqual({ north: ALL, mate: ALL, south: ALL });
    expect(told('team')).toEqual({ north: ALL, mate: ALL, south: '' });
    expect(told('owner')).toEqual({ north: ALL, mate: '', south: '' });
  });

  it('by no seat where it is a foe’s alone: not even its name is told', () => {
    const foes = [
      { id: 'diver', label: 'Diver', kind: 'player' },
      { id: 'eel', label: 'Eel', kind: 'foe', abilities: ['torch', 'charge'] },
    ];
    const schema = (actors?: unknown[]) =>
      JSON.stringify(wireSchemaOf(compileRuleset(rulesetWith({ ...FIGHT, abilities: abilities('owner'), ...(actors && { actors }) }))));
    expect(schema(foes)).not.toMatch(/"(torch|Torch|charge|Charge)"/);
    expect(schema()).toContain('Torch');
  });
});
