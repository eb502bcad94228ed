import { bootstrapApplication } from '@angular/platform-browser';
import { Root } from './app/shell/root';
import { appConfig } from './app/app.config';

bootstrapApplication(Root, appConfig).catch((error: unknown) => console.error(error));
