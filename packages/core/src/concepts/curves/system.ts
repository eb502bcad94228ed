import { type CurveEntry } from './schema.js';

/** The height of a curve at x: straight between its points, level beyond them. */
export function heightAt(points: CurveEntry['points'], x: number): number {
  if (x <= points[0][0]) return points[0][1];
  for (let i = 1; i < points.length; i++) {
    const [x1, y1] = points[i];
    const [x0, y0] = points[i - 1];
    if (x <= x1) return y0 + ((x - x0) / (x1 - x0)) * (y1 - y0);
  }
  return points[points.length - 1][1];
}
