import type { Found } from '@eager-ember/core';
import { entriesOf, type EntryJson } from '../rulebook/entries';
import type { RulesetJson } from '../shared/api';

/** What a hunt came to, as it is kept. */
interface KeptRun {
  /** By what it is known again whether it was run under these rules. */
  readonly of: string;
  readonly stories: number;
  readonly ticks: number;
  readonly ms: number;
  readonly found?: Found;
}
type Kept = Readonly<Record<string, KeptRun>>;

const keyOf = (ruleset: string) => `eager-ember.hunts.${ruleset}`;

/** What the hunts of a ruleset came to, kept by the browser so that a reload does not lose it. */
export const keptRuns = {
  read(ruleset: string): Kept {
    try {
      return (JSON.parse(localStorage.getItem(keyOf(ruleset)) ?? 'null') as Kept | null) ?? {};
    } catch {
      return {};
    }
  },
  write(ruleset: string, hunt: string, run: KeptRun): void {
    try {
      localStorage.setItem(keyOf(ruleset), JSON.stringify({ ...keptRuns.read(ruleset), [hunt]: run }));
    } catch {
      // A browser without storage hunts as well; only a reload loses what came of it.
    }
  },
};

/** What a hunt goes by under a document, as text: checks and other hunts have no part in it, nor the stories that are tried first. */
function groundsOf(document: RulesetJson, id: string): string {
  const { checks: _checks, hunts: _hunts, ...rules } = document;
  const hunt = entriesOf(document, 'hunts').find((entry) => entry.id === id);
  return JSON.stringify([rules, { ...(hunt ?? ({} as EntryJson)), seeds: undefined }]);
}

/** A few signs by which it is known again what a hunt went by (FNV-1a, and how long it is). */
export function signOf(document: RulesetJson, id: string): string {
  const text = groundsOf(document, id);
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return `${text.length}.${(hash >>> 0).toString(36)}`;
}
