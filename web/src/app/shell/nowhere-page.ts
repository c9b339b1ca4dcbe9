import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink } from '@angular/router';

@Component({
  selector: 'eb-nowhere-page',
  imports: [RouterLink],
  template: `<main>
    <h1>Nothing is kept at this address</h1>
    <p>The record itself is untouched. <a routerLink="/">Go to the studies</a></p>
  </main>`,
  styles: `
    main {
      max-width: 560px;
      margin: 96px auto;
      padding: 0 24px;
    }
    p {
      margin-top: 8px;
    }
    a {
      color: var(--dye);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NowherePage {}
