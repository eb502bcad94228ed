import { ChangeDetectionStrategy, Component, computed, input, output, viewChild } from '@angular/core';
import type { Spot } from './aiming';
import { ArenaView } from './arena-view';
import type { Layout } from './panel';
import { PanelPlace } from './panel-place';
import { PANELS } from './panels';
import type { SeatState } from './seat-state';

/** What one seat sees: its arena as it was told, what it knows of itself, and what it can ask for. */
@Component({
  selector: 'ee-seat-screen',
  imports: [ArenaView, PanelPlace],
  templateUrl: './seat-screen.html',
  styleUrl: './seat-screen.scss',
  host: { '[class]': 'layout()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SeatScreen {
  readonly seat = input.required<SeatState>();
  /** What its arena is, for who hears the page. */
  readonly label = input.required<string>();
  readonly layout = input<Layout>('whole');
  /** A point of its arena was clicked. */
  readonly pointed = output<Spot>();
  private readonly arena = viewChild.required(ArenaView);
  /** What lies over the arena leaves no room for more. */
  protected readonly covered = computed(() => PANELS.some((panel) => panel.covers?.(this.seat())));

  /** What its picture shows: read where a change of it is to be drawn. */
  changes(): void {
    this.seat().link.changes();
    this.seat().row();
    this.arena().looks();
  }

  /** Whether the next picture is another, whatever comes in. */
  get moving(): boolean {
    return this.arena().moving;
  }

  /** Draws what is known. Returns whether there was something new. */
  paint(): boolean {
    return this.seat().paint(this.arena());
  }
}
