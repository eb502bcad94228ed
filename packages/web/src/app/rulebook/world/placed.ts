import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../store/document.reducer';
import { SpecContext } from '../spec/spec-context';

const FIELD: Readonly<Record<string, string>> = { pickups: 'pickup', zones: 'zone', spawners: 'spawner', actors: 'actor' };

/** Where the arena places an entry, with the way there. */
@Component({
  selector: 'ee-placed',
  imports: [RouterLink],
  template: `
    <p>
      <span class="soft">{{ places().length === 0 ? 'The arena places it nowhere.' : 'The arena places it' }}</span>
      @for (place of places(); track place.index) {
        {{ ' ' }}<a class="act" [routerLink]="['/r', ruleset(), 'rulebook', 'arena']" [queryParams]="{ thing: place.index }">at {{ place.x }}, {{ place.y }}</a>{{ $last ? '' : ',' }}
      }
      <a class="chip" [routerLink]="['/r', ruleset(), 'rulebook', 'arena']" [queryParams]="{ place: field() + ':' + id() }">place one …</a>
    </p>
  `,
  styles: `
    p {
      font-size: 12.5px;
      margin: 3px 0 6px;
    }
    .chip {
      margin-left: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlacedAt {
  private readonly context = inject(SpecContext);
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly id = this.context.id;
  protected readonly field = computed(() => FIELD[this.context.chapter()]);
  protected readonly places = computed(() => {
    const arena = this.context.document()?.['arena'] as { placed?: readonly Record<string, unknown>[] } | undefined;
    return (arena?.placed ?? []).flatMap((thing, index) =>
      thing[this.field()] === this.id() ? [{ index, x: Number(thing['x']), y: Number(thing['y']) }] : [],
    );
  });
}
