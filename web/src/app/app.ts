import { ChangeDetectionStrategy, Component, DOCUMENT, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { merge, pairwise } from 'rxjs';
import { filter, map } from 'rxjs/operators';
import { Session } from './people/session';
import { Outbox } from './record/outbox';

@Component({
  selector: 'eb-root',
  imports: [RouterOutlet],
  template: '<router-outlet />',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class App {
  constructor() {
    // whichever page is open sends what waits on this device
    inject(Outbox);
    const [session, view] = [inject(Session), inject(DOCUMENT).defaultView];
    const anotherHere = session.changes.pipe(
      map((state) => (state.kind === 'in' ? state.person.id : null)),
      filter((id) => id !== null),
      pairwise(),
      filter(([was, is]) => was !== is),
    );
    // nothing of the account before may stay in the memory of the page
    merge(session.elsewhere, anotherHere).subscribe(() => view?.location.assign('/'));
  }
}
