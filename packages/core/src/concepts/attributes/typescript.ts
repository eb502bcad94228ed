import { onlyTries } from '../../analysis/collect.js';
import { type AttributeEntry } from './schema.js';
import { attributes } from './state.js';
import { registry } from '../../ruleset/registry.js';
import type { Rules } from '../../ruleset/rules.js';

const SEEN = { owner: 'its owner', team: 'its crew', everyone: 'everyone', server: 'the server alone' };

/** Words that a property of a class can't be read by without surprise. */
const TAKEN = new Set(['constructor', 'read', 'on']);

/** A comment may hold anything but its own end. */
const inComment = (text: string) => text.replace(/\*\//g, '*\\/').replace(/\s+/g, ' ').trim();

const upper = (chapter: string) => chapter.replace(/([a-z])([A-Z])/g, '$1_$2').toUpperCase();
const singular = (chapter: string) => {
  const one = chapter.endsWith('ies')
    ? `${chapter.slice(0, -3)}y`
    : chapter.endsWith('uses')
      ? chapter.slice(0, -2)
      : chapter.replace(/s$/, '');
  return one.charAt(0).toUpperCase() + one.slice(1);
};

/**
 * TypeScript for a game's client: ids as unions and constants, and an accessor for each attribute that a seat can be told
 * of. It stands by itself and compiles under `strict`; only names are in it, never the inside of a rule.
 */
export function typescriptOf(rules: Rules): string {
  const chapters = [...registry().sections].flatMap(([key, section]) => (section.kind === 'chapter' && !onlyTries(key) ? [key] : []));
  const ids = chapters.map((chapter) => {
    const { entries } = rules.chapters.get(chapter)!;
    const lines = entries.map(({ id, label }) => `  /** ${inComment(label)} */\n  ${id}: '${id}',\n`).join('');
    return `export const ${upper(chapter)} = {\n${lines}} as const;\nexport type ${singular(chapter)}Id = keyof typeof ${upper(chapter)};\n`;
  });
  const entries = attributes.of(rules).entries.filter((entry) => entry.see !== 'server');
  const accessors = entries.map((entry) => accessor(rules, entry)).join('\n');
  return `// Generated from the ruleset "${inComment(rules.document.name)}". Edit the ruleset, not this file.

${ids.join('\n')}
/** What a seat was told: a copy's values by attribute. Undefined where it was told nothing. */
export interface Source {
  value(attribute: AttributeId): number | undefined;
  /** Hears of each change with old and new. Returns how to stop. */
  on(attribute: AttributeId, listener: (now: number | undefined, before: number | undefined) => void): () => void;
}

/** The attributes of one actor, by name. */
export class Attributes {
  constructor(private readonly source: Source) {}

  /** Hears of each change of an attribute, with old and new. Returns how to stop. */
  on(attribute: AttributeId, listener: (now: number | undefined, before: number | undefined) => void): () => void {
    return this.source.on(attribute, listener);
  }

${accessors}}
`;
}

function accessor(rules: Rules, entry: AttributeEntry): string {
  const { decimals } = attributes.of(rules).list.find((attribute) => attribute.id === entry.id)!;
  const range = entry.max === undefined ? `${entry.min} and above` : `${entry.min} to ${entry.max}`;
  const unit = entry.unit === undefined ? '' : `, in ${entry.unit}`;
  const places = decimals === 0 ? 'whole numbers' : `${decimals} decimal${decimals === 1 ? '' : 's'}`;
  const lines = [
    `${entry.label}: a ${entry.kind}, ${range}${unit}.`,
    `Seen by ${SEEN[entry.see]}, to ${places}.`,
    ...(entry.note === undefined ? [] : [entry.note]),
  ];
  const name = TAKEN.has(entry.id) ? `${entry.id}Value` : entry.id;
  return `  /**\n${lines.map((line) => `   * ${inComment(line)}\n`).join('')}   */\n  get ${name}(): number | undefined {\n    return this.source.value('${entry.id}');\n  }\n`;
}
