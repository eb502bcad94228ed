import { expose } from 'comlink';
import { coreApi } from './core-api';

/** The core, off the interface's thread. */
expose(coreApi);
