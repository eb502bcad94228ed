import { cosine, sine } from './angles.js';

describe('Sine and cosine', () => {
  it('are those of the platform, to a trillionth', () => {
    for (let degrees = -720; degrees <= 720; degrees += 7.3) {
      expect(sine(degrees)).toBeCloseTo(Math.sin((degrees * Math.PI) / 180), 12);
      expect(cosine(degrees)).toBeCloseTo(Math.cos((degrees * Math.PI) / 180), 12);
    }
  });

  it('are exact at the quarters', () => {
    expect([0, 90, 180, 270].map(sine)).toEqual([0, 1, 0, -1]);
    expect([0, 180].map(cosine)).toEqual([1, -1]);
  });

  it('lie on the circle', () => {
    for (let degrees = 0; degrees < 360; degrees++) expect(sine(degrees) ** 2 + cosine(degrees) ** 2).toBeCloseTo(1, 12);
  });
});
