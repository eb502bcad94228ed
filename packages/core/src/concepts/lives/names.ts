import type { World } from '../../world/world.js';

/** Which names nobody has. Worked out from the actors' table, anew where somebody has come or gone without its being told. */
export class Names {
  private version = -1;
  private taken = new Set<string>();
  /** For a label the first number that may be free. */
  private next = new Map<string, number>();

  /** The label, or the label with the first number that nobody is called by. */
  free(world: World, label: string): string {
    if (this.version !== world.actors.version) this.build(world);
    if (!this.taken.has(label)) return label;
    let n = this.next.get(label) ?? 2;
    while (this.taken.has(`${label} ${n}`)) n++;
    this.next.set(label, n);
    return `${label} ${n}`;
  }

  /** Somebody has come by a name that was free. Where others came or went with that, all are looked at anew. */
  note(world: World, name: string): void {
    if (world.actors.version === this.version + 1) {
      this.taken.add(name);
      this.version++;
    }
  }

  /** Somebody has gone: their name is free. Where others came or went with that, all are looked at anew. */
  leave(world: World, name: string): void {
    if (world.actors.version !== this.version + 1) return;
    this.version++;
    this.taken.delete(name);
    const [, label, number] = /^(.*) (\d+)$/.exec(name) ?? [];
    const next = this.next.get(label);
    if (next !== undefined) this.next.set(label, Math.min(next, Math.max(2, Number(number))));
  }

  private build(world: World): void {
    const { actors } = world;
    this.taken = new Set();
    this.next = new Map();
    for (const row of actors.rows()) this.taken.add(world.nameOf(actors.handle(row)));
    this.version = actors.version;
  }
}
