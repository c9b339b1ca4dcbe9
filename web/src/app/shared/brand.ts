import { ChangeDetectionStrategy, Component } from '@angular/core';

/** The name of the product with its sign, as the pages outside of a study show it. */
@Component({
  selector: 'eb-brand',
  template: `<svg viewBox="0 0 32 32" width="38" height="38" aria-hidden="true">
      <path d="M16 2.5 27.7 9.25v13.5L16 29.5 4.3 22.75V9.25Z" fill="none" stroke="currentColor" stroke-width="2.6" />
      <circle cx="16" cy="16" r="5.6" fill="none" stroke="var(--dye)" stroke-width="3.4" />
    </svg>
    <div>
      <p class="name">EACH BOLT</p>
      <p class="soft">Taken apart, counted, weighed, costed and compared</p>
    </div>`,
  styles: `
    :host {
      display: flex;
      gap: 14px;
      align-items: center;
    }
    .name {
      font: 600 21px/1.25 var(--label);
      letter-spacing: 0.06em;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Brand {}
