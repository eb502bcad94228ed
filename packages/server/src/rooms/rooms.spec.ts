import { compileRuleset, renameEntry } from '@eager-ember/core';
import jsonPatch from 'fast-json-patch';
import { withCompany } from '../testing/company.js';
import type { Harness, RoomInfo, Screen } from '../testing/harness.js';

describe('A room', () => {
  let harness: Harness;
  let room: RoomInfo;
  let truth: Screen;
  let north: Screen;
  let south: Screen;
  withCompany(
    (company) => ({ harness, room, truth, north, south } = company),
    (harness) => harness.newRoom(),
  );

  it('has two seats of two crews, seen by all', () => {
    const crew = (screen: Screen) => south.copy!.value('actors', screen.welcome!.row!, 'team');
    expect([crew(north), crew(south)]).toEqual(['petrel', 'gannet']);
    expect(south.copy!.rows('actors').map((row) => south.copy!.value('actors', row, 'name'))).toEqual(
      jasmine.arrayContaining(['north', 'south']),
    );
  });

  it('moves who asks to, and shows it to the others', async () => {
    const before = south.copy!.value('bodies', north.welcome!.row!, 'x') as number;
    north.ask({ do: 'move', x: 1, y: 0 });
    await south.until('north has moved', () => (south.copy!.value('bodies', north.welcome!.row!, 'x') as number) > before + 5);
    north.ask({ do: 'stop' });
  });

  it('takes a pod away for both at once and ends each slipstream on its own clock', async () => {
    truth.poke('north', { do: 'apply', effect: 'slipstream' });
    await south.until('one counts', () => south.value('finSpeed', north.welcome!.row!) === 168);
    truth.poke('north', { do: 'place', x: 260, y: 140 });
    await south.until('both count', () => south.value('finSpeed', north.welcome!.row!) === 216);
    const pods = (screen: Screen) =>
      screen.copy!.rows('pickups').filter((row) => screen.copy!.value('pickups', row, 'pickup') === 'slipstreamPod').length;
    await Promise.all([north, south].map((screen) => screen.until('the pod is gone', () => pods(screen) === 2)));
    await south.until('it returns to exactly 120', () => south.value('finSpeed', north.welcome!.row!) === 120);
    expect(south.news.filter((n) => n.event === 'effectEnded').length).toBe(2);
  });

  it('refuses the early ping to its owner alone, with the time left', async () => {
    // Players are kept from room to room: what another case left of stamina is no part of this one.
    truth.poke('north', { do: 'set', attribute: 'stamina', value: 100 });
    await north.until('north is rested', () => north.value('stamina') === 100);
    for (let n = 0; n < 2; n++) north.ask({ do: 'use', ability: 'sonarPing' });
    await north.until(
      'it is used, then refused',
      () => north.news.some((n) => n.event === 'abilityUsed') && north.news.some((n) => n.refusal),
    );
    expect(north.news.find((n) => n.refusal)!.text).toMatch(/^Sonar ping is cooling down: ready in [78](\.\d)? s\.$/);
    expect(south.news.some((n) => n.refusal)).toBeFalse();
  });

  it('tells south nothing of north’s oxygen, on the wire', async () => {
    truth.poke('north', { do: 'set', attribute: 'oxygen', value: 41.7 });
    await north.until('north knows', () => north.value('oxygen')! < 41.7);
    await truth.until('the truth shows it', () => truth.value('oxygen', north.welcome!.row!)! < 41.7);
    expect(south.value('oxygen', north.welcome!.row!)).toBeUndefined();
    expect(south.value('oxygen')).toBeGreaterThan(0);
    expect(Object.keys(south.copy!.contents()['attributes'][north.welcome!.row!])).toEqual(['bodyRadius', 'finSpeed']);
    expect(south.copy!.contents()['modifiers']).toBeUndefined();
  });

  it('takes edited rules at the next tick, and nobody is thrown out', async () => {
    const { id } = await harness.demo();
    const { revision } = await harness.json<{ revision: number }>(`/api/rulesets/${id}`);
    truth.poke('south', { do: 'give', attribute: 'scrip', amount: 5 });
    await south.until('south is richer', () => (south.value('scrip') ?? 0) >= 5);
    const scrip = south.value('scrip')!;
    await harness.request(`/api/rulesets/${id}`, {
      method: 'PATCH',
      headers: { 'if-match': `"${revision}"` },
      body: [{ op: 'replace', path: '/attributes/6/start', value: 150 }],
    });
    await Promise.all([north, south].map((screen) => screen.until('the edit is there', () => screen.value('finSpeed') === 150)));
    expect([north.welcomes, north.closed, south.value('scrip')]).toEqual([2, undefined, scrip]);
    expect(north.welcome!.revision).toBe(revision + 1);
    await harness.request(`/api/rulesets/${id}`, {
      method: 'PATCH',
      headers: { 'if-match': `"${revision + 1}"` },
      body: [{ op: 'replace', path: '/attributes/6/start', value: 120 }],
    });
    await north.until('and the next', () => north.value('finSpeed') === 120);
  });

  it('keeps players’ scrip and pools over a restart', async () => {
    truth.poke('north', { do: 'set', attribute: 'scrip', value: 77 });
    truth.poke('north', { do: 'set', attribute: 'stamina', value: 3 });
    truth.poke('north', { do: 'hurt', attribute: 'suit', amount: 60 });
    await north.until('it is so', () => north.value('scrip') === 77);
    const suit = north.value('suit')!;
    await harness.restart();
    await north.until('the old socket is gone', () => north.closed !== undefined);
    const back = harness.screen(room.id, room.seats[0].join);
    await back.ready();
    expect(back.value('scrip')).toBe(77);
    expect(back.value('suit')).toBeGreaterThanOrEqual(suit);
    expect(back.value('suit')).toBeLessThan(100);
    await back.close();
  });

  it('answers why a value is what it is, to who may see the truth and to nobody else', async () => {
    truth.poke('north', { do: 'end', effect: 'slipstream' });
    truth.poke('north', { do: 'apply', effect: 'slipstream' }, 'south');
    await north.until('it is on', () => north.value('finSpeed') === 168);
    const row = north.welcome!.row!;
    truth.send({ t: 'why', row, attribute: 'finSpeed' });
    north.send({ t: 'why', row, attribute: 'finSpeed' });
    await truth.until('the answer', () => truth.answers.length > 0);
    await north.until('the refusal', () => north.errors.length > 0);
    const [{ values, causes }] = truth.answers;
    const speed = values.find((value) => value.attribute === 'finSpeed')!;
    expect(speed.line).toBe('clamp(((120 + 0) × (1 + 0.4) × 1), 0, 600) = 168');
    expect(speed.modifiers[0]).toEqual(jasmine.objectContaining({ effect: 'slipstream', source: 'south', stacks: 1 }));
    expect(causes[0].map((cause) => cause.text)).toEqual([
      'Slipstream begins on north, for 6 s, from south',
      'poke: apply slipstream on north, from south',
    ]);
    expect(north.errors[0]).toBe('Only who watches the truth may ask why.');
    expect(north.answers.length).toBe(0);
    truth.send({ t: 'why', row: 999, attribute: 'finSpeed' });
    await truth.until('nothing to answer', () => truth.answers.length > 1);
    expect(truth.answers[1].values).toEqual([]);
  });

  it('follows a rename with the room and with what was kept of players', async () => {
    truth.poke('north', { do: 'set', attribute: 'scrip', value: 512 });
    await north.until('it is so', () => north.value('scrip') === 512);
    const { id } = await harness.demo();
    const { document, revision } = await harness.json<{ document: Record<string, unknown>; revision: number }>(`/api/rulesets/${id}`);
    const { patch } = renameEntry(compileRuleset(document), 'attributes', 'scrip', 'wages');
    const edit = async (body: unknown, at: number) =>
      (await harness.request(`/api/rulesets/${id}`, { method: 'PATCH', headers: { 'if-match': `"${at}"` }, body })).status;
    expect(await edit(patch, revision)).toBe(200);
    await north.until('the new name has the old value', () => north.value('wages') === 512);
    await harness.restart();
    await north.until('the old socket is gone', () => north.closed !== undefined);
    const back = harness.screen(room.id, room.seats[0].join);
    await back.ready();
    expect(back.value('wages')).toBe(512);
    await back.close();
    const renamed = jsonPatch.applyPatch(structuredClone(document), structuredClone(patch) as never).newDocument;
    const undone = jsonPatch.compare(renamed as object, document);
    expect(await edit(undone, revision + 1)).toBe(200);
    const again = harness.screen(room.id, room.seats[0].join);
    await again.ready();
    expect(again.value('scrip')).toBe(512);
    await again.close();
  });

  it('stops who leaves in mid-stride', async () => {
    north.ask({ do: 'move', x: 1, y: 0 });
    await south.until('north moves', () => (south.copy!.value('bodies', north.welcome!.row!, 'x') as number) > 150);
    await north.close();
    await south.until('the seat is free', () => south.welcome!.seats[0].driven === false);
    const { frame } = south.copy!;
    await south.until('some frames have gone by', () => south.copy!.frame > frame + 3);
    const x = south.copy!.value('bodies', north.welcome!.row!, 'x');
    const later = south.copy!.frame;
    await south.until('some more', () => south.copy!.frame > later + 5);
    expect(south.copy!.value('bodies', north.welcome!.row!, 'x')).toBe(x!);
  });

  it('tells what is wrong with a request, and goes on', async () => {
    north.ask({ do: 'fly' });
    north.ask({ do: 'move', x: Number.NaN, y: 0 });
    north.poke('south', { do: 'set', attribute: 'scrip', value: 1000 });
    truth.poke('nobody', { do: 'set', attribute: 'scrip', value: 1 });
    truth.poke('south', { do: 'apply', effect: 'slipsteam' });
    await north.until('three complaints', () => north.errors.length === 3);
    await truth.until('two complaints', () => truth.errors.length === 2);
    expect(north.errors[2]).toContain('Only who watches the truth may poke');
    expect(truth.errors[1]).toContain('Did you mean slipstream?');
    expect(south.value('scrip')).not.toBe(1000);
    expect(north.closed).toBeUndefined();
  });

  it('closes sockets that do not speak the protocol; the others play on', async () => {
    const cases: ((screen: Screen) => void)[] = [
      (s) => s.socket.send('text'),
      (s) => s.socket.send(new Uint8Array([0xc1, 0xff])),
      (s) => s.socket.send(new Uint8Array(5000)),
      (s) => s.send({ t: 'shout' } as never),
      (s) => {
        for (let i = 0; i < 500; i++) s.send({ t: 'ack', frame: 0 });
      },
    ];
    for (const spoil of cases) {
      const bad = harness.screen(room.id, room.seats[0].join);
      await bad.ready();
      spoil(bad);
      await bad.until('it is closed', () => bad.closed !== undefined);
      expect(bad.closed).toBe(1008);
      expect(bad.errors.length).toBe(1);
    }
    const { frame } = south.copy!;
    await south.until('south plays on', () => south.copy!.frame > frame + 3);
  });

  it('opens no socket for strangers, foreign pages or rooms that are not there', async () => {
    const refusals: [Screen, number][] = [
      [harness.screen(room.id, undefined, { cookie: '' }), 401],
      [harness.screen(room.id, '/join/guess'), 401],
      [harness.screen(room.id, undefined, { origin: 'http://elsewhere.invalid' }), 403],
    ];
    for (const [screen, status] of refusals) {
      await screen.until('an answer', () => screen.refused !== undefined);
      expect(screen.refused).toBe(status);
    }
    const gone = harness.screen('no-room');
    await gone.until('it is closed', () => gone.closed !== undefined);
    expect(gone.errors[0]).toContain('no such room');
  });
});
