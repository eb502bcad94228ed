import type { World } from './world.js';

/**
 * The rows of actors of some kinds, ascending: of all that are in the arena, those that a rule is about are mostly a few. Found
 * anew when somebody came or went; what was found before stays as it is for whoever still goes through it.
 */
export class RowsOfKinds {
  private version = -1;
  private found: readonly number[] = [];

  /** @param isMeant by kind of actor, whether its rows are among them */
  constructor(private readonly isMeant: readonly boolean[]) {}

  in({ actors }: World): readonly number[] {
    if (this.version === actors.version) return this.found;
    const { live, high } = actors;
    const kinds = actors.cells.type;
    const found: number[] = [];
    for (let row = 0; row < high; row++) if (live[row] === 1 && this.isMeant[kinds[row]]) found.push(row);
    this.version = actors.version;
    return (this.found = found);
  }
}
