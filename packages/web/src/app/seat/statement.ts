import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { StatementView } from './economy';

/** A day's statement: what there was, what came in and went out by its source, and what is left. Signs, not colours, tell them apart. */
@Component({
  selector: 'ee-statement',
  template: `
    @let day = of();
    <table [attr.aria-label]="title()">
      <caption>{{ title() }}</caption>
      <tbody>
        <tr><th scope="row">Opening</th><td class="mono">{{ day.opening }}</td></tr>
        @for (line of day.income; track $index) {
          <tr class="in"><th scope="row">{{ line.label }}@if (line.times > 1) {<span class="soft"> × {{ line.times }}</span>}</th><td class="mono">+{{ line.amount }}</td></tr>
        }
        @for (line of day.costs; track $index) {
          <tr class="cost"><th scope="row">{{ line.label }}@if (line.times > 1) {<span class="soft"> × {{ line.times }}</span>}</th><td class="mono">−{{ -line.amount }}</td></tr>
        }
        <tr class="sum"><th scope="row">Closing</th><td class="mono">{{ day.closing }}</td></tr>
        <tr><th scope="row" class="soft">{{ day.result < 0 ? 'a loss of' : 'a gain of' }}</th><td class="mono" data-result>{{ day.result < 0 ? '−' + -day.result : '+' + day.result }}</td></tr>
      </tbody>
    </table>
  `,
  styles: `
    :host {
      flex: 1;
      min-width: 0;
    }
    table {
      width: 100%;
      border-collapse: collapse;
      font-size: 12px;
    }
    caption {
      text-align: left;
      font-weight: 700;
    }
    th,
    td {
      font-weight: 400;
      text-align: left;
      padding: 1px 0;
      border-bottom: 1px solid var(--hair);
    }
    td {
      text-align: right;
    }
    .in td {
      color: var(--copy);
    }
    .cost th {
      padding-left: 12px;
    }
    .cost td {
      color: var(--ember);
    }
    .sum th,
    .sum td {
      border-top: 1.5px solid var(--ink);
      font-weight: 700;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Statement {
  readonly title = input.required<string>();
  readonly of = input.required<StatementView>();
}
