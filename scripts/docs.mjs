// npm run docs: the schemas in docs/, generated from what the code checks with. Formatted so that differences are read easily.
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { buildCode, installDependencies } from './lib/prepare.mjs';
import { ROOT, say } from './lib/run.mjs';

await installDependencies();
await buildCode();
const core = await import('../packages/core/dist/index.js');
const { openApi } = await import('../packages/server/dist/http/openapi.js');
const z = await import('zod');

const schemaOf = (schema, io = 'input') => z.toJSONSchema(schema, { io, unrepresentable: 'any', reused: 'ref', cycles: 'ref' });
const inline = (schema) => {
  const { $schema: _version, ...rest } = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' });
  return rest;
};
const write = (file, value) => {
  writeFileSync(join(ROOT, 'docs', file), JSON.stringify(value, null, 2) + '\n');
  say(`docs/${file}`);
};

write('formats/ruleset.schema.json', core.rulesetSchema());
const demo = core.compileRuleset(JSON.parse(readFileSync(join(ROOT, 'examples/brinewick.json'), 'utf8')));
writeFileSync(join(ROOT, 'docs/formats/brinewick.ts'), core.typescriptOf(demo));
say('docs/formats/brinewick.ts');
write('formats/script.schema.json', { title: 'Eager Ember script', ...schemaOf(core.scriptSchema) });

const events = [...core.registry().events].sort(([a], [b]) => (a < b ? -1 : 1));
const TOLD_TO = { owner: 'its subject', team: 'the crew', server: 'the trace alone', everyone: 'everyone' };
const toldTo = ({ see, fields }) => {
  if (typeof see !== 'object') return typeof see === 'string' ? TOLD_TO[see] : 'as it says itself';
  const { of = 'subject' } = fields[see.as];
  return `as its ${see.as} is seen${of === 'subject' ? '' : ` of its ${of}`}`;
};
/** Which fields seats are told, beside those that all who hear of the event are. */
const guarded = ({ announced, fields }) =>
  (announced ? Object.entries(fields) : [])
    .flatMap(([name, { kind, only, about = [], of = 'subject' }]) => {
      if (only === 'server') return [`${name} in the trace alone`];
      const whom = only === 'subject' ? [`to its subject`] : [];
      const what =
        kind === 'entry'
          ? [`as it is seen${of === 'subject' ? '' : ` of its ${of}`}`]
          : about.length > 0
            ? [`with ${about.join(', ')}`]
            : [];
      return whom.length + what.length > 0 ? [`${name} ${[...whom, ...what].join(', ')}`] : [];
    })
    .join('; ') || '–';
const carried = ({ carries }) =>
  carries
    ? [...Object.keys(carries.entries ?? {}), ...Object.keys(carries.words ?? {}), ...(carries.amounts ?? [])].join(', ') || '–'
    : 'not waited for';
writeFileSync(
  join(ROOT, 'docs/events.md'),
  [
    '# Events',
    '',
    'Every event that a world announces, when it does, and what can be asked of it where it is waited for. An event is announced after the state it speaks of is in place, once for each settled change; what listens to it sees that state, in a fixed order: the listeners of the concepts, then reactions and spawners in the order of their chapters. A seat is told of an event as the last but one column says, and of its fields as the last does: an entry as it may be seen of the actor that it is of, what tells of an entry along with it. Its sentence is made of what is told. Written by `npm run docs`.',
    '',
    '| event | announced | carries | told to | of its fields |',
    '| --- | --- | --- | --- | --- |',
    ...events.map(([name, spec]) => `| \`${name}\` ${spec.label} | ${spec.when} | ${carried(spec)} | ${toldTo(spec)} | ${guarded(spec)} |`),
    '',
  ].join('\n'),
);
say('docs/events.md');

write('protocol/openapi.json', openApi());

const message = (name, payload) => ({ name, contentType: 'application/msgpack', payload });
const variants = (union) => union._zod.def.options.map((option) => [option._zod.def.shape.t._zod.def.values[0], inline(option)]);
const client = Object.fromEntries(variants(core.clientMessage).map(([name, payload]) => [`client_${name}`, message(name, payload)]));
const serverSide = Object.fromEntries(variants(core.serverMessage).map(([name, payload]) => [`server_${name}`, message(name, payload)]));
const frame = message('frame', {
  type: 'array',
  prefixItems: [
    { title: 'frame', type: 'integer' },
    { title: 'base', type: 'integer' },
    { title: 'tick', type: 'integer' },
    { title: 'chunks', type: 'array' },
  ],
});
const references = (names) => names.map((name) => ({ $ref: `#/channels/room/messages/${name}` }));

write('protocol/asyncapi.json', {
  asyncapi: '3.0.0',
  info: {
    title: 'Eager Ember rooms',
    version: '1',
    description: `WebSocket subprotocol ${core.SUBPROTOCOL}. Every message is one binary MessagePack value: a list is a frame, a map a message.`,
  },
  channels: {
    room: {
      address: '/ws/rooms/{room}',
      parameters: { room: { description: 'The name of the room' } },
      bindings: { ws: { query: { type: 'object', properties: { seat: { type: 'string' }, beside: { type: 'string' } } } } },
      messages: { ...client, ...serverSide, server_frame: frame },
    },
  },
  operations: {
    hear: { action: 'send', channel: { $ref: '#/channels/room' }, messages: references([...Object.keys(serverSide), 'server_frame']) },
    say: { action: 'receive', channel: { $ref: '#/channels/room' }, messages: references(Object.keys(client)) },
  },
});
