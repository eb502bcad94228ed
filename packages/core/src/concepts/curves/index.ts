import { defineConcept } from '../../world/concept.js';
import { curves } from './state.js';
import { type CurveEntry, schema } from './schema.js';

export { curves } from './state.js';
export type { CurveEntry } from './schema.js';

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

/** Curves: tables of points that formulas read with `curve(id, x)`. */
export const curvesConcept = defineConcept(curves, {
  sections: { curves: { kind: 'chapter', title: 'Curves', entry: schema } },
  compile: (context) => context.entries<CurveEntry>('curves'),
  vocabulary: (ids) => ({
    functions: [
      {
        name: 'curve',
        chapter: 'curves',
        ids: ids('curves'),
        amounts: 1,
        yields: 'amount',
        // A formula may be evaluated before any world exists (a constant), but a curve's call never is one.
        read: (index) => (world, _actor, x) => heightAt(curves.of(world.rules)[index].points, x),
      },
    ],
  }),
});
