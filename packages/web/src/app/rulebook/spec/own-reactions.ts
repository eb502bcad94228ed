import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Part } from './part';
import { PatternSentence } from './pattern';
import { Sentence } from './sentence';
import { SpecFields } from './spec-fields';
import { ThenList } from './then-list';

interface ReactionJson {
  readonly on: { readonly on: string };
  readonly atMost?: unknown;
}

/** What an entry's bearer does when something happens: reactions of its own, as sentences. */
@Component({
  selector: 'ee-own-reactions',
  imports: [Part, PatternSentence, Sentence, ThenList],
  template: `
    @for (reaction of reactions(); track $index) {
      <ee-sentence clause="reaction" (removed)="removeFrom('reactions', $index)">When <ee-pattern [at]="'reactions/' + $index + '/on'" />@if (reaction.atMost) {, at most <ee-part [at]="'reactions/' + $index + '/atMost/times'" label="times" /> times in <ee-part [at]="'reactions/' + $index + '/atMost/every'" label="in what time" />} @else {{{ ' ' }}<button type="button" class="more" (click)="put('reactions/' + $index + '/atMost', { times: 1, every: '10s' })">+ at most</button>}:</ee-sentence>
      <ee-then [at]="'reactions/' + $index + '/then'" />
    }
    <button type="button" class="chip" (click)="add('reactions', { on: { on: 'attributeChanged', how: 'hurt' }, then: [] })">+ reaction</button>
    @if (refusal()) {
      <p class="refusal" role="alert">{{ refusal() }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
      margin-bottom: 6px;
    }
    .more {
      color: var(--soft);
      font: 600 12px var(--sans);
    }
    .more:hover {
      color: var(--ember);
    }
    .chip {
      font-size: 12.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OwnReactions extends SpecFields {
  protected readonly reactions = computed(() => this.list<ReactionJson>('reactions'));
}
