// npm run docs: the schemas in docs/, generated from what the code checks with. Formatted so that differences are read easily.
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { buildCode, installDependencies } from './lib/prepare.mjs';
import { ROOT, say } from './lib/run.mjs';

await installDependencies();
await buildCode();
const core = await import('../packages/core/dist/index.js');
const server = await import('../packages/server/dist/index.js');
const z = await import('zod');

const schemaOf = (schema, io = 'input') => z.toJSONSchema(schema, { io, unrepresentable: 'any', reused: 'ref', cycles: 'ref' });
const inline = (schema) => {
  const { $schema, ...rest } = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' });
  return $schema ? rest : rest;
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

const problem = {
  description: 'What went wrong',
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
};
const ok = (description, schema) => ({ description, content: { 'application/json': { schema } } });
const parameter = (name, where = 'path') => ({ name, in: where, required: true, schema: { type: 'string' } });
const optional = (name) => ({ ...parameter(name, 'header'), required: false });
const body = (schema) => ({ required: true, content: { 'application/json': { schema } } });
const ruleset = {
  type: 'object',
  properties: {
    id: { type: 'string', format: 'uuid' },
    revision: { type: 'integer' },
    updatedAt: { type: 'string' },
    document: { type: 'object' },
  },
};
const room = {
  type: 'object',
  properties: {
    id: { type: 'string' },
    ruleset: { type: 'string', format: 'uuid' },
    seed: { type: 'integer' },
    players: { enum: ['guests', 'saved'] },
    seats: {
      type: 'array',
      items: { $ref: '#/components/schemas/Seat' },
    },
  },
};
const seat = {
  type: 'object',
  description: 'A seat; join is the path of its join link, which ends at until, both null where it has none',
  properties: {
    name: { type: 'string' },
    team: { type: ['string', 'null'] },
    party: { type: ['string', 'null'] },
    join: { type: ['string', 'null'] },
    until: { type: ['string', 'null'], format: 'date-time' },
  },
};
/** A part of a list, with where the next one begins. */
const list = (name, items) => ({
  type: 'object',
  properties: { [name]: { type: 'array', items }, next: { type: ['string', 'null'], description: 'after of the next part' } },
});
const part = [
  { name: 'after', in: 'query', required: false, schema: { type: 'string' }, description: 'The next of the part before' },
  { name: 'limit', in: 'query', required: false, schema: { type: 'integer', minimum: 1, maximum: 200, default: 50 } },
];

write('protocol/openapi.json', {
  openapi: '3.1.0',
  info: { title: 'Eager Ember', version: '1' },
  paths: {
    '/enter/{token}': {
      get: {
        summary: 'Signs in; works once',
        security: [],
        parameters: [parameter('token')],
        responses: { 302: { description: 'Signed in' }, 410: problem },
      },
    },
    '/api/session': {
      get: {
        summary: 'Who is signed in',
        responses: { 200: ok('The user', { type: 'object', properties: { user: { type: 'string' } } }), 401: problem },
      },
    },
    '/api/rulesets': {
      get: {
        summary: 'Rulesets, newest edit first, a part at a time',
        parameters: part,
        responses: { 200: ok('Summaries', list('rulesets', { type: 'object' })), 400: problem },
      },
      post: {
        summary: 'Begins a ruleset, empty or from a document',
        requestBody: body(inline(server.createSchema)),
        responses: { 201: ok('The ruleset', ruleset), 400: problem, 413: problem, 422: problem },
      },
    },
    '/api/rulesets/{id}': {
      get: {
        summary: 'A ruleset; its ETag is its revision',
        parameters: [parameter('id')],
        responses: { 200: ok('The ruleset', ruleset), 404: problem },
      },
      patch: {
        summary: 'Edits the revision that If-Match names',
        parameters: [parameter('id'), parameter('If-Match', 'header'), optional('X-Losses'), optional('Idempotency-Key')],
        requestBody: {
          required: true,
          content: {
            'application/json': { schema: inline(server.patchSchema) },
            'application/json-patch+json': { schema: inline(server.patchSchema) },
          },
        },
        responses: {
          200: ok('The new revision', { type: 'object', properties: { id: { type: 'string' }, revision: { type: 'integer' } } }),
          400: problem,
          404: problem,
          409: problem,
          412: problem,
          413: problem,
          422: problem,
          428: problem,
          503: problem,
        },
      },
    },
    '/api/rulesets/{id}/players': {
      get: {
        summary: 'Saved players, where each plays just now, and what was set aside because it can’t be read',
        parameters: [parameter('id'), ...part],
        responses: {
          200: ok('Players', {
            type: 'object',
            properties: {
              ...list('players', {}).properties,
              all: { type: 'integer', description: 'How many there are' },
              aside: { type: 'array', items: {} },
            },
          }),
          404: problem,
        },
      },
    },
    '/api/rulesets/{id}/players/{name}': {
      get: {
        summary: 'All that is kept of a player, as it is and as a sheet; its ETag is the state that was read',
        parameters: [parameter('id'), parameter('name')],
        responses: { 200: ok('The player', { type: 'object' }), 404: problem },
      },
      put: {
        summary: 'Keeps something else of a player, all or nothing; refused while they play, and where the rules do not give it',
        parameters: [parameter('id'), parameter('name'), parameter('If-Match', 'header')],
        requestBody: body({ type: 'object', properties: { saved: { type: 'object' } }, required: ['saved'] }),
        responses: {
          200: ok('The player', { type: 'object' }),
          400: problem,
          404: problem,
          409: problem,
          412: problem,
          422: problem,
          428: problem,
        },
      },
      delete: {
        summary: 'Forgets a player',
        parameters: [parameter('id'), parameter('name')],
        responses: { 204: { description: 'Gone' }, 404: problem, 409: problem },
      },
    },
    '/api/rulesets/{id}/players/aside/{key}': {
      delete: {
        summary: 'Deletes a state that was set aside',
        parameters: [parameter('id'), parameter('key')],
        responses: { 204: { description: 'Gone' }, 404: problem },
      },
    },
    '/api/rooms': {
      get: {
        summary: 'Rooms of a ruleset, the newest first, a part at a time',
        parameters: [parameter('ruleset', 'query'), ...part],
        responses: { 200: ok('Rooms', list('rooms', { type: 'object' })), 400: problem },
      },
      post: {
        summary: 'Opens a room',
        requestBody: body(inline(server.createRoomSchema)),
        responses: { 201: ok('The room', room), 400: problem, 404: problem },
      },
    },
    '/api/rooms/{id}': {
      get: {
        summary: 'A room, with the paths of its join links',
        parameters: [parameter('id')],
        responses: { 200: ok('The room', room), 404: problem },
      },
      delete: {
        summary: 'Closes a room for good: its join links end, and what its guests have; what saved players have is kept',
        parameters: [parameter('id')],
        responses: { 204: { description: 'Closed' }, 404: problem, 503: problem },
      },
    },
    '/api/rooms/{id}/seats/{seat}/link': {
      post: {
        summary: 'Gives a seat a new join link; the old one opens nothing any more, and who came by it has to go',
        parameters: [parameter('id'), parameter('seat')],
        responses: { 200: ok('The seat', seat), 404: problem },
      },
      delete: {
        summary: 'Ends the join link of a seat',
        parameters: [parameter('id'), parameter('seat')],
        responses: { 200: ok('The seat', seat), 404: problem },
      },
    },
    '/api/join/{token}': {
      get: {
        summary: 'What a join link opens',
        security: [],
        parameters: [parameter('token')],
        responses: {
          200: ok('Room and seat', { type: 'object', properties: { room: { type: 'string' }, seat: { type: 'string' } } }),
          404: problem,
        },
      },
    },
    '/healthz': {
      get: { summary: 'Whether the database answers', security: [], responses: { 200: { description: 'It does' }, 503: problem } },
    },
    '/metrics': {
      get: { summary: 'Prometheus text', responses: { 200: { description: 'Figures', content: { 'text/plain': {} } }, 401: problem } },
    },
  },
  security: [{ session: [] }],
  components: {
    securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'ember_session' } },
    schemas: {
      Seat: seat,
      Problem: {
        type: 'object',
        properties: {
          type: { type: 'string' },
          title: { type: 'string' },
          status: { type: 'integer' },
          detail: { type: 'string' },
          revision: { type: 'integer' },
          losses: {
            type: 'array',
            description: 'What saved players would lose by an edit; X-Losses: accept has it so',
            items: {
              type: 'object',
              properties: { player: { type: 'string' }, table: { type: 'string' }, label: { type: 'string' }, had: {}, has: {} },
            },
          },
          problems: {
            type: 'array',
            items: { type: 'object', properties: { path: { type: 'string' }, message: { type: 'string' }, at: { type: 'integer' } } },
          },
        },
      },
    },
  },
});

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
