import type { TableSpec } from '../world/table.js';
import type { Vocabulary } from '../formula/index.js';
import type { Registry } from './registry.js';

/** The entries of a chapter, by position and by id. */
export interface Chapter {
  readonly ids: readonly string[];
  readonly entries: readonly { readonly id: string; readonly label: string }[];
}

/** The document with its defaults filled in. */
export interface RulesetDocument {
  readonly format: string;
  readonly version: number;
  readonly name: string;
  readonly tickRate: number;
  readonly [section: string]: unknown;
}

/** A compiled ruleset: what worlds run on. Immutable; a sound document compiles to exactly one. */
export interface Rules {
  readonly registry: Registry;
  readonly document: RulesetDocument;
  readonly tickRate: number;
  readonly chapters: ReadonlyMap<string, Chapter>;
  readonly vocabulary: Vocabulary;
  readonly compiled: ReadonlyMap<string, unknown>;
  readonly tables: readonly TableSpec[];
}

export function idOf(rules: Rules, chapter: string, index: number): string {
  return rules.chapters.get(chapter)?.ids[index] ?? '';
}

export function labelOf(rules: Rules, chapter: string, id: string): string {
  return rules.chapters.get(chapter)?.entries.find((entry) => entry.id === id)?.label ?? id;
}
