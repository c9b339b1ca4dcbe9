import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal, type Signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { of, startWith, switchMap } from 'rxjs';
import { DIMENSION_WORD, SECTION_SHAPES, type Dimension, type SectionFigures, formulaOff } from '@each-bolt/core/measure';
import { MATERIALS, signed, threeDigits, READ_IN, readAs, unitWord } from '@each-bolt/core/shared';
import { SECTION_KINDS, type Section, type SectionFields, type SectionKind, nextSequence } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Textarea } from 'primeng/textarea';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { Choose, ChoicesPipe } from '../shared/choose';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import {
  SECTION_ROWS,
  loopsOf,
  outlinePath,
  ratioText,
  roomFor,
  sectionFault,
  varied,
  type SectionAsked,
  type SectionTold,
} from './section-text';
import { SectionWork } from './section-work';
import { WorthMeasuringList } from './worth-measuring';

const PICTURE = { width: 190, height: 140 } as const;

/** Sections of the chosen part: drawn from the library or an outline, worked out, held against another, and varied. */
@Component({
  selector: 'eb-sections-view',
  imports: [WorthMeasuringList, ButtonDirective, InputText, Textarea, Choose, ChoicesPipe, DataTable, TableHead, TableRow],
  providers: [SectionWork],
  template: `<div class="sheet scroll">
    @if (selection.part(); as part) {
      @if (may()) {
        <form class="new" aria-label="A new section" (submit)="add($event, name)">
          <label
            >Shape
            <eb-choose label="Shape" (valueChange)="kind.set($any($event))" [value]="kind()" [options]="kinds | ebChoices" />
          </label>
          @for (d of dimensions(); track d.name) {
            <label
              >{{ d.word }}, mm
              <input
                pInputText
                type="number"
                min="0"
                step="any"
                [attr.aria-label]="d.word + ', mm'"
                (input)="set(d.name, $any($event.target).valueAsNumber)"
              />
            </label>
          }
          @if (kind() === 'outline') {
            <label class="wide"
              >Points x y in mm, one a line; an empty line begins a hole
              <textarea
                pTextarea
                rows="5"
                aria-label="Points of the outline, mm"
                (input)="outline.set($any($event.target).value)"
              ></textarea>
            </label>
          }
          <label
            >Name <input pInputText #name type="text" maxlength="100" aria-label="Name of the section" placeholder="sill, middle"
          /></label>
          <button pButton type="submit">Add the section</button>
        </form>
        @if (fault() !== '') {
          <p class="fault" role="alert">{{ fault() }}</p>
        }
      }
      @if (own().length === 0) {
        <p class="soft">
          No section yet. Take a shape of the library, draw one by its points, or cut one from a scan with its section plane.
        </p>
      } @else {
        <div class="acts">
          @for (section of own(); track section.id) {
            <button
              pButton
              severity="secondary"
              type="button"
              [class.chosen]="section.id === chosen()?.id"
              (click)="chosenId.set(section.id)"
            >
              {{ section.name }}
            </button>
          }
        </div>
        @if (chosen(); as section) {
          <div class="desk">
            <figure>
              <svg [attr.width]="picture.width" [attr.height]="picture.height" role="img" [attr.aria-label]="'Outline of ' + section.name">
                <path [attr.d]="path()" fill="var(--dye-tint)" stroke="var(--dye)" fill-rule="evenodd" />
                @if (otherPath() !== '') {
                  <path [attr.d]="otherPath()" fill="none" stroke="var(--amber)" stroke-dasharray="4 3" />
                }
              </svg>
              <figcaption class="soft small">{{ section.kind }}{{ section.scanId ? ', cut from a scan' : '' }}</figcaption>
              <label class="small"
                >Material
                <eb-choose
                  label="Material of the section"
                  [disabled]="!may()"
                  (valueChange)="setMaterial(section, $event)"
                  [value]="section.materialId ?? ''"
                  [options]="materials | ebChoices: 'id' : 'name' : 'none'"
                />
              </label>
              @if (may()) {
                <button pButton severity="secondary" type="button" (click)="remove(section)">Delete this section</button>
              }
            </figure>
            <div class="figures">
              <div class="acts">
                <label class="small"
                  >Against
                  <eb-choose label="Section to hold it against" [(value)]="againstId" [options]="againstChoices()" />
                </label>
                @if (againstId() === 'varied') {
                  <label class="small"
                    >Height ×
                    <input
                      pInputText
                      type="number"
                      class="factor"
                      min="0.2"
                      max="5"
                      step="0.05"
                      [value]="height()"
                      aria-label="Height times"
                      (input)="height.set($any($event.target).valueAsNumber)"
                    />
                  </label>
                  @if (section.kind !== 'outline' && section.kind !== 'rectangle') {
                    <label class="small"
                      >Walls ×
                      <input
                        pInputText
                        type="number"
                        class="factor"
                        min="0.2"
                        max="5"
                        step="0.05"
                        [value]="thickness()"
                        aria-label="Walls times"
                        (input)="thickness.set($any($event.target).valueAsNumber)"
                      />
                    </label>
                  }
                }
              </div>
              @if (figures().fault !== '' || against().fault !== '') {
                <p class="fault" role="alert">{{ figures().fault || against().fault }}</p>
              }
              @if (busy()) {
                <p class="soft" role="status">Working the section out …</p>
              }
              <eb-table label="Figures of the section"
                ><ng-template ebHead>
                  <tr>
                    <th scope="col"></th>
                    <th scope="col"></th>
                    <th scope="col" class="right">{{ section.name }}</th>
                    @if (against().figures) {
                      <th scope="col" class="right">{{ against().word }}</th>
                      <th scope="col" class="right">Ratio</th>
                    }
                  </tr> </ng-template
                ><ng-template [ebRow]="rows()" track="word" let-row>
                  <tr>
                    <th scope="row">{{ row.word }}</th>
                    <td class="soft">{{ row.unit }}</td>
                    <td class="right figure">{{ row.own }}</td>
                    @if (against().figures) {
                      <td class="right figure">{{ row.other }}</td>
                      <td class="right figure">{{ row.ratio }}</td>
                    }
                  </tr>
                </ng-template></eb-table
              >
              @if (figures().figures; as f) {
                <p class="soft small">
                  Torsion: {{ f.jBy }}{{ formulaText(f) }}. Centroid {{ mm(f.centroid[0]) }} to the right, {{ mm(f.centroid[1]) }} up.
                  Modulus from memory; ν 0.3 assumed.
                </p>
              }
            </div>
          </div>
        }
      }
    } @else {
      <eb-worth-measuring />
    }
  </div>`,
  styleUrl: './new-row.css',
  styles: `
    .new input[type='number'] {
      display: block;
      width: 110px;
    }
    .new select,
    .new input[type='text'],
    textarea {
      display: block;
    }
    .wide textarea {
      height: 110px;
      width: 240px;
      font-family: var(--figure);
    }
    .fault {
      color: var(--amber);
      font-weight: 500;
    }
    .desk {
      display: grid;
      grid-template-columns: 200px minmax(0, 1fr);
      gap: 18px;
    }
    figure {
      display: flex;
      flex-direction: column;
      gap: 6px;
      margin: 0;
    }
    svg {
      border: 1px solid var(--line);
      background: var(--sheet);
    }
    .factor {
      width: 76px;
      margin-left: 4px;
    }
    .small {
      font-size: 12.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SectionsView {
  protected readonly selection = inject(Selection);
  private readonly open = inject(OpenStudy);
  private readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);

  protected readonly kinds = SECTION_KINDS;
  protected readonly materials = MATERIALS;
  protected readonly picture = PICTURE;
  protected readonly may = computed(() => this.service.can()('section.add'));
  private readonly partId = computed(() => this.selection.part()?.id ?? '');
  protected readonly own = computed(() => this.open.record().sections.filter((s) => s.partId === this.partId()));
  protected readonly chosenId = signal('');
  protected readonly chosen = computed<Section | null>(() => this.own().find((s) => s.id === this.chosenId()) ?? this.own().at(-1) ?? null);
  protected readonly others = computed(() =>
    this.open
      .record()
      .sections.filter((s) => s.id !== this.chosen()?.id)
      .map((section) => {
        const part = this.open.partById().get(section.partId);
        const vehicle = this.open.vehicleById().get(part?.vehicleId ?? '');
        return { section, word: `${vehicle?.name ?? ''}, ${part?.name ?? ''}: ${section.name}` };
      }),
  );

  protected readonly kind = signal<SectionKind>('rectangular tube');
  protected readonly dimensions = computed(() => {
    const kind = this.kind();
    return kind === 'outline' ? [] : SECTION_SHAPES[kind].map((name: Dimension) => ({ name, word: DIMENSION_WORD[name] }));
  });
  private readonly typed = linkedSignal<SectionKind, Readonly<Record<string, number>>>({ source: this.kind, computation: () => ({}) });
  protected readonly outline = signal('');
  protected readonly fault = signal('');

  protected readonly againstId = signal('');
  protected readonly againstChoices = computed(() => [
    { value: '', word: 'nothing' },
    { value: 'varied', word: 'the same, varied' },
    ...this.others().map(({ section, word }) => ({ value: section.id, word })),
  ]);
  protected readonly height = signal(1.2);
  protected readonly thickness = signal(1);

  private readonly work = inject(SectionWork);
  /** figures of a section as they come from the worker; null while it is at it */
  private told(asked: () => SectionAsked | null): Signal<SectionTold | null> {
    const stream = toObservable(computed(asked, { equal: (a, b) => JSON.stringify(a) === JSON.stringify(b) })).pipe(
      switchMap((section) => (section === null ? of(NOTHING) : this.work.figures(section).pipe(startWith(null)))),
    );
    return toSignal(stream, { initialValue: null });
  }
  private readonly ownTold = this.told(() => askedOf(this.chosen(), this.chosen()?.materialId ?? null));
  protected readonly busy = computed(() => this.ownTold() === null || this.otherTold() === null);
  protected readonly figures = computed(() => this.ownTold() ?? NOTHING);
  private readonly other = computed(() => {
    const [section, id] = [this.chosen(), this.againstId()];
    if (!section || id === '') return null;
    if (id === 'varied')
      return {
        section: varied(section, { height: this.height() || 1, thickness: this.thickness() || 1 }),
        materialId: section.materialId,
        word: 'varied',
      };
    const found = this.others().find((o) => o.section.id === id);
    return found ? { section: found.section, materialId: found.section.materialId, word: found.word } : null;
  });
  private readonly otherTold = this.told(() => askedOf(this.other()?.section ?? null, this.other()?.materialId ?? null));
  protected readonly against = computed(() => ({ ...(this.otherTold() ?? NOTHING), word: this.other()?.word ?? '' }));
  protected readonly rows = computed(() => {
    const [own, other] = [this.figures().figures, this.against().figures];
    return own
      ? SECTION_ROWS.map((row) => ({
          word: row.word,
          unit: row.unit,
          own: row.of(own),
          other: other ? row.of(other) : '',
          ratio: other ? ratioText(row.value(other), row.value(own)) : '',
        }))
      : [];
  });
  protected readonly path = computed(() => {
    const section = this.chosen();
    return section ? outlinePath(loopsOf(section), this.room()) : '';
  });
  /** one scale for both, so that they can be held against each other */
  private readonly room = computed(() => {
    const [section, other] = [this.chosen(), this.other()];
    return roomFor([...(section ? [loopsOf(section)] : []), ...(other ? [loopsOf(other.section)] : [])], PICTURE.width, PICTURE.height);
  });
  protected readonly otherPath = computed(() => {
    const other = this.other();
    return other ? outlinePath(loopsOf(other.section), this.room()) : '';
  });

  /** what a formula in common use gives beside the figure */
  protected formulaText({ jFormula, jM4 }: SectionFigures): string {
    if (jFormula === null) return '';
    return `; ${jFormula.by} would give ${threeDigits(readAs(READ_IN['cm⁴'], jFormula.jM4))} ${unitWord('cm⁴')} (${signed(formulaOff(jFormula.jM4, jM4) * 100, 1)} %)`;
  }

  protected mm(m: number): string {
    return `${Number((m * 1000).toFixed(2))} mm`;
  }

  protected set(name: Dimension, millimetres: number): void {
    this.typed.update((all) => ({ ...all, [name]: millimetres / 1000 }));
  }

  protected async add(event: Event, name: HTMLInputElement): Promise<void> {
    event.preventDefault();
    const kind = this.kind();
    const read = kind === 'outline' ? readOutline(this.outline()) : { loops: [], fault: '' };
    const fields: SectionFields = {
      partId: this.partId(),
      sequence: nextSequence(this.own()),
      name: name.value.trim() || `${kind} ${this.own().length + 1}`,
      kind,
      dimensions: kind === 'outline' ? {} : this.typed(),
      loops: read.loops,
      scanId: null,
      materialId: this.selection.part()?.materialId ?? null,
      note: '',
    };
    const fault = read.fault || sectionFault(fields);
    this.fault.set(fault === '' ? '' : `${fault}. Nothing was kept`);
    if (fault !== '') return;
    const id = await this.edits.add('section', fields);
    if (id === null) return;
    name.value = '';
    this.chosenId.set(id);
  }

  protected setMaterial(section: Section, id: string): void {
    void this.edits.edit('section', section, { materialId: id === '' ? null : id });
  }

  protected remove(section: Section): void {
    void this.edits.remove('section', section);
  }
}

const NOTHING: SectionTold = { figures: null, fault: '' };

const askedOf = (section: Pick<SectionFields, 'kind' | 'dimensions' | 'loops'> | null, materialId: string | null): SectionAsked | null =>
  section === null ? null : { kind: section.kind, dimensions: section.dimensions, loops: section.loops, materialId };

/** Points "x y" in mm, one a line; the first loop runs round the material, those after an empty line round holes, whichever way they are typed. */
export const readOutline = (text: string): { readonly loops: SectionFields['loops']; readonly fault: string } => {
  const loops: (readonly [number, number])[][] = [[]];
  for (const [i, line] of text.split(/\r?\n/).entries()) {
    if (line.trim() === '') {
      if (loops.at(-1)!.length > 0) loops.push([]);
      continue;
    }
    const [x, y, more] = line.trim().split(/[\s;]+/);
    const point = [Number(x) / 1000, Number(y) / 1000] as const;
    if (more !== undefined || y === undefined || !point.every(Number.isFinite))
      return { loops: [], fault: `Line ${i + 1}: “${line.trim().slice(0, 40)}” is no point; write x and y in mm, such as 12.5 40` };
    loops.at(-1)!.push(point);
  }
  const filled = loops.filter((loop) => loop.length > 0);
  if (filled.length === 0 || filled.some((loop) => loop.length < 3)) return { loops: [], fault: 'An outline needs three points at least' };
  return { loops: filled.map((loop, i) => (isLeft(loop) === (i === 0) ? loop : [...loop].reverse())), fault: '' };
};

const isLeft = (loop: readonly (readonly [number, number])[]): boolean =>
  loop.reduce((sum, [x, y], i) => sum + x * loop[(i + 1) % loop.length]![1] - loop[(i + 1) % loop.length]![0] * y, 0) > 0;
