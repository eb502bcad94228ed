import { createHash, randomBytes } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import { parse } from 'cookie';
import { type Request, type RequestHandler, type Response, Router } from 'express';
import { Op } from 'sequelize';
import { Session } from '../database/models.js';
import { theAuthor } from '../database/seed.js';
import type { Trail } from '../trail/trail.js';
import { Missing } from '../errors.js';
import { HttpProblem } from './problems.js';

const COOKIE = 'ember_session';
const DAY_MS = 24 * 3600 * 1000;
/** A session that nobody uses ends after so long; using it puts that off. */
export const LASTS_MS = 7 * DAY_MS;
/** It is put off this often at most. */
const RENEWED_EVERY_MS = DAY_MS;
/** However much it is used, a session ends this long after its sign-in. */
export const LONGEST_MS = 60 * DAY_MS;
/** A sign-in link that nobody opens ends after so long. */
export const LINK_LASTS_MS = DAY_MS;
/** A header that no form on another site can send. */
export const WRITE_HEADER = 'x-eager-ember';

const digest = (token: string) => createHash('sha256').update(token).digest('hex');
/** What a session is called where it is listed: too little to find the rest by. */
const keyOf = ({ id }: Session) => id.slice(0, 16);
const keyPattern = /^[\da-f]{16}$/;

/** Sign-in by links that work once, and the sessions that follow. */
export class Sessions {
  /** Digests of the links that nobody has opened yet, and when they end. */
  private readonly links = new Map<string, number>();
  private readonly listeners: ((id: string) => void)[] = [];

  constructor(private readonly trail: Trail) {}

  /** A new link's token. */
  newLink(): string {
    const token = randomBytes(24).toString('base64url');
    const now = Date.now();
    for (const [id, until] of this.links) if (until < now) this.links.delete(id);
    this.links.set(digest(token), now + LINK_LASTS_MS);
    return token;
  }

  /** Has something be told of sessions that end, by their ids: what is open by them has to be closed. */
  onEnd(listener: (id: string) => void): void {
    this.listeners.push(listener);
  }

  /** GET /enter/:token */
  readonly enter: RequestHandler = async (request, response) => {
    const id = digest(String(request.params['token']));
    const until = this.links.get(id) ?? 0;
    // Taken out before anything is waited for: of those who come with it together, one gets in.
    this.links.delete(id);
    if (until < Date.now()) {
      if (await this.sessionOf(request)) return void response.redirect('/');
      throw new HttpProblem(
        410,
        'This link opens nothing any more',
        'A sign-in link works once. “npx ember link” on its machine prints a new one.',
      );
    }
    const token = randomBytes(32).toString('base64url');
    let session: Session;
    try {
      const user = await theAuthor();
      const agent = (request.get('user-agent') ?? '').slice(0, 200);
      session = await Session.create({ id: digest(token), userId: user.id, agent, expiresAt: new Date(Date.now() + LASTS_MS) });
    } catch (error) {
      // It has opened nothing: it may be tried again.
      this.links.set(id, until);
      throw error;
    }
    setCookie(request, response, token, session.expiresAt);
    this.trail.note({ who: session.userId, ruleset: null, what: 'signedIn', about: { session: keyOf(session), agent: session.agent } });
    response.redirect('/');
  };

  /** The session that a request belongs to, or undefined. */
  async sessionOf(request: IncomingMessage): Promise<Session | undefined> {
    const token = tokenOf(request);
    return token === undefined ? undefined : this.session(digest(token));
  }

  /** A session that has not ended, by its id. */
  async session(id: string): Promise<Session | undefined> {
    return (await Session.findOne({ where: { id, expiresAt: { [Op.gt]: new Date() } } })) ?? undefined;
  }

  readonly required: RequestHandler = async (request, response, next) => {
    const session = await this.sessionOf(request);
    if (!session)
      throw new HttpProblem(
        401,
        'You are not signed in',
        '“npx ember link” on the machine of this server prints a link that signs you in.',
      );
    await renew(session, request, response);
    response.locals['user'] = session.userId;
    response.locals['session'] = session.id;
    next();
  };

  /** What is done with sessions, for who is signed in. */
  routes(): Router {
    const router = Router();
    router.get('/session', (_request, response) => void response.json({ user: response.locals['user'] as string }));

    router.delete('/session', async (request, response) => {
      const session = await this.session(String(response.locals['session']));
      if (session) await this.end(session, 'signedOut');
      response.clearCookie(COOKIE, { ...cookieOptions(request) });
      response.status(204).end();
    });

    router.get('/sessions', async (_request, response) => {
      const all = await Session.findAll({
        where: { userId: String(response.locals['user']), expiresAt: { [Op.gt]: new Date() } },
        order: [['seenAt', 'DESC']],
        limit: 100,
      });
      const sessions = all.map((session) => ({
        key: keyOf(session),
        agent: session.agent,
        createdAt: session.createdAt,
        seenAt: session.seenAt,
        expiresAt: session.expiresAt,
        here: session.id === response.locals['session'],
      }));
      response.json({ sessions });
    });

    router.delete('/sessions/:key', async (request, response) => {
      const { key } = request.params;
      const session = keyPattern.test(key)
        ? await Session.findOne({ where: { userId: String(response.locals['user']), id: { [Op.startsWith]: key } } })
        : null;
      if (!session) throw new Missing('session');
      await this.end(session, 'sessionEnded');
      response.status(204).end();
    });
    return router;
  }

  private async end(session: Session, what: 'signedOut' | 'sessionEnded'): Promise<void> {
    await session.destroy();
    for (const listener of this.listeners) listener(session.id);
    this.trail.note({ who: session.userId, ruleset: null, what, about: { session: keyOf(session), agent: session.agent } });
  }
}

/** The id of the user that an answer is for, who is signed in. */
export const userOf = (response: Response): string => String(response.locals['user']);

function tokenOf(request: IncomingMessage): string | undefined {
  return parse(request.headers.cookie ?? '')[COOKIE] || undefined;
}

// Whoever came by a safe connection never sends the cookie over another.
const cookieOptions = (request: Request) => ({ httpOnly: true, sameSite: 'lax', path: '/', secure: request.secure }) as const;

function setCookie(request: Request, response: Response, token: string, expires: Date): void {
  response.cookie(COOKIE, token, { ...cookieOptions(request), expires });
}

/** Notes that a session is used, and has it last longer. */
async function renew(session: Session, request: Request, response: Response): Promise<void> {
  const now = Date.now();
  if (now - session.seenAt.getTime() < RENEWED_EVERY_MS) return;
  const expiresAt = new Date(Math.min(now + LASTS_MS, session.createdAt.getTime() + LONGEST_MS));
  await session.update({ seenAt: new Date(now), expiresAt });
  setCookie(request, response, tokenOf(request)!, expiresAt);
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
