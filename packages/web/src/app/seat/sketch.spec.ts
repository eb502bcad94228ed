import { Sketch } from './sketch';

describe('A sketch', () => {
  let context: CanvasRenderingContext2D;
  let sketch: Sketch;

  const square = (x: number, colour = '#f00') => {
    sketch.fillStyle = colour;
    sketch.fillRect(x, 0, 10, 10);
  };
  /** What is seen at a point, as red, green, blue. */
  const seenAt = (x: number, y: number) => [...context.getImageData(x, y, 1, 1).data].slice(0, 3);

  beforeEach(() => {
    context = Object.assign(document.createElement('canvas'), { width: 60, height: 40 }).getContext('2d')!;
    sketch = new Sketch(context);
  });

  it('is drawn as if it had been drawn at once', () => {
    sketch.setTransform(2, 0, 0, 2, 0, 0);
    square(0);
    sketch.save();
    sketch.beginPath();
    sketch.rect(10, 0, 5, 5);
    sketch.clip();
    square(10, '#0f0');
    sketch.restore();
    sketch.draw(false);
    expect([seenAt(5, 5), seenAt(25, 5), seenAt(35, 5)]).toEqual([
      [255, 0, 0],
      [0, 255, 0],
      [0, 0, 0],
    ]);
  });

  it('is drawn only where it looks other than the last', () => {
    const filled = spyOn(context, 'fillRect').and.callThrough();
    for (const x of [0, 0, 5, 5]) {
      square(x);
      sketch.draw(false);
    }
    expect(filled.calls.allArgs()).toEqual([
      [0, 0, 10, 10],
      [5, 0, 10, 10],
    ]);
  });

  it('is drawn again where that is asked for', () => {
    for (const anew of [false, true]) {
      context.clearRect(0, 0, 60, 40);
      square(0);
      sketch.draw(anew);
    }
    expect(seenAt(5, 5)).toEqual([255, 0, 0]);
  });

  it('begins each picture with the same pen', () => {
    sketch.globalAlpha = 0.2;
    sketch.setLineDash([4, 2]);
    sketch.draw(false);
    expect(sketch.globalAlpha).toBe(1);
    expect([context.globalAlpha, context.getLineDash()]).toEqual([1, []]);
  });

  it('knows how strong its pen is, also where that was put back', () => {
    sketch.globalAlpha = 0.5;
    sketch.save();
    sketch.globalAlpha *= 0.5;
    expect(sketch.globalAlpha).toBe(0.25);
    sketch.restore();
    expect(sketch.globalAlpha).toBe(0.5);
  });

  it('measures text in the letters that were asked for', () => {
    sketch.font = '20px serif';
    const wide = sketch.measureText('Brinewick').width;
    sketch.font = '10px serif';
    expect(sketch.measureText('Brinewick').width).toBeCloseTo(wide / 2, 0);
  });
});
