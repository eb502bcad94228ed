import { achievementPanel } from './achievement-window';
import { aroundPanel } from './around';
import { crewPanel } from './crew-name';
import { figuresPanel } from './figures';
import { flourishesPanel } from './flourishes';
import { hudPanel } from './hud';
import { levelPanel } from './level-line';
import { moneyDoorPanel } from './money-line';
import { moneyPanel } from './money-window';
import type { SeatPanel } from './panel';
import { questLinesPanel } from './quest-lines';
import { questDoorPanel } from './quest-door';
import { questPanel } from './quest-window';
import { rosterPanel } from './roster';
import { skillPanel } from './skill-window';

/** What stands on the screen of a seat, in its order at each place. One line adds a panel, in Playtest and behind join links alike. */
export const PANELS: readonly SeatPanel[] = [
  aroundPanel,
  figuresPanel,
  achievementPanel,
  questPanel,
  skillPanel,
  hudPanel,
  questLinesPanel,
  questDoorPanel,
  moneyDoorPanel,
  levelPanel,
  rosterPanel,
  moneyPanel,
  flourishesPanel,
  crewPanel,
];
