/** What keeps a check from being run: a place in it, and what is wrong there. */
export class Mistake extends Error {
  /** @param path the place below the check, as `stages/0/then/1/value` */
  constructor(
    readonly path: string,
    message: string,
  ) {
    super(message);
    this.name = 'Mistake';
  }
}
