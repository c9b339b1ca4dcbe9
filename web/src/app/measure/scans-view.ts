import { ChangeDetectionStrategy, Component, computed, effect, inject, linkedSignal, signal, untracked } from '@angular/core';
import { UNIT_WORD, USUAL_OFFSET_M, USUAL_SHARE, guessUnit, inMetres, withOffset, type Place } from '@each-bolt/core/measure';
import { MOST_SCAN_BYTES, expandedU, materialById, millimetres, standardU } from '@each-bolt/core/shared';
import { SCAN_UNITS, type Scan, type ScanUnit, nextSequence } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { DataTable, TableRow } from '../shared/data-table';
import { FileButton } from '../shared/file-button';
import { Choose } from '../shared/choose';
import { InstrumentService } from '../bench/instrument-service';
import { Session } from '../record/session';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import { RefusalNote } from '../shared/refusal-note';
import { MeshWork } from './mesh-work';
import { ScanDesk } from './scan-desk';
import { DensityPanel } from './density-panel';
import { ScanList } from './scan-list';
import { ScanResults, type Cut } from './scan-results';
import { TakeScan } from './take-scan';
import { scanRows } from './scan-text';
import { WorthMeasuringList } from './worth-measuring';

/** A file that is being looked at: not yet kept, or one of the record. */
interface Looked {
  readonly name: string;
  readonly file: Blob;
  readonly scan: Scan | null;
  readonly instrument: string;
  readonly serial: string;
}

/** Scans of the chosen part: measured, looked at, cut, compared, and weighed against. */
@Component({
  selector: 'eb-scans-view',
  imports: [
    WorthMeasuringList,
    DensityPanel,
    RefusalNote,
    ScanDesk,
    ScanList,
    ButtonDirective,
    InputText,
    Choose,
    FileButton,
    DataTable,
    TableRow,
  ],
  providers: [ScanResults],
  template: `<div class="sheet scroll">
    @if (selection.part(); as part) {
      <section class="acts" aria-label="Take a scan in">
        @if (may()) {
          <eb-file-button [isMain]="true" label="Scan file" accept=".stl,.ply,.obj" (picked)="choose($event)"
            >Open a scan file</eb-file-button
          >
          @if (scanner(); as s) {
            <button pButton severity="secondary" type="button" [disabled]="s.state !== 'ready'" (click)="fromScanner()">
              From {{ s.name }}
            </button>
          }
        }
        @if (work.step() !== '') {
          <span role="status">Measuring: {{ work.step() }} …</span>
          <button pButton severity="secondary" type="button" (click)="stop()">Stop</button>
        } @else {
          <span class="soft small">STL, PLY or OBJ, up to {{ mostMb }} MB.</span>
        }
      </section>
      @if (said() !== '') {
        <eb-refusal [message]="said()" action="Close" (acted)="said.set('')" />
      }
      @if (work.file(); as measured) {
        @if (looked(); as now) {
          @if (now.scan === null) {
            <section aria-label="Unit of the file" class="unit">
              <label
                >The file is in
                <eb-choose label="Unit of the file" [value]="unit()" (valueChange)="unit.set($any($event))" [options]="unitChoices" />
              </label>
              @if (guess(); as g) {
                <span [class.fault]="g.unit !== unit() || !g.isClear">
                  {{ g.unit === unit() ? 'Likely' : 'More likely ' + words[g.unit] }}: {{ g.why
                  }}{{ g.isClear ? '' : '. Not certain: check it with the caliper' }}.
                </span>
              }
              <button pButton type="button" (click)="keep()">Keep the scan with {{ part.name }}</button>
            </section>
          }
          <div class="desk">
            <eb-scan-desk
              [file]="measured"
              [unit]="shownUnit()"
              [name]="now.name"
              [scan]="now.scan"
              [others]="others()"
              (sectioned)="keepSection($event)"
              (patterned)="keepPattern($event)"
            />
            <div class="side">
              <eb-table label="Figures of the scan"
                ><ng-template [ebRow]="rows()" track="word" let-row>
                  <tr>
                    <th scope="row">{{ row.word }}</th>
                    <td class="figure">
                      {{ row.value }} <small class="soft">{{ row.note }}</small>
                    </td>
                  </tr>
                </ng-template></eb-table
              >
              @for (note of measured.notes; track note) {
                <p class="soft small">{{ note }}</p>
              }
              <label class="small share"
                >Enclosed share of volume, %
                <input
                  pInputText
                  type="number"
                  min="50"
                  max="100"
                  step="0.5"
                  [value]="share() * 100"
                  aria-label="Share of the volume the trimmed bounding box holds, percent"
                  (change)="measureAgain($any($event.target).valueAsNumber)"
                />
              </label>
              <label class="small share"
                >Surface of the scanner, ± mm (k = 2)
                <input
                  pInputText
                  type="number"
                  min="0.001"
                  max="20"
                  step="0.01"
                  [value]="offsetMm()"
                  aria-label="Where the scanner lays the surface, ± millimetres, k = 2"
                  (change)="setOffset($any($event.target).valueAsNumber)"
                />
                <small class="soft">the volume is known to the area times this</small>
              </label>
              @if (now.scan && may()) {
                <div class="acts">
                  @if (share() !== now.scan.figures.shareFraction) {
                    <button pButton severity="secondary" type="button" (click)="keepFigures(now.scan)">
                      Keep these figures with the scan
                    </button>
                  }
                  <button pButton severity="secondary" type="button" (click)="takeSides(now.scan)">
                    Take the minimum bounding box over as the envelope
                  </button>
                </div>
              }
              @if (figures(); as f) {
                @if (f.volumeM3 !== null && f.volumeUM3 !== null) {
                  <eb-density-panel [part]="part" [volumeM3]="f.volumeM3" [uM3]="f.volumeUM3" />
                }
              }
            </div>
          </div>
        }
      }
      <section aria-label="Scans of the part">
        <h2>Scans of {{ part.name }}</h2>
        <eb-scan-list
          [scans]="own()"
          [openId]="looked()?.scan?.id ?? ''"
          [mayRemove]="may()"
          (opened)="open($event)"
          (removed)="remove($event)"
        />
      </section>
    } @else {
      <eb-worth-measuring />
    }
  </div>`,
  styles: `
    .unit {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 14px;
      align-items: center;
      padding: 8px 10px;
      border: 1px solid var(--line);
      background: var(--sheet);
    }
    .fault {
      color: var(--amber);
      font-weight: 500;
    }
    .desk {
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(280px, 380px);
      gap: 14px;
    }
    @media (max-width: 1180px) {
      .desk {
        grid-template-columns: minmax(0, 1fr);
      }
    }
    .side {
      display: flex;
      flex-direction: column;
      gap: 8px;
      min-width: 0;
    }
    .side small {
      display: block;
      font: 400 12px/1.3 var(--text);
    }
    .share input {
      width: 80px;
      margin-left: 6px;
    }
    .small {
      font-size: 12.5px;
    }
    section h2 {
      margin: 8px 0 4px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScansView {
  protected readonly selection = inject(Selection);
  protected readonly work = inject(MeshWork);
  private readonly open$ = inject(OpenStudy);
  private readonly edits = inject(RowEdits);
  private readonly takes = inject(TakeScan);
  private readonly results = inject(ScanResults);
  private readonly service = inject(RecordService);
  private readonly instruments = inject(InstrumentService);
  private readonly session = inject(Session);

  protected readonly unitChoices = SCAN_UNITS.map((value) => ({ value, word: UNIT_WORD[value] }));
  protected readonly words = UNIT_WORD;
  protected readonly mostMb = MOST_SCAN_BYTES / 1024 / 1024;
  protected readonly unit = signal<ScanUnit>('mm');
  protected readonly share = signal(USUAL_SHARE);
  protected readonly said = signal('');
  protected readonly looked = signal<Looked | null>(null);
  protected readonly may = computed(() => this.service.can()('scan.add'));
  protected readonly scanner = computed(() => this.instruments.all().find((i) => i.kind === 'mesh scanner') ?? null);
  private readonly partId = computed(() => this.selection.part()?.id ?? '');
  protected readonly own = computed(() => this.open$.record().scans.filter((s) => s.partId === this.partId()));
  /** scans that may be registered to the one that is open: of any part of the study */
  protected readonly others = computed(() =>
    this.open$
      .record()
      .scans.filter((s) => s.id !== this.looked()?.scan?.id)
      .map((scan) => ({ id: scan.id, scan, word: `${this.open$.partById().get(scan.partId)?.name ?? ''}: ${scan.fileName}` })),
  );
  protected readonly shownUnit = computed(() => this.looked()?.scan?.unit ?? this.unit());
  protected readonly figures = computed(() => {
    const file = this.work.file();
    return file && inMetres(file.figures, this.shownUnit(), this.offset());
  });
  /** what was said of the scanner last, by whom it was used; assumed until somebody states it */
  private readonly usualOffset = computed(() => {
    const instrument = this.looked()?.instrument ?? '';
    return this.open$.record().scans.findLast((s) => s.instrument === instrument && s.offsetM !== null)?.offsetM ?? USUAL_OFFSET_M;
  });
  private readonly typedOffset = linkedSignal<string, number | null>({
    source: () => this.looked()?.scan?.id ?? '',
    computation: () => null,
  });
  protected readonly offset = computed(() => this.typedOffset() ?? this.looked()?.scan?.offsetM ?? this.usualOffset());
  protected readonly offsetMm = computed(() => millimetres(expandedU(this.offset())));

  protected async setOffset(mm: number): Promise<void> {
    const offsetM = standardU(mm / 1000);
    if (!(offsetM > 0 && offsetM <= 0.01)) {
      this.said.set('The offset of a scanner is more than 0 and at most ± 20 mm');
      return;
    }
    this.typedOffset.set(offsetM);
    const [scan, looked] = [this.looked()?.scan ?? null, this.looked()];
    if (!scan || !looked || !this.may()) return;
    if (await this.edits.edit('scan', scan, { offsetM, figures: withOffset(scan.figures, scan.offsetM, offsetM) }))
      this.looked.set({ ...looked, scan: this.own().find((s) => s.id === scan.id) ?? scan });
  }
  protected readonly rows = computed(() => {
    const figures = this.figures();
    return figures ? scanRows(figures) : [];
  });
  protected readonly guess = computed(() => {
    const [file, part] = [this.work.file(), this.selection.part()];
    if (!file || !part) return null;
    const sidesM = [part.lengthM, part.widthM, part.heightM].filter((s) => s !== null);
    const densityKgPerM3 = materialById.get(part.materialId ?? '')?.densityKgPerM3 ?? null;
    return guessUnit(file.figures.minimumM, file.figures.volumeM3 ?? 0, { sidesM, massKg: part.massEachKg, densityKgPerM3 });
  });

  constructor() {
    effect(() => {
      // what was open is of another part
      this.partId();
      untracked(() => this.stop());
    });
  }

  protected stop(): void {
    this.work.stop();
    this.looked.set(null);
  }

  protected async choose([file]: readonly File[]): Promise<void> {
    if (!file) return;
    await this.look({ name: file.name, file, scan: null, instrument: '', serial: '' });
  }

  protected async fromScanner(): Promise<void> {
    const scanner = this.scanner();
    if (!scanner) return;
    const before = scanner.last?.seq ?? -1;
    const refusal = await this.instruments.command(scanner.id, 'trigger');
    if (refusal) {
      this.said.set(refusal.message);
      return;
    }
    const made = await this.instruments.made(scanner.id, before);
    if (!(made instanceof Blob)) {
      this.said.set(made.message);
      return;
    }
    await this.look({
      name: `${scanner.name.toLowerCase().replace(/\s+/g, '-')}-${before + 1}.stl`,
      file: made,
      scan: null,
      instrument: scanner.name,
      serial: scanner.serial,
    });
  }

  protected async open(scan: Scan): Promise<void> {
    const file = await this.takes.file(scan);
    if (file instanceof Blob) await this.look({ name: scan.fileName, file, scan, instrument: scan.instrument, serial: scan.serial });
    else this.said.set(file.message);
  }

  private async look(looked: Looked): Promise<void> {
    if (looked.file.size > MOST_SCAN_BYTES) {
      this.said.set(
        `${looked.name} has ${Math.round(looked.file.size / 1024 / 1024)} MB, and ${this.mostMb} MB are taken: save it as binary STL or thin it out`,
      );
      return;
    }
    this.said.set('');
    this.work.file.set(null);
    this.looked.set(looked);
    if (looked.scan) this.share.set(looked.scan.figures.shareFraction);
    const answer = await this.work.measure(await looked.file.arrayBuffer(), looked.name, this.share());
    if (answer.kind === 'fault') {
      this.said.set(answer.message);
      return;
    }
    const guess = this.guess();
    if (guess && !looked.scan) this.unit.set(guess.unit);
  }

  protected async measureAgain(percent: number): Promise<void> {
    const looked = this.looked();
    if (!(percent >= 50 && percent <= 100) || !looked) {
      this.said.set('The share lies between 50 and 100 %');
      return;
    }
    const unit = this.unit();
    this.share.set(percent / 100);
    await this.work.measure(await looked.file.arrayBuffer(), looked.name, this.share());
    this.unit.set(unit);
  }

  protected async keep(): Promise<void> {
    const [looked, figures, part, file] = [this.looked(), this.figures(), this.selection.part(), this.work.file()];
    if (!looked || !figures || !part || !file) return;
    const guess = this.guess();
    const refusal = await this.takes.keep(looked.file, {
      partId: part.id,
      sequence: nextSequence(this.own()),
      fileName: looked.name.slice(0, 200),
      format: file.format,
      unit: this.unit(),
      unitBy: guess?.unit === this.unit() ? guess.why : 'said by whoever kept it',
      figures,
      offsetM: this.offset(),
      instrument: looked.instrument,
      serial: looked.serial,
      takenAt: new Date().toISOString(),
      takenBy: this.session.person?.name ?? '',
      note: '',
    });
    if (refusal) this.said.set([refusal.message, ...refusal.issues.map((i) => i.message)].join('. '));
    else this.looked.set({ ...looked, scan: this.own().at(-1) ?? null });
  }

  protected async keepFigures(scan: Scan): Promise<void> {
    const [figures, looked] = [this.figures(), this.looked()];
    if (!figures || !looked || !(await this.edits.edit('scan', scan, { figures }))) return;
    this.looked.set({ ...looked, scan: this.own().find((s) => s.id === scan.id) ?? scan });
  }

  protected takeSides(scan: Scan): void {
    const part = this.selection.part();
    if (part) this.results.takeSides(part, scan);
  }

  protected async keepSection(section: Cut): Promise<void> {
    const part = this.selection.part();
    if (part && (await this.results.keepSection(part, this.looked()?.scan ?? null, this.shownUnit(), section)))
      this.said.set(`“${section.name}” is kept under Sections`);
  }

  protected async keepPattern(places: readonly Place[]): Promise<void> {
    const part = this.selection.part();
    const name = `holes of ${this.looked()?.name ?? 'the scan'}`.slice(0, 100);
    if (part && (await this.results.keepPattern(part, this.shownUnit(), name, places))) this.said.set(`“${name}” is kept under Holes`);
  }

  protected remove(scan: Scan): void {
    void this.edits.remove('scan', scan);
    if (this.looked()?.scan?.id === scan.id) this.stop();
  }
}
