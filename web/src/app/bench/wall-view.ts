import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { readingText } from '@each-bolt/core/bench';
import { OpenStudy } from '../record/open-study';
import { Selection } from '../record/selection';
import { BenchWork } from './bench-work';
import { clockText } from './clock-text';
import { InstrumentService } from './instrument-service';
import { stepParts } from './step-text';

/** What two people at a car need to see from two metres away. */
@Component({
  selector: 'eb-wall-view',
  template: `<div class="wall">
    <p class="where">{{ where() }}</p>
    <h1>{{ part() }}</h1>
    <dl>
      <div>
        <dt>Removal</dt>
        <dd>{{ work.ownSteps().length }}</dd>
      </div>
      <div>
        <dt>Time</dt>
        <dd [class.paused]="work.paused()">{{ clock() }}</dd>
      </div>
      <div>
        <dt>Scale</dt>
        <dd>{{ scale().text }}</dd>
        <dd class="small">{{ scale().state }}</dd>
      </div>
      <div>
        <dt>Counted</dt>
        <dd>{{ counts().fasteners }}</dd>
        <dd class="small">fasteners on it</dd>
      </div>
    </dl>
    <p class="next" [class.stop]="!work.precautions().isClear">{{ next() }}</p>
  </div>`,
  styles: `
    .wall {
      flex: 1;
      min-height: 0;
      overflow: auto;
      display: grid;
      align-content: space-between;
      padding: 18px 28px;
      background: var(--sheet);
    }
    .where {
      font: 500 26px/1.2 var(--label);
      color: var(--soft);
    }
    h1 {
      font-size: clamp(52px, 8vi, 104px);
      line-height: 1.05;
      overflow-wrap: anywhere;
    }
    dl {
      display: flex;
      flex-wrap: wrap;
      gap: 10px 48px;
      margin: 0;
    }
    dt {
      font: 500 24px/1.2 var(--label);
      color: var(--soft);
    }
    dd {
      margin: 0;
      font: 500 clamp(48px, 6.5vi, 88px)/1.05 var(--figure);
    }
    dd.small {
      font: 500 22px/1.2 var(--label);
      color: var(--soft);
    }
    .paused {
      color: var(--amber);
    }
    .next {
      font: 500 32px/1.3 var(--label);
    }
    .stop {
      color: var(--red);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WallView {
  protected readonly work = inject(BenchWork);
  private readonly open = inject(OpenStudy);
  private readonly selection = inject(Selection);
  private readonly instruments = inject(InstrumentService);

  protected readonly where = computed(() => {
    const session = this.work.session();
    const vehicle = this.open.vehicleById().get(session?.vehicleId ?? '')?.name ?? this.selection.vehicle()?.name ?? '';
    return session ? `${vehicle} · ${session.name}` : `${vehicle} · no session is open`;
  });
  protected readonly part = computed(() => {
    const step = this.work.lastStep();
    return this.selection.part()?.name ?? (step ? stepParts(step, this.open.partById()) : 'Nothing yet');
  });
  /** the chosen part, or what came off last */
  private readonly partIds = computed(() => {
    const chosen = this.selection.part();
    return chosen ? [chosen.id] : (this.work.lastStep()?.parts ?? []);
  });
  protected readonly clock = computed(() => clockText(this.work.clockS()));
  protected readonly scale = computed(() => {
    const scale = this.instruments.all().find((i) => i.kind === 'scale');
    if (!scale) return { text: '–', state: 'no scale' };
    if (scale.state !== 'ready' || scale.last === null) return { text: '–', state: scale.fault || 'not there' };
    if (scale.last.overload) return { text: 'OVER', state: 'take it off' };
    return { text: readingText(scale.last, scale.most), state: scale.last.stable ? 'still' : 'moving' };
  });
  protected readonly counts = computed(() => ({
    fasteners: this.partIds()
      .flatMap((id) => this.open.fastenersOf().get(id) ?? [])
      .reduce((sum, set) => sum + set.count, 0),
  }));
  protected readonly next = computed(() => {
    if (!this.work.session()) return 'Begin a session under “Record”.';
    if (!this.work.precautions().isClear) return 'Precautions come first: see “Record”.';
    return this.work.paused() ? 'The clock stands: nothing happened for a while.' : 'Go on.';
  });
}
