import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { DEEPEST, isTooDeep } from '@eager-ember/core';
import express, { type Express } from 'express';
import { rateLimit } from 'express-rate-limit';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { Registry } from 'prom-client';
import type { Sequelize } from 'sequelize';
import type { Config } from '../config.js';
import type { DraftingDesk } from '../drafts/desk.js';
import type { RoomKeeper } from '../rooms/keeper.js';
import { playerRoutes } from './players.js';
import { HttpProblem, noSuchPath, problemHandler } from './problems.js';
import type { Hosts } from './hosts.js';
import { joinRoutes, roomRoutes } from './rooms.js';
import { rulesetRoutes } from './rulesets.js';
import { testRunRoutes } from './test-runs.js';
import { trailRoutes } from '../trail/routes.js';
import type { Trail } from '../trail/trail.js';
import { type Sessions, sameSiteWrites } from './sessions.js';

export interface AppParts {
  readonly config: Config;
  readonly log: Logger;
  readonly sequelize: Sequelize;
  readonly sessions: Sessions;
  readonly keeper: RoomKeeper;
  readonly desk: DraftingDesk;
  /** Runs checks and hunts. */
  readonly runner: DraftingDesk;
  readonly metrics: Registry;
  readonly hosts: Hosts;
  readonly trail: Trail;
}

const MINUTE = 60_000;
const limited = (most: number) =>
  rateLimit({
    windowMs: MINUTE,
    limit: most,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: () => {
      throw new HttpProblem(429, 'Too many requests', 'Try again in a minute.');
    },
  });

const policy = helmet({
  contentSecurityPolicy: {
    directives: {
      defaultSrc: ["'self'"],
      // The interface's framework puts component styles into the page; scripts stay strict.
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      connectSrc: ["'self'"],
      workerSrc: ["'self'", 'blob:'],
      upgradeInsecureRequests: null,
    },
  },
  strictTransportSecurity: false,
});

/** The HTTP side of the server. */
export function createApp({ config, log, sequelize, sessions, keeper, desk, runner, metrics, hosts, trail }: AppParts): Express {
  const app = express();
  app.disable('x-powered-by').set('etag', false).set('trust proxy', config.TRUSTED_PROXIES);
  app.use(hosts.required, policy);
  app.get('/healthz', async (_request, response) => {
    await sequelize.query('SELECT 1');
    response.json({ ok: true });
  });
  app.get('/metrics', async (request, response) => {
    const bearer = config.METRICS_TOKEN !== undefined && request.get('authorization') === `Bearer ${config.METRICS_TOKEN}`;
    if (!bearer && !(await sessions.sessionOf(request))) throw new HttpProblem(401, 'You are not signed in');
    response.type(metrics.contentType).send(await metrics.metrics());
  });
  app.get('/enter/:token', limited(60), sessions.enter);

  const api = express.Router();
  api.use(limited(3000));
  api.use('/join', limited(300), joinRoutes());
  api.use(sessions.required, sameSiteWrites);
  api.use(express.json({ limit: '2mb', type: ['application/json', 'application/json-patch+json'] }));
  // Before anything recursive touches it: a few kilobytes of brackets would exhaust the stack.
  api.use((request, _response, next) => {
    if (isTooDeep(request.body))
      throw new HttpProblem(422, 'The body is nested too deeply', `No ruleset is deeper than ${DEEPEST} levels.`);
    next();
  });
  api.use(sessions.routes());
  api.use(
    '/rulesets',
    rulesetRoutes(sequelize, desk, trail, (ruleset, patch) => keeper.edited(ruleset, patch)),
  );
  api.use('/rulesets/:id/players', playerRoutes(keeper, desk, trail));
  api.use('/rulesets/:id', testRunRoutes(runner));
  api.use('/rulesets/:id/trail', trailRoutes(trail));
  api.use('/trail', trailRoutes(trail));
  api.use('/rooms', roomRoutes(keeper, trail));
  api.use(noSuchPath);
  app.use('/api', api);

  if (config.WEB_ROOT !== undefined) serveWorkbench(app, config.WEB_ROOT);
  app.use(noSuchPath);
  app.use(problemHandler(log));
  return app;
}

/** Serves the built files; every other path is the workbench's own, which finds its way itself. */
function serveWorkbench(app: Express, root: string): void {
  const page = join(root, 'index.html');
  if (!existsSync(page)) throw new Error(`WEB_ROOT has no index.html: ${root}`);
  app.use(
    express.static(root, {
      index: false,
      setHeaders: (response, file) =>
        void response.setHeader('Cache-Control', /-[A-Z0-9]{8}\./.test(file) ? 'public, max-age=31536000, immutable' : 'no-cache'),
    }),
  );
  app.get(/^\/(?!api\/|enter\/|ws\/).*/, (request, response, next) => {
    if (!request.accepts('html')) return next();
    response.set('Cache-Control', 'no-cache').sendFile(page);
  });
}
