/** Something that keeps a ruleset from compiling. `path` is a JSON Pointer (RFC 6901) into the document. */
export interface Problem {
  readonly path: string;
  readonly message: string;
  /** Offset into the formula at `path`, where the problem lies inside one. */
  readonly at?: number;
}

/** Something about a sound ruleset that its author will hardly have meant. */
export interface Finding {
  /** Says what kind of finding it is: stable, for filters and tests. */
  readonly kind: string;
  /** JSON Pointer into the document as it was read. */
  readonly path: string;
  /** What is the matter, why it matters, and what to do. */
  readonly message: string;
  /** A way to mend it, as JSON Patch (RFC 6902). */
  readonly fix?: { readonly label: string; readonly patch: readonly PatchOperation[] };
}

/** An operation of a JSON Patch (RFC 6902), as far as this product writes them. */
export type PatchOperation =
  { readonly op: 'add' | 'replace'; readonly path: string; readonly value: unknown } | { readonly op: 'remove'; readonly path: string };

/** A place in a document: property names and list positions, from the root. */
export type Path = readonly (string | number)[];

/** Writes a path as JSON Pointer (RFC 6901): `['effects', 0]` is `/effects/0`, the root is the empty text. */
export function pointer(path: Path): string {
  return path.map((part) => '/' + String(part).replace(/~/g, '~0').replace(/\//g, '~1')).join('');
}

/** Thrown by the `compile` of something that was not validated first; carries every problem found. */
export class RulesetError extends Error {
  constructor(readonly problems: readonly Problem[]) {
    super(problems.map((p) => `${p.path || '/'}: ${p.message}`).join('\n'));
    this.name = 'RulesetError';
  }
}
