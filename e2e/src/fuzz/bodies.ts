import { mutated } from '../../../packages/core/src/testing/mutations.js';
import type { Running } from '../served.js';
import { demo } from '../trial.js';
import { type Log, pause, type Target } from './target.js';

/** What may be asked of a server with a body, to be spoiled. */
const requests = ({ ruleset, room }: Target): readonly (readonly [string, string, unknown])[] => [
  ['POST', '/api/rulesets', { document: demo() }],
  [
    'PATCH',
    `/api/rulesets/${ruleset}`,
    [
      { op: 'replace', path: '/attributes/0/max', value: 7 },
      { op: 'copy', from: '/arena', path: '/a' },
    ],
  ],
  ['PUT', `/api/rulesets/${ruleset}/players/north`, { saved: { attributes: { scrip: 3 }, tracks: { 'standing.level': 2 } } }],
  ['POST', '/api/rooms', { ruleset, seats: 2, party: ['north'], players: 'saved' }],
  ['POST', `/api/rooms/${room}/seats/east/link`, {}],
];

/** Sends spoiled bodies, one after the other, each until the limit of requests a minute lets it in. */
export async function sendBodies(server: Running, target: Target, count: number, draw: () => number, log: Log): Promise<void> {
  const all = requests(target);
  for (let sent = 0; sent < count; sent++) {
    // Whole rulesets are large: one in eight is enough of them.
    const [method, path, body] = all[sent % 8 === 0 ? 0 : 1 + Math.floor(draw() * (all.length - 1))];
    const text = JSON.stringify(mutated(body, Math.floor(draw() * 2 ** 31)));
    const broken = draw() < 0.05 ? text.slice(0, Math.floor(draw() * text.length)) : text;
    const send = () => fetch(server.url + path, { method, headers: { ...server.headers, 'if-match': '"1"' }, body: broken });
    let answer = await send();
    while (answer.status === 429) {
      await pause(1000);
      answer = await send();
    }
    const said = await answer.text();
    if (answer.status >= 500) log.fault(`${method} ${path}: ${answer.status} ${said.slice(0, 200)} for ${broken.slice(0, 300)}`);
    log.reached((sent + 1) / count);
  }
}
