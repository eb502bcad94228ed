import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import type { Announcement } from '@eager-ember/core';

interface Line extends Announcement {
  readonly time: string;
  /** What led to it, as a sentence, where that is not the line above. */
  readonly because: string;
}

const MOST_LINES = 120;
/** Events that come with others and say little by themselves. */
const QUIET = new Set(['asked', 'poked', 'actorSpawned', 'pickupAppeared', 'stateChanged', 'channelPulsed', 'areaLanded']);

/** Whether a line belongs to what was chosen to be shown. */
function shows(kind: string, item: Announcement): boolean {
  if (kind === 'all') return true;
  if (kind === 'refusals') return item.refusal;
  return kind === 'states' ? item.event === 'stateChanged' : !QUIET.has(item.event);
}

/** A tick as minutes, seconds and tenths. */
export function clock(tick: number, tickRate: number): string {
  const tenths = Math.floor((tick * 10) / tickRate);
  return `${Math.floor(tenths / 600)}:${String(Math.floor(tenths / 10) % 60).padStart(2, '0')}.${tenths % 10}`;
}

/**
 * What happened, as sentences, newest first, with what led to each. A filter lets go of the keyboard once it is
 * chosen: the next key is meant for the seat.
 */
@Component({
  selector: 'ee-trace',
  template: `
    <p class="filters">
      <b>Trace</b>
      <label
        >about
        <select #who aria-label="Whom the trace is about" (change)="actor.set(who.value); who.blur()">
          <option value="">everybody</option>
          @for (name of actors(); track name) {
            <option [value]="name">{{ name }}</option>
          }
        </select></label
      >
      <label
        >showing
        <select #what aria-label="What the trace shows" (change)="kind.set(what.value); what.blur()">
          <option value="">what happened</option>
          <option value="refusals">refusals</option>
          <option value="states">states</option>
          <option value="all">everything</option>
        </select></label
      >
    </p>
    <ol aria-label="Trace">
      @for (line of lines(); track line.serial) {
        <li [class.refused]="line.refusal">
          <time class="mono soft">{{ line.time }}</time>
          <span
            >{{ line.text }}
            @if (line.because) {
              <span class="because">because {{ line.because }}</span>
            }</span
          >
        </li>
      } @empty {
        <li class="soft">Nothing has happened yet. Move with W A S D, use an ability with 1, or poke with K.</li>
      }
    </ol>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      min-height: 0;
    }
    .filters {
      display: flex;
      gap: 16px;
      padding: 2px 0 4px;
      border-bottom: 1px solid var(--hair);
    }
    select {
      border: 0;
      background: var(--paper);
      color: var(--ember);
    }
    label {
      color: var(--soft);
    }
    ol {
      overflow-y: auto;
      flex: 1;
      min-height: 60px;
    }
    li {
      display: flex;
      gap: 12px;
      padding: 2px 0;
      font: 15px/1.45 var(--serif);
    }
    time {
      font-size: 12.5px;
      padding-top: 2px;
    }
    .because {
      color: var(--soft);
      font-size: 13px;
      margin-left: 4px;
    }
    .refused {
      color: var(--bad);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Trace {
  readonly news = input.required<readonly Announcement[]>();
  readonly tickRate = input.required<number>();
  readonly actors = input.required<readonly string[]>();
  protected readonly actor = signal('');
  protected readonly kind = signal('');

  protected readonly lines = computed<readonly Line[]>(() => {
    const [actor, kind] = [this.actor(), this.kind()];
    const bySerial = new Map(this.news().map((item) => [item.serial, item]));
    return this.news()
      .filter((item) => (actor === '' || item.who === actor) && shows(kind, item))
      .slice(-MOST_LINES)
      .reverse()
      .map((item) => ({ ...item, time: clock(item.tick, this.tickRate()), because: bySerial.get(item.cause)?.text ?? '' }));
  });
}
