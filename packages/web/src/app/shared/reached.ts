import { DestroyRef, Directive, effect, ElementRef, inject, input, output } from '@angular/core';

/** Tells when the end of a list is in sight, of which more is drawn then. */
@Directive({ selector: '[eeReached]' })
export class Reached {
  /** How much is drawn: at each length it is told anew. */
  readonly drawn = input.required<number>();
  readonly eeReached = output();

  constructor() {
    const end = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const observer = new IntersectionObserver((seen) => {
      if (seen.some(({ isIntersecting }) => isIntersecting)) this.eeReached.emit();
    });
    effect(() => {
      this.drawn();
      // Whoever is observed anew is told of once.
      observer.unobserve(end);
      observer.observe(end);
    });
    inject(DestroyRef).onDestroy(() => observer.disconnect());
  }
}
