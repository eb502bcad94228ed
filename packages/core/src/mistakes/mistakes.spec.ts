import jsonPatch from 'fast-json-patch';
import { findingsOf, readRuleset } from '../index.js';
import { FIGHTING } from './fighting.js';
import type { Mistake } from './mistake.js';
import type { Document } from './parts.js';
import { FURTHER } from './further.js';
import { PLACES } from './places.js';
import { PROGRESS } from './progress.js';
import { SOUND } from './sound.js';
import { VALUES } from './values.js';

const MISTAKES = [...VALUES, ...FIGHTING, ...PLACES, ...PROGRESS, ...FURTHER];
/** The share of all mistakes that has to be told. */
const TOLD_AT_LEAST = 0.95;

/** What is said of a document: what it is refused for, or else what looks like a mistake in it. */
function saidOf(document: unknown): readonly { readonly path: string; readonly message: string }[] {
  const { rules, problems } = readRuleset(document);
  return rules ? findingsOf(rules) : problems;
}

function isTold({ in: within, made, at, says }: Mistake): boolean {
  const document = jsonPatch.applyPatch(jsonPatch.deepClone(SOUND[within]) as Document, jsonPatch.deepClone(made)).newDocument;
  return saidOf(document).some(
    ({ path, message }) =>
      (at === '/' || path === at || path.startsWith(at.endsWith('/') ? at : `${at}/`)) &&
      new RegExp(typeof says === 'string' ? says.replace(/[.*+?^${}()|[\]\\]/g, '\\$&') : says, 'i').test(message),
  );
}

describe('A sound ruleset', () => {
  for (const [name, document] of Object.entries(SOUND))
    it(`such as ${name} has nothing said of it`, () => {
      expect(saidOf(document).map(({ path, message }) => `${path} ${message}`)).toEqual([]);
    });
});

describe('Mistakes', () => {
  it('are at least 120, and of those nearly all are told: where they are, and what to do', () => {
    const silent = MISTAKES.filter((mistake) => !isTold(mistake));
    const share = 1 - silent.length / MISTAKES.length;
    console.log(`Mistakes told: ${MISTAKES.length - silent.length} of ${MISTAKES.length}, ${(share * 100).toFixed(1)} %.`);
    for (const { in: within, what } of silent) console.log(`  not told: ${within}: ${what}`);
    expect(MISTAKES.length).toBeGreaterThanOrEqual(120);
    expect(share).toBeGreaterThanOrEqual(TOLD_AT_LEAST);
  });
});
