import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { ABSENT, READ_IN, fixed, inUnit } from '@each-bolt/core/shared';
import { blank, fieldLines, type Board } from '@each-bolt/core/record';
import {
  BOARD_DUTY_U_FIELDS,
  BOARD_DUTY_WORDS,
  HEAT_LAYERS,
  boardDutyDifference,
  boardDutyReport,
  boardFigures,
  figureRows,
} from '@each-bolt/core/measure';
import { ButtonDirective } from 'primeng/button';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { FigureTable } from './figure-table';
import { HeatPath } from './heat-path';
import { InputForm } from './input-form';
import { StateBar } from './state-bar';
import { States } from './states';

const BARE = [
  {
    title: 'The bare board',
    lines: fieldLines('board', ['lengthM', 'widthM', 'sides', 'layers', 'pressFitPins', 'solderedPins', 'handJoints', 'potted', 'coated']),
  },
];
const WHAT_IF = { title: 'What if', lines: fieldLines('boardDuty', ['name', 'author', 'reason']) };
const GROUPS = [
  { title: 'Currents', lines: fieldLines('boardDuty', ['shuntOhm', 'shuntV', 'phaseOneA', 'phaseTwoA']) },
  { title: 'Store of energy', lines: fieldLines('boardDuty', ['capacitanceF', 'storeV', 'bleedOhm', 'safeV']) },
  { title: 'Heat', lines: fieldLines('boardDuty', ['lossW', 'sinkC', 'limitC']) },
  { title: 'Vias', lines: fieldLines('boardDuty', ['viaCount', 'viaOuterM', 'viaWallM', 'viaLengthM', 'viaWPerMK']) },
  { title: 'Compound', lines: fieldLines('boardDuty', ['compoundM', 'compoundM2', 'compoundWPerMK']) },
  { title: 'Plate', lines: fieldLines('boardDuty', ['plateM', 'plateM2', 'plateWPerMK', 'plateWPerM2K']) },
];

const count = (value: number | null): string => (value === null ? ABSENT : fixed(value, 0));

/** A circuit board: what is on it, and what it has to do with current, stored energy and heat. */
@Component({
  selector: 'eb-boards-view',
  imports: [ButtonDirective, DataTable, TableHead, TableRow, FigureTable, HeatPath, InputForm, StateBar],
  template: `<div class="sheet scroll">
    @if (selection.part(); as part) {
      @if (!board() && sets().length === 0) {
        <p class="soft">
          Nothing is recorded of a circuit board on this part. On the bench type, for example, <code>board 182x96 2s 6 layers</code> and
          <code>24 power switch</code>, or record it here.
        </p>
      }
      @for (i of figures().issues; track i.code) {
        <p class="fault" role="alert">{{ i.message }}</p>
      }
      <div class="room">
        <div class="two">
          <div class="inputs">
            @if (board(); as b) {
              <eb-input-form entity="board" [row]="b" [groups]="bare" [may]="may()" />
            } @else if (may()) {
              <p><button pButton severity="secondary" type="button" (click)="begin(part.id)">Record this part as a board</button></p>
            }
          </div>
          <div>
            @if (sets().length > 0 || board()) {
              <eb-table label="Figures of the board">
                <ng-template [ebRow]="totals()" track="word" let-r>
                  <tr>
                    <th scope="row">{{ r.word }}</th>
                    <td class="right figure">{{ r.text }}</td>
                  </tr>
                </ng-template>
              </eb-table>
              @if (figures().byClass.length > 0) {
                <eb-table label="Components by class">
                  <ng-template ebHead>
                    <tr>
                      <th scope="col">Components</th>
                      <th scope="col" class="right">Fitted</th>
                      <th scope="col" class="right">Places left empty</th>
                    </tr>
                  </ng-template>
                  <ng-template [ebRow]="figures().byClass" track="componentClass" let-c>
                    <tr>
                      <th scope="row">{{ c.componentClass }}</th>
                      <td class="right figure">{{ c.fitted }}</td>
                      <td class="right figure">{{ c.empty }}</td>
                    </tr>
                  </ng-template>
                </eb-table>
              }
            }
          </div>
        </div>
        <h2>Current, stored energy and heat</h2>
        @if (states.own().length === 0) {
          <p class="soft">
            Nothing is said yet of what the board has to do.
            @if (states.may()) {
              <button pButton severity="secondary" type="button" (click)="duty(part.id)">Say what it has to do</button>
            }
          </p>
        } @else {
          <div class="acts"><eb-state-bar [states]="$any(states)" word="board" /></div>
        }
        @if (states.chosen(); as d) {
          @if (report(); as r) {
            @for (m of r.missing; track m.of) {
              <p class="soft" role="status">For {{ m.of }} it still needs: {{ m.labels.join(', ') }}.</p>
            }
            @if ((r.values.headroomK ?? 1) < 0) {
              <p class="fault" role="alert">It gets hotter than it may be: {{ tooHot() }}.</p>
            }
            <div class="two">
              <div class="inputs">
                <eb-input-form entity="boardDuty" [row]="d" [groups]="groups()" [uFields]="uFields" [may]="states.may()" />
              </div>
              <div class="results">
                @if (path(); as p) {
                  <eb-heat-path [layers]="p.layers" [lossW]="p.lossW" [sinkC]="p.sinkC" />
                }
                <eb-figure-table
                  label="What the board has to do"
                  [rows]="rows()"
                  [lines]="r.lines"
                  [name]="d.name"
                  [besideName]="states.beside()?.name ?? null"
                />
                @if (r.values.storeJ !== null) {
                  <p class="caution">
                    Worked out, not measured: prove a store dead with an instrument before it is touched, wait, prove again, with gloves and
                    a second person where its voltage asks for them. Local codes and licensed practice decide.
                  </p>
                }
              </div>
            </div>
          }
        }
      </div>
    } @else {
      <p class="soft">Choose the part that is the circuit board, in the stack or by its tag. Boards of this study:</p>
      @for (b of listed(); track b.id) {
        <p>
          <button pButton [text]="true" severity="secondary" type="button" class="link-button" (click)="choose(b.partId)">
            {{ b.text }}
          </button>
        </p>
      } @empty {
        <p class="soft">None yet.</p>
      }
    }
  </div>`,
  styles: `
    h2 {
      margin: 18px 0 6px;
      font-size: 14px;
    }
  `,
  styleUrl: './state-view.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BoardsView {
  protected readonly selection = inject(Selection);
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  private readonly edits = inject(RowEdits);

  protected readonly bare = BARE;
  protected readonly uFields = BOARD_DUTY_U_FIELDS;
  protected readonly may = computed(() => this.service.can()('board.add'));
  private readonly partId = computed(() => this.selection.part()?.id ?? null);
  protected readonly board = computed((): Board | null => this.open.record().boards.find(({ partId }) => partId === this.partId()) ?? null);
  protected readonly sets = computed(() => this.open.record().componentSets.filter(({ partId }) => partId === this.partId()));
  /** what holds the board: the part it is in, or its own */
  private readonly box = computed(() => {
    const part = this.selection.part();
    return (part?.parentId === null ? part : this.open.partById().get(part?.parentId ?? '')) ?? null;
  });
  protected readonly figures = computed(() => boardFigures(this.board(), this.sets(), this.box()));
  protected readonly totals = computed(() => {
    const f = this.figures();
    return [
      { word: 'Area of one side', text: f.areaM2 === null ? ABSENT : inUnit(READ_IN['cm²'], f.areaM2) },
      { word: 'Components', text: count(f.fitted) },
      { word: 'Components per cm²', text: f.perCm2 === null ? ABSENT : fixed(f.perCm2, 2) },
      { word: 'Sides with components', text: count(f.sides) },
      { word: 'Places left empty', text: count(f.empty) },
      { word: 'Press-fit pins', text: count(f.pressFitPins) },
      { word: 'Soldered through pins', text: count(f.solderedPins) },
      { word: 'Joints made by hand', text: count(f.handJoints) },
    ];
  });

  protected readonly states = new States(
    'boardDuty',
    (row) => row.partId,
    this.partId,
    (row) => this.vehicleOf(row.partId),
  );
  protected readonly groups = computed(() => (this.states.chosen()?.isWhatIf ? [WHAT_IF, ...GROUPS] : GROUPS));
  protected readonly report = computed(() => {
    const duty = this.states.chosen();
    return duty === null ? null : boardDutyReport(duty);
  });
  protected readonly rows = computed(() => {
    const [now, beside, report] = [this.states.chosen(), this.states.beside(), this.report()];
    if (now === null || report === null) return [];
    return figureRows(
      BOARD_DUTY_WORDS,
      report,
      beside === null ? null : boardDutyReport(beside),
      beside === null ? null : boardDutyDifference(beside, now),
    );
  });
  protected readonly path = computed(() => {
    const [duty, report] = [this.states.chosen(), this.report()];
    if (!duty || report?.values.hottestC === null || !report || duty.lossW === null || duty.sinkC === null) return null;
    const layers = HEAT_LAYERS.flatMap(({ figure, word }) => {
      const kPerW = report.values[figure];
      return kPerW === null ? [] : [{ word, kPerW }];
    });
    return { layers, lossW: duty.lossW, sinkC: duty.sinkC };
  });
  protected readonly tooHot = computed(() => {
    const [duty, report] = [this.states.chosen(), this.report()];
    return `${fixed(report?.values.hottestC ?? 0, 1)} °C, at most ${fixed(duty?.limitC ?? 0, 1)} °C`;
  });
  protected readonly listed = computed(() =>
    this.open.record().boards.map((board) => ({
      ...board,
      text: `${this.open.partById().get(board.partId)?.name ?? ''} of ${this.vehicleOf(board.partId)}`,
    })),
  );

  protected choose(partId: string): void {
    void this.selection.choose({ part: partId });
  }

  protected begin(partId: string): void {
    void this.edits.add('board', blank('board', { partId }));
  }

  protected duty(partId: string): void {
    void this.states.begin(blank('boardDuty', { partId, sequence: 0, name: 'as recorded', isWhatIf: false }));
  }

  private vehicleOf(partId: string): string {
    const vehicleId = this.open.partById().get(partId)?.vehicleId;
    return this.open.record().vehicles.find(({ id }) => id === vehicleId)?.name ?? '';
  }
}
