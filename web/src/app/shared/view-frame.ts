import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';

interface FrameView {
  readonly path: string;
  readonly word: string;
}

/** The views of a stage side by side, and the one that is open below. */
@Component({
  selector: 'eb-view-frame',
  imports: [RouterLink, RouterLinkActive, RouterOutlet],
  template: `<nav [attr.aria-label]="label()">
      @for (view of views(); track view.path) {
        <a [routerLink]="view.path" queryParamsHandling="preserve" routerLinkActive="on" ariaCurrentWhenActive="page">{{ view.word }}</a>
      }
      <span class="state" role="status">{{ state() }}</span>
    </nav>
    <ng-content />
    <router-outlet />`,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      flex: 1;
      min-height: 0;
    }
  `,
  styleUrl: './view-nav.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ViewFrame {
  readonly label = input.required<string>();
  readonly views = input.required<readonly FrameView[]>();
  readonly state = input('');
}
