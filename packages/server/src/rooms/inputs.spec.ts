import brinewick from '../../../core/src/testing/recorded/brinewick.json' with { type: 'json' };
import { compileRuleset } from '@eager-ember/core';
import { Fake } from '../testing/fake.js';
import { Room } from './room.js';

const SEATS = [{ name: 'north', team: 'petrel' }];

describe('The inputs of a room', () => {
  const open = () => new Room('slate-heron', { rules: compileRuleset(brinewick), rulesetId: 'r', revision: 1 }, 5, SEATS, new Map());

  it('are numbered by each connection for itself, and count what is sent twice once', () => {
    const room = open();
    const first = new Fake(room, 'north');
    const asked = () => room.input(first, 501, { do: 'use', ability: 'sonarPing' });
    expect([asked(), asked(), asked()]).toEqual([undefined, undefined, undefined]);
    room.tick();
    expect(first.copy!.heard).toBe(501);
    const news = first.messages.flatMap((message) => (message.t === 'news' ? message.items : []));
    expect(news.filter(({ event }) => event === 'abilityRefused')).toEqual([]);
    // After a reload, and on a second device, numbers begin anew, and both are told of their own.
    const second = new Fake(room, 'north');
    room.tick();
    expect([first.copy!.heard, second.copy!.heard]).toEqual([501, 0]);
    room.input(second, 1, { do: 'move', x: 1, y: 0 });
    room.input(first, 500, { do: 'stop' });
    room.tick();
    expect([first.copy!.heard, second.copy!.heard]).toEqual([501, 1]);
    const { row } = second.welcome!;
    const x = () => Number(second.copy!.value('bodies', row!, 'x'));
    const before = x();
    room.tick();
    expect(x()).toBeGreaterThan(before);
  });
});
