/** A player of whom what was kept can't be read, and what is wrong with it. */
export interface Unreadable {
  readonly player: string;
  readonly reason: string;
}

/** What somebody is told of that: all of it for who can mend it, and for a seat that of its own player something was. */
export function unreadableWords(all: readonly Unreadable[], seat: string | undefined): readonly string[] {
  if (seat === undefined)
    return all.map(
      ({ player, reason }) =>
        `What was kept of ${player} can’t be read (${reason}). It is set aside untouched under Players, and ${player} begins anew.`,
    );
  return all.some(({ player }) => player === seat)
    ? ['What was kept of you can’t be read. It is set aside untouched, and you begin anew.']
    : [];
}
