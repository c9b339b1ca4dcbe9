import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { ButtonDirective } from 'primeng/button';
import { Selection } from './selection';

/** The name of a part in a list: it opens the part. */
@Component({
  selector: 'eb-part-link',
  imports: [ButtonDirective],
  template: `<button pButton [text]="true" severity="secondary" type="button" class="link-button" (click)="selection.choosePart(partId())">
    {{ name() }}
  </button>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PartLink {
  readonly partId = input.required<string>();
  readonly name = input.required<string>();
  protected readonly selection = inject(Selection);
}
