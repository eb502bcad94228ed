import { answerFaults, OPERATIONS } from '../http/description.js';

const patterns = OPERATIONS.map((operation) => ({
  operation,
  pattern: new RegExp(`^${operation.path.replace(/\{\w+\}/g, '[^/]+')}$`),
}));

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
