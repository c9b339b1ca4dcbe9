import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { fixed } from '@each-bolt/core/shared';
import type { NextPart } from '@each-bolt/core/bench';
import { ButtonDirective } from 'primeng/button';
import { PartLink } from './part-link';

/** So many are listed at first. */
const FIRST = 8;

/** What is to be done next: parts with the reason, each opened by a click. */
@Component({
  selector: 'eb-next-parts',
  imports: [ButtonDirective, PartLink],
  template: `@if (parts().length > 0) {
    <section [attr.aria-label]="title()">
      <h2>{{ title() }}</h2>
      <ul>
        @for (row of shown(); track row.part.id) {
          <li>
            <eb-part-link [partId]="row.part.id" [name]="row.part.name" />
            <span class="soft">{{ row.why }}</span>
          </li>
        }
      </ul>
      @if (parts().length > first) {
        <button pButton severity="secondary" type="button" (click)="all.set(!all())">
          {{ all() ? 'Show the first ' + first : 'Show all ' + total() }}
        </button>
      }
    </section>
  }`,
  styles: `
    h2 {
      font-size: 15px;
      margin-bottom: 4px;
    }
    ul {
      list-style: none;
      margin: 0 0 8px;
      padding: 0;
      columns: 2 320px;
      column-gap: 32px;
    }
    li {
      display: flex;
      gap: 12px;
      justify-content: space-between;
      padding: 4px 0;
      border-bottom: 1px solid var(--fine);
      break-inside: avoid;
      font-size: 13.5px;
    }
    .soft {
      text-align: right;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NextParts {
  readonly title = input.required<string>();
  readonly parts = input.required<readonly NextPart[]>();
  protected readonly first = FIRST;
  protected readonly all = signal(false);
  protected readonly shown = computed(() => (this.all() ? this.parts() : this.parts().slice(0, FIRST)));
  protected readonly total = computed(() => fixed(this.parts().length, 0));
}
