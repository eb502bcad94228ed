import { Injectable, signal } from '@angular/core';

const KEY = 'eager-ember.folded';

/** Which groups of an index are folded, by the chapter; the browser remembers it. */
@Injectable({ providedIn: 'root' })
export class FoldedGroups {
  private readonly folded = signal<ReadonlySet<string>>(read());

  isFolded(tab: string, name: string): boolean {
    return this.folded().has(`${tab}/${name}`);
  }

  toggle(tab: string, name: string): void {
    const key = `${tab}/${name}`;
    const next = new Set(this.folded());
    if (!next.delete(key)) next.add(key);
    this.folded.set(next);
    try {
      localStorage.setItem(KEY, JSON.stringify([...next]));
    } catch {
      // Without storage they are folded until the page is left.
    }
  }
}

function read(): ReadonlySet<string> {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? '[]') as unknown;
    return new Set(Array.isArray(kept) ? kept.filter((one) => typeof one === 'string') : []);
  } catch {
    return new Set();
  }
}
