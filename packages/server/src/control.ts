import { rmSync } from 'node:fs';
import { createServer, request, type Server } from 'node:http';
import type { Logger } from 'pino';

/** The longest path that a socket in the file system may have, in bytes. */
const LONGEST_PATH = 103;

/**
 * A door for the machine's own terminal: HTTP over a socket in the file system, which nobody but its owner can open. POST /link
 * answers with a new sign-in link.
 * @returns what closes it; undefined where the path can't be had
 */
export async function openControl(path: string, newLink: () => string, log: Logger): Promise<(() => Promise<void>) | undefined> {
  if (Buffer.byteLength(path) > LONGEST_PATH) {
    log.warn({ path }, 'the path of the control socket is too long: “ember link” does not work here');
    return undefined;
  }
  // One that a server has left that was killed; where one still answers, it stays.
  if (await answers(path)) {
    log.warn({ path }, 'another server answers at the control socket');
    return undefined;
  }
  rmSync(path, { force: true });
  const server = createServer((asked, response) => {
    if (asked.method === 'POST' && asked.url === '/link') response.writeHead(200, { 'content-type': 'text/plain' }).end(`${newLink()}\n`);
    else response.writeHead(404).end();
  });
  try {
    await listen(server, path);
  } catch (error) {
    log.warn({ err: error, path }, 'the control socket can’t be opened: “ember link” does not work here');
    return undefined;
  }
  return () => new Promise((done) => server.close(() => done()).closeAllConnections());
}

/** Listens on a path that its owner alone may use, from its first moment on. */
function listen(server: Server, path: string): Promise<void> {
  return new Promise((done, fail) => {
    server.once('error', fail);
    const before = process.umask(0o177);
    try {
      server.listen(path, () => done());
    } finally {
      process.umask(before);
    }
  });
}

function answers(path: string): Promise<boolean> {
  return new Promise((done) => {
    const asking = request({ socketPath: path, path: '/', timeout: 2000 }, (response) => {
      response.resume();
      done(true);
    });
    asking.on('timeout', () => asking.destroy());
    asking.on('error', () => done(false));
    asking.end();
  });
}
