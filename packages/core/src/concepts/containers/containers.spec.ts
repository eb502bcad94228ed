import { readRuleset } from '../../index.js';
import { input, join, rulesetWith } from '../../testing/rulesets.js';
import { place, QUAY, Visit } from '../../testing/surroundings.js';
import { LIDS } from './tables.js';

const freight = (more: Record<string, unknown>) => ({ containers: [{ ...QUAY.containers[0], ...more }] });
const lidOf = (visit: Visit) => LIDS[Math.max(...visit.rows('lids').map(({ lid }) => lid))];
const DOWN = { do: 'hurt', attribute: 'suit', amount: 999 };

describe('A container', () => {
  it('opens, is open, closes and is closed, each in its time', () => {
    const visit = Visit.at(660);
    const lids: string[] = [];
    const note = () => lids.push(lidOf(visit));
    visit.ask();
    note();
    visit.run(0.95);
    note();
    visit.run(0.05);
    note();
    visit.ask();
    note();
    visit.run(0.5);
    note();
    expect(lids).toEqual(['opening', 'opening', 'open', 'closing', 'closed']);
    expect(visit.told()).toEqual(['containerOpened opened', 'containerClosed closed']);
  });

  it('is told of by each who has it open: who had it come up, and who came by', () => {
    const told = (visit: Visit) =>
      visit.events.filter(({ name }) => name === 'containerOpened').map(({ who, cause, data }) => [who, data['how'], cause > 0]);
    const seats = ['north', 'south', 'west'];
    // Who asks second is found in the first row as often: somebody was there before them.
    for (const [first, second, third] of [seats, ['south', 'north', 'west'], ['west', 'south', 'north']]) {
      const visit = Visit.at(660, {}, seats);
      visit.ask({}, third);
      visit.step(input(third, { do: 'leave' }));
      visit.run(2);
      visit.events = [];
      visit.ask({}, first);
      visit.ask({}, second);
      expect(told(visit)).toEqual([]);
      visit.run(1);
      expect(told(visit)).toEqual([
        [first, 'opened', true],
        [second, 'joined', true],
      ]);
      visit.ask({}, third);
      expect(told(visit).slice(2)).toEqual([[third, 'joined', true]]);
    }
    // Where who began it has gone before it is open, who came by has it open.
    const visit = Visit.at(660, {}, seats);
    visit.ask();
    visit.ask({}, 'south');
    visit.step(input('north', { do: 'leave' }));
    visit.run(1);
    expect(told(visit)).toEqual([['south', 'opened', true]]);
  });

  it('has its contents decided at the first opening, the same after closing and a restart', () => {
    const visit = Visit.at(660);
    visit.ask();
    expect(visit.window()).toEqual([]);
    visit.run(1);
    const first = visit.window();
    expect(first.length).toBeGreaterThan(1);
    visit.take(visit.rows('shown').find(({ label }) => visit.world.text(label) === 'Air bottle')!.item);
    const left = visit.window();
    expect(left).toEqual(first.filter((one) => !one.startsWith('Air')));
    expect(visit.value('oxygen')).toBe(50);
    visit.ask();
    visit.run(1);
    expect(visit.window()).toEqual([]);
    visit.restart();
    visit.ask();
    visit.run(1);
    expect(visit.window()).toEqual(left);
    expect(visit.named('containerOpened').length).toBe(2);
  });

  // In which phase, and what happens then; what is asked of every one of them is the same.
  const interruptions: readonly [string, (visit: Visit) => void, string][] = [
    ['is closed by its visitor', (visit) => void visit.ask(), 'closed'],
    ['is left by its visitor', (visit) => void visit.step(input('north', { do: 'leave' })), 'closed'],
    ['is walked away from', (visit) => void visit.poke(place(100)), 'walkedOff'],
    ['is out of sight', (visit) => void visit.poke(place(700, 185)), 'walkedOff'],
    ['loses its visitor to a fall', (visit) => void visit.poke(DOWN), 'fell'],
    ['loses its visitor’s seat', (visit) => void visit.step({ kind: 'leave', args: { seat: 'north' } }), 'gone'],
  ];
  for (const [name, act, how] of interruptions)
    for (const [phase, t] of [
      ['opening', 0.5],
      ['open', 2],
    ] as const)
      it(`that ${name} while ${phase} closes for seat and world alike, with nothing lost and nothing doubled`, () => {
        const visit = Visit.at(660, freight({ reach: 80 }));
        visit.ask();
        visit.run(t);
        expect(lidOf(visit)).toBe(phase);
        const inside = visit.rows('contents').map(({ what, amount }) => [what, amount]);
        expect(inside.length > 0).toBe(phase === 'open');
        visit.restart();
        act(visit);
        visit.step();
        expect([visit.rows('openings').length, visit.window().length]).toEqual([0, 0]);
        expect(lidOf(visit)).toBe('closing');
        visit.run(1);
        expect(lidOf(visit)).toBe('closed');
        expect(visit.told().filter((line) => line.startsWith('containerClosed'))).toEqual([`containerClosed ${how}`]);
        expect(visit.rows('contents').map(({ what, amount }) => [what, amount])).toEqual(inside);
        // Another finds what was left.
        visit.step(join('east', { team: 'petrel' }));
        visit.poke(place(660), 'east');
        visit.ask({}, 'east');
        visit.run(1);
        expect(visit.window('east').length).toBe(visit.rows('contents').length);
        const shown = visit.rows('shown').sort((a, b) => a.item - b.item);
        const there = visit.rows('contents').sort((a, b) => a.row - b.row);
        expect(shown.map(({ what, amount }) => [what, amount])).toEqual(there.map(({ what, amount }) => [what, amount]));
      });

  it('asked for again while it closes opens once more', () => {
    const visit = Visit.at(660);
    visit.ask();
    visit.run(1);
    visit.ask();
    visit.run(0.2);
    visit.ask();
    expect(lidOf(visit)).toBe('opening');
    visit.run(1);
    expect(lidOf(visit)).toBe('open');
    expect(visit.named('containerClosed').length).toBe(0);
  });

  it('for all is gone for all once it is taken, in every window of the same tick', () => {
    const visit = Visit.at(660, {}, ['north', 'south']);
    visit.ask();
    visit.ask({}, 'south');
    visit.run(1);
    expect(visit.window('north')).toEqual(visit.window('south'));
    const { item } = visit.rows('shown')[0];
    visit.step(input('north', { do: 'take', item }), input('south', { do: 'take', item }));
    // Which of the two it is is drawn.
    const [taker] = visit.named('itemTaken').map(({ who }) => who);
    const other = taker === 'north' ? 'south' : 'north';
    expect(visit.named('itemTaken').length).toBe(1);
    expect(visit.named('itemRefused').map(({ who, data }) => [who, data['reason']])).toEqual([[other, 'taken']]);
    expect(visit.window('north')).toEqual(visit.window('south'));
  });

  it('per player is each player’s own, also after they come back', () => {
    const visit = Visit.at(660, freight({ contents: 'perPlayer' }), ['north', 'south']);
    visit.ask();
    visit.ask({}, 'south');
    visit.run(1);
    const theirs = visit.window('south');
    visit.take();
    expect([visit.window('north'), visit.window('south')]).toEqual([[], theirs]);
    const { item } = visit.rows('shown')[0];
    visit.take(item);
    expect(visit.named('itemRefused').at(-1)?.data['reason']).toBe('taken');
    visit.step({ kind: 'leave', args: { seat: 'north' } });
    visit.step(join('north', { team: 'petrel' }));
    visit.poke(place(660));
    visit.ask();
    visit.run(1);
    expect(visit.window('north')).toEqual([]);
  });

  it('for one visitor at a time is busy for others', () => {
    const visit = Visit.at(660, freight({ visitors: 'one' }), ['north', 'south']);
    visit.ask();
    visit.ask({}, 'south');
    expect(visit.named('visitRefused').map(({ data }) => [data['reason'], data['with']])).toEqual([['busy', 'north']]);
    visit.step(input('north', { do: 'leave' }));
    visit.ask({}, 'south');
    visit.run(1);
    expect(visit.window('south').length).toBeGreaterThan(0);
  });

  it('is taken from one by one, all at once or either way, as it is written', () => {
    for (const [takes, one, all] of [
      ['one', 1, 0],
      ['all', 0, 1],
      ['either', 1, 1],
    ] as const) {
      const visit = Visit.at(660, freight({ takes }), ['north'], 3);
      visit.ask();
      visit.run(1);
      const there = visit.window().length;
      visit.take(visit.rows('shown')[0].item);
      expect(visit.named('itemTaken').length).toBe(one);
      visit.take();
      expect(visit.named('itemTaken').length).toBe(all === 0 ? one : there);
    }
  });

  it('keeps what its taker has no room for', () => {
    const attributes = QUAY.attributes.map((one) => (one.id === 'scrip' ? { ...one, max: 43 } : one));
    const visit = Visit.at(660, { attributes, ...freight({ holds: [{ id: 'coins', label: 'Coins', gives: 'scrip', amount: 10 }] }) });
    visit.ask();
    visit.run(1);
    visit.take();
    expect([visit.value('scrip'), visit.window()]).toEqual([43, ['Coins 7']]);
    visit.take();
    expect(visit.named('itemRefused').map(({ data }) => data['reason'])).toEqual(['noRoom']);
    expect(visit.window()).toEqual(['Coins 7']);
  });

  it('is filled anew after its time, once it is closed', () => {
    const visit = Visit.at(660, freight({ refills: '5s' }));
    visit.ask();
    visit.run(1);
    visit.take();
    visit.run(6);
    expect(visit.window()).toEqual([]);
    visit.ask();
    visit.run(1);
    expect(visit.named('containerFilled').length).toBe(1);
    visit.ask();
    visit.run(1);
    expect(visit.window().length).toBeGreaterThan(0);
  });

  it('answers what is not there, or not open, with a refusal', () => {
    const visit = Visit.at(660);
    visit.take(0);
    visit.take();
    visit.ask();
    visit.take();
    expect(visit.named('itemRefused').map(({ data }) => data['reason'])).toEqual(['notOpen', 'notOpen', 'notOpen']);
    visit.run(1);
    visit.take(999);
    expect(visit.named('itemRefused').at(-1)?.data['reason']).toBe('taken');
  });

  it('keeps its contents when the arena is edited elsewhere, and goes where it is placed now', () => {
    const visit = Visit.at(660);
    visit.ask();
    visit.run(1);
    const inside = visit.window();
    const [first, second, crate] = QUAY.arena.placed;
    const placed = [{ ...first, x: 320 }, crate, second, { actor: 'crate', x: 800, y: 300 }];
    const edited = Visit.at(660, { arena: { ...QUAY.arena, placed } });
    visit.world = visit.world.adopt(edited.rules);
    visit.step();
    expect(visit.window()).toEqual(inside);
    expect(visit.rows('actors').length).toBe(5);
  });

  it('that an edit makes something else is closed, and holds what it held when it is one again', () => {
    const visit = Visit.at(660);
    visit.ask();
    visit.run(1);
    const inside = visit.window();
    const { rules } = visit;
    const actors = QUAY.actors.map((actor) => (actor.id === 'crate' ? { id: 'crate', label: 'Crate', kind: 'prop' } : actor));
    visit.world = visit.world.adopt(Visit.at(660, { actors }).rules);
    visit.run(1);
    expect([visit.window(), visit.rows('openings').length, lidOf(visit)]).toEqual([[], 0, 'closed']);
    visit.world = visit.world.adopt(rules);
    visit.run(1);
    visit.ask();
    visit.run(1);
    expect(visit.window()).toEqual(inside);
  });

  it('opens as its placed thing says', () => {
    const placed = [
      { actor: 'crate', x: 700, y: 100, with: { holds: { opening: '3s', holds: [{ id: 'coins', label: 'Coins', gives: 'scrip' }] } } },
    ];
    const visit = Visit.at(660, { arena: { ...QUAY.arena, placed } });
    visit.ask();
    visit.run(2.9);
    expect(lidOf(visit)).toBe('opening');
    visit.run(0.2);
    expect(visit.window()).toEqual(['Coins 1']);
  });

  it('says what is wrong with what it holds', () => {
    const holds = [
      { id: 'a', label: 'Nothing' },
      { id: 'a', label: 'Speed', gives: 'finSpeed' },
      { id: 'b', label: 'Amount', amount: 3, then: [{ do: 'flourish' }] },
    ];
    const problems = readRuleset(rulesetWith({ ...QUAY, ...freight({ holds }) })).problems.map(({ path }) => path);
    for (const path of ['0', '1/id', '1/gives', '2/amount']) expect(problems).toContain(`/containers/0/holds/${path}`);
  });
});

describe('Containers with random visitors', () => {
  it('conserve what is in them, and give each thing to one taker', () => {
    for (let seed = 1; seed <= 6; seed++) {
      let state = seed;
      const random = (most: number) => (state = (state * 1103515245 + 12345) & 0x7fffffff) % most;
      const seats = ['north', 'south', 'east'];
      const visit = Visit.at(660, freight({ opening: '200ms', closing: '100ms', reach: 60 }), seats, seed);
      const money = () => seats.reduce((sum, seat) => sum + visit.value('scrip', seat), 0);
      const inside = () => visit.rows('contents').reduce((sum, { amount }) => sum + amount, 0);
      visit.poke(place(660));
      visit.ask();
      visit.run(1);
      const whole = money() + inside();
      expect(whole).toBeGreaterThan(0);
      for (let n = 0; n < 300; n++) {
        const seat = seats[random(3)];
        const shown = visit.rows('shown');
        const acts = [
          () => visit.ask({}, seat),
          () => visit.take(shown.length > 0 ? shown[random(shown.length)].item : random(5), seat),
          () => visit.poke(place(random(2) === 0 ? 660 : 200), seat),
          () => visit.step(input(seat, { do: 'leave' })),
          () => visit.step(),
          () => visit.restart().step(),
        ];
        acts[random(acts.length)]();
        expect(money() + inside()).toBe(whole);
        // A window shows what is in its thing, and nothing else.
        for (const { item, amount, what } of visit.rows('shown')) {
          const content = visit.rows('contents').find(({ row }) => row === item)!;
          expect([content.amount, content.what]).toEqual([amount, what]);
        }
      }
      const taken = visit.named('itemTaken').map(({ data }) => data['item']);
      expect(new Set(taken).size).toBe(taken.length);
    }
  });
});
