import type { AlsoCalled } from '../world/concept.js';

/** Words that anybody may use for what many concepts have. */
const GENERAL: Required<AlsoCalled> = {
  names: { maximum: ['max'], minimum: ['min'], ceiling: ['ceil'] },
  parts: {
    title: ['label', 'name'],
    name: ['label', 'id'],
    text: ['label', 'line'],
    label: ['line', 'text'],
    description: ['text', 'note'],
    times: ['count'],
    amount: ['count', 'quantity'],
    event: ['on'],
    type: ['kind', 'at', 'by', 'is', 'do'],
    actions: ['then'],
    duration: ['lasts', 'time'],
    maximum: ['max'],
    minimum: ['min'],
    value: ['start', 'amount'],
    requirements: ['requires', 'needs'],
    condition: ['if', 'who'],
    visibility: ['see'],
  },
};

const names = new Map<string, readonly string[]>();
const parts = new Map<string, readonly string[]>();

function add(into: Map<string, readonly string[]>, words: Readonly<Record<string, readonly string[]>> = {}): void {
  for (const [word, meant] of Object.entries(words)) into.set(word, [...(into.get(word) ?? []), ...meant]);
}

/** Makes these the words that are known: those of all concepts, beside the general ones. */
export function learnWords(all: readonly AlsoCalled[]): void {
  names.clear();
  parts.clear();
  for (const words of [GENERAL, ...all]) {
    add(names, words.names);
    add(parts, words.parts);
  }
}

/** What may be meant by a word where a name is expected: of an action, an event, a function or an entry; nothing of most words. */
export const namesMeantBy = (word: string): readonly string[] => names.get(word) ?? [];

/** What may be meant by a word where a part of an entry is expected; nothing of most words. */
export const partsMeantBy = (word: string): readonly string[] => parts.get(word) ?? [];
