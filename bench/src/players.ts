import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { actorOfSeat, compileRuleset, renameEntry, type Rules, savePlayer, World } from '@eager-ember/core';
import { batches, connect, DraftingDesk, findHead, followPlayers, migrate, Player, Ruleset, samplePlayers } from '@eager-ember/server';
import jsonPatch, { type Operation } from 'fast-json-patch';
import { startPostgres } from '../../scripts/lib/postgres.mjs';
import { rounded, type Row } from './measure.js';

const PLAYERS = 10_000;
const DEMO = JSON.parse(readFileSync(new URL('../../examples/brinewick.json', import.meta.url), 'utf8')) as Record<string, unknown>;

/** What calls the demo's track otherwise: every saved level, and whatever speaks of it, has to follow. */
const renaming = (rules: Rules) => renameEntry(rules, 'tracks', 'standing', 'repute').patch as unknown as Operation[];

/** Megabytes that are in use once what is not has been thrown away, where that can be asked for. */
function megabytes(): number {
  (globalThis as { gc?: () => void }).gc?.();
  return process.memoryUsage().heapUsed / 1024 / 1024;
}

/** Ten thousand saved players across a renaming: rewritten in the database, then each loaded under the new rules. */
export async function players(): Promise<readonly Row[]> {
  const home = mkdtempSync(join(tmpdir(), 'ember-bench-'));
  chmodSync(home, 0o755);
  const cluster = await startPostgres(home, { durable: true });
  const sequelize = connect(cluster.url);
  const desk = new DraftingDesk();
  try {
    await migrate(sequelize);
    const before = compileRuleset(DEMO);
    const patch = renaming(before);
    const after = compileRuleset(jsonPatch.applyPatch(structuredClone(DEMO), patch).newDocument);
    const ruleset = await Ruleset.create({ name: 'Demo', document: DEMO, revision: 1 });
    const samples = samplePlayers(before);
    for (let at = 0; at < PLAYERS; at += 1000)
      await Player.bulkCreate(
        Array.from({ length: 1000 }, (_, i) => ({
          rulesetId: ruleset.id,
          name: `p${at + i}`,
          saved: samples[i % samples.length].saved,
          revision: 1,
        })),
      );
    const rewriting = performance.now();
    // The reference: the same rows read and written as they are.
    await sequelize.transaction(async (transaction) => {
      for await (const some of batches(ruleset.id, transaction))
        await Player.bulkCreate(
          some.map(({ name, saved }) => ({ rulesetId: ruleset.id, name, saved, revision: 1 })),
          { updateOnDuplicate: ['saved', 'revision', 'updatedAt'], transaction },
        );
    });
    const reference = (performance.now() - rewriting) / 1000;
    const began = performance.now();
    const head = await findHead(ruleset.id);
    const draft = await desk.edit(head, patch);
    await sequelize.transaction((transaction) => followPlayers(head, draft, transaction));
    draft.drop(false);
    const world = World.start(after, 1);
    const used: number[] = [];
    let levels = 0;
    for await (const some of batches(ruleset.id)) {
      for (const { name, saved } of some) {
        world.step([{ kind: 'join', args: { seat: name, saved } }]);
        levels += Number(savePlayer(world, world.actors.rowOf(actorOfSeat(world, name)))['tracks']['repute.level']);
        world.step([{ kind: 'leave', args: { seat: name } }]);
      }
      used.push(megabytes());
    }
    const seconds = (performance.now() - began) / 1000;
    const wanted = (PLAYERS / samples.length) * samples.reduce((sum, { saved }) => sum + Number(saved['tracks']['standing.level']), 0);
    if (levels !== wanted) throw new Error(`Levels were lost: ${levels} of ${wanted}`);
    const [first, last] = [used[1], used.at(-1)!];
    return [
      {
        what: `${PLAYERS} saved players of the demo across the renaming of their track: rewritten in the database, then each loaded under the new rules`,
        value: rounded(seconds),
        reference: rounded(reference),
        unit: 's',
        referenceIs: 'the same rows read and written as they are',
        ratio: `${(seconds / reference).toFixed(1)}x; memory in use ${first.toFixed(0)} MB after 1,000 players, ${last.toFixed(0)} MB after all`,
        reach: 'under 60 s, memory flat',
      },
    ];
  } finally {
    await desk.close();
    await sequelize.close();
    cluster.stop('immediate');
    rmSync(home, { recursive: true, force: true });
  }
}
