import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ABSENT, chanceText, counted, fixed, riskText, withU } from '@each-bolt/core/shared';
import { SAMPLED_BY } from '@each-bolt/core/record';
import { countAgreement, countedSets, drawSample, neededFor, sampleResult } from '@each-bolt/core/reconcile';
import { ButtonDirective } from 'primeng/button';
import { OpenStudy } from '../record/open-study';
import { PartLink } from '../record/part-link';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Session } from '../record/session';
import { whenText } from '../record/when';
import { Choose } from '../shared/choose';
import { EditField } from '../shared/edit-field';

const WAYS = SAMPLED_BY.map((value) => ({ value, word: value }));

/** Counts drawn to be counted once more by somebody who does not see the first count; what that says of those nobody repeated. */
@Component({
  selector: 'eb-reconcile-recounts',
  imports: [ButtonDirective, Choose, EditField, PartLink, RouterLink],
  template: `<div class="sheet scroll" tabindex="0" role="region" aria-label="Blind recounts">
    <header class="sheet-head">
      <div>
        <h1>Blind recounts</h1>
        <p class="soft">
          Somebody else counts again without seeing the first count, at the bench under
          <a routerLink="../../bench/recount" queryParamsHandling="preserve">Blind recount</a>. Both counts stay in the record.
        </p>
      </div>
    </header>
    <section aria-label="Draw a sample">
      <h2>Draw a sample</h2>
      <div class="draw">
        <label>
          Sure to, %
          <eb-edit-field
            label="Assurance, percent"
            [shape]="percent"
            [value]="assurance()"
            [showUnit]="false"
            (committed)="take(assurance, $event)"
          />
        </label>
        <label>
          that wrong counts are under, %
          <eb-edit-field
            label="Share wrong, percent"
            [shape]="percent"
            [value]="wrong()"
            [showUnit]="false"
            (committed)="take(wrong, $event)"
          />
        </label>
        <label>
          with so many wrong found
          <eb-edit-field label="Allowed wrong" [shape]="whole" [value]="allowed()" (committed)="take(allowed, $event)" />
        </label>
        <label>
          drawn
          <eb-choose label="Drawn" [options]="ways" [value]="by()" (valueChange)="by.set($any($event))" />
        </label>
        @if (service.can()('recountSample.add')) {
          <button pButton type="button" [disabled]="needed() === 0" (click)="draw()">Draw {{ needed() }} of {{ sets().length }}</button>
        }
      </div>
      <p class="soft">{{ says() }}</p>
    </section>
    @for (row of samples(); track row.sample.id) {
      <section [attr.aria-label]="'Sample of ' + row.when">
        <h2>{{ row.title }}</h2>
        <p>{{ row.says }}</p>
        @if (row.left.length > 0) {
          <p class="left">
            Still to be counted, on:
            @for (part of row.left; track part.id) {
              <eb-part-link [partId]="part.id" [name]="part.name" />
            }
            @if (row.more > 0) {
              <span class="soft">and {{ row.more }} more</span>
            }
          </p>
        }
      </section>
    }
    <section aria-label="Agreement">
      <h2>Agreement of all recounts</h2>
      @if (agreement(); as a) {
        <dl>
          @for (line of a; track line.word) {
            <dt>{{ line.word }}</dt>
            <dd class="figure">{{ line.figure }}</dd>
            <dd class="soft">{{ line.says }}</dd>
          }
        </dl>
      } @else {
        <p class="soft">Nothing was counted again yet.</p>
      }
    </section>
  </div>`,
  styles: `
    a {
      color: var(--dye);
    }
    section {
      max-width: 880px;
      margin-bottom: 18px;
    }
    .draw {
      display: flex;
      gap: 14px;
      align-items: end;
      flex-wrap: wrap;
    }
    label {
      display: grid;
      gap: 3px;
      color: var(--soft);
      font-size: 12.5px;
    }
    eb-edit-field {
      width: 110px;
    }
    eb-choose {
      width: 140px;
    }
    .left {
      display: flex;
      gap: 4px 12px;
      flex-wrap: wrap;
      align-items: baseline;
    }
    dl {
      display: grid;
      grid-template-columns: max-content max-content 1fr;
      gap: 5px 18px;
      font-size: 13.5px;
    }
    dd {
      margin: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReconcileRecounts {
  protected readonly service = inject(RecordService);
  private readonly open = inject(OpenStudy);
  private readonly edits = inject(RowEdits);
  private readonly session = inject(Session);

  protected readonly percent = { kind: 'number', per: 1, unit: '%', digits: 2 } as const;
  protected readonly whole = { kind: 'whole' } as const;
  protected readonly ways = WAYS;
  protected readonly assurance = signal(95);
  protected readonly wrong = signal(2);
  protected readonly allowed = signal(0);
  protected readonly by = signal<(typeof SAMPLED_BY)[number]>('at random');

  protected readonly sets = computed(() => countedSets(this.open.record()));
  private readonly wanted = computed(() => ({
    ...{ assuranceFraction: this.assurance() / 100, wrongFraction: this.wrong() / 100, allowed: Math.round(this.allowed()) },
  }));
  private readonly isSense = computed(() => {
    const { assuranceFraction: a, wrongFraction: w, allowed } = this.wanted();
    return a > 0 && a < 1 && w > 0 && w < 1 && allowed >= 0 && allowed <= 20;
  });
  protected readonly needed = computed(() => (this.isSense() ? neededFor(this.wanted(), this.sets().length) : 0));
  protected readonly says = computed(() => {
    if (!this.isSense()) return 'Both percentages lie between 0 and 100, and at most 20 wrong ones are allowed.';
    const n = this.needed();
    const { assuranceFraction, wrongFraction, allowed } = this.wanted();
    const found = allowed === 0 ? 'none of them wrong' : `at most ${allowed} of them wrong`;
    const so = `${n} of ${counted(this.sets().length, 'count')}, ${found}: then fewer than ${chanceText(wrongFraction)} are wrong, with ${chanceText(assuranceFraction)} assurance`;
    return this.by() === 'at random' ? `${so}.` : `${so} if drawn at random. By risk the likeliest to be wrong come first; what is found then says nothing of the rest.`; // prettier-ignore
  });
  protected readonly samples = computed(() => {
    const record = this.open.record();
    const parts = this.open.partById();
    return [...record.recountSamples]
      .sort((a, b) => (a.drawnAt < b.drawnAt ? 1 : -1))
      .map((sample) => {
        const result = sampleResult(sample, record);
        const left = result.leftOn.flatMap((id) => parts.get(id) ?? []);
        const share = result.atMostFraction === null ? '' : ` At most ${riskText(result.atMostFraction)} of all counts are wrong, with ${chanceText(sample.assuranceFraction)} assurance.`;
        const end = result.isShown === null ? '' : sample.sampledBy === 'by risk' ? '' : result.isShown ? ` What was wanted, fewer than ${chanceText(sample.wrongFraction)}, is shown.` : ` That fewer than ${chanceText(sample.wrongFraction)} are wrong is not shown.`;
        return {
          ...{ sample, when: whenText(sample.drawnAt), left: left.slice(0, 12), more: Math.max(0, left.length - 12) },
          title: `${sample.sets.length} of ${sample.outOf} drawn ${sample.sampledBy}, ${whenText(sample.drawnAt)}, by ${sample.drawnBy}`,
          says: `${result.counted} of ${result.drawn} counted again, ${result.wrong} of them otherwise.${share}${end}`,
        };
      });
  }); // prettier-ignore
  protected readonly agreement = computed(() => {
    const a = countAgreement(this.open.record().recounts);
    if (a === null) return null;
    const d = a.differences;
    return [
      { word: 'Counted alike', figure: `${a.alike} of ${a.sets}`, says: 'sets with the same number both times' },
      { word: 'Kappa', figure: a.kappa === null ? ABSENT : a.kappaU === null ? fixed(a.kappa, 2) : withU(a.kappa, a.kappaU, 2), says: 'in classes of 1, 2, 3, 4, up to 8 and more; 1 is as one, 0 as by chance' },
      { word: 'Intraclass correlation', figure: a.intraclass === null ? ABSENT : fixed(a.intraclass, 3), says: 'agreement of single counts, two-way (2,1)' },
      { word: 'Second less first', figure: d === null ? ABSENT : `${fixed(d.bias, 2)} ± ${fixed(d.biasWithin, 2)}`, says: d === null ? 'from two pairs on' : `95 % of differences between ${fixed(d.low, 2)} and ${fixed(d.high, 2)}` },
    ];
  }); // prettier-ignore

  protected take(into: { set(value: number): void }, value: unknown): void {
    if (typeof value === 'number') into.set(value);
  }

  protected draw(): void {
    const seed = crypto.getRandomValues(new Uint32Array(1))[0]! % 2_000_000_000;
    const drawn = drawSample(this.sets(), this.needed(), this.by(), seed);
    void this.edits.add('recountSample', {
      ...{ sampledBy: this.by(), ...this.wanted(), seed, outOf: this.sets().length },
      sets: drawn.map(({ kind, setId }) => ({ kind, setId })),
      ...{ drawnAt: new Date().toISOString(), drawnBy: this.session.person?.name ?? '' },
    });
  }
}
