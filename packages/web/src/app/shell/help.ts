import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';

/** The list of keys. */
@Component({
  selector: 'ee-help',
  imports: [MatDialogModule],
  template: `
    <h2 mat-dialog-title>Keys</h2>
    <mat-dialog-content>
      <dl>
        @for (row of rows; track row.keys) {
          <dt>
            @for (key of row.keys.split(' '); track key) {
              <kbd>{{ key }}</kbd>
            }
          </dt>
          <dd>{{ row.does }}</dd>
        }
      </dl>
    </mat-dialog-content>
  `,
  styles: `
    dl {
      display: grid;
      grid-template-columns: auto 1fr;
      gap: 8px 20px;
      margin: 0;
    }
    dt {
      display: flex;
      gap: 4px;
    }
    dd {
      margin: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Help {
  readonly rows = [
    { keys: 'Ctrl K', does: 'search entries' },
    { keys: '↑ ↓', does: 'in the index: the entry before, the next one' },
    { keys: 'Ctrl Z', does: 'undo' },
    { keys: 'Ctrl Shift Z', does: 'redo' },
    { keys: 'Tab Enter', does: 'go to a part of a sentence, then edit it' },
    { keys: 'Enter', does: 'apply what was typed' },
    { keys: 'Escape', does: 'leave it as it was' },
    { keys: 'Alt ↑ ↓', does: 'move an action in its list' },
    { keys: 'Alt Shift ↑ ↓', does: 'move the entry in its chapter' },
    { keys: '← →', does: 'move a pin or the cursor of a chart; fold a group of the index, unfold it' },
    { keys: 'P', does: 'play with two seats' },
    { keys: 'N R', does: 'in Checks: the next that fails, run all' },
    { keys: 'W A S D', does: 'move the seat you drive (arrow keys too)' },
    { keys: '1 … 6', does: 'use an ability, where the pointer is' },
    { keys: 'X', does: 'break off what is being cast' },
    { keys: 'E F', does: 'ask of what is near: the first, the second offer' },
    { keys: 'T Q', does: 'take all, leave' },
    { keys: '7 … 9', does: 'answer in a dialogue' },
    { keys: 'M', does: 'money: what is traded near by, the day’s statement' },
    { keys: 'Space', does: 'let the room stand still, and go on' },
    { keys: 'K', does: 'poke the room' },
    { keys: 'Y', does: 'why: an actor’s values, abilities and states, now' },
    { keys: '?', does: 'this list' },
  ];
}
