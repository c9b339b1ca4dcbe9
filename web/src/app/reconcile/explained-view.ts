import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { Explanation } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { OpenStudy } from '../record/open-study';
import { PartLink } from '../record/part-link';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { whenText } from '../record/when';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { CheckingService } from '../checking/checking-service';

/** What does not close and may stay so: with name and reason, as the report shows it. */
@Component({
  selector: 'eb-reconcile-explained',
  imports: [ButtonDirective, DataTable, PartLink, TableHead, TableRow],
  template: `<div class="sheet scroll" tabindex="0" role="region" aria-label="Explained">
    <header class="sheet-head">
      <div>
        <h1>Explained</h1>
        <p class="soft">
          Nothing is hidden without a name and a reason; the report shows both. When the figures change, the finding is open again.
        </p>
      </div>
    </header>
    @if (rows().length === 0) {
      <p class="soft">Nothing was explained. Under “Does not close”, Explain keeps a reason with a finding.</p>
    } @else {
      <eb-table label="Explained findings"
        ><ng-template ebHead>
          <tr>
            <th scope="col">Does not close</th>
            <th scope="col">Reason</th>
            <th scope="col">Explained by</th>
            <th scope="col"></th>
          </tr> </ng-template
        ><ng-template [ebRow]="rows()" track="key" let-row>
          <tr>
            <th scope="row">
              @if (row.partId) {
                <eb-part-link [partId]="row.partId" [name]="row.title" />
              } @else {
                {{ row.title }}
              }
              <small class="soft">{{ row.says }}</small>
            </th>
            <td>{{ row.reason }}</td>
            <td>
              {{ row.by }} <small class="soft">{{ row.when }}</small>
            </td>
            <td>
              @if (row.explanation; as explanation) {
                @if (service.can()('explanation.remove')) {
                  <button pButton severity="secondary" type="button" (click)="reopen(explanation)">Open again</button>
                }
              } @else {
                <small class="soft">left so at the end of a session</small>
              }
            </td>
          </tr>
        </ng-template></eb-table
      >
    }
  </div>`,
  styles: `
    small {
      display: block;
      font-weight: 400;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReconcileExplained {
  protected readonly service = inject(RecordService);
  private readonly checking = inject(CheckingService);
  private readonly open = inject(OpenStudy);
  private readonly edits = inject(RowEdits);

  protected readonly rows = computed(() => {
    const kept = new Map(this.open.record().explanations.map((explanation) => [explanation.id, explanation]));
    return (this.checking.said()?.explained ?? []).map(({ finding, explanation }) => ({
      ...{ key: finding.key, partId: finding.partId, title: finding.title, says: finding.says, reason: explanation.reason },
      ...{ by: explanation.by, when: whenText(explanation.at), explanation: kept.get(explanation.id) ?? null },
    }));
  });

  protected reopen(explanation: Explanation): void {
    void this.edits.remove('explanation', explanation);
  }
}
