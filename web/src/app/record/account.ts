import type { HttpInterceptorFn } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';

/** The account whose acts this page sends. */
@Injectable({ providedIn: 'root' })
export class Account {
  id: string | null = null;
}

/** Says with every request for which account it is: the server refuses it once another has signed in on the device. */
export const ofAccount: HttpInterceptorFn = (request, next) => {
  const { id } = inject(Account);
  return next(id === null || !request.url.startsWith('/api/') ? request : request.clone({ setHeaders: { 'X-Account': id } }));
};
