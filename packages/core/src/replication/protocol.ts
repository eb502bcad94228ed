import { decode, encode } from '@msgpack/msgpack';
import { z } from 'zod';
import { ANSWERS, ASKS } from '../concepts/questions.js';
import { announcement } from './announcements.js';
import { wireSchema } from './schema.js';

/** The WebSocket subprotocol: every message is one MessagePack value. A list is a frame, a map one of the messages below. */
export const SUBPROTOCOL = 'eager-ember.v1';

/** Longest message from a client, in bytes. */
export const LONGEST_MESSAGE = 4096;

/** How fast a room can run. */
export const PACES = [0, 0.25, 0.5, 1, 2, 4, 8] as const;
const pace = z.union(
  PACES.map((speed) => z.literal(speed)),
  `A room runs at ${PACES.join(', ')} times its rate.`,
);
export type Pace = (typeof PACES)[number];

/** What a client may say. */
export const clientMessage = z.discriminatedUnion('t', [
  /** Acknowledges a frame: the next ones build on it. */
  z.strictObject({ t: z.literal('ack'), frame: z.int().min(0) }),
  /** Asks for something for the seat's actor; `n` counts the client's inputs from 1. */
  z.strictObject({ t: z.literal('input'), n: z.int().min(1), input: z.looseObject({ do: z.string().max(48) }) }),
  /** Changes the world from outside; only from who may see the truth. */
  z.strictObject({
    t: z.literal('poke'),
    seat: z.string().max(24).optional(),
    /** The seat that it comes from. */
    from: z.string().max(24).optional(),
    action: z.looseObject({ do: z.string().max(48) }),
  }),
  /** Sets how fast the room runs: so many times its own rate, 0 stands still. Only from who may see the truth. */
  z.strictObject({ t: z.literal('pace'), speed: pace }),
  /** What concepts answer. */
  ...ASKS,
]);
export type ClientMessage = z.infer<typeof clientMessage>;

/** What a server says, beside frames. */
export const serverMessage = z.discriminatedUnion('t', [
  /** At the door, and again when the rules were edited: what the frames that follow speak of. The copy starts anew. */
  z.strictObject({
    t: z.literal('welcome'),
    room: z.string(),
    ruleset: z.string(),
    revision: z.int(),
    seat: z.string().optional(),
    /** The row of the seat's actor in the actors table. */
    row: z.int().optional(),
    speed: pace,
    seats: z.array(z.strictObject({ name: z.string(), driven: z.boolean() })),
    schema: wireSchema,
  }),
  z.strictObject({ t: z.literal('news'), items: z.array(announcement) }),
  /** Somebody took or left a seat's controls. */
  // eslint-disable-next-line no-restricted-syntax -- the places of a room, which the wire tells of itself
  z.strictObject({ t: z.literal('seats'), seats: z.array(z.strictObject({ name: z.string(), driven: z.boolean() })) }),
  ...ANSWERS,
  /** How fast the room runs from now on. */
  z.strictObject({ t: z.literal('pace'), speed: pace }),
  /** All up to this tick is stored: a crash loses none of it. */
  z.strictObject({ t: z.literal('stored'), tick: z.int() }),
  /** What is wrong with the room itself for the moment, while it goes on; empty once it is put right. */
  z.strictObject({ t: z.literal('trouble'), message: z.string() }),
  /** The room can't be had just now: the socket is closed next, and who comes again in a while may get in. */
  z.strictObject({ t: z.literal('later'), message: z.string() }),
  /** What was wrong with a message. Where `final`, the socket is closed next, for good. */
  z.strictObject({ t: z.literal('error'), message: z.string(), final: z.boolean() }),
]);
export type ServerMessage = z.infer<typeof serverMessage>;
export type Welcome = Extract<ServerMessage, { t: 'welcome' }>;

export function encodeMessage(message: ClientMessage | ServerMessage): Uint8Array {
  return encode(message, { ignoreUndefined: true });
}

/** A message from a client, or what is wrong with it. */
export function readClientMessage(
  bytes: Uint8Array,
): { readonly message: ClientMessage; readonly error?: undefined } | { readonly message?: undefined; readonly error: string } {
  if (bytes.length > LONGEST_MESSAGE) return { error: `A message has at most ${LONGEST_MESSAGE} bytes; this one had ${bytes.length}.` };
  let value: unknown;
  try {
    value = decode(bytes);
  } catch {
    return { error: 'Messages are MessagePack; this one is not.' };
  }
  const parsed = clientMessage.safeParse(value);
  if (parsed.success) return { message: parsed.data };
  const [issue] = parsed.error.issues;
  return { error: `This message is not of the protocol ${SUBPROTOCOL}: ${issue.path.join('.') || 'message'}: ${issue.message}` };
}

/** What a server sent: a frame, still as a list, or a message. @throws when it is neither */
export function readServerMessage(bytes: Uint8Array): { readonly frame: unknown } | { readonly message: ServerMessage } {
  const value = decode(bytes);
  return Array.isArray(value) ? { frame: value } : { message: serverMessage.parse(value) };
}
