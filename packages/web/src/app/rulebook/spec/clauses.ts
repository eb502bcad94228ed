import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { SpecContext } from './spec-context';

/** Something more that a spec can say: a field with what it begins as. */
export interface Clause {
  readonly at: string;
  readonly name: string;
  readonly begins: unknown;
  /** Whether it can be said of this entry as it is now. */
  readonly fits?: (entry: Readonly<Record<string, unknown>>) => boolean;
}

/** What else can be said, as chips; a spec puts those of its own first. */
@Component({
  selector: 'ee-clauses',
  template: `
    <p>
      <span class="soft">Add</span>
      <ng-content />
      @for (clause of open(); track clause.at) {
        <button type="button" class="chip" (click)="add(clause)">{{ clause.name }}</button>
      }
    </p>
    @if (refusal()) {
      <p class="refusal" role="alert">{{ refusal() }}</p>
    }
  `,
  styles: `
    p {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 5px 7px;
      margin: 4px 0 8px;
      font-size: 12.5px;
    }
    p > span:only-child {
      display: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Clauses {
  readonly all = input.required<readonly Clause[]>();
  private readonly context = inject(SpecContext);
  protected readonly refusal = signal('');
  protected readonly open = computed(() => {
    const entry = this.context.entry();
    return entry ? this.all().filter((clause) => this.context.value(clause.at) === undefined && (clause.fits?.(entry) ?? true)) : [];
  });

  protected async add(clause: Clause): Promise<void> {
    const problems = await this.context.set(clause.at, clause.begins);
    this.refusal.set(problems.map((p) => p.message).join(' '));
  }
}
