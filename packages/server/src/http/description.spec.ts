import { answerFaults } from '../testing/described.js';
import { Harness } from '../testing/harness.js';
import { OPERATIONS, problemsOf } from './description.js';
import { openApi } from './openapi.js';

/** What stands for a name in a path that nothing has. */
const NOBODY = '00000000-0000-4000-8000-000000000000';

describe('The description of what can be asked', () => {
  let harness: Harness;
  beforeAll(async () => (harness = await Harness.start()));
  afterAll(() => harness.stop());

  // Whoever signs out asks nothing more: that one is asked elsewhere.
  for (const { method, path } of OPERATIONS.filter((operation) => !(operation.method === 'delete' && operation.path === '/api/session')))
    it(`speaks of what is there: ${method} ${path}`, async () => {
      const response = await harness.request(path.replace(/\{\w+\}/g, NOBODY), {
        method: method.toUpperCase(),
        ...(['post', 'put', 'patch'].includes(method) && { body: {}, headers: { 'If-Match': '"1"' } }),
      });
      const isThere = response.redirected || !(await response.text()).includes('There is nothing at this address');
      expect(isThere).toBeTrue();
    });

  it('is an OpenAPI document that has each of them, and what can be wrong with it', () => {
    const { paths } = openApi() as { paths: Record<string, Record<string, { responses: object }>> };
    const statuses = OPERATIONS.map(({ method, path }) => Object.keys(paths[path][method].responses).map(Number));
    const said = OPERATIONS.map((operation) => [...Object.keys(operation.answers).map(Number), ...problemsOf(operation)]);
    expect(statuses).toEqual(said.map((all) => all.sort((a, b) => a - b)));
  });

  it('says where an answer is other than it says', () => {
    const session = OPERATIONS.find(({ method, path }) => method === 'get' && path === '/api/session')!;
    const fine = JSON.stringify({ user: NOBODY });
    expect(answerFaults(session, 200, 'application/json', fine)).toEqual([]);
    expect(answerFaults(session, 200, 'application/json', '{"user":1}').join()).toContain('user: ');
    expect(answerFaults(session, 200, 'text/html', fine)).toEqual(['200 comes as text/html, not as application/json']);
    expect(answerFaults(session, 404, 'application/problem+json', '{}')).toEqual(['nothing is said of 404']);
    expect(answerFaults(session, 401, 'application/json', '{}')).toEqual(['401 comes as application/json']);
  });
});

describe('Who asks too often', () => {
  let harness: Harness;
  beforeAll(async () => (harness = await Harness.start()));
  afterAll(() => harness.stop());

  it('is told so as of anything that is wrong', async () => {
    for (let n = 0; n < 60; n++) await harness.request('/enter/tooOften');
    const refused = await harness.request('/enter/tooOften');
    expect(refused.status).toBe(429);
    expect(await refused.json()).toEqual(jasmine.objectContaining({ title: 'Too many requests' }));
  });
});
