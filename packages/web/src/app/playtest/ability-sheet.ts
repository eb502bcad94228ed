import { ChangeDetectionStrategy, Component, computed, effect, input } from '@angular/core';
import type { RoomLink } from '../seat/room-link';

const ASKED_EVERY_MS = 250;

/** The abilities of an actor as they are for it now: tooltips in the box that their author gave them, and what keeps them from being used. */
@Component({
  selector: 'ee-ability-sheet',
  template: `
    <ul aria-label="Abilities now">
      @for (ability of items(); track ability.id) {
        <li>
          <p class="head">
            <b>{{ ability.label }}</b>
            <span class="mono soft">{{ numbers(ability.numbers) }}</span>
            <span [class.refused]="ability.refusal">{{ ability.refusal ?? 'ready' }}</span>
          </p>
          @if (ability.box; as box) {
            <div class="box mono" [style.width.ch]="box.width + 2" [style.height.em]="box.lines * 1.4 + 0.6" [attr.aria-label]="'Tooltip of ' + ability.label">
              @for (line of ability.lines; track $index) {
                <p [class.over]="$index >= box.lines">{{ line || '&nbsp;' }}</p>
              }
            </div>
            @if (ability.lines.length > box.lines) {
              <p class="refused">It takes {{ ability.lines.length }} lines, and its box has {{ box.lines }}.</p>
            }
          } @else {
            <p class="soft">No tooltip: its author has not written one.</p>
          }
        </li>
      } @empty {
        <li class="soft">It has no abilities.</li>
      }
    </ul>
  `,
  styles: `
    :host {
      min-height: 0;
      overflow-y: auto;
    }
    ul {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(270px, 1fr));
      gap: 10px 14px;
      padding: 4px 0;
    }
    .head {
      display: flex;
      gap: 0 10px;
      align-items: baseline;
      flex-wrap: wrap;
      margin-bottom: 3px;
    }
    .head .mono {
      font-size: 12px;
    }
    .refused {
      color: var(--bad);
      font-size: 13px;
    }
    .box {
      border: 1px solid var(--hair);
      border-radius: 4px;
      background: var(--leaf);
      padding: 0.3em 1ch;
      font-size: 12.5px;
      line-height: 1.4;
    }
    .box p {
      white-space: pre;
    }
    .over {
      color: var(--bad);
      text-decoration: underline wavy;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AbilitySheet {
  readonly link = input.required<RoomLink>();
  readonly row = input.required<number>();
  protected readonly items = computed(() => {
    const answer = this.link().abilities();
    return answer?.row === this.row() ? answer.items : [];
  });

  constructor() {
    effect((onCleanup) => {
      const [link, row] = [this.link(), this.row()];
      link.askAbilities(row);
      const timer = setInterval(() => link.askAbilities(row), ASKED_EVERY_MS);
      onCleanup(() => clearInterval(timer));
    });
  }

  /** The numbers that an ability has, in few letters. */
  protected numbers(all: Readonly<Record<string, number>>): string {
    const said = [
      ['cast', 's'],
      ['channel', 's'],
      ['recovery', 's'],
      ['cooldown', 's'],
      ['range', ''],
    ].flatMap(([name, unit]) => (all[name] > 0 ? [`${name} ${Number(all[name].toFixed(2))}${unit && ` ${unit}`}`] : []));
    return said.join(' · ');
  }
}
