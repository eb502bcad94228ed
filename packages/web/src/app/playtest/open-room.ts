import { Injectable, signal } from '@angular/core';

/** The room that this page has open, wherever in the workbench one is. */
@Injectable({ providedIn: 'root' })
export class OpenRoom {
  readonly id = signal<string | undefined>(undefined);
  /** What the strip below says of it. */
  readonly status = signal('');
}
