import type { Visibility } from '../world/columns.js';

/** Who a row or a cell is for, as a chunk: one is written once and sent to all it is for. -1 where it is not about one. */
export interface Audience {
  readonly see: Visibility;
  /** The row of the actor whom it belongs to. */
  readonly owner: number;
  readonly team: number;
}

/** What is for everybody. */
export const EVERYBODY: Audience = { see: 'everyone', owner: -1, team: -1 };
/** Who watches the truth is told all that there is. */
export const TRUTH: Audience = { see: 'server', owner: -1, team: -1 };

/** Whether anything of this visibility can be for this audience. */
export function mayBeFor(audience: Audience, see: Visibility): boolean {
  return audience === TRUTH || see === audience.see || (see === 'team' && audience.see === 'owner');
}

/** Whether a row can have anything for this audience, by whom it belongs to. */
export function mayHave({ see, owner, team }: Audience, ownerOfRow: number, teamOfRow: number): boolean {
  return see === 'owner' ? ownerOfRow === owner : see === 'team' ? teamOfRow === team : true;
}

/** Whether a row's value of this visibility is for this audience. An actor without a team is a team of one. */
export function isFor(audience: Audience, see: Visibility, owner: number, team: number): boolean {
  if (audience === TRUTH) return true;
  switch (audience.see) {
    case 'everyone':
      return see === 'everyone';
    case 'team':
      return see === 'team' && team === audience.team;
    case 'owner':
      return owner === audience.owner && owner >= 0 && (see === 'owner' || (see === 'team' && team < 0));
    default:
      return false;
  }
}
