import { readConfig } from './config.js';
import { isDatabaseGone } from './database/gone.js';
import { HttpProblem } from './http/problems.js';

describe('The configuration', () => {
  it('has defaults for all but the database', () => {
    expect(readConfig({ DATABASE_URL: 'postgres://a:b@127.0.0.1:5432/c' })).toEqual({
      DATABASE_URL: 'postgres://a:b@127.0.0.1:5432/c',
      PORT: 4600,
      HOST: '127.0.0.1',
      LOG_LEVEL: 'info',
      ALLOWED_HOSTS: [],
      TRUSTED_PROXIES: [],
    });
  });

  it('reads lists', () => {
    const { ALLOWED_HOSTS, TRUSTED_PROXIES } = readConfig({
      DATABASE_URL: 'postgres://a:b@127.0.0.1:5432/c',
      ALLOWED_HOSTS: 'ember.example, harbour.example',
      TRUSTED_PROXIES: 'loopback,10.0.0.0/8',
    });
    expect([ALLOWED_HOSTS, TRUSTED_PROXIES]).toEqual([
      ['ember.example', 'harbour.example'],
      ['loopback', '10.0.0.0/8'],
    ]);
  });

  it('says what is wrong with it, all at once', () => {
    expect(() => readConfig({ PORT: 'x', LOG_LEVEL: 'loud', TRUSTED_PROXIES: 'anybody' })).toThrowError(
      /DATABASE_URL.*\n.*PORT.*\n.*TRUSTED_PROXIES.*\n.*LOG_LEVEL/s,
    );
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
