import { effect, Injectable, signal } from '@angular/core';

const KEY = 'eager-ember.theme';

/** Light or dark: as the system says until somebody chooses. */
@Injectable({ providedIn: 'root' })
export class Theme {
  readonly dark = signal(initial());

  constructor() {
    effect(() => document.documentElement.setAttribute('data-theme', this.dark() ? 'dark' : 'light'));
  }

  toggle(): void {
    this.dark.update((dark) => !dark);
    try {
      localStorage.setItem(KEY, this.dark() ? 'dark' : 'light');
    } catch {
      // Without storage the choice lasts as long as the page.
    }
  }
}

function initial(): boolean {
  try {
    const chosen = localStorage.getItem(KEY);
    if (chosen !== null) return chosen === 'dark';
  } catch {
    // Fall through to the system's choice.
  }
  return typeof matchMedia === 'function' && matchMedia('(prefers-color-scheme: dark)').matches;
}
