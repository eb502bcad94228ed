/** Who counts, seen from an actor: see {@link counts} of the actors. */
export const WHO = ['foes', 'allies', 'crew', 'others', 'anyone'] as const;
export type Who = (typeof WHO)[number];
