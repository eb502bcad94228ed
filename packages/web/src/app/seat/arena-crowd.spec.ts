import * as fc from 'fast-check';
import { drawnApart, FARTHEST, NameLines } from './arena-crowd';

const body = (row: number, x: number, y: number, radius = 14) => ({ row, x, y, radius });
const distance = (a: { x: number; y: number }, b: { x: number; y: number }) => Math.hypot(a.x - b.x, a.y - b.y);

describe('Who stands on one spot', () => {
  it('is drawn beside the other, about where they stand', () => {
    const [one, other] = drawnApart([body(3, 200, 100), body(4, 200, 100)]);
    expect(distance(one, other)).toBeCloseTo(1.2 * 14, 5);
    expect(distance({ x: (one.x + other.x) / 2, y: (one.y + other.y) / 2 }, { x: 200, y: 100 })).toBeCloseTo(0, 5);
  });

  it('is drawn where they stand when nobody is near', () => {
    const apart = [body(1, 10, 10), body(2, 40, 10), body(3, 10, 60, 30)];
    expect(drawnApart(apart)).toEqual(apart);
  });

  it('is seen of five, each apart from each', () => {
    const five = drawnApart([1, 2, 3, 4, 5].map((row) => body(row, 50, 50)));
    const pairs = five.flatMap((one, at) => five.slice(at + 1).map((other) => distance(one, other)));
    expect(Math.min(...pairs)).toBeGreaterThan(10);
  });

  it('is never drawn farther off than may be, in the order they came', () => {
    const bodies = fc.array(
      fc.record({
        row: fc.nat(50),
        x: fc.double({ min: 0, max: 60, noNaN: true }),
        y: fc.double({ min: 0, max: 60, noNaN: true }),
        radius: fc.double({ min: 2, max: 40, noNaN: true }),
      }),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(bodies, (all) => {
        const drawn = drawnApart(all);
        expect(drawn.map(({ row }) => row)).toEqual(all.map(({ row }) => row));
        expect(drawn.every((one, at) => distance(one, all[at]) <= FARTHEST * all[at].radius + 1e-9)).toBeTrue();
      }),
      { numRuns: 100 },
    );
  });
});

describe('Names in the arena', () => {
  it('stand below their bodies where there is room', () => {
    const bodies = [body(1, 100, 20), body(2, 150, 20), body(3, 100, 80)];
    const names = new NameLines(12, bodies);
    expect(bodies.map((one) => names.place(one.x, one, 20))).toEqual([46, 46, 106]);
  });

  it('stand above them where another body is below', () => {
    const bodies = [body(1, 100, 40), body(2, 104, 68)];
    const names = new NameLines(12, bodies);
    expect(bodies.map((one) => names.place(one.x, one, 20))).toEqual([20, 94]);
  });

  it('stand in lines of their own where they would lie over each other', () => {
    const bodies = [body(1, 100, 60), body(2, 108, 60), body(3, 104, 60)];
    const names = new NameLines(12, bodies);
    expect(bodies.map((one) => names.place(one.x, one, 20))).toEqual([86, 40, 98]);
  });

  it('stand over others rather than far away', () => {
    const crowd = Array.from({ length: 8 }, (_, row) => body(row, 100, 60));
    const names = new NameLines(12, crowd);
    expect(crowd.map((one) => names.place(one.x, one, 20)).slice(5)).toEqual([86, 86, 86]);
  });
});
