import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { SUBPROTOCOL } from '@eager-ember/core';
import { WebSocket } from 'ws';
import { Running } from '../../e2e/src/served.js';
import { startPostgres } from '../../scripts/lib/postgres.mjs';
import { freePort } from '../../scripts/lib/run.mjs';
import { rounded, type Row } from './measure.js';

const CONNECTIONS = 2000;
const brinewick = JSON.parse(readFileSync(new URL('../../examples/brinewick.json', import.meta.url), 'utf8')) as object;

/** Asks for an upgrade again and again, from the server's own pages and from foreign ones, and resets the connection each time. */
const STORM = `
  const { connect } = require('node:net');
  const [port, path, count] = process.argv.slice(1);
  const origins = ['http://127.0.0.1:' + port, 'http://elsewhere.invalid'];
  let left = Number(count);
  const knock = () => {
    if (left-- <= 0) return;
    const socket = connect(Number(port), '127.0.0.1');
    socket.on('error', () => undefined);
    socket.on('close', knock);
    socket.on('connect', () => {
      socket.write('GET ' + path + ' HTTP/1.1\\r\\nhost: 127.0.0.1:' + port + '\\r\\norigin: ' + origins[left % 2] +
        '\\r\\nconnection: Upgrade\\r\\nupgrade: websocket\\r\\nsec-websocket-version: 13\\r\\nsec-websocket-key: ZW1iZXJzIGFyZSBlYWdlcg==' +
        '\\r\\nsec-websocket-protocol: ${SUBPROTOCOL}\\r\\n\\r\\n', () => socket.resetAndDestroy());
    });
  };
  for (let n = 0; n < 20; n++) knock();
`;

/** The longest time between two messages of a socket while something goes on, in milliseconds. */
async function longestSilence(socket: WebSocket, work: () => Promise<unknown>): Promise<number> {
  let last = performance.now();
  let longest = 0;
  const hear = () => {
    longest = Math.max(longest, performance.now() - last);
    last = performance.now();
  };
  socket.on('message', hear);
  await work();
  hear();
  socket.off('message', hear);
  return longest;
}

/** How long a seat waits for its frames while thousands of connections are begun and reset, beside a while without them. */
export async function socketStorm(): Promise<Row> {
  const home = mkdtempSync(join(tmpdir(), 'ember-storm-'));
  chmodSync(home, 0o755);
  const cluster = await startPostgres(home, { durable: false });
  const server = await Running.on(cluster.url, await freePort());
  try {
    const { id: ruleset } = await server.post<{ id: string }>('/api/rulesets', { document: brinewick });
    const { id, seats } = await server.post<{ id: string; seats: { join: string }[] }>('/api/rooms', {
      ruleset,
      seats: 2,
      players: 'saved',
    });
    const path = `/ws/rooms/${id}?seat=${seats[0].join.split('/').at(-1)!}`;
    const seat = new WebSocket(server.url.replace('http', 'ws') + path, SUBPROTOCOL, { headers: { origin: server.url } });
    await once(seat, 'message');
    await new Promise((done) => setTimeout(done, 2000));
    const port = new URL(server.url).port;
    const began = performance.now();
    const during = await longestSilence(seat, async () => {
      const storm = spawn(process.execPath, ['-e', STORM, port, path, String(CONNECTIONS)], { stdio: 'inherit' });
      await once(storm, 'exit');
    });
    const seconds = (performance.now() - began) / 1000;
    const calm = await longestSilence(seat, () => new Promise((done) => setTimeout(done, seconds * 1000)));
    seat.terminate();
    return {
      what: `Longest wait of a seat for a frame while ${CONNECTIONS} connections ask for an upgrade and are reset, within ${rounded(seconds)} s`,
      value: rounded(during),
      reference: rounded(calm),
      unit: 'ms',
      referenceIs: 'as long without them',
      ratio: `${rounded(during - calm)} ms more`,
      reach: 'under 100 ms',
    };
  } finally {
    server.process.kill('SIGKILL');
    cluster.stop('immediate');
    rmSync(home, { recursive: true, force: true, maxRetries: 10, retryDelay: 200 });
  }
}
