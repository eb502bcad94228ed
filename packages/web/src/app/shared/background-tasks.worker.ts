/// <reference lib="webworker" />
import { expose } from 'comlink';
import { backgroundTasksApi } from './background-tasks-api';

expose(backgroundTasksApi);
