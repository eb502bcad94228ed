import { Injectable } from '@angular/core';
import type { ActionDescription, EventDescription } from '@eager-ember/core';
import { type Remote, wrap } from 'comlink';
import type { CoreApi } from './core-api';

/** The core in its worker. */
@Injectable({ providedIn: 'root' })
export class CoreClient {
  private worker: Remote<CoreApi> | undefined;
  private heard: Promise<readonly EventDescription[]> | undefined;
  private described: Promise<readonly ActionDescription[]> | undefined;

  get core(): Remote<CoreApi> {
    return (this.worker ??= wrap<CoreApi>(new Worker(new URL('./core.worker', import.meta.url), { type: 'module' })));
  }

  /** Every action there is; the same for all rulesets. */
  actions(): Promise<readonly ActionDescription[]> {
    return (this.described ??= this.core.actions());
  }

  /** Every event that can be waited for; the same for all rulesets. */
  events(): Promise<readonly EventDescription[]> {
    return (this.heard ??= this.core.events());
  }
}
