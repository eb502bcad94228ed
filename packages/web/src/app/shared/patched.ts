import jsonPatch, { type Operation } from 'fast-json-patch';
import { create } from 'mutative';
import type { RulesetJson } from './api';

/** What a document came from: the one before it, and what was changed. */
export interface Derivation {
  readonly from: RulesetJson;
  readonly patch: readonly Operation[];
}

/** What documents came from, as long as somebody may still ask: until then each keeps the one before it. */
const derivations = new WeakMap<RulesetJson, Derivation>();
/** What was worked out last from a document: an edit that was tried out and is then made is the same document. */
const results = new WeakMap<RulesetJson, { readonly patch: readonly Operation[]; readonly result: RulesetJson }>();

/** A document after a patch: what the patch leaves as it is, both share. @throws where the patch does not fit */
export function patched(document: RulesetJson, patch: readonly Operation[]): RulesetJson {
  return create(document, (draft) => void jsonPatch.applyPatch(draft, structuredClone([...patch]), true, true));
}

/** The same, with a note of where it came from. Asked twice for the same patch, it is the same document. @throws where the patch does not fit */
export function applied(document: RulesetJson, patch: readonly Operation[]): RulesetJson {
  const known = results.get(document);
  if (known?.patch === patch) return known.result;
  const result = patched(document, patch);
  results.set(document, { patch, result });
  if (result !== document) derivations.set(result, { from: document, patch });
  return result;
}

export const derivationOf = (document: RulesetJson): Derivation | undefined => derivations.get(document);

/** Nobody asks any more what a document came from. */
export const forgetDerivation = (document: RulesetJson): void => void derivations.delete(document);
