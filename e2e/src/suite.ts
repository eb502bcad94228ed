import type { Screen } from './screen.js';
import type { Trial } from './trial.js';
import { Workbench } from './workbench.js';

/** What a walk has to itself. */
export interface Walk {
  readonly workbench: Workbench;
  /** A page with somebody signed in, in a browser that remembers nothing else. */
  readonly screen: Screen;
  /** The demo as it ships, that nobody else has opened. */
  readonly trial: Trial;
}

/**
 * Has each walk of a suite begin with nothing that another has left: they can be taken in any order, and each by itself. What
 * its page complains of on its console fails the walk.
 */
export function eachWalk(begin: (walk: Walk) => void, options: { readonly ownCluster?: boolean } = {}): void {
  let workbench: Workbench;
  let screen: Screen | undefined;
  beforeAll(async () => (workbench = await Workbench.start(options)));
  afterAll(() => workbench.stop());
  beforeEach(async () => {
    screen = await workbench.freshScreen();
    begin({ workbench, screen, trial: await workbench.trial() });
  });
  afterEach(async () => {
    expect(screen?.complaints).toEqual([]);
    screen = undefined;
    await workbench.closePages();
  });
}
