import jsonPatch from 'fast-json-patch';
import {
  actorOfSeat,
  type Command,
  compileRuleset,
  Copy,
  Publisher,
  renameEntry,
  type Rules,
  type SavedPlayer,
  savePlayer,
  wireSchemaOf,
  World,
} from '../../index.js';
import { RecordedDigest } from './digest.js';
import ruleset from './brinewick.json' with { type: 'json' };
import session from './session.json' with { type: 'json' };

/** The tick at which what the session has of its own was stored: its world, and what is kept of its players. */
export const STORED_AT = 2380;
export const RECORDED_SEATS = ['north', 'east', 'south'] as const;

interface Edit {
  readonly at: number;
  readonly renames: readonly (readonly string[])[];
  /** A new entry in front and a move: positions of entries are others behind it. */
  readonly patch: readonly unknown[];
}

const applied = (document: unknown, patch: readonly unknown[]) =>
  jsonPatch.applyPatch(structuredClone(document), patch as never).newDocument as never;

/**
 * Three players in the demo, three minutes long: what was asked of a world by ticks, and an edit in the middle. It was recorded
 * with version 0.10.0 and is never recorded anew, so that what came of it then can be held against what comes of it now.
 */
export class RecordedSession {
  readonly rules = compileRuleset(ruleset);
  world = World.start(this.rules, 11);
  saved: Record<string, SavedPlayer> = {};
  private readonly commands = new Map<number, Command[]>();
  private readonly edit = session.edit as Edit;

  constructor() {
    for (const [tick, command] of session.commands as readonly unknown[] as readonly (readonly [number, Command])[])
      this.commands.set(tick, [...(this.commands.get(tick) ?? []), command]);
  }

  /** How many ticks it is long. */
  get length(): number {
    return session.ticks;
  }

  /** The rules as they are behind the edit. */
  edited(): Rules {
    let rules = this.rules;
    for (const [chapter, from, to] of this.edit.renames)
      rules = compileRuleset(applied(rules.document, renameEntry(rules, chapter, from, to).patch!));
    return compileRuleset(applied(rules.document, this.edit.patch));
  }

  /** Runs the next tick. Returns whether the rules were edited before it. */
  step(): boolean {
    const { tick } = this.world;
    const edits = tick === this.edit.at;
    if (edits) this.world = this.world.adopt(this.edited());
    const commands = (this.commands.get(tick) ?? []).map((command): Command => {
      if (command.kind === 'leave') this.saved[String(command.args['seat'])] = this.savedOf(String(command.args['seat']));
      const back = this.saved[String(command.args['saved'])];
      return back ? { ...command, args: { ...command.args, saved: back } } : command;
    });
    this.world.step(commands);
    return edits;
  }

  savedOf(seat: string): SavedPlayer {
    return savePlayer(this.world, this.world.actors.rowOf(actorOfSeat(this.world, seat)));
  }
}

/** All that the seats of a session are told, and somebody who watches the truth: as one digest for each, that grows with every frame. */
export class Told {
  private readonly hashers = new Map([...RECORDED_SEATS, 'truth'].map((viewer) => [viewer, new RecordedDigest()]));
  private publisher: Publisher;
  private copies: ReadonlyMap<string, Copy>;

  constructor(private readonly session: RecordedSession) {
    [this.publisher, this.copies] = [new Publisher(session.world), this.opened()];
  }

  private opened(): ReadonlyMap<string, Copy> {
    return new Map(
      [...this.hashers.keys()].map((viewer) => [viewer, new Copy(wireSchemaOf(this.session.world.rules, viewer === 'truth'))]),
    );
  }

  /** Tells of the tick that was run. */
  tell(edited: boolean): void {
    const { world } = this.session;
    if (edited) [this.publisher, this.copies] = [new Publisher(world), this.opened()];
    this.publisher.capture();
    for (const [viewer, hasher] of this.hashers) {
      const copy = this.copies.get(viewer)!;
      const actor = viewer === 'truth' ? 0 : actorOfSeat(world, viewer);
      const team = world.actors.rowOf(actor) < 0 ? -1 : world.actors.cells.team[world.actors.rowOf(actor)];
      const frame = this.publisher.frameFor(viewer === 'truth' ? 'truth' : { actor, team }, copy.frame);
      hasher.bytes(frame);
      copy.apply(frame);
    }
  }

  /** A digest of the frames so far by viewer, and of the names under which the copies know what they have. */
  digests(): readonly string[] {
    return [...this.hashers].map(([viewer, hasher]) => {
      hasher.text(JSON.stringify(this.copies.get(viewer)!.contents()));
      return hasher.toString();
    });
  }
}
