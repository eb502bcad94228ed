import { ChangeDetectionStrategy, Component, computed, inject, Injectable, input, output, signal } from '@angular/core';
import { SpecContext } from './spec-context';

/** What is wrong with the parts of one sentence, by part. */
@Injectable()
export class Refusals {
  private readonly all = signal<ReadonlyMap<object, string>>(new Map());
  readonly texts = computed(() => [...new Set(this.all().values())]);

  private readonly hinted = signal<ReadonlyMap<object, string>>(new Map());
  /** What can be typed where something is being typed. */
  readonly hints = computed(() => [...new Set(this.hinted().values())]);

  put(part: object, message: string | undefined): void {
    this.all.set(withOne(this.all(), part, message));
  }

  hint(part: object, message: string | undefined): void {
    this.hinted.set(withOne(this.hinted(), part, message || undefined));
  }
}

function withOne(map: ReadonlyMap<object, string>, key: object, value: string | undefined): ReadonlyMap<object, string> {
  const next = new Map(map);
  if (value === undefined) next.delete(key);
  else next.set(key, value);
  return next;
}

/** A sentence of a spec, with what is wrong with it below. A clause can be taken out. */
@Component({
  selector: 'ee-sentence',
  template: `
    <p>
      <ng-content />
      @if (clause()) {
        <button type="button" class="out" (click)="remove()" [attr.aria-label]="'Take out: ' + clause()">×</button>
      }
    </p>
    @for (text of refusals.texts(); track text) {
      <p class="refusal" role="alert">{{ text }}</p>
    } @empty {
      @for (text of refusals.hints(); track text) {
        <p class="hint">{{ text }}</p>
      }
    }
  `,
  styles: `
    :host {
      display: block;
      position: relative;
      margin-bottom: 4px;
    }
    p:first-child {
      font: 16.5px/1.5 var(--serif);
    }
    /* Over what stands above it: nothing moves away from under a pointer as it comes and goes, and no list hides it. */
    .hint {
      position: absolute;
      bottom: 100%;
      z-index: 2;
      padding: 1px 8px 2px;
      border: 1px solid var(--hair);
      border-radius: 3px;
      background: var(--paper);
      color: var(--soft);
      font-size: 12px;
      pointer-events: none;
    }
    .refusal {
      margin: 4px 0 6px;
    }
    .out {
      color: var(--soft);
      font: 16px var(--sans);
      padding: 0 6px;
      opacity: 0.55;
    }
    .out:hover,
    .out:focus-visible {
      color: var(--bad);
      opacity: 1;
    }
  `,
  providers: [Refusals],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Sentence {
  protected readonly refusals = inject(Refusals);
  private readonly context = inject(SpecContext);
  /** What is taken out by the × behind the sentence; none where it is no clause. */
  readonly clause = input<string>('');
  /** The field that goes; where the clause is more than a field, listen to `removed`. */
  readonly at = input<string>('');
  readonly removed = output<void>();

  protected async remove(): Promise<void> {
    if (this.at() === '') return this.removed.emit();
    const [problem] = await this.context.set(this.at(), undefined);
    this.refusals.put(this, problem?.message);
  }
}
