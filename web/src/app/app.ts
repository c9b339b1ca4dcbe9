import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { OneAccount } from './people/one-account';
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
    inject(OneAccount);
  }
}
