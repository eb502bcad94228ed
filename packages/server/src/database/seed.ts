import { readFile } from 'node:fs/promises';
import { compileRuleset } from '@eager-ember/core';
import { Player, Ruleset, User } from './models.js';
import { samplePlayers } from './sample-players.js';

/** The one user of a workbench on one's own machine. */
export async function theAuthor(): Promise<User> {
  return (await User.findOne({ where: { name: 'author' } })) ?? User.create({ name: 'author' });
}

/** Puts the demo ruleset into a database that has none, with players at different standing. */
export async function seed(demoFile: string | undefined): Promise<void> {
  await theAuthor();
  if (demoFile === undefined || (await Ruleset.count()) > 0) return;
  const document = JSON.parse(await readFile(demoFile, 'utf8')) as Record<string, unknown>;
  const rules = compileRuleset(document);
  const { id } = await Ruleset.create({ name: String(document['name']), document, revision: 1 });
  await Player.bulkCreate(samplePlayers(rules).map(({ name, saved }) => ({ rulesetId: id, name, saved, revision: 1 })));
}
