import { inject } from '@angular/core';
import { Router, type CanActivateFn } from '@angular/router';
import { Session } from '../record/session';

/** Lets those in who are signed in, or were on this device when there is no network; the others sign in first. */
export const signedIn: CanActivateFn = async (_route, { url }) => {
  const router = inject(Router);
  const { kind } = await inject(Session).known();
  return kind === 'in' || router.createUrlTree(['/sign-in'], { queryParams: url === '/' ? {} : { to: url } });
};
