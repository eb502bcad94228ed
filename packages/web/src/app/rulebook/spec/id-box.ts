import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';

/** An id that can be changed where it is read, and those that it had. */
@Component({
  selector: 'ee-id',
  imports: [MatTooltip],
  template: `
    <p class="mono soft">
      <input #box class="mono" [attr.aria-label]="label()" maxlength="48" spellcheck="false" [value]="id()" [style.width.ch]="id().length + 2" (change)="changed(box)" (keydown.enter)="box.blur()" (keydown.escape)="box.value = id(); box.blur()" [matTooltip]="hint()" />
      @if (former().length > 0) {
        <span>formerly {{ former().join(', ') }}</span>
      }
    </p>
  `,
  styles: `
    p {
      display: flex;
      align-items: baseline;
      gap: 12px;
      margin-bottom: 10px;
    }
    input {
      font-size: 12px;
      color: var(--soft);
      border: 0;
      background: none;
      padding: 0 4px;
      margin-left: -4px;
      border-radius: 4px;
    }
    input:hover {
      background: var(--leaf);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class IdBox {
  readonly id = input.required<string>();
  readonly former = input<readonly string[]>([]);
  readonly label = input('Id');
  readonly hint = input('Change it here: every formula and reference follows');
  /** Brings the new id about, or answers no: then the old one stays. */
  readonly rename = input.required<(to: string) => Promise<boolean>>();

  protected async changed(box: HTMLInputElement): Promise<void> {
    const [to, id] = [box.value.trim(), this.id()];
    if (to === id || to === '' || !(await this.rename()(to))) box.value = id;
  }
}
