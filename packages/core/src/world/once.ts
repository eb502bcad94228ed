import type { EventSpec, GameEvent } from './events.js';
import type { Invariant } from './invariant.js';
import type { Rules } from '../ruleset/rules.js';

/** What happens to a player once and never again. */
interface Once {
  readonly event: EventSpec;
  /** The field that names the entry. */
  readonly field: string;
  /** After this it may happen again. */
  readonly reset: EventSpec;
  /** Whether an entry may come about again and again. */
  readonly repeats: (rules: Rules, id: string) => boolean;
  readonly label: string;
  readonly says: (event: GameEvent) => string;
}

/** That something comes about once for each player, whatever happens in between. */
export const onceEach = ({ event, field, reset, repeats, label, says }: Once): Invariant => ({
  label,
  watch: (rules) => {
    const had = new Map<string, Set<string>>();
    return {
      onEvent: (_, happened) => {
        const { name, who, data, serial } = happened;
        if (name === reset.name) had.delete(who);
        if (name !== event.name) return undefined;
        const id = String(data[field]);
        if (repeats(rules, id)) return undefined;
        const own = had.get(who) ?? new Set<string>();
        had.set(who, own);
        if (own.has(id)) return { who, says: says(happened), cause: serial };
        own.add(id);
        return undefined;
      },
    };
  },
});
