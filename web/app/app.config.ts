import {
  ApplicationConfig,
  isDevMode,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
} from '@angular/core';
import { provideServiceWorker } from '@angular/service-worker';
import { provideRouter, withComponentInputBinding } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideStore } from '@ngrx/store';
import { routes } from './app.routes';
import { JobEffects } from './job-state/job.effects';
import { jobFeature } from './job-state/job.reducer';

export const appConfig: ApplicationConfig = {
  providers: [
    provideBrowserGlobalErrorListeners(),
    provideZonelessChangeDetection(),
    provideRouter(routes, withComponentInputBinding()),
    provideStore({ [jobFeature.name]: jobFeature.reducer }),
    provideEffects(JobEffects),
    // A browser keeps the application itself only for a page it trusts: HTTPS, or this machine.
    provideServiceWorker('ngsw-worker.js', {
      enabled: !isDevMode() && isSecureContext,
      registrationStrategy: 'registerWhenStable:3000',
    }),
  ],
};
