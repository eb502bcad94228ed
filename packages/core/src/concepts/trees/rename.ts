import { ID_PATTERN } from '../../ruleset/fields.js';
import { pointer, type PatchOperation } from '../../ruleset/problem.js';
import type { Renaming } from '../../ruleset/rename.js';
import type { Rules } from '../../ruleset/rules.js';
import type { NodeEntry, TreeEntry } from './schema.js';

/**
 * Renames a node of a skill tree: rewrites what needs it and the choices that it is in, in one step, and notes the id that
 * it had, so that the ranks that players have follow.
 */
export function renameNode(rules: Rules, tree: string, from: string, to: string): Renaming {
  const chapter = rules.chapters.get('trees');
  const position = chapter?.ids.indexOf(tree) ?? -1;
  // As it is written: what is left out there stays left out.
  const entry = (rules.document['trees'] as readonly TreeEntry[] | undefined)?.[position];
  const nodes: readonly Partial<NodeEntry>[] = entry?.nodes ?? [];
  const at = nodes.findIndex(({ id }) => id === from);
  if (at < 0) return { problem: `There is no node ${from} to rename.` };
  if (to === from) return { patch: [] };
  if (!ID_PATTERN.test(to)) return { problem: 'An id is camelCase: a small letter, then letters and digits, at most 48 in all.' };
  if (nodes.some(({ id }) => id === to)) return { problem: `${to} is taken by another node of this tree.` };
  const owner = nodes.find(({ formerly }, i) => i !== at && formerly?.includes(to));
  if (owner) return { problem: `${to} was the id of ${owner.id} before: ranks that were kept under it belong there.` };
  const path = (...rest: readonly (string | number)[]) => pointer(['trees', position, ...rest]);
  const patch: PatchOperation[] = [{ op: 'replace', path: path('nodes', at, 'id'), value: to }];
  nodes.forEach(({ needs }, i) => {
    for (const kind of ['all', 'any'] as const)
      needs?.[kind]?.forEach(({ node }, k) => {
        if (node === from) patch.push({ op: 'replace', path: path('nodes', i, 'needs', kind, k, 'node'), value: to });
      });
  });
  entry!.exclusive?.forEach((group, g) =>
    group.forEach((node, k) => {
      if (node === from) patch.push({ op: 'replace', path: path('exclusive', g, k), value: to });
    }),
  );
  const noted = [...(nodes[at].formerly ?? []).filter((old) => old !== to), from].slice(-50);
  patch.push({ op: 'add', path: path('nodes', at, 'formerly'), value: noted });
  return { patch };
}
