import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { counted, dayText, fixed, isoDay, type FieldValue, READ_IN, readAs } from '@each-bolt/core/shared';
import { editOp, type Op, type WorkPackage } from '@each-bolt/core/record';
import { burnUp, numbered, personCalendar, scheduleCsv, type PlanSchedule, type Scheduled } from '@each-bolt/core/plan';
import { ButtonDirective } from 'primeng/button';
import { Choose, ChoicesPipe } from '../shared/choose';
import type { ECharts } from 'echarts/core';
import { NgxEchartsDirective, provideEchartsCore } from 'ngx-echarts';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { ChartInkService } from '../shared/chart-ink';
import { Download } from '../shared/download';
import { RefusalNote } from '../shared/refusal-note';
import { ViewTabs } from '../shared/view-tabs';
import { ThemeService } from '../shared/theme-service';
import { BenchProgress } from './bench-progress';
import { echarts } from './echarts';
import { PlanScheduleService } from './plan-schedule-service';
import { ScheduleTable } from './schedule-table';
import { when } from './when-planned';
import { RowEdits } from '../record/row-edits';
import { ROW_PX, burnChart, chartHeightPx, chartSummary, scheduleChart, scheduleRows, type ChartRows } from './schedule-chart';

type View = ChartRows | 'table' | 'progress';

interface Drag {
  readonly pack: WorkPackage;
  readonly fromX: number;
  readonly startDay: number;
}

/** When what is done, by whom and where; how sure the finish is; and how far the work has come. */
@Component({
  selector: 'eb-schedule-view',
  imports: [BenchProgress, NgxEchartsDirective, RefusalNote, ViewTabs, ButtonDirective, Choose, ChoicesPipe, ScheduleTable],
  providers: [provideEchartsCore({ echarts })],
  template: `<div class="sheet">
    <header class="sheet-head">
      <div>
        <h1>{{ headline() }}</h1>
        <p class="soft">{{ basisLine() }}</p>
      </div>
    </header>
    @if (state().failure !== '') {
      <eb-refusal [message]="state().failure" />
    }
    @if (issues().length > 0) {
      <ul class="warnings" aria-label="What keeps the plan from working">
        @for (issue of issues(); track $index) {
          <li>{{ issue.message }}</li>
        }
      </ul>
    }
    @if (behind() !== '') {
      <p class="late">{{ behind() }}</p>
    }
    @if (schedule(); as s) {
      <div class="bar">
        <eb-view-tabs [tabs]="views" [(view)]="view" />
        <div class="acts">
          @if (people().length > 0 && schedule() !== null) {
            <eb-choose #who label="Whose calendar" [value]="people()[0]?.id ?? ''" [options]="people() | ebChoices: 'id' : 'name'" />
            <button pButton severity="secondary" type="button" (click)="calendar(who.value())">
              <i class="pi pi-calendar" aria-hidden="true"></i> Calendar file
            </button>
          }
          <button pButton severity="secondary" type="button" [disabled]="schedule() === null" (click)="csv()">
            <i class="pi pi-download" aria-hidden="true"></i> Table as CSV
          </button>
          @if (mayPlan()) {
            <button pButton type="button" [disabled]="agreeOps().length === 0" (click)="agree()">{{ agreeText() }}</button>
          }
        </div>
      </div>
      @switch (view()) {
        @case ('table') {
          <div class="scroll" tabindex="0" role="region" aria-label="Schedule as a table">
            <eb-schedule-table [schedule]="s" (effort)="setEffort($event.pack, $event.value)" (pinned)="pin($event.pack, $event.day)" />
          </div>
        }
        @case ('progress') {
          <div class="scroll progress" tabindex="0" role="region" aria-label="Progress">
            <p class="key">
              {{ progressLine() }} <i class="line"></i> done <i class="line dashed"></i> forecast <i class="line dotted"></i> agreed
            </p>
            <div
              class="burn"
              echarts
              [options]="burnOptions()!"
              [autoResize]="true"
              role="img"
              [attr.aria-label]="'Work agreed, done and forecast by day. ' + progressLine()"
            ></div>
            <eb-bench-progress />
          </div>
        }
        @default {
          <div class="scroll" tabindex="0" role="region" aria-label="Schedule as a chart">
            <div
              echarts
              [style.height.px]="height()"
              [options]="options()!"
              [autoResize]="true"
              role="img"
              [attr.aria-label]="chartText()"
              (chartInit)="ready($event)"
              (chartMouseDown)="grab($event)"
            ></div>
            @if (ghost(); as g) {
              <div class="ghost" [style.left.px]="g.x" [style.top.px]="g.y">{{ g.text }}</div>
            }
          </div>
          <p class="soft key">
            <i class="done"></i> done <i class="running"></i> running <i class="planned"></i> planned <i class="tight"></i> no slack
            <i class="rail"></i> slack <i class="agreed"></i> agreed
            @if (mayPlan()) {
              <span>Drag a planned bar to pin it on another day.</span>
            }
          </p>
        }
      }
    } @else if (open.record().packages.length === 0) {
      <p class="sheet-empty">
        There is nothing to schedule yet. Add work packages, or make them from the scope; then set the first day under People and places.
      </p>
    }
  </div>`,
  styles: `
    .bar {
      display: flex;
      flex-wrap: wrap;
      justify-content: space-between;
      align-items: end;
      gap: 6px 16px;
    }
    .scroll {
      flex: 1;
      min-height: 0;
      overflow: auto;
      position: relative;
    }
    .progress {
      display: flex;
      flex-direction: column;
      gap: 10px;
    }
    .burn {
      flex: 1 0 300px;
    }
    .key .line {
      height: 0;
      width: 24px;
      border-width: 2px 0 0;
    }
    .key .dashed {
      border-style: dashed;
      border-color: var(--dye);
    }
    .key .dotted {
      border-style: dotted;
      border-color: var(--soft);
    }
    .late {
      color: var(--amber);
      font-weight: 500;
    }
    .ghost {
      position: absolute;
      pointer-events: none;
      padding: 3px 8px;
      border: 1px solid var(--dye);
      background: var(--dye-tint);
      font-size: 12.5px;
      white-space: nowrap;
    }
    .key {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 6px;
      align-items: center;
      font-size: 12.5px;
    }
    .key i {
      display: inline-block;
      width: 20px;
      height: 10px;
      border: 1.2px solid var(--ink);
      margin-left: 10px;
    }
    .key .done {
      background: var(--ink);
    }
    .key .running {
      background: linear-gradient(transparent 50%, var(--ink) 50%);
    }
    .key .tight {
      border-width: 2.5px;
    }
    .key .rail {
      height: 0;
      border-width: 1px 0 0;
    }
    .key .agreed {
      height: 0;
      border-width: 2px 0 0;
      border-color: var(--soft);
    }
    .key span {
      margin-left: 16px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScheduleView {
  protected readonly open = inject(OpenStudy);
  protected readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);
  private readonly schedules = inject(PlanScheduleService);
  private readonly theme = inject(ThemeService);
  private readonly inks = inject(ChartInkService);
  private readonly download = inject(Download);

  protected readonly views: readonly { readonly view: View; readonly word: string }[] = [
    { view: 'packages', word: 'By package' },
    { view: 'holders', word: 'By people and places' },
    { view: 'table', word: 'Table' },
    { view: 'progress', word: 'Progress' },
  ];
  protected readonly view = signal<View>('packages');
  protected readonly mayPlan = computed(() => this.service.can()('package.add'));
  protected readonly state = this.schedules.state;
  protected readonly schedule = this.schedules.schedule;
  protected readonly issues = computed(() => this.state().result?.issues ?? []);
  protected readonly people = computed(() => this.open.record().resources.filter((r) => r.kind === 'person'));
  private readonly order = computed(() => numbered(this.open.record().packages).map((p) => p.id));
  private readonly ink = computed(() => this.inks.read(this.theme.theme()));
  private readonly rows = computed(() => {
    const schedule = this.schedule();
    const view = this.view();
    return schedule && scheduleRows(this.open.record(), schedule, this.order(), view === 'holders' ? 'holders' : 'packages');
  });
  protected readonly options = computed(() => {
    const [schedule, rows] = [this.schedule(), this.rows()];
    return schedule && rows && scheduleChart(schedule, rows, this.ink());
  });
  protected readonly height = computed(() => chartHeightPx(this.rows()?.labels.length ?? 0));
  protected readonly chartText = computed(() => {
    const [schedule, rows] = [this.schedule(), this.rows()];
    return schedule && rows ? chartSummary(schedule, rows) : '';
  });
  private readonly burn = computed(() => {
    const schedule = this.schedule();
    return schedule && burnUp(this.open.record(), schedule, this.schedules.today());
  });
  protected readonly burnOptions = computed(() => {
    const burn = this.burn();
    return burn && burnChart(burn, this.schedules.today(), this.ink());
  });
  protected readonly headline = computed(() => {
    const s = this.schedule();
    return s ? `Done ${when(s.finishAt)} ${s.finishAt.slice(0, 4)}` : 'Schedule';
  });
  protected readonly basisLine = computed(() => {
    const s = this.schedule();
    if (!s) return '';
    const out = s.leftOut.length === 0 ? '' : `${counted(s.leftOut.length, 'package')} left out · `;
    const alone = s.criticalAt < s.finishAt ? ` · by the order of work alone ${when(s.criticalAt)}` : '';
    return `${out}P50 ${when(s.spread.p50At)} · P90 ${when(s.spread.p90At)}${alone} · ${this.bestText(s)}`;
  });
  protected readonly progressLine = computed(() => {
    const burn = this.burn();
    return burn
      ? `${fixed(readAs(READ_IN.h, burn.doneS), 0)} of ${fixed(readAs(READ_IN.h, burn.wholeS), 0)} hours of people are done.`
      : '';
  });
  protected readonly behind = computed(() => {
    const ids = new Set(this.burn()?.behind ?? []);
    const late = numbered(this.open.record().packages).filter((p) => ids.has(p.id));
    return late.length === 0 ? '' : `Agreed to be done by now, and not: ${late.map((p) => p.name).join(', ')}`;
  });
  protected readonly agreeOps = computed<readonly Op[]>(() => {
    const timesOf = new Map(this.schedule()?.packages.map((t): readonly [string, Scheduled] => [t.packageId, t]) ?? []);
    return this.open.record().packages.flatMap((pack) => {
      const times = timesOf.get(pack.id);
      if (!times || pack.doneOn !== null) return [];
      return editOp('package', pack, { agreedFrom: times.from, agreedTo: times.to }) ?? [];
    });
  });
  protected readonly agreeText = computed(() => (this.agreeOps().length === 0 ? 'As agreed' : 'Agree on this plan'));
  private chart: ECharts | null = null;
  private drag: Drag | null = null;
  protected readonly ghost = signal<{ readonly x: number; readonly y: number; readonly text: string } | null>(null);

  private bestText(s: PlanSchedule): string {
    if (s.proved) return 'with the most likely times no other order is done earlier';
    const days = fixed((s.finish - s.bound) / s.axis.slotsPerDay, 1);
    return `even with the optimistic times not before ${when(s.boundAt)}; with the most likely ones at most ${days} working days from the best order`;
  }

  protected setEffort(pack: WorkPackage, value: FieldValue): void {
    const none = { optimisticS: null, mostLikelyS: null, pessimisticS: null };
    void this.edits.edit('package', pack, value === null ? none : (value as unknown as WorkPackage));
  }

  protected pin(pack: WorkPackage, day: string | null): void {
    void this.edits.edit('package', pack, { pinnedOn: day });
  }

  protected agree(): void {
    void this.edits.send(this.agreeOps());
  }

  protected calendar(personId: string): void {
    const [schedule, record] = [this.schedule(), this.open.record()];
    const person = record.resources.find((r) => r.id === personId);
    if (!schedule || !person) return;
    this.download.exact(`${person.name}.ics`, 'text/calendar', personCalendar(record, schedule, personId, new Date().toISOString()));
  }

  protected csv(): void {
    const schedule = this.schedule();
    if (schedule) this.download.text(`${this.open.study().title}, schedule.csv`, 'text/csv', scheduleCsv(this.open.record(), schedule));
  }

  // —— a bar is dragged to another day ——

  protected ready(chart: unknown): void {
    this.chart = chart as ECharts;
    const zr = this.chart.getZr();
    zr.on('mousemove', (event) => this.pull(event.offsetX, event.offsetY));
    zr.on('mouseup', (event) => this.drop(event.offsetX));
    zr.on('globalout', () => this.letGo());
  }

  protected grab(event: unknown): void {
    const { seriesId, dataIndex, event: mouse } = event as { seriesId?: string; dataIndex: number; event?: { offsetX: number } };
    const bar = this.rows()?.bars[dataIndex];
    if (seriesId !== 'bars' || bar?.scheduled.state !== 'planned' || !this.mayPlan() || !mouse) return;
    const pack = this.open.record().packages.find((p) => p.id === bar.scheduled.packageId);
    const schedule = this.schedule();
    if (pack && schedule) this.drag = { pack, fromX: mouse.offsetX, startDay: bar.scheduled.start / schedule.axis.slotsPerDay };
  }

  private dayAt(x: number): string | null {
    const [drag, schedule, chart] = [this.drag, this.schedule(), this.chart];
    if (!drag || !schedule || !chart) return null;
    const at = (px: number): number => chart.convertFromPixel({ gridIndex: 0 }, [px, ROW_PX * 2])[0] ?? 0;
    const place = Math.max(0, Math.round(drag.startDay + at(x) - at(drag.fromX)));
    const day = schedule.axis.days[place];
    return day === undefined ? null : isoDay(day);
  }

  private pull(x: number, y: number): void {
    if (!this.drag) return;
    const day = this.dayAt(x);
    this.ghost.set(day === null ? null : { x: x + 12, y: y + 10, text: `${this.drag.pack.name}: ${dayText(day)}` });
  }

  private drop(x: number): void {
    const [drag, day] = [this.drag, this.dayAt(x)];
    const moved = drag !== null && Math.abs(x - drag.fromX) > 4;
    this.letGo();
    if (drag && day !== null && moved) this.pin(drag.pack, day);
  }

  private letGo(): void {
    this.drag = null;
    this.ghost.set(null);
  }
}
