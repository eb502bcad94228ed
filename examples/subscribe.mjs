// A display that knows nothing of a game but the name of a value. It is told old and new, and never how the value comes
// about.
//
//   node examples/subscribe.mjs                             plays two seats by itself, without a server
//   node examples/subscribe.mjs oxygen <join link>          watches a seat of a running room
import { readFileSync } from 'node:fs';
import {
  actorOfSeat,
  compileRuleset,
  Copy,
  encodeMessage,
  Publisher,
  readServerMessage,
  sourceOf,
  SUBPROTOCOL,
  wireSchemaOf,
  World,
} from '@eager-ember/core';

/** All that a display does: it is given a source and a name. */
function showValue(source, name) {
  return source.on(name, (now, before) => console.log(`${name}: ${before ?? 'nothing'} → ${now ?? 'nothing'}`));
}

function withoutServer(name) {
  const rules = compileRuleset(JSON.parse(readFileSync(new URL('brinewick.json', import.meta.url), 'utf8')));
  const world = World.start(rules, 1);
  const publisher = new Publisher(world);
  const copy = new Copy(wireSchemaOf(rules));
  world.step([{ kind: 'join', args: { seat: 'north', team: 'petrel' } }]);
  const actor = actorOfSeat(world, 'north');
  showValue(sourceOf(copy, world.actors.rowOf(actor)), name);
  const pokes = { 10: { do: 'apply', effect: 'slipstream' }, 20: { do: 'apply', effect: 'silt' }, 30: { do: 'end', effect: 'slipstream' } };
  for (let tick = 1; tick <= 100; tick++) {
    world.step(pokes[tick] ? [{ kind: 'poke', args: { seat: 'north', action: pokes[tick] } }] : []);
    publisher.capture();
    copy.apply(publisher.frameFor({ actor, team: 0 }, copy.frame));
  }
}

async function inRoom(name, link) {
  const { default: WebSocket } = await import('ws');
  const join = new URL(link);
  const token = join.pathname.split('/').at(-1);
  const { room } = await (await fetch(new URL(`/api/join/${token}`, join))).json();
  const address = new URL(`/ws/rooms/${room}?seat=${token}&shown=beside`, join.href.replace(/^http/, 'ws'));
  const socket = new WebSocket(address, SUBPROTOCOL, { origin: join.origin });
  let copy;
  socket.binaryType = 'nodebuffer';
  socket.on('message', (data) => {
    const heard = readServerMessage(new Uint8Array(data));
    if ('frame' in heard) {
      if (copy?.applyDecoded(heard.frame)) socket.send(encodeMessage({ t: 'ack', frame: copy.frame }));
    } else if (heard.message.t === 'welcome') {
      // The rules may be edited while the room runs: the copy then starts anew.
      copy = new Copy(heard.message.schema);
      showValue(sourceOf(copy, heard.message.row), name);
    } else if (heard.message.t === 'error') console.error(heard.message.message);
  });
  socket.on('close', () => console.log('The room is closed.'));
  socket.on('error', (error) => console.error(`The room can’t be reached: ${error.message}`));
}

const [name = 'finSpeed', link] = process.argv.slice(2);
if (link === undefined) withoutServer(name);
else await inRoom(name, link);
