/// <reference lib="webworker" />
import { expose } from 'comlink';
import { labourApi } from './labour-api';

expose(labourApi);
