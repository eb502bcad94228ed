import type { Problem } from '@eager-ember/core';
import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import { isDatabaseGone } from '../database/gone.js';
import { Impossible, Missing, NotNow, PlayersElsewhere, Refused, Unsound } from '../errors.js';

/** An answer that says what went wrong, as problem details (RFC 9457). */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail?: string,
    readonly more: { readonly problems?: readonly Problem[]; readonly revision?: number; readonly losses?: readonly unknown[] } = {},
  ) {
    super(title);
  }
}

/** The status by which HTTP says why something is not done. */
const STATUSES = [
  [Missing, 404],
  [PlayersElsewhere, 409],
  [Unsound, 422],
  [Impossible, 422],
  [NotNow, 503],
] as const;

function asProblem(error: unknown): HttpProblem | undefined {
  if (error instanceof HttpProblem) return error;
  if (error instanceof Refused) {
    const [, status] = STATUSES.find(([kind]) => error instanceof kind) ?? [Refused, 500];
    return new HttpProblem(status, error.title, error.detail, error instanceof Unsound ? { problems: error.problems } : {});
  }
  if (isDatabaseGone(error))
    return new HttpProblem(503, 'The database can’t be reached', 'Nothing was stored. Keep your edits; they can be saved when it is back.');
  const { type, status } = error as { type?: string; status?: number };
  if (type === 'entity.too.large') return new HttpProblem(413, 'The body is too large', 'A request has at most 2 MB.');
  if (type === 'entity.parse.failed') return new HttpProblem(400, 'The body is not JSON', (error as Error).message);
  if (status !== undefined && status >= 400 && status < 500) return new HttpProblem(status, (error as Error).message);
  return undefined;
}

export function problemHandler(log: Logger): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent) return next(error);
    const known = asProblem(error);
    if (!known) log.error({ err: error, url: request.originalUrl }, 'request failed');
    const { status, title, detail, more } = known ?? new HttpProblem(500, 'Something went wrong on the server', 'It has been logged.');
    if (status === 412 && more.revision !== undefined) response.set('ETag', `"${more.revision}"`);
    response
      .status(status)
      .type('application/problem+json')
      .send(JSON.stringify({ type: 'about:blank', title, status, detail, ...more }));
  };
}

export const noSuchPath: RequestHandler = () => {
  throw new HttpProblem(404, 'There is nothing at this address');
};
