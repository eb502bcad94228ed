import { DatePipe } from '@angular/common';
import type { HttpErrorResponse } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { Api, failureOf, type SessionInfo } from '../shared/api';
import { browserOf } from '../shared/browser';
import { Trail } from '../trail/trail';

/** Where somebody is signed in: each browser can be signed out from here. */
@Component({
  selector: 'ee-sessions',
  imports: [DatePipe, RouterLink, Trail],
  template: `
    <header>
      <img src="mark.svg" alt="" width="26" height="22" />
      <a class="title" routerLink="/">Eager Ember</a>
    </header>
    <main>
      <h1>Where you are signed in</h1>
      <p class="lead">A browser stays signed in for a week after it was last used, and for sixty days at most. A new link is printed by <code>npx ember link</code> on the machine of the server.</p>
      @if (failure()) {
        <p class="refusal" role="alert">{{ failure() }}</p>
      }
      <ul>
        @for (one of sessions(); track one.key) {
          <li>
            <span class="name">{{ browser(one) }}</span>
            <span class="soft">since {{ one.createdAt | date: 'd MMM, HH:mm' }} · ends {{ one.expiresAt | date: 'd MMM' }}</span>
            @if (one.here) {
              <b>this browser</b>
            }
            <button type="button" class="act" [attr.aria-label]="'Sign out ' + browser(one)" (click)="end(one)">Sign out</button>
          </li>
        } @empty {
          @if (!failure()) {
            <li class="soft">Looking …</li>
          }
        }
      </ul>
      <h2>Who signed in and out</h2>
      <ee-trail />
    </main>
  `,
  styleUrl: '../rulesets/rulesets.scss',
  styles: `
    .name {
      flex: 1;
    }
    h2 {
      font-size: 15px;
      margin: 36px 0 8px;
    }
    .lead code {
      font-size: 15px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Sessions {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  protected readonly sessions = signal<readonly SessionInfo[]>([]);
  protected readonly failure = signal('');

  constructor() {
    void this.load();
  }

  private async load(): Promise<void> {
    try {
      this.sessions.set(await firstValueFrom(this.api.sessions()));
    } catch (error) {
      this.tell(error as HttpErrorResponse);
    }
  }

  private tell(error: HttpErrorResponse): void {
    const { title, detail } = failureOf(error);
    this.failure.set(detail === '' ? title : `${title}. ${detail}`);
  }

  protected browser({ agent }: SessionInfo): string {
    return browserOf(agent);
  }

  protected async end({ key, here }: SessionInfo): Promise<void> {
    try {
      await firstValueFrom(here ? this.api.signOut() : this.api.endSession(key));
    } catch (error) {
      return this.tell(error as HttpErrorResponse);
    }
    this.failure.set('');
    if (here) await this.router.navigate(['/']);
    else this.sessions.update((all) => all.filter((one) => one.key !== key));
  }
}
