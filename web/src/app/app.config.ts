import { provideHttpClient, withFetch, withInterceptors } from '@angular/common/http';
import { isDevMode, provideBrowserGlobalErrorListeners, provideZonelessChangeDetection, type ApplicationConfig } from '@angular/core';
import { UrlSerializer, provideRouter, withComponentInputBinding } from '@angular/router';
import { provideServiceWorker } from '@angular/service-worker';
import { providePrimeNG } from 'primeng/config';
import { routes } from './app.routes';
import { ofAccount } from './record/account';
import { OlderLinks } from './shared/older-links';
import { PRESET } from './theme';

export const appConfig: ApplicationConfig = {
  providers: [
    provideBrowserGlobalErrorListeners(),
    provideZonelessChangeDetection(),
    provideHttpClient(withFetch(), withInterceptors([ofAccount])),
    provideRouter(routes, withComponentInputBinding()),
    { provide: UrlSerializer, useClass: OlderLinks },
    // eslint-disable-next-line @typescript-eslint/no-unsafe-class-instance-assignment -- the options are a plain object in all of Angular’s own examples
    provideServiceWorker('ngsw-worker.js', { enabled: !isDevMode(), registrationStrategy: 'registerWhenStable:5000' }),
    providePrimeNG({
      theme: { preset: PRESET, options: { darkModeSelector: '.bay', cssLayer: { name: 'primeng', order: 'base, primeng, app' } } },
    }),
  ],
};
