import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { ABSENT, fixed } from '@each-bolt/core/shared';
import { BLOCKED_WORD, CHECKS, PRIOR } from '@each-bolt/core/reconcile';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { CheckingService } from '../checking/checking-service';

const PRIORS = Object.entries(PRIOR).sort(([, a], [, b]) => b - a);

/** Every check with the question it asks and what it needs; and the rules by which a cause is held likely. */
@Component({
  selector: 'eb-reconcile-checks',
  imports: [DataTable, TableHead, TableRow],
  template: `<div class="sheet scroll" tabindex="0" role="region" aria-label="Checks">
    <header class="sheet-head">
      <div>
        <h1>{{ checks.length }} checks</h1>
        <p class="soft">
          All of them run again after every change, over what the change touches. A check that lacks what it needs says nothing.
        </p>
      </div>
    </header>
    <eb-table label="Checks"
      ><ng-template ebHead>
        <tr>
          <th scope="col">Check</th>
          <th scope="col">Asks</th>
          <th scope="col">Needs</th>
          <th scope="col">Says</th>
          <th scope="col">Blocks</th>
          <th scope="col" class="right">Open</th>
          <th scope="col" class="right">Explained</th>
        </tr> </ng-template
      ><ng-template [ebRow]="rows()" track="id" let-row>
        <tr>
          <th scope="row">{{ row.name }}</th>
          <td>{{ row.asks }}</td>
          <td>{{ row.needs }}</td>
          <td>{{ row.severity }}</td>
          <td>{{ row.blocks }}</td>
          <td class="right figure">{{ row.open }}</td>
          <td class="right figure">{{ row.explained }}</td>
        </tr>
      </ng-template></eb-table
    >
    <section aria-label="How likely a cause is">
      <h2>How likely a cause is</h2>
      <p>
        Each cause begins with the share below, multiplied by how well it would explain each finding of its line, from 1 down to 0.02 for
        one it does not speak of; beside all of them stands “it is so”. The chance is the share of one among all of these. The shares are
        assumed: chances rank causes, they do not bet.
      </p>
      <dl>
        @for (prior of priors; track prior[0]) {
          <dt>{{ prior[0] }}</dt>
          <dd class="figure">{{ share(prior[1]) }}</dd>
        }
      </dl>
    </section>
  </div>`,
  styles: `
    section {
      max-width: 720px;
      margin-top: 18px;
    }
    dl {
      display: grid;
      grid-template-columns: max-content 60px;
      gap: 2px 16px;
      margin: 8px 0;
      font-size: 13px;
    }
    dd {
      margin: 0;
      text-align: right;
    }
    .right {
      text-align: right;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReconcileChecks {
  private readonly checking = inject(CheckingService);
  protected readonly checks = CHECKS;
  protected readonly priors = PRIORS;
  protected readonly rows = computed(() => {
    const said = this.checking.said();
    const open = (said?.causes ?? []).flatMap((cause) => cause.findings);
    return CHECKS.map((check) => ({
      ...{
        id: check.id,
        name: check.name,
        asks: check.asks,
        needs: check.needs,
        severity: check.severity,
        blocks: BLOCKED_WORD[check.blocks],
      },
      open: said === null ? ABSENT : open.filter((finding) => finding.check === check.id).length,
      explained: said === null ? ABSENT : said.explained.filter(({ finding }) => finding.check === check.id).length,
    }));
  });

  protected share(prior: number): string {
    return fixed(prior, 2);
  }
}
