import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { SpecContext } from '../rulebook/spec/spec-context';
import { isTyping } from '../shared/keys';
import { CheckResults } from './check-results';

/** How all checks stand, below their list; and the keys that go through those that fail. */
@Component({
  selector: 'ee-check-foot',
  template: `
    @if (results.total() > 0) {
      <p role="status">
        @if (results.failing().length > 0) {
          <b class="bad">{{ results.failing().length }} {{ results.failing().length === 1 ? 'fails' : 'fail' }}</b>,
        }
        {{ holding() }} {{ holding() === 1 ? 'holds' : 'hold' }}
      </p>
      <p class="soft">{{ results.running() ? 'running …' : 'run at every edit, ' + results.took() + ' ms' }}</p>
      <p class="acts">
        <button type="button" class="soft" (click)="results.again()"><kbd>R</kbd> run all</button>
        <button type="button" class="soft" [disabled]="results.failing().length === 0" (click)="next()"><kbd>N</kbd> next failure</button>
      </p>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 8px 4px 2px 8px;
      border-top: 1px solid var(--hair);
      font-size: 12px;
    }
    :host:empty {
      display: none;
    }
    .bad {
      color: var(--bad);
    }
    .acts {
      display: flex;
      gap: 10px;
      margin-top: 3px;
    }
    button:hover:enabled {
      color: var(--ember);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'key($event)' },
})
export class CheckFoot {
  protected readonly results = inject(CheckResults);
  private readonly context = inject(SpecContext);
  protected readonly holding = computed(() => this.results.holding().length);

  protected next(): void {
    const id = this.results.nextFailing(this.context.id());
    if (id !== undefined) this.context.go('checks', id);
  }

  protected key(event: KeyboardEvent): void {
    if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
    const letter = event.key.toLowerCase();
    if (letter === 'n') this.next();
    else if (letter === 'r') void this.results.again();
  }
}
