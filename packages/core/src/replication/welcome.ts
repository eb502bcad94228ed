import { encode } from '@msgpack/msgpack';
import type { Rules } from '../ruleset/rules.js';
import { type Welcome } from './protocol.js';
import { packedSchema } from './schema.js';

/** What frames speak of, as bytes, by the rules and by whether all of it is told: the same for all who come, and most of the work. */
const schemas = new WeakMap<Rules, Map<boolean, Uint8Array>>();

function schemaBytes(rules: Rules, truth: boolean): Uint8Array {
  const known = schemas.get(rules) ?? new Map<boolean, Uint8Array>();
  schemas.set(rules, known);
  const bytes = known.get(truth) ?? packedSchema(rules, truth);
  known.set(truth, bytes);
  return bytes;
}

/** The first message of a room to somebody who comes in, or under whom its rules were edited. */
export function encodeWelcome(welcome: Omit<Welcome, 't' | 'schema'>, rules: Rules, truth: boolean): Uint8Array {
  // The last value of the map is nil, which is one byte: the schema stands in its place.
  const around = encode({ t: 'welcome', ...welcome, schema: null }, { ignoreUndefined: true });
  const schema = schemaBytes(rules, truth);
  const bytes = new Uint8Array(around.length - 1 + schema.length);
  bytes.set(around.subarray(0, -1));
  bytes.set(schema, around.length - 1);
  return bytes;
}
