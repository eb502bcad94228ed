import {
  computed,
  Directive,
  inject,
  input,
  inputBinding,
  type OnInit,
  outputBinding,
  reflectComponentType,
  ViewContainerRef,
} from '@angular/core';
import type { Ask } from './controls';
import type { Layout, Place, SeatPanel } from './panel';
import { PANELS } from './panels';
import type { SeatState } from './seat-state';

/** The panels of one place on the screen of a seat. */
@Directive({ selector: '[eePanels]' })
export class PanelPlace implements OnInit {
  readonly place = input.required<Place>({ alias: 'eePanels' });
  readonly seat = input.required<SeatState>();
  readonly layout = input.required<Layout>();
  private readonly container = inject(ViewContainerRef);

  ngOnInit(): void {
    for (const panel of PANELS) if (panel.place === this.place()) this.show(panel);
  }

  private show(panel: SeatPanel): void {
    const inputs = computed(() => panel.inputs(this.seat(), this.layout()));
    const says: Readonly<Record<string, (said: never) => void>> = {
      ask: (asked: Ask) => this.seat().ask(asked),
      use: (ability: string) => this.seat().use(ability),
      toggled: (name: string) => this.seat().toggle(name),
      closed: () => this.seat().open.set(''),
    };
    const outputs = (reflectComponentType(panel.type)?.outputs ?? []).map(({ templateName }) => templateName);
    this.container.createComponent(panel.type, {
      bindings: [
        ...Object.keys(inputs()).map((name) => inputBinding(name, () => inputs()[name])),
        ...outputs.map((name) => outputBinding(name, says[name])),
      ],
    });
  }
}
