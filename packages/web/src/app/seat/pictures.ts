import { DestroyRef, effect, inject } from '@angular/core';

/**
 * Draws when what a picture shows has changed, once a picture of the browser; and again with each of the next ones for as long
 * as drawing says that something is still on its way. Where nothing changes the page is at rest.
 * @param shows reads the signals that say so
 * @param draw returns whether another picture is wanted at once
 */
export function drawsPictures(shows: () => void, draw: () => boolean): void {
  let asked = 0;
  const ask = () => {
    asked ||= requestAnimationFrame(() => {
      asked = 0;
      if (draw()) ask();
    });
  };
  effect(() => {
    shows();
    ask();
  });
  inject(DestroyRef).onDestroy(() => cancelAnimationFrame(asked));
}
