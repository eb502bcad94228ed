import { createHash, randomBytes } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import { parse } from 'cookie';
import type { RequestHandler } from 'express';
import { Op } from 'sequelize';
import { Session } from '../database/models.js';
import { theAuthor } from '../database/seed.js';
import { HttpProblem } from './problems.js';

const COOKIE = 'ember_session';
const LASTS_MS = 30 * 24 * 3600 * 1000;
/** A header that no form on another site can send. */
export const WRITE_HEADER = 'x-eager-ember';

const digest = (token: string) => createHash('sha256').update(token).digest('hex');

/** Sign-in by links that work once, and the sessions that follow. */
export class Sessions {
  /** Digests of the links that nobody has opened yet. */
  private readonly links = new Set<string>();

  /** A new link's token. */
  newLink(): string {
    const token = randomBytes(24).toString('base64url');
    this.links.add(digest(token));
    return token;
  }

  /** GET /enter/:token */
  readonly enter: RequestHandler = async (request, response) => {
    const id = digest(String(request.params['token']));
    // Taken out before anything is waited for: of those who come with it together, one gets in.
    if (!this.links.delete(id)) {
      if (await this.userOf(request)) return void response.redirect('/');
      throw new HttpProblem(410, 'This link has been used', 'A sign-in link works once. Start the workbench again for a new one.');
    }
    const token = randomBytes(32).toString('base64url');
    try {
      const user = await theAuthor();
      await Session.create({ id: digest(token), userId: user.id, expiresAt: new Date(Date.now() + LASTS_MS) });
    } catch (error) {
      // It has opened nothing: it may be tried again.
      this.links.add(id);
      throw error;
    }
    response.cookie(COOKIE, token, { httpOnly: true, sameSite: 'lax', maxAge: LASTS_MS, path: '/' });
    response.redirect('/');
  };

  /** The session that a request belongs to, or undefined. */
  async sessionOf(request: IncomingMessage): Promise<Session | undefined> {
    const token = parse(request.headers.cookie ?? '')[COOKIE];
    if (token === undefined || token === '') return undefined;
    return (await Session.findOne({ where: { id: digest(token), expiresAt: { [Op.gt]: new Date() } } })) ?? undefined;
  }

  /** The id of the signed-in user, or undefined. */
  async userOf(request: IncomingMessage): Promise<string | undefined> {
    return (await this.sessionOf(request))?.userId;
  }

  readonly required: RequestHandler = async (request, response, next) => {
    const user = await this.userOf(request);
    if (user === undefined) throw new HttpProblem(401, 'You are not signed in', 'Open the link that the start command prints.');
    response.locals['user'] = user;
    next();
  };
}

/** Refuses writes that a page of another site could have caused. */
export const sameSiteWrites: RequestHandler = (request, _response, next) => {
  const writes = !['GET', 'HEAD', 'OPTIONS'].includes(request.method);
  if (writes && request.headers[WRITE_HEADER] === undefined)
    throw new HttpProblem(403, 'This write comes from elsewhere', `Writes carry the header ${WRITE_HEADER}.`);
  next();
};

/** Whether a request's page came from this very server. */
export function isOwnOrigin({ headers }: IncomingMessage): boolean {
  if (headers.origin === undefined || headers.host === undefined) return false;
  try {
    return new URL(headers.origin).host === headers.host.toLowerCase();
  } catch {
    return false;
  }
}
