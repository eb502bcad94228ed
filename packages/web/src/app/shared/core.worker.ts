/// <reference lib="webworker" />
import { expose } from 'comlink';
import { createCore } from './core-api';

/** The core, off the interface's thread. */
expose(createCore());
