import { ChangeDetectionStrategy, Component, input } from '@angular/core';

export type Progress = 'empty' | 'half' | 'full';

/** A bolt head that is empty, half or full: not begun, in work, done. */
@Component({
  selector: 'eb-hexagon',
  template: `<svg viewBox="0 0 14 14" width="12" height="12" aria-hidden="true">
    <path d="M7 .8 12.6 4v6L7 13.2 1.4 10V4Z" fill="none" stroke="currentColor" stroke-width="1.2" />
    @if (progress() === 'full') {
      <path d="M7 .8 12.6 4v6L7 13.2 1.4 10V4Z" fill="currentColor" />
    }
    @if (progress() === 'half') {
      <path d="M1.4 7V10L7 13.2 12.6 10V7Z" fill="currentColor" />
    }
  </svg>`,
  styles: `
    :host {
      display: inline-block;
      line-height: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Hexagon {
  readonly progress = input.required<Progress>();
}
