import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Ask } from './controls';
import type { QuestsView } from './quests';
import type { SeatPanel } from './panel';
import { questsOf } from './quests';
import { QUESTS } from './quest-door';

/** A player's quests: what is offered, what they are on, and what was. */
@Component({
  selector: 'ee-quest-window',
  imports: [NgTemplateOutlet],
  template: `
    @if (view(); as now) {
      <section role="region" aria-label="Quests">
        <p class="head"><b>Quests</b> <button type="button" class="soft out" (click)="closed.emit()">close</button></p>
        <ul>
          @for (quest of now.offered; track quest.id) {
            <li [attr.data-quest]="quest.id">
              <ng-container [ngTemplateOutlet]="words" [ngTemplateOutletContext]="{ $implicit: quest }" />
              <button type="button" class="act" [attr.aria-label]="'Accept ' + quest.label" (click)="ask.emit({ do: 'acceptQuest', quest: quest.id })">accept</button>
              <button type="button" class="soft" [attr.aria-label]="'Decline ' + quest.label" (click)="ask.emit({ do: 'declineQuest', quest: quest.id })">decline</button>
            </li>
          }
          @for (quest of now.active; track quest.id) {
            <li [attr.data-quest]="quest.id">
              <ng-container [ngTemplateOutlet]="words" [ngTemplateOutletContext]="{ $implicit: quest }" />
              @if (quest.mayAbandon) {
                <button type="button" class="soft" [attr.aria-label]="'Give up ' + quest.label" (click)="ask.emit({ do: 'abandonQuest', quest: quest.id })">give up</button>
              }
            </li>
          }
          @for (quest of now.past; track quest.id) {
            <li class="past" [attr.data-quest]="quest.id">
              <span aria-hidden="true">{{ quest.standing === 'done' ? '◆' : '◇' }}</span>
              <span class="name"><b>{{ quest.label }}</b>{{ ' ' }}<span class="soft">{{ quest.besides }}</span></span>
              @if (quest.mayTakeUp) {
                <button type="button" class="soft" [attr.aria-label]="'Take up ' + quest.label" (click)="ask.emit({ do: 'acceptQuest', quest: quest.id })">take up</button>
              }
            </li>
          }
        </ul>
      </section>
    }
    <ng-template #words let-quest>
      <span class="name">
        <b>{{ quest.label }}</b>{{ ' ' }}<span class="text">{{ quest.text }}</span>
        @for (line of quest.lines; track $index) {
          <span class="line" [class.done]="line.done">{{ line.text }}{{ line.optional ? ' (if you like)' : '' }}</span>
        }
        @if (quest.rewards) {
          <span class="line soft">for it: {{ quest.rewards }}</span>
        }
      </span>
      @if (quest.left) {
        <span class="mono">{{ quest.left }}</span>
      }
    </ng-template>
  `,
  styleUrl: './seat-window.scss',
  styles: `
    li {
      padding: 3px 0;
    }
    .text {
      font: italic 13px/1.3 var(--serif);
    }
    .line {
      display: block;
      padding-left: 12px;
    }
    .done {
      color: var(--copy);
    }
    .past b {
      font-weight: 400;
    }
    button {
      font-size: 12px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QuestWindow {
  readonly view = input<QuestsView>();
  readonly ask = output<Ask>();
  readonly closed = output<void>();
}

export const questPanel: SeatPanel = {
  place: 'window',
  type: QuestWindow,
  inputs: (seat) => ({ view: seat.shownIn(QUESTS, questsOf) }),
};
