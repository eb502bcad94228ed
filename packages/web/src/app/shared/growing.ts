import { DestroyRef, Directive, effect, ElementRef, inject, input, signal } from '@angular/core';

/** So many of a long list are drawn at a time. */
const STEP = 40;

/** How much of a list is drawn that may have thousands: more, as one comes to the end of what is. */
export class Growing {
  private readonly length = signal(STEP);
  readonly drawn = this.length.asReadonly();

  more(): void {
    this.length.update((length) => length + STEP);
  }

  /** It is another list. */
  restart(): void {
    this.length.set(STEP);
  }
}

/** The end of what is drawn of a list: once it is in sight, more is drawn. */
@Directive({ selector: '[eeEndOf]' })
export class EndOf {
  readonly eeEndOf = input.required<Growing>();

  constructor() {
    const end = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const observer = new IntersectionObserver((seen) => {
      if (seen.some(({ isIntersecting }) => isIntersecting)) this.eeEndOf().more();
    });
    effect(() => {
      this.eeEndOf().drawn();
      // Whoever is observed anew is told of once.
      observer.unobserve(end);
      observer.observe(end);
    });
    inject(DestroyRef).onDestroy(() => observer.disconnect());
  }
}
