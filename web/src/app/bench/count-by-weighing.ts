import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { chanceText, fixed, withU, gramsText } from '@each-bolt/core/shared';
import {
  LOT_FRACTION,
  PART_SPREAD_FRACTION,
  countByWeight,
  readingFault,
  setLineOf,
  spreadOfSample,
  takeCount,
  withLot,
  type CountSample,
  type WeighedLot,
} from '@each-bolt/core/bench';
import type { FastenerSet } from '@each-bolt/core/record';
import { Session as SignedIn } from '../record/session';
import { OpenStudy } from '../record/open-study';
import type { Refusal } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Selection } from '../record/selection';
import { RefusalNote } from '../shared/refusal-note';
import { BenchWork } from './bench-work';
import { InstrumentService } from './instrument-service';

/** How many alike fasteners lie on the scale, how certain that is, and into which set the count goes. */
@Component({
  selector: 'eb-count-by-weighing',
  imports: [RefusalNote, ButtonDirective, InputText],
  template: `<section aria-label="Count by weighing">
    <h2>Count by weighing</h2>
    <p class="soft small">
      Weigh a counted few first, best in three lots or more so that it is seen how they scatter, then the whole lot. The count is only
      called certain when it is wrong at most once in a hundred.
    </p>
    @if (refusal(); as why) {
      <eb-refusal [message]="why.message" [issues]="why.issues" action="Close" (acted)="refusal.set(null)" />
    }
    <div class="acts">
      <label>Counted <input pInputText #few type="number" min="1" value="10" aria-label="Parts counted by hand" /></label>
      <button pButton severity="secondary" type="button" (click)="weighSample(few.valueAsNumber)">These lie on the scale</button>
      @if (sample(); as s) {
        <span class="figure">{{ s.count }} weigh {{ grams(s.massKg) }}</span>
        <button pButton type="button" (click)="weighLot()">Now the whole lot</button>
        <button pButton severity="secondary" type="button" (click)="beginAgain()">Begin again</button>
      }
    </div>
    <div class="acts">
      <label
        >Parts scatter by, %
        <input
          pInputText
          type="number"
          min="0"
          max="50"
          step="0.1"
          [value]="percent(spread())"
          aria-label="Parts scatter by, percent"
          (change)="setSpread($any($event.target).valueAsNumber)"
        />
      </label>
      <span class="soft small">{{ spreadWord() }}</span>
      <label
        >Lot and sample differ by at most, %
        <input
          pInputText
          type="number"
          min="0"
          max="50"
          step="0.1"
          [value]="percent(lotFraction())"
          aria-label="Lot and sample differ by at most, percent"
          (change)="setLotFraction($any($event.target).valueAsNumber)"
        />
      </label>
    </div>
    @if (counted(); as result) {
      <p role="status" class="result" [class.fault]="!result.isCertain">{{ text() }}</p>
      @if (sets().length > 0) {
        <div class="acts">
          @for (set of sets(); track set.id) {
            <button pButton severity="secondary" type="button" (click)="takeOver(set)">Into {{ wordOf(set) }} of {{ part()?.name }}</button>
          }
        </div>
      } @else {
        <p class="soft small">Choose a part with a fastener set to take the count over into it.</p>
      }
    }
    <p role="status" class="soft small">{{ said() }}</p>
  </section>`,
  styles: `
    label {
      font: 500 12.5px/1.6 var(--label);
      color: var(--soft);
    }
    input {
      width: 84px;
    }
    h2 {
      margin: 14px 0 4px;
    }
    .acts {
      align-items: center;
      margin-bottom: 6px;
    }
    .acts .small {
      margin: 0 12px 0 0;
    }
    .small {
      font-size: 12.5px;
      margin-bottom: 6px;
    }
    .result {
      margin-top: 6px;
      font-weight: 500;
    }
    .fault {
      color: var(--amber);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CountByWeighing {
  private readonly service = inject(InstrumentService);
  private readonly work = inject(BenchWork);
  private readonly open = inject(OpenStudy);
  private readonly selection = inject(Selection);
  private readonly signedIn = inject(SignedIn);

  protected readonly refusal = signal<Refusal | null>(null);
  protected readonly said = signal('');
  protected readonly sample = signal<CountSample | null>(null);
  private readonly lot = signal<WeighedLot['taken'] | null>(null);
  protected readonly part = this.selection.part;
  protected readonly sets = computed(() => this.open.fastenersOf().get(this.part()?.id ?? '') ?? []);

  /** typed by somebody; null takes what the sample tells, or what is assumed */
  protected readonly typedSpread = signal<number | null>(null);
  protected readonly lotFraction = signal(LOT_FRACTION);
  private readonly told = computed(() => {
    const sample = this.sample();
    return sample ? spreadOfSample(sample) : null;
  });
  protected readonly spread = computed(() => this.typedSpread() ?? this.told()?.fraction ?? PART_SPREAD_FRACTION);
  protected readonly spreadWord = computed(() => {
    if (this.typedSpread() !== null) return 'as typed';
    const told = this.told();
    if (told) return `from ${told.freedom + 1} weighings`;
    const lots = this.sample()?.lots?.length ?? 0;
    return lots === 0 ? 'assumed; weigh the few in three lots or more to learn it' : `assumed; ${3 - lots} more lots tell it`;
  });

  protected readonly counted = computed(() => {
    const [sample, lot] = [this.sample(), this.lot()];
    return sample && lot
      ? countByWeight({ massKg: lot.reading.value ?? 0, uKg: lot.reading.u ?? 0 }, sample, {
          spreadFraction: this.typedSpread(),
          lotFraction: this.lotFraction(),
        })
      : null;
  });
  protected readonly text = computed(() => {
    const lot = this.counted();
    if (!lot) return '';
    const chance = chanceText(lot.certainty);
    return lot.isCertain
      ? `${fixed(lot.count, 0)} parts: certain to ${chance} (${withU(lot.ratio, lot.u, 2)})`
      : `About ${fixed(lot.count, 0)} parts, not certain: ${fixed(lot.low, 0)} to ${fixed(lot.high, 0)} are possible, ${chance} for ${fixed(lot.count, 0)}. Weigh a larger sample, or count smaller lots`;
  });

  protected grams(kg: number): string {
    return gramsText(kg, 1);
  }

  protected wordOf(set: FastenerSet): string {
    return setLineOf('fasteners', set);
  }

  private scale(): WeighedLot['taken'] | null {
    const instrument = this.service.all().find((i) => i.kind === 'scale') ?? this.service.all().find((i) => i.kind === 'floor scale');
    if (!instrument) {
      this.refusal.set({ code: 'no-scale', message: 'No scale is set up', issues: [] });
      return null;
    }
    const reading = instrument.last;
    const fault = readingFault(instrument, reading, this.service.now());
    this.refusal.set(fault === null ? null : { code: 'reading', message: fault, issues: [] });
    return fault === null && reading ? { instrument, reading, by: this.signedIn.person?.name ?? '' } : null;
  }

  protected weighSample(count: number): void {
    const taken = this.scale();
    if (!taken) return;
    if (!(Number.isInteger(count) && count >= 1)) {
      this.refusal.set({ code: 'sample', message: 'Say how many lie on the scale: a whole number from 1', issues: [] });
      return;
    }
    this.sample.update((before) => withLot(before, { count, massKg: taken.reading.value ?? 0 }, taken.reading.u ?? 0));
    this.lot.set(null);
  }

  /** an emptied field goes back to what is known */
  protected setSpread(percent: number): void {
    this.typedSpread.set(Number.isFinite(percent) && percent >= 0 ? percent / 100 : null);
  }

  protected setLotFraction(percent: number): void {
    this.lotFraction.set(Number.isFinite(percent) && percent >= 0 ? percent / 100 : LOT_FRACTION);
  }

  protected percent(fraction: number): string {
    return String(Number((fraction * 100).toPrecision(2)));
  }

  protected beginAgain(): void {
    this.sample.set(null);
    this.lot.set(null);
  }

  protected weighLot(): void {
    this.lot.set(this.scale());
  }

  protected async takeOver(set: FastenerSet): Promise<void> {
    const [sample, taken, counted] = [this.sample(), this.lot(), this.counted()];
    if (!sample || !taken || !counted) return;
    const refusal = await this.work.send(takeCount({ sample, taken, counted }, set, () => crypto.randomUUID()));
    this.refusal.set(refusal);
    if (!refusal) this.said.set(`${fixed(counted.count, 0)} counted by weighing, kept in the set`);
  }
}
