import { provideHttpClient, withInterceptors } from '@angular/common/http';
import { type ApplicationConfig, provideZonelessChangeDetection } from '@angular/core';
import { provideRouter, withComponentInputBinding } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideStore } from '@ngrx/store';
import { routes } from './app.routes';
import { writeHeader } from './shared/api';
import { DocumentEffects } from './store/document.effects';
import { documentFeature } from './store/document.reducer';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideRouter(routes, withComponentInputBinding()),
    provideHttpClient(withInterceptors([writeHeader])),
    provideStore({ [documentFeature.name]: documentFeature.reducer }),
    provideEffects(DocumentEffects),
  ],
};
