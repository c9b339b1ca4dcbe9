import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { chanceText } from '@each-bolt/core/shared';
import type { Cause } from '@each-bolt/core/reconcile';
import { ButtonDirective } from 'primeng/button';
import type { Tried } from '../checking/checking-told';
import { PartLink } from '../record/part-link';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { EvidenceMark } from '../shared/evidence-mark';
import { figureText, offText, unitText } from './figure-text';

/** So many findings of a cause are shown before somebody asks for all. */
const FIRST = 8;

/** What one cause breaks, figure against figure, what its mend would close, and what else was considered. */
@Component({
  selector: 'eb-cause-findings',
  imports: [ButtonDirective, DataTable, EvidenceMark, PartLink, TableHead, TableRow],
  template: `<eb-table [label]="'Findings of: ' + cause().says"
      ><ng-template ebHead>
        <tr>
          <th scope="col">Does not close</th>
          <th scope="col" class="right">recorded</th>
          <th scope="col" class="right">against</th>
          <th scope="col" class="right">off by</th>
          <th scope="col">unit</th>
          <th scope="col">{{ cause().mend ? 'if mended' : '' }}</th>
        </tr> </ng-template
      ><ng-template [ebRow]="shown()" track="key" let-finding>
        <tr>
          <td>
            @if (finding.partId) {
              <eb-part-link [partId]="finding.partId" [name]="finding.title" />
            } @else {
              {{ finding.title }}
            }
            <small class="soft says-it">{{ finding.says }}</small>
          </td>
          @if (finding.compared; as compared) {
            <td class="right figure">{{ figure(compared.recorded, compared.readIn) }} <eb-mark [mark]="compared.recorded.mark" /></td>
            <td class="right figure">{{ figure(compared.against, compared.readIn) }} <eb-mark [mark]="compared.against.mark" /></td>
            <td class="right figure">{{ off(compared) }}</td>
            <td class="soft">{{ unit(compared) }}</td>
          } @else {
            <td colspan="4"></td>
          }
          <td>{{ ifMended(finding.key) }}</td>
        </tr>
      </ng-template></eb-table
    >
    @if (cause().findings.length > shown().length) {
      <button pButton [text]="true" type="button" class="link-button" (click)="all.set(true)">
        {{ cause().findings.length - shown().length }} more
      </button>
    }
    <div class="beneath">
      <div class="ranked" aria-label="Likeliest cause, by rule">
        <h3>Likeliest cause, by rule</h3>
        @for (one of cause().ranked.slice(0, 5); track one.suspect.key) {
          <div class="bar">
            <span class="figure">{{ percent(one.chanceFraction) }}</span>
            <span class="track"><i [style.width.%]="100 * one.chanceFraction"></i></span>
            <span>{{ one.suspect.short }}</span>
          </div>
        }
        <p class="soft">How the chances come about stands under Checks.</p>
      </div>
      @if (brings().length > 0) {
        <div class="brings">
          <h3>The mend would bring</h3>
          @for (says of brings(); track says) {
            <p>{{ says }}</p>
          }
        </div>
      }
    </div>`,
  styles: `
    h3 {
      margin: 0 0 4px;
      font-size: 13px;
    }
    .says-it {
      display: block;
      font-size: 12.5px;
    }
    /* on a telephone the figures stand below what they are of */
    @media (max-width: 760px) {
      tr {
        display: grid;
        grid-template-columns: 1fr 1fr 60px 30px;
      }
      :is(th, td):is(:first-child, :last-child, [colspan]) {
        grid-column: 1 / -1;
      }
      :is(th, td):empty {
        display: none;
      }
      th:is(:nth-child(n)),
      td:is(:nth-child(n)) {
        padding-right: 6px;
      }
      td:not(:last-child) {
        border-bottom: 0;
      }
    }
    .beneath {
      display: flex;
      gap: 32px;
      flex-wrap: wrap;
      padding: 10px 0;
    }
    .bar {
      display: grid;
      grid-template-columns: 62px 90px auto;
      gap: 8px;
      align-items: center;
      font-size: 13px;
    }
    .bar .figure {
      text-align: right;
    }
    .track {
      height: 8px;
      background: var(--fine);
    }
    .track i {
      display: block;
      min-width: 1px;
      height: 8px;
      background: var(--dye);
    }
    .ranked p,
    .brings p {
      margin: 4px 0 0;
      font-size: 12.5px;
    }
    .brings {
      max-width: 420px;
    }
    .right {
      text-align: right;
      white-space: nowrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CauseFindings {
  readonly cause = input.required<Cause>();
  /** what the mend would leave; null while it is worked out, and of another cause after that one was left */
  readonly tried = input.required<Tried | null>();

  protected readonly all = signal(false);
  protected readonly shown = computed(() => (this.all() ? this.cause().findings : this.cause().findings.slice(0, FIRST)));
  protected readonly figure = figureText;
  protected readonly off = offText;
  protected readonly unit = unitText;
  protected readonly percent = chanceText;

  private readonly own = computed(() => {
    const tried = this.tried();
    return tried?.key === this.cause().key ? tried : null;
  });
  protected readonly brings = computed(() => this.own()?.brings ?? []);

  protected ifMended(key: string): string {
    const own = this.own();
    if (this.cause().mend === null || own === null) return '';
    return own.left.includes(key) ? 'stays open' : 'closes';
  }
}
