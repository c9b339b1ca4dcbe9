import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { EVIDENCE_WORD, type EvidenceMark as Mark } from '@each-bolt/core/shared';

/** A boxed letter that says how a figure is known. Weak marks are also dashed, so that colour is never alone. */
@Component({
  selector: 'eb-mark',
  template: `@if (mark(); as m) {
      <span class="mark" [class.weak]="weak()" [attr.title]="title()" role="img" [attr.aria-label]="title()">{{ m }}</span>
    } @else {
      <span class="mark none" aria-hidden="true"></span>
    }`,
  styles: `
    .mark {
      display: inline-block;
      width: 16px;
      height: 16px;
      border: 1px solid var(--soft);
      border-radius: 2px;
      font: 500 11px/14px var(--figure);
      text-align: center;
      color: var(--ink);
      vertical-align: 1px;
    }
    .weak {
      border: 1px dashed var(--amber-edge);
      background: var(--amber-tint);
      color: var(--amber);
    }
    .none {
      border-color: transparent;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EvidenceMark {
  readonly mark = input.required<Mark | null>();
  /** share of the total that rests on the mark, in words, for totals */
  readonly share = input<string>('');
  /** what a total is of, when it has no share: "the count" */
  readonly of = input<string>('');
  readonly weak = computed(() => this.mark() === '?' || this.mark() === 'I' || this.mark() === 'R');
  readonly title = computed(() => {
    const mark = this.mark();
    if (mark === null) return '';
    if (this.of() !== '') return `${this.of()}: weakest evidence ${EVIDENCE_WORD[mark]}`;
    return this.share() === '' ? EVIDENCE_WORD[mark] : `weakest evidence: ${EVIDENCE_WORD[mark]}, ${this.share()} of the mass`;
  });
}
