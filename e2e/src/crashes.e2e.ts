import { once } from 'node:events';
import { readServerMessage, SUBPROTOCOL } from '@eager-ember/core';
import { WebSocket } from 'ws';
import { surviveCrashes } from './crashes.js';
import { started } from './served.js';
import { eachWalk } from './suite.js';
import type { Trial } from './trial.js';
import type { Workbench } from './workbench.js';

describe('A server that is killed at random moments', () => {
  it('has lost nothing that it had told to be stored, and has nothing twice', async () => {
    const report = await surviveCrashes(2, 20_261_123);
    expect(report.faults).toEqual([]);
    expect(report.earned).toBeGreaterThan(0);
    expect(report.bought).toBeGreaterThan(0);
  });
});

describe('An error that nobody has caught', () => {
  let workbench: Workbench;
  let trial: Trial;
  eachWalk((walk) => ({ workbench, trial } = walk));

  it('ends the server in order: rooms are stored, and who is there is told', async () => {
    const room = await trial.room();
    await workbench.kill();
    // On a signal that nothing else listens for, something is thrown where nobody catches it.
    const torn = `data:text/javascript,${encodeURIComponent('process.on("SIGUSR2", () => { throw new Error("torn"); })')}`;
    const { process: server } = await started({
      ...workbench.settings,
      NODE_OPTIONS: `${process.env['NODE_OPTIONS'] ?? ''} --import=${torn}`,
    });
    const token = room.joins['north'].split('/').at(-1)!;
    const address = `${workbench.url.replace('http', 'ws')}/ws/rooms/${room.id}?seat=${token}`;
    const seat = new WebSocket(address, SUBPROTOCOL, { headers: { origin: workbench.url } });
    const told: string[] = [];
    seat.on('message', (data: Buffer) => {
      const heard = readServerMessage(new Uint8Array(data));
      if ('message' in heard && heard.message.t === 'later') told.push(heard.message.message);
    });
    await once(seat, 'message');
    const [closed, ended] = [once(seat, 'close'), once(server, 'exit')];
    server.kill('SIGUSR2');
    expect([(await closed)[0], (await ended)[0], told]).toEqual([
      1001,
      1,
      ['The server stops. Your seat is kept; come back when it runs again.'],
    ]);
    await workbench.serve();
    expect((await fetch(`${workbench.url}/healthz`)).status).toBe(200);
  });
});
