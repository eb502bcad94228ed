import { z } from 'zod';
import { PLAYERS } from '../database/models.js';
import { PAGE } from './pages.js';
import { playerName, putSchema } from './players.js';
import { createRoomSchema } from './rooms.js';
import { createSchema, patchSchema } from './rulesets.js';
import { checksRunAnswer, huntsRunAnswer } from './run-answers.js';
import { checksRunSchema, huntsRunSchema } from './test-runs.js';

type Method = 'get' | 'post' | 'put' | 'patch' | 'delete';

/** What is answered where all is well: as which kind of content, and of which shape; an empty answer has neither. */
interface Answer {
  readonly says: string;
  readonly body?: z.ZodType;
  readonly kind?: string;
}

/** A thing that can be asked of the server, with all that it can answer. */
export interface Operation {
  readonly method: Method;
  /** With what stands for something in braces: `/api/rooms/{id}`. */
  readonly path: string;
  readonly summary: string;
  /** It needs no session. */
  readonly open?: true;
  readonly query?: z.ZodObject;
  readonly headers?: z.ZodObject;
  readonly body?: z.ZodType;
  /** As what else its body may be sent. */
  readonly bodyAlso?: string;
  readonly answers: Readonly<Record<number, Answer>>;
  /** The statuses of what can be wrong, beside what can be wrong with any request of its kind. */
  readonly problems?: readonly number[];
}

const moment = z.iso.datetime();
const document = z.record(z.string(), z.unknown());
const stored = z.strictObject({ id: z.uuid(), revision: z.int(), updatedAt: moment });
const kept = z.union([z.number(), z.string()]);
const problem = z.strictObject({ path: z.string(), message: z.string(), at: z.int().optional() });
/** What went wrong, as problem details (RFC 9457). */
export const problemDetails = z
  .strictObject({
    type: z.string(),
    title: z.string(),
    status: z.int(),
    detail: z.string().optional(),
    /** The revision that there is. */
    revision: z.int().optional(),
    /** What saved players would lose by an edit; `X-Losses: accept` has it so. */
    losses: z
      .array(z.strictObject({ player: z.string(), table: z.string(), label: z.string(), had: kept, has: kept.optional() }))
      .optional(),
    problems: z.array(problem).optional(),
  })
  .meta({ id: 'Problem' });
/** `join` is the path of its join link, which ends at `until`; both null where it has none. */
const seat = z
  .strictObject({
    name: z.string(),
    team: z.string().nullable(),
    party: z.string().nullable(),
    join: z.string().nullable(),
    until: moment.nullable(),
  })
  .meta({ id: 'Seat' });
const room = z.strictObject({
  id: z.string(),
  ruleset: z.uuid(),
  seed: z.int(),
  createdAt: moment,
  players: z.enum(PLAYERS),
  seats: z.array(seat),
});
const note = z.strictObject({
  id: z.int(),
  at: moment,
  who: z.enum(['author', 'terminal']),
  what: z.string(),
  about: z.record(z.string(), z.unknown()),
});

const part = z.object({
  after: z.string().optional().meta({ description: 'The next of the part before' }),
  limit: z.int().min(1).max(PAGE.most).default(PAGE.usual),
});
/** A part of a list, with where the next one begins; null after the last. */
const partOf = <S extends z.ZodRawShape>(shape: S) => z.strictObject({ ...shape, next: z.string().nullable() });
const ifMatch = z.object({ 'If-Match': z.string() });
const answer = (says: string, body: z.ZodType): Answer => ({ says, body });
const gone = { 204: { says: 'Done; there is nothing more to say' } };
const player = { name: playerName, revision: z.int(), updatedAt: moment };

/** All that can be asked of the server by HTTP, in the order of its paths. What it answers is held against this by its tests. */
export const OPERATIONS: readonly Operation[] = [
  {
    method: 'get',
    path: '/enter/{token}',
    summary: 'Signs in; works once',
    open: true,
    answers: { 302: { says: 'Signed in' } },
    problems: [410],
  },
  {
    method: 'get',
    path: '/healthz',
    summary: 'Whether the database answers',
    open: true,
    answers: { 200: answer('It does', z.strictObject({ ok: z.literal(true) })) },
  },
  {
    method: 'get',
    path: '/metrics',
    summary: 'Figures for Prometheus, for who is signed in or sends METRICS_TOKEN as a bearer token',
    answers: { 200: { says: 'Figures', body: z.string(), kind: 'text/plain' } },
  },
  {
    method: 'get',
    path: '/api/join/{token}',
    summary: 'What a join link opens',
    open: true,
    answers: { 200: answer('Room and seat', z.strictObject({ room: z.string(), seat: z.string() })) },
    problems: [404],
  },
  {
    method: 'get',
    path: '/api/session',
    summary: 'Who is signed in',
    answers: { 200: answer('The user', z.strictObject({ user: z.uuid() })) },
  },
  { method: 'delete', path: '/api/session', summary: 'Signs out', answers: gone },
  {
    method: 'get',
    path: '/api/sessions',
    summary: 'Who else is signed in as this user, the last seen first',
    answers: {
      200: answer(
        'Sessions',
        z.strictObject({
          sessions: z.array(
            z.strictObject({
              key: z.string(),
              agent: z.string(),
              createdAt: moment,
              seenAt: moment,
              expiresAt: moment,
              here: z.boolean(),
            }),
          ),
        }),
      ),
    },
  },
  { method: 'delete', path: '/api/sessions/{key}', summary: 'Ends a session', answers: gone, problems: [404] },
  {
    method: 'get',
    path: '/api/rulesets',
    summary: 'Rulesets, newest edit first, a part at a time',
    query: part,
    answers: {
      200: answer('Summaries', partOf({ rulesets: z.array(stored.extend({ name: z.string(), entries: z.record(z.string(), z.int()) })) })),
    },
    problems: [400],
  },
  {
    method: 'post',
    path: '/api/rulesets',
    summary: 'Begins a ruleset, empty or from a document',
    body: createSchema,
    answers: { 201: answer('The ruleset', stored.extend({ document })) },
    problems: [400, 422],
  },
  {
    method: 'get',
    path: '/api/rulesets/{id}',
    summary: 'A ruleset; its ETag is its revision',
    answers: { 200: answer('The ruleset', stored.extend({ document })) },
    problems: [404],
  },
  {
    method: 'patch',
    path: '/api/rulesets/{id}',
    summary: 'Edits the revision that If-Match names',
    headers: ifMatch.extend({ 'X-Losses': z.literal('accept').optional(), 'Idempotency-Key': z.string().optional() }),
    body: patchSchema,
    bodyAlso: 'application/json-patch+json',
    answers: { 200: answer('The new revision', stored) },
    problems: [400, 404, 409, 412, 422, 428],
  },
  {
    method: 'post',
    path: '/api/rulesets/{id}/checks/run',
    summary: 'Runs the checks of a ruleset, all or some; `left` are those for which there was no time',
    body: checksRunSchema,
    answers: {
      200: answer('What they came to; those that no edit has touched since they were run last keep that', checksRunAnswer),
    },
    problems: [400, 404, 422],
  },
  {
    method: 'post',
    path: '/api/rulesets/{id}/hunts/run',
    summary: 'Hunts for so many seconds, the hunts in turn',
    body: huntsRunSchema,
    answers: { 200: answer('What they came to', huntsRunAnswer) },
    problems: [400, 404, 422],
  },
  {
    method: 'get',
    path: '/api/rulesets/{id}/players',
    summary: 'Saved players, where each plays just now, and what was set aside because it can’t be read',
    query: part,
    answers: {
      200: answer(
        'Players',
        partOf({
          all: z.int().meta({ description: 'How many there are' }),
          players: z.array(z.strictObject({ ...player, room: z.string().nullable() })),
          aside: z.array(z.strictObject({ id: z.uuid(), name: z.string(), reason: z.string(), at: moment, saved: z.unknown() })),
        }),
      ),
    },
    problems: [400, 404],
  },
  {
    method: 'get',
    path: '/api/rulesets/{id}/players/{name}',
    summary: 'All that is kept of a player, as it is and as a sheet; its ETag is the state that was read',
    answers: {
      200: answer('The player', z.strictObject({ ...player, saved: document, problems: z.array(problem), sheet: z.unknown() })),
    },
    problems: [400, 404],
  },
  {
    method: 'put',
    path: '/api/rulesets/{id}/players/{name}',
    summary: 'Keeps something else of a player, all or nothing; refused while they play, and where the rules do not give it',
    headers: ifMatch.partial(),
    body: putSchema,
    answers: { 200: answer('The player', z.strictObject(player)) },
    problems: [400, 404, 409, 412, 422, 428],
  },
  {
    method: 'delete',
    path: '/api/rulesets/{id}/players/{name}',
    summary: 'Forgets a player; refused while they play',
    answers: gone,
    problems: [400, 404, 409],
  },
  {
    method: 'delete',
    path: '/api/rulesets/{id}/players/aside/{key}',
    summary: 'Deletes a state that was set aside',
    answers: gone,
    problems: [404],
  },
  ...['/api/rulesets/{id}/trail', '/api/trail'].flatMap((path): Operation[] => [
    {
      method: 'get',
      path,
      summary: `Who did what ${path === '/api/trail' ? 'that is about no ruleset' : 'in a ruleset'}, the latest first, a part at a time`,
      query: part,
      answers: { 200: answer('Notes', partOf({ notes: z.array(note) })) },
      problems: [400, 404],
    },
    {
      method: 'get',
      path: `${path}/lines`,
      summary: 'The same as a file, whole and the first note first: a note a line',
      answers: { 200: { says: 'Notes', body: z.string(), kind: 'application/jsonl' } },
      problems: [404],
    },
  ]),
  {
    method: 'get',
    path: '/api/rooms',
    summary: 'Rooms of a ruleset, the newest first, a part at a time',
    query: part.extend({ ruleset: z.uuid() }),
    answers: {
      200: answer(
        'Rooms',
        partOf({ rooms: z.array(room.pick({ id: true, createdAt: true, players: true }).extend({ open: z.boolean() })) }),
      ),
    },
    problems: [400],
  },
  {
    method: 'post',
    path: '/api/rooms',
    summary: 'Opens a room',
    body: createRoomSchema,
    answers: { 201: answer('The room', room) },
    problems: [400, 404, 409, 422],
  },
  {
    method: 'get',
    path: '/api/rooms/{id}',
    summary: 'A room, with the paths of its join links',
    answers: { 200: answer('The room', room) },
    problems: [404],
  },
  {
    method: 'delete',
    path: '/api/rooms/{id}',
    summary: 'Closes a room for good: its join links end, and what its guests have; what saved players have is kept',
    answers: gone,
    problems: [404],
  },
  {
    method: 'post',
    path: '/api/rooms/{id}/seats/{seat}/link',
    summary: 'Gives a seat a new join link; the old one opens nothing any more, and who came by it has to go',
    answers: { 200: answer('The seat', seat) },
    problems: [404],
  },
  {
    method: 'delete',
    path: '/api/rooms/{id}/seats/{seat}/link',
    summary: 'Ends the join link of a seat',
    answers: { 200: answer('The seat', seat) },
    problems: [404],
  },
];

/** Whether it changes something: then it carries the header of a write. */
export const writes = ({ method }: Operation) => method !== 'get';
const limited = ({ path }: Operation) => path.startsWith('/api/') || path.startsWith('/enter/');

/** The statuses of all that can be wrong with a request: of any host, of any sign-in, of any body. */
export function problemsOf(operation: Operation): readonly number[] {
  return [
    ...new Set([
      ...(operation.problems ?? []),
      ...(operation.open ? [] : [401]),
      ...(writes(operation) ? [400, 403, 413, 422] : []),
      ...(limited(operation) ? [429] : []),
      421,
      503,
    ]),
  ].sort((a, b) => a - b);
}
