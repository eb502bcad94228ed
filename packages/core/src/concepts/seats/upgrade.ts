import type { Rules } from '../../ruleset/rules.js';
import { successorOf } from '../../world/columns.js';
import { followSaved, type SavedPlayer, savePlayer } from '../../world/saved.js';
import { columnLabelOf, savingTables, titleOf } from '../../world/saved-sheet.js';
import { World } from '../../world/world.js';
import { actorChapter } from '../actors/schema.js';
import { arena } from '../arena/index.js';

/** Something that a player would have less of. */
export interface Loss {
  readonly table: string;
  readonly label: string;
  readonly had: number | string;
  /** Nothing where there is no place for it any more. */
  readonly has?: number | string;
}

/** What players would lose, were these rules to take the place of those: asked of one saved player after the other. */
export class Upgrade {
  private readonly old: Scratch;
  private readonly next: Scratch;

  constructor(
    private readonly before: Rules,
    private readonly after: Rules,
  ) {
    this.old = new Scratch(before);
    this.next = new Scratch(after);
  }

  lossesOf(saved: SavedPlayer): readonly Loss[] {
    const had = this.old.loaded(saved);
    const has = this.next.loaded(followSaved(this.before, this.after, saved));
    const losses: Loss[] = [];
    for (const table of savingTables(this.before)) {
      const columns = this.after.tables.find(({ name }) => name === table.name)?.columns ?? [];
      for (const column of table.columns) {
        const value = had[table.name]?.[column.name];
        if (value === undefined || value === 0 || value === '') continue;
        const successor = successorOf(column, columns);
        const now = successor && has[table.name]?.[successor.name];
        if (now === undefined) losses.push({ table: titleOf(table), label: columnLabelOf(column), had: value });
        else if (typeof value === 'number' && typeof now === 'number' && now < value)
          losses.push({ table: titleOf(table), label: columnLabelOf(column), had: value, has: now });
      }
    }
    return losses;
  }
}

/** A world that players are loaded into one after the other, to see what becomes of what was kept of them. */
class Scratch {
  private readonly world: World | undefined;

  constructor(rules: Rules) {
    const bare = { ...rules.document, arena: { ...arena.of(rules), placed: [] } };
    const playable = actorChapter.of(rules).some(({ kind }) => kind === 'player');
    this.world = playable ? World.start({ ...rules, document: bare }, 1) : undefined;
  }

  /** What is kept of a player who was just loaded: as the rules have made it sound. */
  loaded(saved: SavedPlayer): SavedPlayer {
    if (!this.world) return {};
    const { world } = this;
    const { commands } = world.rules.registry;
    // Between ticks: what a tick does to them, such as a breath, is no doing of the rules' edit.
    commands.get('join')?.run(world, { seat: 'scratch', saved });
    const { high, live } = world.actors;
    let kept: SavedPlayer = {};
    for (let row = 0; row < high; row++)
      if (live[row] === 1 && world.nameOf(world.actors.handle(row)) === 'scratch') kept = savePlayer(world, row);
    commands.get('leave')?.run(world, { seat: 'scratch' });
    world.step();
    return kept;
  }
}
