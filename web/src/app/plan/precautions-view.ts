import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router } from '@angular/router';
import { UNANSWERED, type HoldPoint, type HoldPointFields, type WorkPackage, nextSequence } from '@each-bolt/core/record';
import { HAZARDS, LOCAL_CODES, holdPointFault, hazardById, numbered, type Hazard } from '@each-bolt/core/plan';
import { map } from 'rxjs';
import { OpenStudy } from '../record/open-study';
import { Session } from '../record/session';
import { RecordService } from '../record/record-service';
import { EditField } from '../shared/edit-field';
import type { FieldChoice } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { IconButton } from '../shared/icon-button';
import { DataTable, TableHead, TableRow, TableFoot } from '../shared/data-table';
import { ViewTabs } from '../shared/view-tabs';
import { LiftPanel } from './lift-panel';
import { RowEdits } from '../record/row-edits';
import { SafetySums } from './safety-sums';
import { UsualHazardsTable } from './usual-hazards';

type View = 'packages' | 'lift' | 'sums' | 'usual' | 'catalogue';

/** What can hurt, the usual cautions, what is read before work begins, and the sums that go with it. */
@Component({
  selector: 'eb-precautions-view',
  imports: [
    EditField,
    LiftPanel,
    SafetySums,
    UsualHazardsTable,
    ViewTabs,
    ButtonDirective,
    InputText,
    DataTable,
    TableHead,
    TableRow,
    TableFoot,
    IconButton,
  ],
  template: `<div class="sheet scroll">
    <header class="sheet-head">
      <h1>Precautions</h1>
      <eb-view-tabs [tabs]="views" [(view)]="view" />
    </header>
    <p class="codes">{{ codes }}</p>
    @switch (view()) {
      @case ('lift') {
        <eb-lift-panel />
      }
      @case ('sums') {
        <eb-safety-sums />
      }
      @case ('usual') {
        <eb-usual-hazards />
      }
      @case ('catalogue') {
        <div class="catalogue">
          @for (hazard of hazards; track hazard.id) {
            <section>
              <h3>{{ hazard.name }}</h3>
              <ul>
                @for (caution of hazard.cautions; track caution) {
                  <li>{{ caution }}</li>
                }
              </ul>
              @if (hazard.holdPoints.length > 0) {
                <p class="soft">Hold points: {{ asked(hazard) }}</p>
              }
            </section>
          }
        </div>
      }
      @default {
        @if (packages().length === 0) {
          <p class="sheet-empty">
            No package has a hazard yet. Tick the hazards of a package under Packages; its cautions and hold points stand here then.
          </p>
        } @else {
          <div class="two">
            <eb-table
              ><ng-template ebHead>
                <tr>
                  <th scope="col">Package</th>
                  <th scope="col">Hazards</th>
                  <th scope="col">Hold points</th>
                </tr> </ng-template
              ><ng-template [ebRow]="packages()" track="pack.id" let-row>
                <tr [class.on]="row.pack.id === chosen()?.pack?.id">
                  <td>
                    <button pButton [text]="true" severity="secondary" type="button" class="link-button" (click)="choose(row.pack.id)">
                      {{ row.pack.name }}
                    </button>
                  </td>
                  <td class="small">{{ row.hazards }}</td>
                  <td class="small" [class.open]="row.open > 0">{{ row.text }}</td>
                </tr>
              </ng-template></eb-table
            >
            @if (chosen(); as row) {
              <section [attr.aria-label]="'Precautions for ' + row.pack.name">
                <h2>{{ row.pack.name }}</h2>
                @for (hazard of row.list; track hazard.id) {
                  <h3>{{ hazard.name }}</h3>
                  <ul>
                    @for (caution of hazard.cautions; track caution) {
                      <li>{{ caution }}</li>
                    }
                  </ul>
                }
                <h3>Hold points, read and answered before work begins</h3>
                <eb-table
                  ><ng-template [ebRow]="row.holdPoints" track="id" let-holdPoint>
                    <tr>
                      <th scope="row">
                        {{ holdPoint.asks }}
                        <small class="soft">{{ limits(holdPoint) }}</small>
                      </th>
                      <td class="answer">
                        @if (holdPoint.kind === 'number') {
                          <eb-edit-field
                            [label]="holdPoint.asks"
                            [shape]="{ kind: 'number', per: 1, unit: holdPoint.unit, digits: 3 }"
                            [value]="holdPoint.value"
                            [disabled]="!mayAnswer()"
                            [fault]="outside(holdPoint)"
                            (committed)="answer(holdPoint, { value: $any($event) })"
                          />
                        } @else if (holdPoint.kind === 'yes') {
                          <eb-edit-field
                            [label]="holdPoint.asks"
                            [options]="yesNo"
                            [value]="holdPoint.said"
                            [disabled]="!mayAnswer()"
                            (committed)="answer(holdPoint, { said: $any($event) ?? '' })"
                          />
                        } @else {
                          <eb-edit-field
                            [label]="holdPoint.asks"
                            [value]="holdPoint.said"
                            [disabled]="!mayAnswer()"
                            (committed)="answer(holdPoint, { said: $any($event) })"
                          />
                        }
                      </td>
                      <td>
                        @if (mayPlan()) {
                          <eb-icon-button [label]="'Do not ask: ' + holdPoint.asks" (acted)="edits.remove('holdPoint', holdPoint)" />
                        }
                      </td>
                    </tr> </ng-template
                  ><ng-template ebFoot>
                    @if (row.holdPoints.length === 0) {
                      <tr>
                        <td class="soft">Nothing is asked.</td>
                      </tr>
                    }
                  </ng-template></eb-table
                >
                @if (mayAnswer()) {
                  <form (submit)="addHoldPoint($event, row.pack, asks, unit)">
                    <input
                      pInputText
                      #asks
                      class="wide"
                      aria-label="What else to ask"
                      placeholder="what else to ask before this work"
                      autocomplete="off"
                    />
                    <input
                      pInputText
                      #unit
                      class="unit"
                      aria-label="Unit of the reading"
                      placeholder="unit, for a reading"
                      autocomplete="off"
                    />
                    <button pButton severity="secondary" type="submit">Ask it too</button>
                  </form>
                }
                <p class="soft small">{{ codes }}</p>
              </section>
            }
          </div>
        }
      }
    }
  </div>`,
  styles: `
    .codes {
      padding: 7px 12px;
      border-left: 3px solid var(--red);
      background: var(--sheet);
      font-size: 13.5px;
    }
    .catalogue {
      columns: 2;
      column-gap: 32px;
    }
    .catalogue section {
      break-inside: avoid;
      margin-bottom: 14px;
    }
    ul {
      margin: 2px 0 6px;
      padding-left: 18px;
      font-size: 13.5px;
    }
    .two {
      display: grid;
      grid-template-columns: minmax(320px, 1fr) minmax(360px, 1fr);
      gap: 28px;
      align-items: start;
    }
    .small,
    small {
      font-size: 12.5px;
    }
    small {
      display: block;
      font-weight: 400;
    }
    .open {
      color: var(--amber);
      font-weight: 500;
    }
    th[scope='row'] {
      text-align: left;
      font-weight: 400;
    }
    .answer {
      width: 190px;
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      margin: 8px 0;
    }
    .wide {
      flex: 1 1 180px;
    }
    .unit {
      width: 130px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PrecautionsView {
  private readonly open = inject(OpenStudy);
  protected readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);
  private readonly session = inject(Session);
  private readonly router = inject(Router);
  private readonly route = inject(ActivatedRoute);
  private readonly chosenId = toSignal(this.route.queryParamMap.pipe(map((params) => params.get('package') ?? '')), { initialValue: '' });

  protected readonly codes = LOCAL_CODES;
  protected readonly hazards = HAZARDS;
  protected readonly views: readonly { readonly view: View; readonly word: string }[] = [
    { view: 'packages', word: 'By package' },
    { view: 'lift', word: 'Lift balance' },
    { view: 'sums', word: 'Sums' },
    { view: 'usual', word: 'Usual hazards' },
    { view: 'catalogue', word: 'All cautions' },
  ];
  protected readonly view = signal<View>('packages');
  protected readonly yesNo: readonly FieldChoice[] = [
    { value: '', word: 'not answered' },
    { value: 'yes', word: 'yes' },
    { value: 'no', word: 'no' },
  ];
  protected readonly mayPlan = computed(() => this.service.can()('holdPoint.remove'));
  protected readonly mayAnswer = computed(() => this.service.can()('holdPoint.edit'));
  protected readonly packages = computed(() => {
    const { packages, holdPoints } = this.open.record();
    return numbered(packages)
      .filter((pack) => pack.hazards.length > 0 || holdPoints.some((g) => g.packageId === pack.id))
      .map((pack) => {
        const own = holdPoints.filter((g) => g.packageId === pack.id).sort((a, b) => a.sequence - b.sequence);
        const open = own.filter((g) => holdPointFault(g) !== null).length;
        return {
          pack,
          holdPoints: own,
          open,
          list: pack.hazards.flatMap((id) => hazardById.get(id) ?? ([] as readonly Hazard[])),
          hazards: pack.hazards.map((id) => hazardById.get(id)?.name ?? id).join(', '),
          text: own.length === 0 ? 'nothing asked' : open === 0 ? 'all answered' : `${open} of ${own.length} open`,
        };
      });
  });
  protected readonly chosen = computed(() => this.packages().find((row) => row.pack.id === this.chosenId()) ?? this.packages()[0] ?? null);

  protected asked(hazard: Hazard): string {
    return hazard.holdPoints.map((holdPoint) => holdPoint.asks.toLowerCase()).join('; ');
  }

  protected limits(holdPoint: HoldPoint): string {
    if (holdPoint.low !== null && holdPoint.high !== null) return `${holdPoint.low} to ${holdPoint.high} ${holdPoint.unit}`;
    if (holdPoint.high !== null) return `at most ${holdPoint.high} ${holdPoint.unit}`;
    return holdPoint.low === null ? '' : `at least ${holdPoint.low} ${holdPoint.unit}`;
  }

  protected outside(holdPoint: HoldPoint): string {
    return holdPoint.value === null ? '' : (holdPointFault(holdPoint) ?? '');
  }

  /** An answer carries who gave it and when. */
  protected answer(holdPoint: HoldPoint, fields: Partial<HoldPointFields>): void {
    const isGiven = (fields.value ?? null) !== null || (fields.said ?? '') !== '';
    void this.edits.edit('holdPoint', holdPoint, {
      ...fields,
      answeredBy: isGiven ? (this.session.person?.name ?? '') : '',
      answeredAt: isGiven ? new Date().toISOString() : null,
    });
  }

  protected choose(id: string): void {
    void this.router.navigate([], { relativeTo: this.route, queryParams: { package: id }, queryParamsHandling: 'merge' });
  }

  protected async addHoldPoint(event: Event, pack: WorkPackage, asks: HTMLInputElement, unit: HTMLInputElement): Promise<void> {
    event.preventDefault();
    const own = this.open.record().holdPoints.filter((g) => g.packageId === pack.id);
    const kind = unit.value.trim() === '' ? ('text' as const) : ('number' as const);
    const id = await this.edits.add('holdPoint', {
      ...{ packageId: pack.id, sequence: nextSequence(own), hazard: '', asks: asks.value.trim(), kind },
      ...{ unit: unit.value.trim(), low: null, high: null, ...UNANSWERED },
    });
    if (id === null) return;
    asks.value = '';
    unit.value = '';
  }
}
