import { actorOfSeat, compileRuleset, Publisher, wireSchemaOf, World } from '@eager-ember/core';
import brinewick from '../../../../core/src/testing/recorded/brinewick.json';
import { openBench, Seen } from '../testing/bench';
import { FakeSocket } from '../testing/fake-socket';
import { CrewName, crewPanel } from './crew-name';
import { RoomLink } from './room-link';
import { SeatScreen } from './seat-screen';
import { SeatState } from './seat-state';

describe('The screen of a seat', () => {
  const real = window.WebSocket;
  let world: World;
  let seat: SeatState;
  let seen: Seen<SeatScreen>;

  /** Has the seat be told how its world stands, and shows that. */
  async function told(): Promise<void> {
    const actor = actorOfSeat(world, 'north');
    const publisher = new Publisher(world);
    publisher.capture();
    FakeSocket.all.at(-1)!.take(publisher.frameFor({ actor, team: 0 }, 0));
    seat.paint(undefined);
    await seen.settle();
  }
  const show = async (layout: 'whole' | 'half' | 'quarter') => (seen = await Seen.of(SeatScreen, { seat, layout, label: 'The arena' }));

  beforeEach(() => {
    openBench();
    FakeSocket.all.length = 0;
    window.WebSocket = FakeSocket as never;
    world = World.start(compileRuleset(brinewick), 1);
    world.step([{ kind: 'join', args: { seat: 'north' } }]);
    const link = new RoomLink(RoomLink.address('slate-heron'), () => Promise.resolve(''));
    seat = new SeatState(link);
    const socket = FakeSocket.all.at(-1)!;
    socket.onopen?.();
    socket.welcome(wireSchemaOf(world.rules), { row: world.actors.rowOf(actorOfSeat(world, 'north')) });
  });
  afterEach(() => {
    seat.link.close();
    window.WebSocket = real;
  });

  it('shows nothing before the first frame, then what each panel reads from it', async () => {
    await show('half');
    expect(seen.element.querySelector('[data-quests]')).toBeNull();
    await told();
    expect(seen.text('[data-quests]')).toBe('Quests, 0 on');
    expect(seen.text('[data-money]')).toBe('M Money, day 1');
    expect(seen.text('ee-roster')).toContain('north');
  });

  it('has the crew behind the name of its seat, shorter where there is less room, and nothing where it is in none', async () => {
    await show('half');
    await told();
    const { crew } = crewPanel.inputs(seat, 'half');
    const title = await Seen.of(CrewName, crewPanel.inputs(seat, 'half'));
    expect(title.texts('span')).toEqual([`crew ${String(crew)}`]);
    expect((await Seen.of(CrewName, crewPanel.inputs(seat, 'quarter'))).texts('span')).toEqual([String(crew)]);
    expect((await Seen.of(CrewName, {})).texts('span')).toEqual([]);
  });

  it('opens one window at a time, by its door or by its key', async () => {
    await show('half');
    await told();
    await seen.click('Quests, 0 on');
    expect([seat.open(), seen.element.querySelector('ee-quest-window section') !== null]).toEqual(['#quests', true]);
    expect(seat.key('m')).toBeTrue();
    await seen.settle();
    expect(seen.element.querySelector('ee-quest-window section')).toBeNull();
    expect(seen.element.querySelector('ee-money-window section')).not.toBeNull();
    expect([seat.key('m'), seat.open(), seat.key('z')]).toEqual([true, '', false]);
  });

  it('asks for what its panels ask for, by button and by key', async () => {
    const ask = spyOn(seat.link, 'ask');
    await show('whole');
    await told();
    await seen.click('O accept');
    expect(seat.asks('n')).toEqual({ do: 'declineQuest', quest: 'firstDescent' });
    expect(seat.asks('e')).toEqual({ do: 'interact' });
    expect(ask.calls.allArgs()).toEqual([[{ do: 'acceptQuest', quest: 'firstDescent' }]]);
  });

  it('has room for less in a quarter of a page', async () => {
    await show('quarter');
    await told();
    expect(seen.element.querySelector('ee-figures')).toBeNull();
    expect(seen.element.querySelector('ee-hud.compact, ee-level-line.compact')).not.toBeNull();
  });
});
