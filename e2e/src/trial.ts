import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import jsonPatch from 'fast-json-patch';
import type { Workbench } from './workbench.js';

/** The demo ruleset's file. */
export const DEMO = fileURLToPath(new URL('../../examples/brinewick.json', import.meta.url));

export type Entry = Record<string, unknown> & { id: string };
export type RulesetJson = Record<string, Entry[]> & {
  economy: { ruin: { lastChance: string }; goal: { if: string } };
  arena: { placed: { spawner?: string }[] };
};

/** The demo as it ships. */
export const demo = (): RulesetJson => JSON.parse(readFileSync(DEMO, 'utf8')) as RulesetJson;

/** An entry of a document, to be read or changed. */
export function entryOf(document: RulesetJson, chapter: string, id: string): Entry {
  const found = document[chapter].find((entry) => entry.id === id);
  if (!found) throw new Error(`There is no ${id} in ${chapter}.`);
  return found;
}

export interface Room {
  readonly id: string;
  /** Where Playtest shows it. */
  readonly path: string;
  /** Where a seat is played by itself. */
  readonly joins: Readonly<Record<string, string>>;
}

/** A ruleset that was made for one walk. */
export class Trial {
  constructor(
    private readonly workbench: Workbench,
    readonly id: string,
  ) {}

  /** Where an entry stands in the Rulebook. */
  at(chapter: string, entry = ''): string {
    return `/r/${this.id}/rulebook/${chapter}${entry && `/${entry}`}`;
  }

  /** The document as the server has it. */
  async stored(): Promise<RulesetJson> {
    return (await this.read()).document;
  }

  private read(): Promise<{ document: RulesetJson; revision: number }> {
    return this.workbench.request(`/api/rulesets/${this.id}`);
  }

  /** Edits the document on the server, as another author would. */
  async edit(change: (document: RulesetJson) => void): Promise<void> {
    const { document, revision } = await this.read();
    const edited = structuredClone(document);
    change(edited);
    const patch = jsonPatch.compare(document, edited);
    if (patch.length > 0) await this.workbench.request(`/api/rulesets/${this.id}`, 'PATCH', patch, { 'if-match': `"${revision}"` });
  }

  /** Has nobody run out of air or be bitten, however long a slow machine takes. */
  async harmless(): Promise<void> {
    await this.edit((document) => {
      entryOf(document, 'attributes', 'oxygen')['refill'] = { rate: 'has(inBell) ? breathRate : 0' };
      for (const ability of ['bite', 'maw', 'sting']) delete entryOf(document, 'abilities', ability)['onHit'];
    });
  }

  /** A new room of it, of guests where nothing else is said. */
  async room(seats = 2, players: 'guests' | 'saved' = 'guests'): Promise<Room> {
    const body = { ruleset: this.id, seats, players };
    const made = await this.workbench.request<{ id: string; seats: { name: string; join: string }[] }>('/api/rooms', 'POST', body);
    return {
      id: made.id,
      path: `/r/${this.id}/playtest/${made.id}`,
      joins: Object.fromEntries(made.seats.map(({ name, join }) => [name, join])),
    };
  }

  /** Gives it players at different standing: those that the demo comes with. */
  async takeSamplePlayers(): Promise<void> {
    const { rulesets } = await this.workbench.request<{ rulesets: { id: string; name: string }[] }>('/api/rulesets?limit=200');
    const [{ id }, ...others] = rulesets.filter(({ name }) => name === 'Brinewick Salvage');
    if (others.length > 0) throw new Error('A walk has left a ruleset with the name of the demo.');
    const { players } = await this.workbench.request<{ players: { name: string }[] }>(`/api/rulesets/${id}/players`);
    for (const { name } of players) {
      const { saved } = await this.workbench.request<{ saved: unknown }>(`/api/rulesets/${id}/players/${name}`);
      await this.workbench.request(`/api/rulesets/${this.id}/players/${name}`, 'PUT', { saved });
    }
  }
}
