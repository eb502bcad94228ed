import { statesTable } from '@eager-ember/core';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { displayOf } from '../seat/display';
import type { RoomLink } from '../seat/room-link';
import { clock } from './trace';

/** The states of an actor: what it may do in each, which one it is in, and how it came there. */
@Component({
  selector: 'ee-state-sheet',
  imports: [RouterLink],
  template: `
    <div class="sheet">
      <ul aria-label="States">
        @for (state of states(); track state.id) {
          <li [class.here]="state.id === now()?.id" [attr.aria-current]="state.id === now()?.id ? 'true' : null">
            <a [routerLink]="['/r', ruleset(), 'rulebook', 'states', state.id]">{{ state.label }}</a>
            <span class="soft">{{ state.says }}</span>
          </li>
        }
      </ul>
      <section>
        <p>
          {{ name() }} is <b>{{ now()?.label?.toLowerCase() }}</b
          >, since <span class="mono">{{ clockOf(since()) }}</span
          >@if (left() > 0) {, for <span class="mono">{{ left().toFixed(1) }} s</span> more}.
        </p>
        <ol aria-label="Transitions">
          @for (change of changes(); track change.serial) {
            <li>
              <time class="mono soft">{{ clockOf(change.tick) }}</time> {{ change.text }}@if (change.because) {<span class="because">, because {{ change.because }}</span>}
            </li>
          } @empty {
            <li class="soft">It has been so since it appeared.</li>
          }
        </ol>
      </section>
    </div>
  `,
  styles: `
    .sheet {
      display: grid;
      grid-template-columns: 220px 1fr;
      gap: 20px;
      min-height: 0;
    }
    ul li {
      display: flex;
      justify-content: space-between;
      gap: 8px;
      padding: 2px 6px;
      font-size: 13px;
    }
    .here {
      background: var(--ember-wash);
    }
    ol {
      margin-top: 6px;
      max-height: 190px;
      overflow-y: auto;
    }
    ol li {
      padding: 2px 0;
      font: 14.5px/1.4 var(--serif);
    }
    time {
      font-size: 12px;
      margin-right: 8px;
    }
    .because {
      color: var(--soft);
      font-size: 13px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StateSheet {
  readonly link = input.required<RoomLink>();
  readonly row = input.required<number>();
  readonly name = input.required<string>();
  readonly ruleset = input.required<string | undefined>();

  protected readonly states = computed(() => {
    const copy = this.link().welcome() && this.link().copy;
    return (copy ? displayOf(copy.schema).states : []).map((state) => ({ ...state, says: says(state.allows) }));
  });
  private readonly told = computed(() => {
    this.link().tick();
    const { state, since = 0, until = 0 } = this.link().copy?.of(statesTable).row(this.row()) ?? {};
    return { state, since, until };
  });
  protected readonly now = computed(() => this.states().find(({ id }) => id === this.told().state));
  protected readonly since = computed(() => this.told().since);
  protected readonly left = computed(() => {
    const { until } = this.told();
    const { copy } = this.link();
    return until === 0 || !copy ? 0 : Math.max(0, (until - copy.tick) / copy.schema.tickRate);
  });
  protected readonly changes = computed(() => {
    const news = this.link().news();
    const bySerial = new Map(news.map((item) => [item.serial, item]));
    const prefix = `${this.name()}: `;
    return news
      .filter((item) => item.event === 'stateChanged' && item.who === this.name())
      .slice(-30)
      .reverse()
      .map(({ serial, tick, text, cause }) => ({ serial, tick, text: text.replace(prefix, ''), because: bySerial.get(cause)?.text ?? '' }));
  });

  protected clockOf(tick: number): string {
    return clock(tick, this.link().copy?.schema.tickRate ?? 20);
  }
}

function says(allows: readonly string[]): string {
  if (allows.length === 0) return 'may do nothing';
  return allows.includes('move') && allows.includes('use') ? 'moves, acts' : allows.includes('move') ? 'moves' : 'acts';
}
