import { sentenceOf, readRuleset } from '../../index.js';
import { input, join, rulesetWith } from '../../testing/rulesets.js';
import { place, QUAY, Visit } from '../../testing/surroundings.js';

const rest = (more: Record<string, unknown>) => ({ interactions: [{ ...QUAY.interactions[0], ...more }, QUAY.interactions[1]] });

describe('An interaction', () => {
  it('is offered within reach, with its prompt and price', () => {
    const visit = Visit.at(200);
    expect(visit.rows('offers')).toEqual([]);
    visit.poke(place(260));
    const [offer] = visit.rows('offers');
    expect([visit.world.text(offer.prompt), offer.price, offer.busy]).toEqual(['Rest and refill', 40, 0]);
    visit.poke(place(100));
    expect(visit.rows('offers')).toEqual([]);
  });

  it('is paid first and does its steps in time', () => {
    const visit = Visit.at(260);
    visit.ask();
    const began = visit.world.tick;
    expect([visit.value('scrip'), visit.value('suit')]).toEqual([0, 40]);
    visit.run(1.45);
    expect(visit.value('suit')).toBe(40);
    visit.run(0.05);
    expect([visit.value('suit'), visit.value('oxygen')]).toEqual([100, 90]);
    visit.run(2);
    expect(visit.named('flourish').map(({ tick }) => tick - began)).toEqual([0, 70]);
    visit.run(4.45);
    expect(visit.rows('visits').length).toBe(1);
    visit.run(0.1);
    expect(visit.rows('visits').length).toBe(0);
    expect(visit.told()).toEqual(['visitBegan', 'flourish', 'flourish', 'visitEnded done']);
  });

  it('that is too dear is refused in its author’s words, and nothing is paid', () => {
    const visit = Visit.at(260);
    visit.poke({ do: 'set', attribute: 'scrip', value: 10 });
    const before = visit.world.hash();
    const other = Visit.at(260);
    other.poke({ do: 'set', attribute: 'scrip', value: 10 });
    expect(other.world.hash()).toBe(before);
    visit.ask();
    other.step();
    expect(visit.named('visitRefused').map(({ data }) => [data['reason'], data['says']])).toEqual([
      ['tooPoor', 'Forty scrip, or sleep in your suit.'],
    ]);
    expect(visit.value('scrip')).toBe(10);
    expect(visit.world.hash()).toBe(other.world.hash());
  });

  it('is busy for others meanwhile, with the time left', () => {
    const visit = Visit.at(260, {}, ['north', 'south']);
    visit.ask();
    visit.run(2);
    visit.ask({}, 'south');
    const [{ data }] = visit.named('visitRefused');
    expect([data['reason'], data['with'], data['ticks']]).toEqual(['busy', 'north', 160 - 41]);
    const offer = visit.rows('offers').find(({ visitor }) => visitor === visit.actor('south'))!;
    expect([offer.busy, offer.busyUntil - visit.world.tick]).toEqual([1, 160 - 41]);
    expect(visit.value('scrip', 'south')).toBe(40);
  });

  it('serves each that comes where it is written so', () => {
    const visit = Visit.at(260, rest({ serves: 'each' }), ['north', 'south']);
    visit.ask();
    visit.ask({}, 'south');
    expect(visit.rows('visits').length).toBe(2);
    visit.ask();
    expect(visit.told().at(-1)).toBe('visitRefused served');
  });

  const down = { do: 'hurt', attribute: 'suit', amount: 999 };
  const endings: readonly [string, (visit: Visit) => void, string][] = [
    ['walks off', (visit) => void visit.poke(place(100)), 'visitEnded walkedOff'],
    ['goes behind a wall', (visit) => void visit.poke(place(300, 190)), 'visitEnded walkedOff'],
    ['falls', (visit) => void visit.poke(down), 'visitEnded fell'],
    ['leaves the room', (visit) => void visit.step({ kind: 'leave', args: { seat: 'north' } }), 'visitEnded gone'],
    ['ends it', (visit) => void visit.step(input('north', { do: 'leave' })), 'visitEnded left'],
  ];
  for (const [name, act, ended] of endings)
    for (const [when, t] of [
      ['before the first wait is over', 0.5],
      ['between the two', 2],
      ['behind the last', 5],
    ] as const)
      it(`ends when its visitor ${name} ${when}: nothing of it goes on, nothing is doubled`, () => {
        const parts = { arena: { ...QUAY.arena, walls: [{ x: 280, y: 130, width: 40, height: 10 }] }, ...rest({ reach: 100 }) };
        const visit = Visit.at(260, parts);
        const start = visit.world.tick;
        visit.ask();
        visit.run(t).restore();
        act(visit);
        visit.run(10);
        expect(visit.told().filter((name) => name.startsWith('visitEnded'))).toEqual([ended]);
        expect([visit.rows('visits').length, visit.rows('waits').length]).toEqual([0, 0]);
        expect(visit.named('flourish').length).toBe(t > 4 ? 2 : 1);
        const healed = visit.named('attributeChanged').filter(({ data }) => data['how'] === 'heal');
        expect(healed.length).toBe(t > 1.5 ? 2 : 0);
        expect(visit.world.tick).toBeGreaterThan(start);
        // The Quartermaster is free again.
        visit.step(join('east', { team: 'petrel' }));
        visit.poke(place(250), 'east');
        visit.ask({}, 'east');
        expect(visit.value('scrip', 'east')).toBe(0);
      });

  it('gives back what its author says when it ends before its time', () => {
    const visit = Visit.at(260, rest({ refund: 0.5, onBreak: [{ do: 'flourish', text: 'Come back' }] }));
    visit.ask();
    visit.poke(place(100));
    expect(visit.value('scrip')).toBe(20);
    expect(visit.named('flourish').at(-1)?.data['text']).toBe('Come back');
  });

  it('goes on after a restart, to the tick', () => {
    const [one, other] = [Visit.at(260), Visit.at(260)];
    for (const visit of [one, other]) visit.ask();
    for (let n = 0; n < 180; n++) {
      if (n % 20 === 0) one.restart();
      one.step();
      other.step();
    }
    expect(one.world.hash()).toBe(other.world.hash());
    expect(one.rows('visits').length).toBe(0);
  });

  it('that an edit takes out leaves nothing behind that goes on', () => {
    const visit = Visit.at(260);
    visit.ask();
    visit.run(1);
    const actors = QUAY.actors.map((actor) => ({ ...actor, interactions: actor.id === 'chartKeeper' ? ['ask'] : [] }));
    visit.world = visit.world.adopt(Visit.at(260, { actors, interactions: QUAY.interactions.slice(1) }).rules);
    visit.run(10);
    expect([visit.rows('visits').length, visit.rows('waits').length, visit.value('suit')]).toEqual([0, 0, 40]);
  });

  it('says to who asks again whether they are served already, or busy elsewhere', () => {
    const visit = Visit.at(260);
    visit.ask();
    visit.run(3);
    visit.ask();
    const text = () => {
      const event = visit.named('visitRefused').at(-1)!;
      return [event.data['reason'], sentenceOf(visit.rules, event)];
    };
    expect(text()).toEqual(['served', 'Quartermaster: you are being served already for another 5 s.']);
  });

  it('gives back what it asked only until it is said to', () => {
    for (const [leaves, back] of [
      [0.5, 40],
      [1.4, 40],
      [1.5, 0],
      [6, 0],
    ]) {
      const visit = Visit.at(260, rest({ refund: 1, refundUntil: '1.5s' }));
      visit.poke({ do: 'set', attribute: 'scrip', value: 40 });
      visit.ask();
      visit.run(leaves);
      visit.poke(place(100));
      visit.run(0.2);
      expect(visit.value('scrip')).withContext(`after ${leaves} s`).toBe(back);
    }
  });

  it('remembers its visitor by name, or everybody', () => {
    const one = Visit.at(260, rest({ busy: '100ms', then: [], price: undefined, remembers: { for: '10s' } }), ['north', 'south']);
    one.ask();
    one.run(1);
    one.ask();
    expect(one.named('visitRefused').at(-1)?.data['reason']).toBe('remembered');
    one.ask({}, 'south');
    expect(one.named('visitBegan').length).toBe(2);
    one.step({ kind: 'leave', args: { seat: 'north' } });
    one.step(join('north', { team: 'petrel' }));
    one.poke(place(260));
    one.ask();
    expect(one.named('visitBegan').length).toBe(2);
    one.run(10);
    one.ask();
    expect(one.named('visitBegan').length).toBe(3);
    const all = Visit.at(260, rest({ busy: '100ms', then: [], price: undefined, remembers: { whom: 'all' } }), ['north', 'south']);
    all.ask();
    all.run(60);
    all.ask({}, 'south');
    expect(all.named('visitBegan').length).toBe(1);
  });

  it('asks another price where its placed character says so', () => {
    const [quartermaster, ...others] = QUAY.arena.placed;
    const asks = [{ interaction: 'rest', price: { attribute: 'scrip', amount: 60 } }];
    const placed = [{ ...quartermaster, with: { label: 'Dear one', asks } }, { ...quartermaster, x: 300, y: 300 }, ...others];
    const visit = Visit.at(260, { arena: { ...QUAY.arena, placed } });
    visit.ask();
    expect(visit.named('visitRefused')[0].data['needs']).toBe(60);
    visit.poke(place(260, 300));
    visit.ask();
    expect(visit.value('scrip')).toBe(0);
  });

  it('is asked of the one that is named, and refused with what is in the way', () => {
    const visit = Visit.at(390);
    const rows = new Map(visit.rows('actors').map(({ row }) => [visit.world.nameOf(visit.world.actors.handle(row)), row]));
    for (const [ask, reason] of [
      [{}, 'nothing'],
      [{ with: rows.get('Quartermaster') }, 'tooFar'],
      [{ with: rows.get('north') }, 'nothing'],
      [{ with: 999 }, 'nothing'],
    ] as const) {
      visit.ask(ask);
      expect(visit.named('visitRefused').at(-1)?.data['reason']).toBe(reason);
    }
    visit.poke(place(260));
    visit.ask({ with: rows.get('Quartermaster'), what: 'ask' });
    expect(visit.named('visitRefused').at(-1)?.data['reason']).toBe('nothing');
    visit.poke({ do: 'enter', state: 'stunned' });
    visit.ask();
    expect(visit.named('visitRefused').at(-1)?.data['reason']).toBe('state');
  });

  it('says what is wrong where it stands', () => {
    const wrong = rulesetWith({
      ...QUAY,
      ...rest({ price: { attribute: 'finSpeed', amount: 1 }, reach: 0, needs: [{ if: 'target.scrip > no', say: 'x' }] }),
    });
    const paths = readRuleset(wrong).problems.map(({ path }) => path);
    expect(paths).toContain('/interactions/0/reach');
    expect(paths).toContain('/interactions/0/needs/0/if');
    expect(readRuleset(rulesetWith({ ...QUAY, ...rest({ price: { attribute: 'finSpeed', amount: 1 } }) })).problems[0].path).toBe(
      '/interactions/0/price/attribute',
    );
  });
});
