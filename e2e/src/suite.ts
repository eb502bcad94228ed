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

/** What a suite has to itself: all but the database's server, or that as well. */
type Own = 'server' | 'cluster';

let shared: Workbench | undefined;

/** The workbench of all walks of this process, where they need none of their own. It ends with the process. */
async function sharedWorkbench(): Promise<Workbench> {
  if (shared) return shared;
  const workbench = (shared = await Workbench.start());
  process.once('exit', () => workbench.end());
  // One of several processes between which the walks are shared out is told so when there are no more.
  process.once('disconnect', () => process.exit());
  return workbench;
}

/**
 * Has each walk of a suite begin with nothing that another has left: they can be taken in any order, and each by itself. What
 * its page complains of on its console fails the walk.
 */
export function eachWalk(begin: (walk: Walk) => void, options: { readonly own?: Own } = {}): void {
  let workbench: Workbench;
  let screen: Screen | undefined;
  beforeAll(
    async () => (workbench = options.own ? await Workbench.start({ ownCluster: options.own === 'cluster' }) : await sharedWorkbench()),
  );
  afterAll(async () => {
    if (options.own) await workbench.stop();
  });
  beforeEach(async () => {
    screen = await workbench.freshScreen();
    begin({ workbench, screen, trial: await workbench.trial() });
  });
  afterEach(async () => {
    expect(screen?.complaints).toEqual([]);
    await workbench.closePages(screen);
    screen = undefined;
  });
}
