import { type Screen, Workbench } from './workbench.js';

/** Gives a suite an application of its own, with somebody signed in, and ends it afterwards. */
export function withWorkbench(ready: (workbench: Workbench, screen: Screen) => void): void {
  let workbench: Workbench | undefined;
  beforeAll(async () => {
    workbench = await Workbench.start();
    ready(workbench, await workbench.signIn());
  }, 60_000);
  afterAll(() => workbench?.stop(), 30_000);
}
