import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { SeatPanel } from './panel';
import { questsOf, type QuestsView } from './quests';

/** What is open, where it is the window of quests: no tree has an id with a sign. */
export const QUESTS = '#quests';

/** How many quests a seat is on, and the way to their window. */
@Component({
  selector: 'ee-quest-door',
  template: `
    @if (view(); as now) {
      <button type="button" class="act" data-quests [attr.aria-expanded]="open() === QUESTS" (click)="toggled.emit(QUESTS)">Quests, <span class="mono">{{ now.active.length }}</span> on</button>
    }
  `,
  styles: `
    button {
      font-size: inherit;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QuestDoor {
  readonly view = input<QuestsView>();
  /** What window is open. */
  readonly open = input('');
  readonly toggled = output<string>();
  protected readonly QUESTS = QUESTS;
}

export const questDoorPanel: SeatPanel = {
  place: 'door',
  type: QuestDoor,
  inputs: (seat) => ({ view: seat.shown(questsOf), open: seat.open() }),
};
