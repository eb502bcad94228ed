import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { openBench, Seen } from '../testing/bench';
import { drawsPictures } from './pictures';

@Component({ selector: 'ee-drawn', template: '', changeDetection: ChangeDetectionStrategy.OnPush })
class Drawn {
  readonly what = signal('');
  /** Pictures for which something is on its way yet. */
  moving = 0;
  readonly pictures: string[] = [];

  constructor() {
    drawsPictures(
      () => this.what(),
      () => {
        this.pictures.push(this.what());
        return this.moving-- > 0;
      },
    );
  }
}

describe('Pictures', () => {
  let seen: Seen<Drawn>;
  let drawn: Drawn;

  /** Waits until the browser has drawn a few times. */
  const later = async () => {
    await seen.settle();
    for (let n = 0; n < 4; n++) await new Promise((done) => requestAnimationFrame(done));
  };

  beforeEach(async () => {
    openBench();
    seen = await Seen.of(Drawn, {});
    drawn = seen.fixture.componentInstance;
    await later();
    drawn.pictures.length = 0;
  });

  it('are not drawn where nothing has changed', async () => {
    await later();
    expect(drawn.pictures).toEqual([]);
  });

  it('are drawn once for all that has changed since the last', async () => {
    drawn.what.set('one');
    drawn.what.set('two');
    await later();
    expect(drawn.pictures).toEqual(['two']);
  });

  it('are drawn on for as long as something is on its way', async () => {
    drawn.moving = 2;
    drawn.what.set('one');
    await later();
    expect(drawn.pictures).toEqual(['one', 'one', 'one']);
  });

  it('are not drawn any more of what is gone', async () => {
    drawn.what.set('one');
    await seen.settle();
    seen.fixture.destroy();
    await later();
    expect(drawn.pictures).toEqual([]);
  });
});
