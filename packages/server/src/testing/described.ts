import type { z } from 'zod';
import { type Operation, OPERATIONS, problemDetails, problemsOf } from '../http/description.js';

const patterns = OPERATIONS.map((operation) => ({
  operation,
  pattern: new RegExp(`^${operation.path.replace(/\{\w+\}/g, '[^/]+')}$`),
}));

/**
 * What is wrong with an answer of the server, by what is said of the operation; nothing where it is as it should be.
 * @param body of the answer, as text
 */
export function answerFaults(operation: Operation, status: number, kind: string, body: string): readonly string[] {
  const said = operation.answers[status];
  if (!said) {
    if (!problemsOf(operation).includes(status)) return [`nothing is said of ${status}`];
    if (kind !== 'application/problem+json') return [`${status} comes as ${kind}`];
    return mismatches(problemDetails, JSON.parse(body));
  }
  if (!said.body) return body === '' || status === 302 ? [] : [`${status} is not empty`];
  const expected = said.kind ?? 'application/json';
  if (kind !== expected) return [`${status} comes as ${kind}, not as ${expected}`];
  return mismatches(said.body, expected === 'application/json' ? JSON.parse(body) : body);
}

const mismatches = (schema: z.ZodType, value: unknown) =>
  (schema.safeParse(value).error?.issues ?? []).map(({ path, message }) => `${path.join('/')}: ${message}`);

/** Holds what the server has answered against what is said of it: nobody else reads the description as closely. @throws where they differ */
export async function checkDescribed(method: string, path: string, response: Response): Promise<void> {
  const { pathname } = new URL(path, 'http://localhost');
  const found = patterns.find(({ operation, pattern }) => operation.method === method.toLowerCase() && pattern.test(pathname));
  const text = await response.clone().text();
  if (!found) {
    if (response.ok && pathname.startsWith('/api/')) throw new Error(`Nothing is said of ${method} ${pathname}`);
    return;
  }
  // Where an answer led on to was followed: what has been answered is seen by it alone.
  if (response.redirected && 302 in found.operation.answers) return;
  const faults = answerFaults(found.operation, response.status, response.headers.get('content-type')?.split(';')[0] ?? '', text);
  if (faults.length > 0) throw new Error(`${method} ${pathname} is not as it is said: ${faults.join('; ')}`);
}
