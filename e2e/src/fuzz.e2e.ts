import { fuzz } from './fuzz/fuzz.js';

describe('A server that is sent what it should not be sent', () => {
  it('answers all of it without failing, and lets others play on', async () => {
    const { faults, played } = await fuzz({ messages: 600, bodies: 60, rulesets: 14, seed: 20_261_128 });
    expect(faults).toEqual([]);
    expect(played).toBeGreaterThan(0);
  });
});
