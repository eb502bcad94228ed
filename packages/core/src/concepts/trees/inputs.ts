import { z } from 'zod';
import { reference } from '../../ruleset/fields.js';
import type { Rules } from '../../ruleset/rules.js';
import type { InputSpec } from '../../world/concept.js';
import { treeChapter } from './schema.js';
import { learn, respec, unlearn } from './spending.js';

const args = { tree: reference('trees'), node: z.string().max(48) };

/** Each node of each tree. */
const examples = (rules: Rules) => treeChapter.of(rules).flatMap(({ id: tree, nodes }) => nodes.map(({ id: node }) => ({ tree, node })));

export const inputs: Readonly<Record<string, InputSpec>> = {
  learn: {
    label: 'learn a skill',
    sentence: 'learns {node} of {tree}',
    args,
    examples,
    traced: true,
    run: (world, actor, { tree, node }) => learn(world, actor, String(tree), String(node)),
  },
  unlearn: {
    label: 'take a point back',
    sentence: 'takes a point of {node} back, in {tree}',
    args,
    examples,
    traced: true,
    run: (world, actor, { tree, node }) => unlearn(world, actor, String(tree), String(node)),
  },
  respec: {
    label: 'take all points back',
    sentence: 'takes all points of {tree} back',
    args: { tree: args.tree },
    traced: true,
    run: (world, actor, { tree }) => respec(world, actor, String(tree)),
  },
};
