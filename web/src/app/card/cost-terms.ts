import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { PartCost } from '@each-bolt/core/cost';
import { MoneyPipe } from '../shared/pipes';

/** The cost of one part, term by term, with how each was worked out. */
@Component({
  selector: 'eb-cost-terms',
  imports: [MoneyPipe],
  template: `<h3>Cost each, term by term</h3>
    @if (isAssembly() && !cost().boughtWhole) {
      <p class="soft">An opened assembly costs what its parts and fasteners cost; assembly labour is not in it.</p>
    } @else {
      @for (term of cost().terms; track term.label) {
        <div class="term">
          <span>{{ term.label }}</span>
          <span class="figure">{{ currency() }} {{ term.amount | ebMoney }}</span>
          <small>{{ term.working }}<br />{{ term.source }}</small>
        </div>
      }
      @if (cost().amount !== null) {
        <div class="term sum">
          <span>Cost each</span>
          <span class="figure">{{ currency() }} {{ cost().amount | ebMoney }}</span>
        </div>
      }
      @for (issue of cost().issues; track issue.code) {
        <p class="gap">{{ issue.message }}</p>
      }
    }`,
  styles: `
    h3 {
      margin-bottom: 6px;
    }
    .term {
      display: grid;
      grid-template-columns: 1fr auto;
      padding: 4px 0;
      border-bottom: 1px solid var(--fine);
    }
    small {
      grid-column: 1 / -1;
      color: var(--soft);
      font-size: 12px;
      line-height: 1.35;
    }
    .sum {
      border-bottom: 0;
      font-weight: 600;
    }
    .sum .figure {
      font-weight: 600;
    }
    .gap {
      padding: 3px 8px;
      margin-top: 4px;
      border-left: 3px solid var(--amber-edge);
      background: var(--amber-tint);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CostTerms {
  readonly cost = input.required<PartCost>();
  readonly currency = input.required<string>();
  readonly isAssembly = input.required<boolean>();
}
