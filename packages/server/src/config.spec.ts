import { readConfig } from './config.js';
import { HttpProblem, isDatabaseGone } from './http/problems.js';

describe('The configuration', () => {
  it('has defaults for all but the database', () => {
    expect(readConfig({ DATABASE_URL: 'postgres://a:b@127.0.0.1:5432/c' })).toEqual({
      DATABASE_URL: 'postgres://a:b@127.0.0.1:5432/c',
      PORT: 4600,
      HOST: '127.0.0.1',
      LOG_LEVEL: 'info',
    });
  });

  it('says what is wrong with it, all at once', () => {
    expect(() => readConfig({ PORT: 'x', LOG_LEVEL: 'loud' })).toThrowError(/DATABASE_URL.*\n.*PORT.*\n.*LOG_LEVEL/s);
  });
});

describe('A lost database', () => {
  it('is told from other errors', () => {
    expect(isDatabaseGone(Object.assign(new Error('x'), { code: 'ECONNREFUSED' }))).toBeTrue();
    expect(isDatabaseGone(Object.assign(new Error('x'), { parent: { code: '57P01' } }))).toBeTrue();
    expect(isDatabaseGone(new Error('Connection terminated unexpectedly'))).toBeTrue();
    expect(isDatabaseGone(new HttpProblem(422, 'x'))).toBeFalse();
  });
});
