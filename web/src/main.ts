import './app/shared/chosen-units';
import { bootstrapApplication } from '@angular/platform-browser';
import { App } from './app/app';
import { appConfig } from './app/app.config';
import { askForPage } from './app/record/early-answers';

// asked for and loaded while the rest begins, so that nothing waits for the one before
askForPage(location.pathname);
if (location.pathname.startsWith('/studies/')) {
  void import('./app/shell/shell-page');
  if (!/^\/studies\/[^/]+\/(?!bench)./.test(location.pathname)) {
    void import('./app/bench/bench-frame');
    void import('./app/bench/bench-page');
  }
}

bootstrapApplication(App, appConfig).catch((error: unknown) => {
  console.error(error);
});
