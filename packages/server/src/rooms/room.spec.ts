import brinewick from '../../../core/src/testing/recorded/brinewick.json' with { type: 'json' };
import { compileRuleset, readSnapshot, type SavedPlayer, type ServerMessage, storeSnapshot, World } from '@eager-ember/core';
import { Fake } from '../testing/fake.js';
import { Room } from './room.js';

type Editable = Record<string, unknown> & { actors: Record<string, unknown>[]; effects: unknown[]; pickups: { then: unknown[] }[] };
const rulesOf = (edit: (document: Editable) => void = () => undefined) => {
  const document = structuredClone(brinewick) as unknown as Editable;
  edit(document);
  return compileRuleset(document);
};
const SEATS = [
  { name: 'north', team: 'petrel' },
  { name: 'south', team: 'gannet' },
];

const savedIn = ({ text }: { readonly text: string }) => JSON.parse(text) as SavedPlayer;

describe('A room by itself', () => {
  const edited = (room: Room, rules = rulesOf(), revision = 2) => room.edited({ rules, rulesetId: 'r', revision });
  const open = (players = new Map()) => new Room('slate-heron', { rules: rulesOf(), rulesetId: 'r', revision: 1 }, 5, SEATS, players);
  const ticks = (room: Room, count: number) => {
    for (let i = 0; i < count; i++) room.tick();
  };

  it('welcomes a screen, then sends it frames', () => {
    const room = open();
    const north = new Fake(room, 'north');
    expect(north.welcome).toEqual(
      jasmine.objectContaining({ room: 'slate-heron', ruleset: 'Brinewick Salvage', revision: 1, seat: 'north', row: 8, speed: 1 }),
    );
    room.tick();
    expect(north.value('scrip')).toBe(0);
  });

  it('tells a seat of effects as they may be seen, and nothing of how values are made', () => {
    const room = new Room(
      'slate-heron',
      { rules: rulesOf((document) => Object.assign(document.effects[2] as object, { see: 'owner' })), rulesetId: 'r', revision: 1 },
      5,
      SEATS,
      new Map(),
    );
    const [north, south, truth] = [new Fake(room, 'north'), new Fake(room, 'south'), new Fake(room, undefined)];
    for (const effect of ['bubble', 'slipstream', 'warmth'])
      room.poke(truth, { t: 'poke', seat: 'north', action: { do: 'apply', effect } });
    room.poke(truth, { t: 'poke', seat: 'north', action: { do: 'hurt', attribute: 'oxygen', amount: 90 } });
    ticks(room, 3);
    const effectsOf = (fake: Fake) => fake.copy!.rows('effects').map((row) => fake.copy!.value('effects', row, 'effect'));
    expect(effectsOf(north)).toEqual(['bubble', 'slipstream', 'warmth', 'winded']);
    expect(effectsOf(south)).toEqual(['slipstream', 'warmth', 'winded']);
    expect(north.copy!.value('effects', 0, 'uses')).toBe(1);
    // What only the server knows is not even named at the door.
    const door = JSON.stringify(south.welcome!.schema.tables);
    for (const name of ['modifiers', 'waits', 'oxygen.in.out', 'finSpeed.base', 'strength', 'pulse']) expect(door).not.toContain(name);
    expect(JSON.stringify(truth.welcome!.schema.tables)).toContain('oxygen.in.out');
    const heard = (fake: Fake) => fake.messages.flatMap((message) => (message.t === 'news' ? message.items.map((item) => item.event) : []));
    expect(heard(north)).toContain('flourish');
    expect(heard(south)).not.toContain('flourish');
    expect(heard(south)).not.toContain('thresholdEntered');
    expect(heard(truth)).toContain('thresholdEntered');
  });

  it('gives back what was kept of a deleted entry when its deletion is undone', () => {
    const room = open(new Map([['south', { attributes: { scrip: 31, suit: 12 } }]]));
    const south = new Fake(room, 'south');
    room.tick();
    const without = rulesOf((document) => {
      const [diver] = document.actors as unknown as { attributes: { attribute: string }[] }[];
      diver.attributes = diver.attributes.filter(({ attribute }) => attribute !== 'scrip');
      for (const foe of document.actors) Reflect.deleteProperty(foe, 'onDefeat');
      document['attributes'] = (document['attributes'] as { id: string }[]).filter(({ id }) => id !== 'scrip');
      // Whatever gives scrip, asks for it or makes what does goes with it.
      for (const chapter of [
        'interactions',
        'dialogues',
        'containers',
        'spawners',
        'reactions',
        'tracks',
        'trees',
        'achievements',
        'quests',
        'loot',
        'markets',
        'shops',
        'offers',
      ])
        document[chapter] = [];
      for (const actor of document.actors) for (const field of ['interactions', 'container']) Reflect.deleteProperty(actor, field);
      Reflect.deleteProperty(document, 'economy');
      document.pickups = document.pickups.slice(0, 3);
      document['arena'] = {};
    });
    edited(room, without, 2);
    ticks(room, 2);
    expect(south.value('scrip')).toBeUndefined();
    const changed = () => room.changedPlayers().find((player) => player.name === 'south')!;
    const { kept } = changed();
    expect(savedIn(changed())['attributes']['scrip']).toBe(31);
    kept();
    edited(room, rulesOf(), 3);
    ticks(room, 2);
    expect(south.value('scrip')).toBe(31);
    expect(savedIn(changed())['attributes']['scrip']).toBe(31);
  });

  it('goes by the latest edit, whichever of two was compiled first', () => {
    const room = open();
    const south = new Fake(room, 'south');
    edited(room, rulesOf(), 3);
    edited(room, rulesOf(), 2);
    room.tick();
    edited(room, rulesOf(), 2);
    room.tick();
    const revisions = south.messages.flatMap((message) => (message.t === 'welcome' ? [message.revision] : []));
    expect(revisions).toEqual([1, 3]);
  });

  it('gives players back what was kept of them, and says what has changed since', () => {
    const room = open(new Map([['south', { attributes: { scrip: 31, suit: 12 } }]]));
    const south = new Fake(room, 'south');
    room.tick();
    expect([south.value('scrip'), south.value('suit')]).toEqual([31, 12]);
    const truth = new Fake(room, undefined);
    expect(room.poke(truth, { t: 'poke', seat: 'south', action: { do: 'give', attribute: 'scrip', amount: 4 } })).toBeUndefined();
    room.tick();
    const changed = room.changedPlayers().find((player) => player.name === 'south')!;
    expect(savedIn(changed)['attributes']['scrip']).toBe(35);
    changed.kept();
    expect(room.changedPlayers().some((player) => player.name === 'south' && savedIn(player)['attributes']['scrip'] !== 35)).toBeFalse();
  });

  it('goes on from where it stood, as if it had never stopped', () => {
    const one = open();
    const truth = new Fake(one, undefined);
    one.poke(truth, { t: 'poke', seat: 'north', action: { do: 'place', x: 265, y: 250 } });
    ticks(one, 2);
    one.input(new Fake(one, 'north'), 1, { do: 'interact' });
    ticks(one, 30);
    const { world, revision } = one.snapshot();
    expect(revision).toBe(1);
    const stored = World.restore(rulesOf(), readSnapshot(storeSnapshot(world)));
    const other = new Room('slate-heron', { rules: rulesOf(), rulesetId: 'r', revision: 1 }, 5, SEATS, new Map(), stored);
    one.tick();
    expect(other.hash).toBe(one.hash);
    const north = new Fake(other, 'north');
    other.tick();
    expect(north.copy!.rows('shown').length).toBeGreaterThan(1);
    expect(() => readSnapshot(new Uint8Array([1, 2, 3]))).toThrow();
  });

  it('runs the same for the same seed and commands', () => {
    // What time it is, is one of the commands.
    jasmine.clock().install().mockDate(new Date(1_700_000_000_000));
    const [one, other] = [open(), open()];
    jasmine.clock().uninstall();
    for (const room of [one, other]) {
      const north = new Fake(room, 'north');
      room.input(north, 1, { do: 'moveTo', x: 560, y: 140 });
      ticks(room, 80);
    }
    expect(one.hash).toBe(other.hash);
  });

  it('takes edits over at the next tick, with what everybody has', () => {
    const room = open();
    const [truth, north] = [new Fake(room, undefined), new Fake(room, 'north')];
    room.poke(truth, { t: 'poke', seat: 'north', action: { do: 'give', attribute: 'scrip', amount: 8 } });
    ticks(room, 3);
    const before = north.copy;
    edited(room);
    room.tick();
    expect(north.copy).not.toBe(before);
    expect([north.welcome!.revision, north.value('scrip'), north.value('finSpeed')]).toEqual([2, 8, 120]);
    ticks(room, 5);
    expect(north.copy!.tick).toBe(room.tickNumber);
  });

  it('lets a seat come back, with what its player had, when its kind of actor was deleted and is there again', () => {
    const room = open();
    const [truth, north] = [new Fake(room, undefined), new Fake(room, 'north')];
    room.poke(truth, { t: 'poke', seat: 'north', action: { do: 'give', attribute: 'scrip', amount: 8 } });
    ticks(room, 2);
    for (const player of room.changedPlayers()) player.kept();
    edited(
      room,
      rulesOf((d) =>
        Object.assign(d, {
          actors: [{ id: 'wader', label: 'Wader', kind: 'player', attributes: [{ attribute: 'scrip' }] }],
          arena: {},
          spawners: [],
          reactions: [],
          tracks: [{ id: 'standing', label: 'Standing' }],
          trees: [],
          achievements: [],
          quests: [],
          interactions: [],
          markets: [],
          shops: [],
        }),
      ),
    );
    room.tick();
    expect([north.value('scrip'), north.value('oxygen')]).toEqual([8, undefined]);
    edited(room, rulesOf(), 3);
    room.tick();
    expect([north.value('scrip'), north.value('finSpeed')]).toEqual([8, 120]);
  });

  it('drops a poke that the edit before it has made meaningless', () => {
    const room = open();
    const [truth, north] = [new Fake(room, undefined), new Fake(room, 'north')];
    expect(room.poke(truth, { t: 'poke', seat: 'north', action: { do: 'apply', effect: 'slipstream' } })).toBeUndefined();
    edited(
      room,
      rulesOf((d) => {
        d.effects = d.effects.slice(1);
        d.pickups[0].then = [];
      }),
    );
    ticks(room, 2);
    expect(north.value('finSpeed')).toBe(120);
    expect(north.copy!.rows('effects')).toEqual([]);
  });

  it('does not count a screen beside the truth as somebody who drives', () => {
    const room = open();
    const beside = new Fake(room, 'north', false);
    expect(room.isDriven('north')).toBeFalse();
    const guest = new Fake(room, 'north');
    expect(room.isDriven('north')).toBeTrue();
    expect(beside.messages.at(-1)).toEqual({
      t: 'seats',
      seats: [
        { name: 'north', driven: true },
        { name: 'south', driven: false },
      ],
    });
    room.disconnect(guest);
    expect(room.isDriven('north')).toBeFalse();
  });

  it('leaves frames out for who can’t keep up, and the next one carries all', () => {
    const room = open();
    const [truth, north] = [new Fake(room, undefined), new Fake(room, 'north')];
    ticks(room, 2);
    const { frames } = north;
    north.congested = true;
    room.poke(truth, { t: 'poke', seat: 'north', action: { do: 'give', attribute: 'scrip', amount: 3 } });
    ticks(room, 10);
    expect(north.frames).toBe(frames);
    north.congested = false;
    room.tick();
    expect(north.value('scrip')).toBe(3);
  });

  it('believes no acknowledgement of frames that were never sent, or went to a copy that is no more', () => {
    const room = open();
    const north = new Fake(room, 'north');
    ticks(room, 3);
    room.acknowledge(north, 9999);
    edited(room);
    room.tick();
    room.acknowledge(north, 2);
    room.tick();
    expect(north.copy!.tick).toBe(room.tickNumber);
    expect(north.value('finSpeed')).toBe(120);
  });

  it('refuses more at once than a tick can take', () => {
    const room = open();
    const north = new Fake(room, 'north');
    const answers = Array.from({ length: 100 }, (_, n) => room.input(north, n + 1, { do: 'stop' }));
    expect(answers.filter((answer) => answer !== undefined).length).toBe(70);
    expect(answers.at(-1)).toBe('More than 30 things at once are too many for one seat.');
    const truth = new Fake(room, undefined);
    const pokes = Array.from({ length: 600 }, () => room.poke(truth, { t: 'poke', seat: 'north', action: { do: 'fell' } }));
    expect(pokes.filter((answer) => answer !== undefined).length).toBe(130);
    room.tick();
    expect(room.input(north, 601, { do: 'stop' })).toBeUndefined();
  });

  it('runs faster, slower or not at all, as who watches the truth says, and tells everybody', () => {
    const room = open();
    const [truth, north] = [new Fake(room, undefined), new Fake(room, 'north')];
    let repaced = 0;
    room.repaced = () => repaced++;
    expect(room.pace(north, { t: 'pace', speed: 8 })).toBe('Only who watches the truth may set the pace.');
    expect([room.ticksPerSecond, repaced]).toEqual([20, 0]);
    expect(room.pace(truth, { t: 'pace', speed: 8 })).toBeUndefined();
    expect([room.ticksPerSecond, repaced]).toEqual([160, 1]);
    expect(north.messages.at(-1)).toEqual({ t: 'pace', speed: 8 });
    // Twenty frames a second all the same.
    const { frames } = north;
    ticks(room, 80);
    expect(north.frames - frames).toBe(10);
    room.pace(truth, { t: 'pace', speed: 0 });
    expect(room.ticksPerSecond).toBe(0);
    expect(new Fake(room, 'south').welcome!.speed).toBe(0);
  });

  it('tells a seat its own abilities with today’s numbers, and nobody else’s', () => {
    const room = open();
    const [truth, north, south] = [new Fake(room, undefined), new Fake(room, 'north'), new Fake(room, 'south')];
    const row = north.welcome!.row!;
    const told = (screen: Fake) => screen.messages.at(-1) as Extract<ServerMessage, { t: 'abilities' }>;
    expect(room.answer(north, { t: 'abilities', row })).toBeUndefined();
    expect(told(north).items.map(({ id }) => id)).toEqual(['sonarPing', 'cuttingTorch', 'harpoon', 'towLine', 'depthCharge', 'secondWind']);
    expect(told(north).items[1].lines.join(' ')).toContain('After 1.8 s five sparks fly');
    room.poke(truth, { t: 'poke', seat: 'north', action: { do: 'set', attribute: 'handling', value: 2 } });
    room.tick();
    room.answer(truth, { t: 'abilities', row });
    expect(told(truth).items[1].numbers['cast']).toBe(0.9);
    expect(room.answer(south, { t: 'abilities', row })).toBe('A seat may ask for its own abilities only.');
    expect(room.answer(truth, { t: 'abilities', row: 9999 })).toBeUndefined();
    expect(told(truth).items).toEqual([]);
  });

  it('tells of its failures on every screen', () => {
    const room = open();
    const [truth, north] = [new Fake(room, undefined), new Fake(room, 'north')];
    room.tell({ t: 'error', message: 'Closed.', final: true });
    for (const screen of [truth, north]) expect(screen.messages.at(-1)).toEqual({ t: 'error', message: 'Closed.', final: true });
  });

  it('has those go who are told to, and them alone', () => {
    const room = open();
    const [north, guest] = [new Fake(room, 'north', false), new Fake(room, 'south', true, 'a link')];
    expect([room.watchedByAuthor, room.isDriven('south')]).toEqual([true, true]);
    room.dismissAll({ message: 'Go.', how: 'final' }, ({ link }) => link === 'a link');
    expect([north.goodbye, guest.goodbye?.message]).toEqual([undefined, 'Go.']);
    expect([room.watched, room.isDriven('south')]).toEqual([true, false]);
    room.disconnect(north);
    expect([room.watched, room.watchedByAuthor, room.disconnect(north)]).toEqual([false, false, false]);
  });

  it('says what is wrong with it for the moment once, also to who comes meanwhile, and that it is over', () => {
    const room = open();
    const north = new Fake(room, 'north');
    for (let n = 0; n < 2; n++) room.setTrouble('weather', 'It rains.');
    const south = new Fake(room, 'south');
    room.setTrouble('tide', 'It ebbs.');
    for (const about of ['weather', 'tide']) room.setTrouble(about, '');
    const troubles = ({ messages }: Fake) => messages.flatMap((message) => (message.t === 'trouble' ? [message.message] : []));
    expect([troubles(north), troubles(south)]).toEqual([
      ['It rains.', 'It rains. It ebbs.', 'It ebbs.', ''],
      ['It rains.', 'It rains. It ebbs.', 'It ebbs.', ''],
    ]);
  });
});
