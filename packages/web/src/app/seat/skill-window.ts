import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Ask } from './controls';
import type { TreeView } from './levels';
import type { SeatPanel } from './panel';
import { levelsOf } from './levels';

/** What a seat's player has learned, and can learn: one line a node. */
@Component({
  selector: 'ee-skill-window',
  template: `
    @if (tree(); as now) {
      <section role="region" [attr.aria-label]="now.label">
        <p class="head">
          <b>{{ now.label }}</b> <span class="mono" data-free>{{ now.free }}</span> free, <span class="mono">{{ now.spent }}</span> spent
          @if (now.respec && now.spent > 0) {
            <button type="button" class="soft" (click)="ask.emit({ do: 'respec', tree: now.id })">{{ now.respec }}</button>
          }
          <button type="button" class="soft out" (click)="closed.emit()">close</button>
        </p>
        <ul>
          @for (node of now.nodes; track node.id) {
            <li [class.learned]="node.rank > 0" [class.shut]="node.rank === 0 && node.locked !== ''" [attr.data-node]="node.id">
              <span class="mono rank">{{ node.rank }}/{{ node.ranks }}</span>
              <span class="name" [title]="node.note">{{ node.locked && node.rank < node.ranks ? node.locked : node.label }}</span>
              @if (node.locked === '') {
                <button type="button" class="act" [attr.aria-label]="'Learn ' + node.label" (click)="ask.emit({ do: 'learn', tree: now.id, node: node.id })">learn, {{ node.cost }}</button>
              }
              @if (node.rank > 0 && node.held === '') {
                <button type="button" class="soft" [attr.aria-label]="'Give back ' + node.label" (click)="ask.emit({ do: 'unlearn', tree: now.id, node: node.id })">back</button>
              }
            </li>
          }
        </ul>
      </section>
    }
  `,
  styleUrl: './seat-window.scss',
  styles: `
    .learned .name {
      font-weight: 700;
    }
    .shut {
      color: var(--soft);
    }
    .rank {
      width: 4ch;
    }
    button {
      font-size: 12px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SkillWindow {
  readonly tree = input<TreeView>();
  readonly ask = output<Ask>();
  readonly closed = output<void>();
}

export const skillPanel: SeatPanel = {
  place: 'window',
  type: SkillWindow,
  inputs: (seat) => ({ tree: seat.shown(levelsOf)?.trees.find(({ id }) => id === seat.open()) }),
};
