import { DestroyRef, Directive, ElementRef, inject, output } from '@angular/core';

/** Tells when an element comes into sight, such as the end of a list of which more is drawn then. */
@Directive({ selector: '[eeReached]' })
export class Reached {
  readonly eeReached = output();

  constructor() {
    const observer = new IntersectionObserver((seen) => {
      if (seen.some(({ isIntersecting }) => isIntersecting)) this.eeReached.emit();
    });
    observer.observe(inject<ElementRef<HTMLElement>>(ElementRef).nativeElement);
    inject(DestroyRef).onDestroy(() => observer.disconnect());
  }
}
