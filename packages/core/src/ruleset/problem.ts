/** Something that keeps a ruleset from compiling. `path` is a JSON Pointer (RFC 6901) into the document. */
export interface Problem {
  readonly path: string;
  readonly message: string;
  /** Offset into the formula at `path`, where the problem lies inside one. */
  readonly at?: number;
}

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
