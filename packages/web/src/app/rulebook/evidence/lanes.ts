import type { Span } from '@eager-ember/core';

/** Spans in lanes: those that overlap stand below each other, the others of their kind in one line. */
export function lanesOf(spans: readonly Span[]): readonly (readonly Span[])[] {
  const lanes: Span[][] = [];
  for (const span of spans) {
    const free = lanes.find((lane) => lane[0].kind === span.kind && lane[lane.length - 1].to <= span.from);
    if (free) free.push(span);
    else lanes.push([span]);
  }
  return lanes;
}

/** A span in words: what, how often over itself, from when to when, and why it ended. */
export const spanWords = ({ label, stacks, from, to, ended }: Span): string =>
  `${label}${stacks ? ` ×${stacks}` : ''}, ${from} s to ${to} s${ended ? `, ${ended}` : ''}`;
