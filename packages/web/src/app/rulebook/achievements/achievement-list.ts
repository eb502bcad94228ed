import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../store/document.reducer';
import { Editor } from '../../store/editor';
import { entriesOf } from '../entries';

/** All achievements as a player finds them: what is told of each before it is unlocked. */
@Component({
  selector: 'ee-achievement-list',
  imports: [RouterLink],
  template: `
    <h2>What a player finds <span class="soft">{{ rows().length }} in all, {{ points() }} points, {{ counting() }} counting, {{ secrets() }} secret</span></h2>
    <ul>
      @for (row of rows(); track row.id) {
        <li [class.here]="row.id === id()" [class.secret]="row.secret">
          <a [routerLink]="['/r', ruleset(), 'rulebook', 'achievements', row.id]">{{ row.secret ? 'A secret' : row.label }}</a>
          <span class="soft">{{ row.secret ? 'told when it is unlocked: ' + row.label : row.text }}</span>
          <span class="mono">{{ row.count > 1 ? '0/' + row.count : '' }}</span>
          <span class="mono soft">{{ row.points }}</span>
        </li>
      }
    </ul>
  `,
  styles: `
    h2 {
      font: 700 13.5px var(--sans);
      margin: 6px 0;
    }
    ul {
      list-style: none;
      margin: 0 0 12px;
      padding: 0;
    }
    li {
      display: grid;
      grid-template-columns: 150px 1fr 5ch 4ch;
      gap: 10px;
      align-items: baseline;
      padding: 4px 6px;
      border-bottom: 1px solid var(--hair);
      font-size: 13px;
    }
    a {
      font: 15.5px var(--serif);
      color: var(--ink);
    }
    .secret a {
      font-style: italic;
      color: var(--soft);
    }
    .here {
      background: var(--ember-wash);
    }
    .mono {
      text-align: right;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AchievementList {
  readonly id = input.required<string>();
  private readonly document = inject(Editor).document;
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly rows = computed(() =>
    entriesOf(this.document(), 'achievements').map((entry) => ({
      id: entry.id,
      label: entry.label,
      text: String(entry['text'] ?? ''),
      secret: entry['secret'] === true,
      count: Number(entry['count'] ?? 1),
      points: Number(entry['points'] ?? 10),
    })),
  );
  protected readonly points = computed(() => this.rows().reduce((sum, { points }) => sum + points, 0));
  protected readonly counting = computed(() => this.rows().filter(({ count }) => count > 1).length);
  protected readonly secrets = computed(() => this.rows().filter(({ secret }) => secret).length);
}
