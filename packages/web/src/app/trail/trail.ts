import { DatePipe } from '@angular/common';
import type { HttpErrorResponse } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, effect, inject, input, signal, untracked } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { Api, failureOf, type TrailNote } from '../shared/api';
import { sentenceOf } from './sentences';

/** Who did what, the last first: with a ruleset, or what is about none. */
@Component({
  selector: 'ee-trail',
  imports: [DatePipe],
  template: `
    @if (failure()) {
      <p class="refusal" role="alert">{{ failure() }}</p>
    }
    <ol>
      @for (note of notes(); track note.id) {
        <li>
          <span class="mono soft">{{ note.at | date: 'd MMM, HH:mm:ss' }}</span> <span class="soft">{{ note.who }}</span> <span>{{ sentence(note) }}</span>
        </li>
      } @empty {
        <li class="soft">{{ loaded() ? 'Nothing yet.' : 'Looking …' }}</li>
      }
    </ol>
    <p class="more">
      @if (next()) {
        <button type="button" class="act" (click)="more()">Show more</button>
      }
      @if (notes().length > 0) {
        <a class="act" [href]="lines()" download>Save all as JSON lines</a>
      }
    </p>
  `,
  styles: `
    li {
      display: grid;
      grid-template-columns: 130px 70px 1fr;
      gap: 12px;
      padding: 5px 0;
      border-top: 1px solid var(--hair);
      font-size: 14px;
    }
    .mono {
      font-size: 12.5px;
    }
    .more {
      display: flex;
      gap: 24px;
      padding: 12px 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Trail {
  readonly ruleset = input<string>();
  private readonly api = inject(Api);
  protected readonly notes = signal<readonly TrailNote[]>([]);
  protected readonly next = signal<string | null>(null);
  protected readonly loaded = signal(false);
  protected readonly failure = signal('');

  constructor() {
    effect(() => {
      this.ruleset();
      untracked(() => {
        this.notes.set([]);
        this.next.set(null);
        void this.more();
      });
    });
  }

  protected sentence(note: TrailNote): string {
    return sentenceOf(note);
  }

  protected lines(): string {
    return this.api.trailLines(this.ruleset());
  }

  protected async more(): Promise<void> {
    try {
      const { items, next } = await firstValueFrom(this.api.trail(this.ruleset(), this.next()));
      this.notes.update((notes) => [...notes, ...items]);
      this.next.set(next);
      this.failure.set('');
    } catch (error) {
      this.failure.set(failureOf(error as HttpErrorResponse).title);
    }
    this.loaded.set(true);
  }
}
