import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { OneAccount } from './people/one-account';
import { Outbox } from './record/outbox';
import { Unsaved } from './record/unsaved';
import { UnsavedDialog } from './record/unsaved-dialog';

@Component({
  selector: 'eb-root',
  imports: [RouterOutlet, UnsavedDialog],
  template: `<router-outlet />
    @defer (when unsaved.asked() !== null; prefetch on idle) {
      <eb-unsaved-dialog />
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class App {
  protected readonly unsaved = inject(Unsaved);

  constructor() {
    // whichever page is open sends what waits on this device
    inject(Outbox);
    inject(OneAccount);
  }
}
