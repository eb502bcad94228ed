import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { entriesOf } from '../entries';
import { type Clause, Clauses } from '../spec/clauses';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecContext } from '../spec/spec-context';

/** A cooldown group in sentences. */
@Component({
  selector: 'ee-group-sentences',
  imports: [Part, Sentence, Clauses, Note],
  template: `
    <ee-sentence>Using one of its abilities keeps all of them waiting for <ee-part at="lasts" label="how long" />. A longer wait of their own stays.</ee-sentence>
    <p class="members">
      <span class="soft">In it</span>
      @for (ability of abilities(); track ability.id) {
        <button type="button" role="checkbox" [attr.aria-checked]="ability.is" (click)="toggle(ability.id)">{{ ability.is ? '☑' : '☐' }} {{ ability.label }}</button>
      }
    </p>
    <ee-note />
    <ee-clauses [all]="clauses" />
  `,
  styles: `
    .members {
      display: flex;
      flex-wrap: wrap;
      gap: 6px 14px;
      margin: 6px 0 10px;
    }
    button[aria-checked='true'] {
      color: var(--ember);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GroupSentences {
  private readonly context = inject(SpecContext);
  protected readonly clauses: readonly Clause[] = [NOTE];
  protected readonly abilities = computed(() =>
    entriesOf(this.context.document(), 'abilities').map(({ id, label, groups }) => ({
      id,
      label,
      is: ((groups ?? []) as readonly string[]).includes(this.context.id()),
    })),
  );

  protected toggle(id: string): void {
    const group = this.context.id();
    void this.context.change(`${id}: groups`, (_, document) => {
      const index = entriesOf(document, 'abilities').findIndex((ability) => ability.id === id);
      const groups = (entriesOf(document, 'abilities')[index]['groups'] ?? []) as readonly string[];
      const next = groups.includes(group) ? groups.filter((other) => other !== group) : [...groups, group];
      const path = `/abilities/${index}/groups`;
      return next.length === 0 ? [{ op: 'remove', path }] : [{ op: 'add', path, value: next }];
    });
  }
}
