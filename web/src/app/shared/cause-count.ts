import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** A boxed number of causes behind what does not close, in and below what it stands beside; nothing where there are none. */
@Component({
  selector: 'eb-cause-count',
  template: `@if (count() > 0) {
    <span class="causes figure" [title]="title()">{{ count() }}</span>
  }`,
  styles: `
    :host {
      flex: none;
      display: flex;
    }
    :host(:empty) {
      display: none;
    }
    .causes {
      min-width: 18px;
      padding: 0 4px;
      border: 1px solid var(--amber-edge);
      border-radius: 2px;
      background: var(--amber-tint);
      color: var(--amber);
      font-size: var(--cause-count-size, 12px);
      line-height: 1.15;
      text-align: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CauseCount {
  readonly count = input.required<number>();
  protected readonly title = computed(() =>
    this.count() === 1 ? 'one cause of what does not close' : `${this.count()} causes of what does not close`,
  );
}
