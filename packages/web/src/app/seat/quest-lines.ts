import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Ask } from './controls';
import type { QuestsView, QuestView } from './quests';
import type { SeatPanel } from './panel';
import { questsOf } from './quests';
import { QUESTS } from './quest-door';

/** At most so many quests are followed on the display. */
const MOST_FOLLOWED = 3;

/** A seat's quests on its display: the lines of those it is on, and the one that it is offered. */
@Component({
  selector: 'ee-quest-lines',
  template: `
    @if (offered(); as quest) {
      <section class="offer" role="region" aria-label="A quest is offered">
        <p><b>{{ quest.label }}</b>@if (!compact()) {{{ ' ' }}<span class="text">{{ quest.text }}</span>}</p>
        @if (quest.rewards) {
          <p class="soft">For it: <span data-rewards>{{ quest.rewards }}</span></p>
        }
        <p class="answers">
          <button type="button" class="act" (click)="ask.emit({ do: 'acceptQuest', quest: quest.id })"><kbd>O</kbd> accept</button>
          <button type="button" class="act" (click)="ask.emit({ do: 'declineQuest', quest: quest.id })"><kbd>N</kbd> decline</button>
        </p>
      </section>
    }
    @for (quest of followed(); track quest.id) {
      <p class="quest" [attr.data-quest]="quest.id">
        <b>{{ quest.label }}</b>
        @for (line of lines(quest); track $index) {
          {{ ' ' }}<span [class.done]="line.done" [class.soft]="line.optional">{{ line.text }}{{ line.optional ? ' (if you like)' : '' }}</span>
        }
        @if (quest.left) {
          {{ ' ' }}<span class="mono left">{{ quest.left }}</span>
        }
      </p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 2px;
      justify-items: start;
      font-size: 12.5px;
    }
    p {
      margin: 0;
    }
    .quest span {
      margin-left: 8px;
    }
    .done {
      color: var(--copy);
      text-decoration: line-through;
    }
    .left {
      color: var(--ember);
    }
    .offer {
      border: 1px solid var(--ember);
      border-radius: 6px;
      background: var(--paper);
      padding: 4px 10px;
      max-width: 60ch;
    }
    .text {
      font: italic 13.5px/1.35 var(--serif);
    }
    .answers {
      display: flex;
      gap: 14px;
    }
    button {
      font-size: 12.5px;
    }
    :host(.compact),
    :host(.compact) button {
      font-size: 11.5px;
    }
    :host(.compact) .offer {
      padding: 1px 6px;
    }
  `,
  host: { '[class.compact]': 'compact()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QuestLines {
  readonly view = input<QuestsView>();
  readonly compact = input(false);
  /** What window is open. */
  readonly open = input('');
  readonly ask = output<Ask>();
  protected readonly offered = computed(() => (this.open() === QUESTS ? undefined : this.view()?.offered[0]));
  protected readonly followed = computed(() => (this.view()?.active ?? []).slice(0, this.compact() ? 1 : MOST_FOLLOWED));

  /** In little room, the first line that is still to be done. */
  protected lines(quest: QuestView): QuestView['lines'] {
    if (!this.compact()) return quest.lines;
    return [quest.lines.find(({ done, optional }) => !done && !optional) ?? quest.lines[0]].filter((line) => line !== undefined);
  }
}

export const questLinesPanel: SeatPanel = {
  place: 'task',
  type: QuestLines,
  inputs: (seat, layout) => ({ view: seat.shown(questsOf), compact: layout === 'quarter', open: seat.open() }),
  asks(key, seat) {
    const quest = seat.shown(questsOf)?.offered[0]?.id;
    return quest !== undefined && (key === 'o' || key === 'n') ? { do: key === 'o' ? 'acceptQuest' : 'declineQuest', quest } : undefined;
  },
};
