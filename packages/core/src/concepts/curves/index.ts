import { defineConcept } from '../../world/concept.js';
import { curves } from './state.js';
import { type CurveEntry, schema } from './schema.js';
import { heightAt } from './system.js';

export { curves } from './state.js';
export type { CurveEntry } from './schema.js';
export { heightAt } from './system.js';

/** Curves: tables of points that formulas read with `curve(id, x)`. */
export const curvesConcept = defineConcept(curves, {
  sections: {
    curves: { kind: 'chapter', title: 'Curves', entry: schema, unused: 'no formula reads it. Read it with curve(…), or delete it.' },
  },
  compile: (context) => context.entries<CurveEntry>('curves'),
  vocabulary: (ids) => ({
    functions: [
      {
        name: 'curve',
        chapter: 'curves',
        ids: ids('curves'),
        amounts: 1,
        yields: 'amount',
        noun: 'curve',
        // A formula may be evaluated before any world exists (a constant), but a curve's call never is one.
        read: (index) => (world, _actor, x) => heightAt(curves.of(world.rules)[index].points, x),
      },
    ],
  }),
});
