import { DOCUMENT, Injectable, inject } from '@angular/core';
import { merge, pairwise } from 'rxjs';
import { filter, map } from 'rxjs/operators';
import { Session } from '../record/session';

/** Lets a page show one account only: when another signs in, here or in another tab, the page begins anew and remembers nothing. */
@Injectable({ providedIn: 'root' })
export class OneAccount {
  constructor() {
    const [session, view] = [inject(Session), inject(DOCUMENT).defaultView];
    const anotherHere = session.changes.pipe(
      map((state) => (state.kind === 'in' ? state.person.id : null)),
      filter((id) => id !== null),
      pairwise(),
      filter(([was, is]) => was !== is),
    );
    merge(session.elsewhere, anotherHere).subscribe(() => view?.location.assign('/'));
  }
}
