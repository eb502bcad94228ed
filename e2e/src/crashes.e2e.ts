import { surviveCrashes } from './crashes.js';

describe('A server that is killed at random moments', () => {
  it('has lost nothing that it had told to be stored, and has nothing twice', async () => {
    const report = await surviveCrashes(4, 20_261_123);
    expect(report.faults).toEqual([]);
    expect(report.earned).toBeGreaterThan(0);
    expect(report.bought).toBeGreaterThan(0);
  });
});
