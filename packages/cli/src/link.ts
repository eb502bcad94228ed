import { request } from 'node:http';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** How long the server may take to answer. */
const PATIENCE_MS = 10_000;

/** Where the start command keeps what is its own. */
export const usualHome = ({ EMBER_HOME }: NodeJS.ProcessEnv): string =>
  EMBER_HOME ?? fileURLToPath(new URL('../../../.data', import.meta.url));

const usualSocket = (env: NodeJS.ProcessEnv): string => env['CONTROL_SOCKET'] ?? join(usualHome(env), 'control.sock');

/** `ember link`: prints a sign-in link and returns the exit code. */
export async function link(socket = usualSocket(process.env)): Promise<number> {
  try {
    process.stdout.write(await askForLink(socket));
    return 0;
  } catch (error) {
    process.stderr.write(`${why(error as NodeJS.ErrnoException, socket)}\n`);
    return 2;
  }
}

function why({ code, message }: NodeJS.ErrnoException, socket: string): string {
  if (code === 'EACCES') return `${socket} belongs to somebody else: only who runs the server may ask it for a link.`;
  if (code === 'ENOENT' || code === 'ECONNREFUSED')
    return `No server answers at ${socket}. Start one by npm start, or say where its socket is by --socket.`;
  return `The server at ${socket} gave no link: ${message}.`;
}

function askForLink(socketPath: string): Promise<string> {
  return new Promise((done, fail) => {
    const asking = request({ socketPath, method: 'POST', path: '/link', timeout: PATIENCE_MS }, (response) => {
      let text = '';
      response.setEncoding('utf8').on('data', (part: string) => (text += part));
      response.on('error', fail);
      response.on('end', () => (response.statusCode === 200 ? done(text) : fail(new Error(`it answered ${response.statusCode}`))));
    });
    asking.on('timeout', () => asking.destroy(new Error('it took too long')));
    asking.on('error', fail).end();
  });
}
