import type { Batch, Edit } from './document.reducer';

interface Kept {
  readonly revision: number;
  readonly pending: readonly Edit[];
  /** The first of them, where they were sent and nobody knows what came of it. */
  readonly batch?: Batch | undefined;
}

const keyOf = (id: string) => `eager-ember.pending.${id}`;

/** Edits that are not saved yet, kept by the browser so that a reload does not lose them. */
export const pendingStore = {
  read(id: string): Kept | undefined {
    try {
      const kept = JSON.parse(localStorage.getItem(keyOf(id)) ?? 'null') as Kept | null;
      return kept && Array.isArray(kept.pending) && typeof kept.revision === 'number' ? kept : undefined;
    } catch {
      return undefined;
    }
  },
  write(id: string, kept: Kept): void {
    try {
      if (kept.pending.length === 0) localStorage.removeItem(keyOf(id));
      else localStorage.setItem(keyOf(id), JSON.stringify(kept));
    } catch {
      // A browser without storage still saves; only a reload before that would lose an edit.
    }
  },
};
