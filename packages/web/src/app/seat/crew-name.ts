import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { crewOf } from './display';
import type { SeatPanel } from './panel';

/** The crew of a seat, behind its name; nothing where it is in none. */
@Component({
  selector: 'ee-crew-name',
  template: `
    @if (crew()) {
      <span class="soft">{{ brief() ? '' : 'crew ' }}{{ crew() }}</span>
    }
  `,
  styles: ':host { display: contents; }',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CrewName {
  readonly crew = input<string>();
  readonly brief = input(false);
}

export const crewPanel: SeatPanel = {
  place: 'title',
  type: CrewName,
  inputs: (seat, layout) => ({ crew: seat.shown(crewOf), brief: layout === 'quarter' }),
};
