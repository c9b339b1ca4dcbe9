import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import {
  CUES,
  UNSEEN_BY_X_RAYS,
  WEAK_BY_X_RAYS,
  likely,
  limitText,
  matchGrades,
  readDesignation,
  readMaterialMarking,
  type Grade,
} from '@each-bolt/core/measure';
import { MATERIALS, PROCESSES, materialById, percentWithU, processById, type MaterialFamily } from '@each-bolt/core/shared';
import { editOp, evidence, type Identification } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { Tick } from '../shared/tick';
import { Choose, ChoicesPipe } from '../shared/choose';
import { Session } from '../record/session';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import { AlloyTable } from './alloy-table';
import { CueList } from './cue-list';
import { percentWords } from './scan-text';
import { WorthMeasuringList } from './worth-measuring';

const FAMILY_OF_BASE: Readonly<Record<Grade['base'], MaterialFamily>> = {
  Al: 'aluminium',
  Mg: 'magnesium and zinc',
  Zn: 'magnesium and zinc',
  Fe: 'steel',
  Cu: 'copper',
};
const CAST: ReadonlySet<string> = new Set(['hpdc', 'gravity-casting', 'sand-casting']);

/** Material and process: what was read, what is seen, what it likely is, and what is decided. */
@Component({
  selector: 'eb-material-view',
  imports: [WorthMeasuringList, AlloyTable, CueList, ButtonDirective, InputText, Choose, ChoicesPipe, Tick, DataTable, TableHead, TableRow],
  template: `<div class="sheet scroll">
    @if (selection.part(); as part) {
      <div class="two">
        <div class="column">
          <section aria-label="Alloy reading">
            <h2>Alloy reading</h2>
            @if (readings().length === 0) {
              <p class="soft">None yet. Take one at the bench with the alloy analyser (F8); it is kept with the part.</p>
            } @else {
              <label class="small"
                >Reading
                <eb-choose
                  label="Alloy reading"
                  (valueChange)="readingId.set($event)"
                  [value]="reading()?.id ?? ''"
                  [options]="readings() | ebChoices: 'id' : 'word'"
                />
              </label>
              <eb-tick class="small" [checked]="byXRays()" (checkedChange)="byXRays.set($event)"
                >read by X-rays: carbon and boron are not seen, magnesium, aluminium and silicon weakly</eb-tick
              >
              @if (match(); as m) {
                <eb-alloy-table [reading]="reading()!.elements!" [match]="m" [weak]="weak()" (taken)="takeGrade($event)" />
              }
            }
          </section>
          <section aria-label="Marking">
            <h2>Marking</h2>
            <label class="small"
              >As it stands on the part
              <input
                pInputText
                type="text"
                maxlength="200"
                [value]="marking()"
                aria-label="Marking or designation"
                placeholder=">PA66-GF30<, EN AC-46000, 6082 …"
                (input)="marking.set($any($event.target).value)"
              />
            </label>
            @for (line of markWords(); track line.text) {
              <p [class.fault]="line.isFault">{{ line.text }}</p>
            }
          </section>
          <section aria-label="What is seen">
            <h2>What is seen</h2>
            <eb-cue-list [seen]="seen()" (changed)="seen.set($event)" />
          </section>
        </div>
        <div class="column">
          <section aria-label="What it likely is">
            <h2>What it likely is</h2>
            <p class="soft small">
              {{
                seen().length === 0
                  ? 'Tick what you see; each cue changes the odds.'
                  : 'Chances rank, they do not bet: cues are taken as independent. You decide.'
              }}
            </p>
            <eb-table label="Likely processes"
              ><ng-template ebHead>
                <tr>
                  <th scope="col">Process</th>
                  <th scope="col" class="right">Chance</th>
                  <th scope="col">For it</th>
                  <th scope="col">Against</th>
                </tr> </ng-template
              ><ng-template [ebRow]="likelyRows()" track="id" let-row>
                <tr>
                  <th scope="row">
                    <button pButton [text]="true" severity="secondary" type="button" class="link-button" (click)="processId.set(row.id)">
                      {{ row.name }}
                    </button>
                  </th>
                  <td class="right figure">{{ row.chance }}</td>
                  <td class="small">{{ row.forIt }}</td>
                  <td class="small soft">{{ row.against }}</td>
                </tr>
              </ng-template></eb-table
            >
            <p class="small">
              Material:
              @for (family of families(); track family.name) {
                {{ family.name }} <span class="figure">{{ family.chance }}</span>{{ $last ? '' : ', ' }}
              }
            </p>
          </section>
          <section aria-label="Decision">
            <h2>Decision</h2>
            <div class="form">
              <label
                >Material
                <eb-choose
                  label="Material"
                  (valueChange)="materialId.set($event)"
                  [value]="materialId()"
                  [options]="materials | ebChoices: 'id' : 'name' : 'not decided'"
                />
              </label>
              <label
                >Grade
                <input
                  pInputText
                  type="text"
                  maxlength="100"
                  [value]="grade()"
                  aria-label="Grade"
                  (input)="grade.set($any($event.target).value)"
                />
              </label>
              <label class="wide"
                >Process
                <eb-choose
                  label="Process"
                  (valueChange)="processId.set($event)"
                  [value]="processId()"
                  [options]="processes | ebChoices: 'id' : 'name' : 'not decided'"
                />
              </label>
              <label class="wide"
                >Because
                <input
                  pInputText
                  type="text"
                  maxlength="1000"
                  [value]="reason()"
                  aria-label="Reason"
                  (input)="reason.set($any($event.target).value)"
                />
              </label>
            </div>
            @for (doubt of doubts(); track doubt) {
              <p class="fault" role="alert">{{ doubt }}</p>
            }
            @if (may()) {
              <button pButton type="button" [disabled]="materialId() === '' && processId() === ''" (click)="decide()">
                Keep the decision with {{ part.name }}
              </button>
            }
            @if (decided().length > 0) {
              <ul class="small" aria-label="Decisions before">
                @for (row of decided(); track row.id) {
                  <li>
                    {{ row.text }} <span class="soft">{{ row.by }}</span>
                  </li>
                }
              </ul>
            }
          </section>
        </div>
      </div>
    } @else {
      <eb-worth-measuring />
    }
  </div>`,
  styles: `
    .two {
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
      gap: 8px 26px;
    }
    @media (max-width: 1180px) {
      .two {
        grid-template-columns: minmax(0, 1fr);
      }
    }
    .column {
      display: flex;
      flex-direction: column;
      gap: 12px;
      min-width: 0;
    }
    section h2 {
      margin: 0 0 4px;
    }
    .small {
      font-size: 12.5px;
    }
    label.small {
      display: block;
      margin-bottom: 4px;
    }
    .fault {
      color: var(--amber);
      font-weight: 500;
      margin: 4px 0;
    }
    .form {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 8px;
      margin-bottom: 8px;
      font: 500 12.5px/1.6 var(--label);
      color: var(--soft);
    }
    .form eb-choose,
    .form input {
      width: 100%;
    }
    .wide {
      grid-column: 1 / -1;
    }
    input[type='text'] {
      width: 100%;
    }
    ul {
      margin: 8px 0 0;
      padding-left: 18px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MaterialView {
  protected readonly selection = inject(Selection);
  private readonly open = inject(OpenStudy);
  private readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);
  private readonly session = inject(Session);

  protected readonly materials = MATERIALS;
  protected readonly processes = PROCESSES;
  protected readonly may = computed(() => this.service.can()('identification.add'));
  private readonly partId = computed(() => this.selection.part()?.id ?? '');
  private readonly own = computed(() =>
    this.open
      .record()
      .identifications.filter((i) => i.partId === this.partId())
      .sort((a, b) => b.sequence - a.sequence),
  );
  /** the last decision is what the form begins with */
  private readonly last = computed<Identification | null>(() => this.own()[0] ?? null);
  private readonly start = computed(() => ({ part: this.partId(), last: this.last(), now: this.selection.part() }));

  protected readonly readings = computed(() =>
    this.open
      .record()
      .readings.filter((r) => r.aboutKind === 'part' && r.aboutId === this.partId() && r.elements !== null)
      .sort((a, b) => (a.takenAt < b.takenAt ? 1 : -1))
      .map((r) => ({
        ...r,
        word: `${r.instrument} ${r.serial}, ${new Date(r.takenAt).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}`,
      })),
  );
  protected readonly readingId = signal('');
  protected readonly byXRays = signal(true);
  protected readonly reading = computed(() => this.readings().find((r) => r.id === this.readingId()) ?? this.readings()[0] ?? null);
  protected readonly match = computed(() => {
    const elements = this.reading()?.elements;
    return elements ? matchGrades(elements, this.byXRays() ? UNSEEN_BY_X_RAYS : []) : null;
  });
  protected readonly weak = computed(() => (this.byXRays() ? WEAK_BY_X_RAYS : []));

  protected readonly marking = linkedSignal(() => this.start().last?.marking ?? this.start().now?.markings ?? '');
  protected readonly seen = linkedSignal<readonly string[]>(() => this.start().last?.cues ?? []);
  protected readonly materialId = linkedSignal(() => this.start().now?.materialId ?? '');
  protected readonly grade = linkedSignal(() => this.start().last?.grade ?? '');
  protected readonly processId = linkedSignal(() => this.start().now?.processId ?? '');
  protected readonly reason = linkedSignal(() => this.start().last?.reason ?? '');

  private readonly isCast = computed(() => (this.processId() === '' ? null : CAST.has(this.processId())));
  protected readonly markWords = computed<readonly { readonly text: string; readonly isFault: boolean }[]>(() => {
    const text = this.marking().trim();
    if (text === '') return [];
    const mark = readMaterialMarking(text);
    if (mark) return [{ text: `A material marking: ${mark.words}.`, isFault: false }];
    const { system, says, grade, fault } = readDesignation(text, this.isCast());
    if (system === '') return [{ text: 'No mark of plastic and no designation of an alloy that is known here.', isFault: false }];
    const names = grade ? ` The same alloy: ${[grade.name, ...grade.alsoNamed].join(', ')}.` : ' Its composition is not in the catalogue.';
    return [
      { text: `${system}${says === '' ? '' : `: ${says}`}.${names}`, isFault: false },
      ...(fault ? [{ text: `${fault}.`, isFault: true }] : []),
    ];
  });

  private readonly identified = computed(() => likely(this.seen(), this.family()));
  /** what a reading or a mark has settled already */
  private readonly family = computed<MaterialFamily | null>(() => {
    const base = this.match()?.base ?? null;
    if (base !== null) return FAMILY_OF_BASE[base];
    return readMaterialMarking(this.marking()) ? 'plastic' : null;
  });
  protected readonly likelyRows = computed(() =>
    this.identified()
      .processes.slice(0, 5)
      .map(({ what, chanceFraction, forIt, against }) => ({
        id: what.id,
        name: what.name,
        chance: percentWords(chanceFraction),
        forIt: forIt.map((c) => c.word.toLowerCase()).join(', '),
        against: against.map((c) => c.word.toLowerCase()).join(', '),
      })),
  );
  protected readonly families = computed(() =>
    this.identified()
      .families.filter((f) => f.chanceFraction > 0.01)
      .slice(0, 4)
      .map((f) => ({ name: f.what, chance: percentWords(f.chanceFraction) })),
  );

  /** what does not go together, before it is kept */
  protected readonly doubts = computed(() => {
    const material = materialById.get(this.materialId());
    const match = this.match();
    const doubts: string[] = [];
    if (material && match?.base && FAMILY_OF_BASE[match.base] !== material.family)
      doubts.push(`The reading is of ${FAMILY_OF_BASE[match.base]}, and the material is ${material.name}.`);
    else if (material?.gradeKnown && match) {
      const own = match.matches.find((m) => m.grade.materialId === material.id);
      const worst = own?.outside[0];
      if (own && !own.fits && worst)
        doubts.push(`${material.name} allows ${worst.symbol} ${limitText(worst.limit)}; read is ${percentWithU(worst.fraction, worst.u)}.`);
    }
    const fault = this.markWords().find((line) => line.isFault);
    if (fault) doubts.push(fault.text);
    const mark = readMaterialMarking(this.marking());
    if (mark?.materialId && material && mark.materialId !== material.id)
      doubts.push(`The part is marked ${mark.words}, and the material is ${material.name}.`);
    return doubts;
  });
  protected readonly decided = computed(() =>
    this.own().map((i) => ({
      id: i.id,
      text: [
        materialById.get(i.materialId ?? '')?.name ?? '',
        i.grade,
        processById.get(i.processId ?? '')?.name ?? '',
        i.reason === '' ? '' : `because ${i.reason}`,
      ]
        .filter((text) => text !== '')
        .join(', '),
      by: `${i.decidedBy}, ${new Date(i.decidedAt).toLocaleDateString('en-GB')}`,
    })),
  );

  protected takeGrade(grade: Grade): void {
    this.grade.set(grade.name);
    if (grade.materialId !== null) this.materialId.set(grade.materialId);
    if (this.reason() === '') this.reason.set('composition read');
  }

  /** Keeps what was seen and decided, and lets it flow into the part; what was there stays in its history. */
  protected decide(): void {
    const part = this.selection.part();
    if (!part) return;
    const reading = this.reading();
    const [materialId, processId] = [this.materialId() || null, this.processId() || null];
    const source =
      `identified: ${[this.reason(), this.grade(), ...this.seen().map((id) => CUES.find((c) => c.id === id)?.word.toLowerCase() ?? '')].filter((p) => p !== '').join(', ')}`.slice(
        0,
        400,
      );
    const read = reading && this.match()?.matches.some((m) => m.fits && m.grade.materialId === materialId);
    const fields = {
      materialId,
      processId,
      ...(this.grade() === '' ? {} : { materialDetail: this.grade() }),
      ...(this.marking() === '' ? {} : { markings: this.marking() }),
      evidence: {
        ...(materialId === null ? {} : { materialId: evidence(read ? 'M' : 'S', { source, instrument: read ? reading.instrument : '' }) }),
        ...(processId === null ? {} : { processId: evidence('S', { source }) }),
      },
    };
    const edit = editOp('part', part, fields);
    void this.edits.add(
      'identification',
      {
        partId: part.id,
        sequence: (this.last()?.sequence ?? -1) + 1,
        cues: this.seen(),
        readingId: reading?.id ?? null,
        marking: this.marking().trim(),
        materialId,
        grade: this.grade().trim(),
        processId,
        reason: this.reason().trim(),
        decidedAt: new Date().toISOString(),
        decidedBy: this.session.person?.name ?? '',
      },
      edit ? [edit] : [],
    );
  }
}
