import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import pino, { type Logger } from 'pino';
import { Gauge, Histogram, Registry } from 'prom-client';
import type { Config } from './config.js';
import { openControl } from './control.js';
import { migrate } from './database/migrations.js';
import { connect } from './database/models.js';
import { sayInUse } from './database/presence.js';
import { seed } from './database/seed.js';
import proxyAddr from 'proxy-addr';
import { DraftingDesk } from './drafts/desk.js';
import { createApp } from './http/app.js';
import { Hosts } from './http/hosts.js';
import { Sessions } from './http/sessions.js';
import { RoomKeeper } from './rooms/keeper.js';
import { warmUp } from './rooms/warm-up.js';
import { Trail } from './trail/trail.js';
import { attachSockets } from './sockets/sockets.js';

export interface RunningServer {
  readonly url: string;
  /** A sign-in address that works once. */
  readonly signIn: string;
  /** A new one. */
  readonly newLink: () => string;
  readonly close: () => Promise<void>;
}

/**
 * Migrates, seeds, and serves until closed.
 * @param desk reads rulesets for this server and others; one of its own, closed with it, where none is given. Checks and hunts are
 * run by another in any case: whoever edits does not wait for them.
 */
export async function startServer(
  config: Config,
  log: Logger = pino({ level: config.LOG_LEVEL }),
  desk?: DraftingDesk,
): Promise<RunningServer> {
  const leave = await sayInUse(config.DATABASE_URL, log);
  const own = desk ?? new DraftingDesk();
  const runner = new DraftingDesk();
  const ended = async () => {
    await runner.close();
    if (own !== desk) await own.close();
    await leave();
  };
  try {
    const server = await serve(config, log, own, runner);
    return { ...server, close: () => server.close().finally(ended) };
  } catch (error) {
    await ended();
    throw error;
  }
}

async function serve(config: Config, log: Logger, desk: DraftingDesk, runner: DraftingDesk): Promise<RunningServer> {
  const sequelize = connect(config.DATABASE_URL, (sql) => log.trace(sql));
  for (const step of await migrate(sequelize)) log.info(`migrated: ${step}`);
  await seed(config.DEMO_RULESET);
  await warmUp(config.DEMO_RULESET, desk);

  const metrics = new Registry();
  const buckets = [0.0005, 0.001, 0.002, 0.005, 0.01, 0.02, 0.05];
  const ticks = new Histogram({ name: 'ember_tick_seconds', help: 'Time a room takes for a tick', buckets, registers: [metrics] });
  const late = new Histogram({ name: 'ember_tick_late_seconds', help: 'How late a tick came', buckets, registers: [metrics] });
  const keeper = new RoomKeeper(sequelize, desk, log, { tickSeconds: (s) => ticks.observe(s), lateSeconds: (s) => late.observe(s) });
  new Gauge({
    name: 'ember_rooms',
    help: 'Open rooms',
    registers: [metrics],
    collect() {
      this.set(keeper.count);
    },
  });

  const trail = new Trail(log);
  const sessions = new Sessions(trail);
  const publicHost = config.PUBLIC_URL === undefined ? [] : [new URL(config.PUBLIC_URL).hostname];
  const hosts = new Hosts([config.HOST, ...publicHost, ...config.ALLOWED_HOSTS]);
  const server = createServer(createApp({ config, log, sequelize, sessions, keeper, desk, runner, metrics, hosts, trail }));
  const trusted = proxyAddr.compile(config.TRUSTED_PROXIES);
  const sockets = attachSockets(server, { keeper, sessions, hosts, trail, log, addressOf: (request) => proxyAddr(request, trusted) });
  await listen(server, config.PORT, config.HOST);
  const { port } = server.address() as AddressInfo;
  const url = `http://${config.HOST}:${port}`;

  const newLink = () => new URL(`/enter/${sessions.newLink()}`, config.PUBLIC_URL ?? url).href;
  const printed = () => {
    trail.note({ who: null, ruleset: null, what: 'linkPrinted', about: {} });
    return newLink();
  };
  const closeControl = config.CONTROL_SOCKET === undefined ? undefined : await openControl(config.CONTROL_SOCKET, printed, log);

  const close = async () => {
    await closeControl?.();
    // Who comes now is not let in any more; who is there is told why they have to go.
    server.removeAllListeners('upgrade').on('upgrade', (_request, socket) => socket.destroy());
    await keeper.close();
    for (const socket of sockets.clients) socket.terminate();
    sockets.close();
    await new Promise<void>((done) => {
      server.close(() => done());
      server.closeAllConnections();
    });
    await trail.flush();
    await sequelize.close();
  };
  return { url, signIn: newLink(), newLink, close };
}

function listen(server: Server, port: number, host: string): Promise<void> {
  return new Promise((done, fail) => {
    server.once('error', fail);
    server.listen(port, host, () => done());
  });
}
