import { TestTime } from '../testing/test-time.js';
import { Clock } from './clock.js';

describe('The clock of a room', () => {
  let time: TestTime;
  let ticks: number;
  let late: number[];
  let perSecond: number;
  let clock: Clock;
  beforeEach(() => {
    time = new TestTime();
    ticks = 0;
    late = [];
    perSecond = 20;
    clock = new Clock(
      () => perSecond,
      () => ticks++,
      (ms) => late.push(ms),
      time,
    );
  });

  it('ticks as often as it should, also when it is started twice, and stops when told', () => {
    clock.start();
    clock.start();
    time.pass(1000);
    expect(ticks).toBe(20);
    clock.stop();
    time.pass(1000);
    expect([ticks, clock.running]).toEqual([20, false]);
  });

  it('goes by a new rate from when it is told of it, and stands still at none', () => {
    clock.start();
    time.pass(40);
    perSecond = 100;
    clock.repace();
    time.pass(100);
    expect(ticks).toBe(10);
    perSecond = 0;
    clock.repace();
    time.pass(100_000);
    expect(ticks).toBe(10);
  });

  it('makes up for a short delay, and says how late each tick came', () => {
    clock.start();
    time.skip(160);
    expect([ticks, late]).toEqual([3, [110, 60, 10]]);
    time.pass(40);
    expect(ticks).toBe(4);
  });

  it('is at most a tick late where the time goes back', () => {
    clock.start();
    time.pass(1020);
    expect(ticks).toBe(20);
    time.goBack(3_600_000);
    time.pass(1000);
    expect(ticks).toBeGreaterThanOrEqual(39);
    expect(ticks).toBeLessThanOrEqual(40);
    expect(Math.max(...late)).toBeLessThan(50);
  });

  it('lets others work between ticks that take long, and rests when it is told to', () => {
    let rest = 0;
    const busy = new Clock(
      () => perSecond,
      () => {
        ticks++;
        time.take(30);
      },
      undefined,
      time,
      () => rest,
    );
    busy.start();
    // Late by four ticks, of which each would be made up for at once otherwise.
    time.skip(250);
    expect(ticks).toBe(1);
    time.pass(0);
    expect(ticks).toBe(2);
    time.pass(1000);
    rest = 400;
    time.pass(50);
    const before = ticks;
    time.pass(1200);
    expect(ticks - before).toBeLessThanOrEqual(3);
    busy.stop();
  });

  it('does not owe the hours that a machine slept through', () => {
    clock.start();
    time.skip(3_600_000);
    // A few at once, and on from there at the usual rate.
    expect(ticks).toBe(6);
    time.pass(1000);
    expect(ticks).toBe(26);
  });
});
