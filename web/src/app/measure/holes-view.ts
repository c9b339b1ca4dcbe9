import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { matchHoles } from '@each-bolt/core/measure';
import { fixed } from '@each-bolt/core/shared';
import { HOLE_PATTERN_SOURCES, type HolePattern, type HolePatternFields, type Triple, nextSequence } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Textarea } from 'primeng/textarea';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { Tick } from '../shared/tick';
import { Choose, ChoicesPipe } from '../shared/choose';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import { HoleDrawing } from './hole-drawing';
import { WorthMeasuringList } from './worth-measuring';

/** Hole patterns: would one part bolt on where the other does? */
@Component({
  selector: 'eb-holes-view',
  imports: [
    WorthMeasuringList,
    HoleDrawing,
    ButtonDirective,
    InputText,
    Textarea,
    Choose,
    ChoicesPipe,
    Tick,
    DataTable,
    TableHead,
    TableRow,
  ],
  template: `<div class="sheet scroll">
    @if (selection.part(); as part) {
      @if (may()) {
        <form class="new" aria-label="A new hole pattern" (submit)="add($event, name, from, points)">
          <label
            >Name <input pInputText #name type="text" maxlength="100" aria-label="Name of the hole pattern" placeholder="holes of the foot"
          /></label>
          <label
            >Taken from
            <eb-choose #from label="Taken from" value="caliper" [options]="sources | ebChoices" />
          </label>
          <label
            >Points x y z in mm, one a line
            <textarea
              pTextarea
              #points
              rows="5"
              aria-label="Points of the hole pattern, mm"
              placeholder="0 0&#10;80 0&#10;80 50"
            ></textarea>
          </label>
          <button pButton type="submit">Add the hole pattern</button>
        </form>
        @if (fault() !== '') {
          <p class="fault" role="alert">{{ fault() }}</p>
        }
      }
      @if (own().length === 0) {
        <p class="soft">
          No hole pattern of {{ part.name }} yet. Type the places of its holes or mounting points in any frame: only how they lie to each
          other counts.
        </p>
      } @else {
        <div class="acts">
          @for (pattern of own(); track pattern.id) {
            <button
              pButton
              severity="secondary"
              type="button"
              [class.chosen]="pattern.id === chosen()?.id"
              (click)="chosenId.set(pattern.id)"
            >
              {{ pattern.name }} · {{ pattern.points.length }}
            </button>
          }
          @if (chosen(); as pattern) {
            @if (may()) {
              <button pButton severity="secondary" type="button" (click)="remove(pattern)">Delete “{{ pattern.name }}”</button>
            }
          }
        </div>
        <section aria-label="Would it bolt on?">
          <h2>Would it bolt on?</h2>
          <div class="acts">
            <label
              >Onto
              <eb-choose
                label="Hole pattern it would go onto"
                [(value)]="ontoId"
                [options]="others() | ebChoices: 'id' : 'word' : 'choose a hole pattern …'"
              />
            </label>
            <label
              >Clearance, mm
              <input
                pInputText
                type="number"
                class="mm"
                min="0"
                step="0.1"
                [value]="clearanceMm()"
                aria-label="Clearance, mm"
                (input)="clearanceMm.set($any($event.target).valueAsNumber)"
              />
            </label>
            <eb-tick [checked]="mirrored()" (checkedChange)="mirrored.set($event)">may be mirrored</eb-tick>
          </div>
          @if (fit(); as f) {
            <p class="verdict" role="status" [class.fault]="!f.bolts">{{ verdict() }}</p>
          } @else if (others().length > 0) {
            <p class="soft">Choose a hole pattern of another part or vehicle to register this one to.</p>
          } @else {
            <p class="soft">There is no other hole pattern yet to register this one to: add one to the part it would replace.</p>
          }
          @if (chosen(); as pattern) {
            <div class="beside">
              <eb-hole-drawing [name]="pattern.name" [points]="pattern.points" [onto]="ontoPoints()" [fit]="fit()" />
              @if (fit(); as f) {
                <eb-table label="Points of the fit"
                  ><ng-template ebHead>
                    <tr>
                      <th scope="col">Point</th>
                      <th scope="col">Onto point</th>
                      <th scope="col" class="right">Off by, mm</th>
                      <th scope="col">Within the clearance</th>
                    </tr> </ng-template
                  ><ng-template [ebRow]="f.points" track="from" let-p>
                    <tr>
                      <th scope="row">{{ p.from + 1 }}</th>
                      <td>{{ p.onto + 1 }}</td>
                      <td class="right figure">{{ mm(p.residualM) }}</td>
                      <td [class.fault]="!p.isWithin">{{ p.isWithin ? 'yes' : 'no' }}</td>
                    </tr>
                  </ng-template></eb-table
                >
              } @else {
                <eb-table label="Points of the hole pattern"
                  ><ng-template ebHead>
                    <tr>
                      <th scope="col">Point</th>
                      <th scope="col" class="right">x, mm</th>
                      <th scope="col" class="right">y, mm</th>
                      <th scope="col" class="right">z, mm</th>
                    </tr> </ng-template
                  ><ng-template [ebRow]="pattern.points" let-p let-i="index">
                    <tr>
                      <th scope="row">{{ i + 1 }}</th>
                      @for (x of p; track $index) {
                        <td class="right figure">{{ mm(x) }}</td>
                      }
                    </tr>
                  </ng-template></eb-table
                >
              }
            </div>
          }
        </section>
      }
    } @else {
      <eb-worth-measuring />
    }
  </div>`,
  styleUrl: './new-row.css',
  styles: `
    textarea {
      height: 96px;
      width: 240px;
      font-family: var(--figure);
    }
    .mm {
      width: 80px;
      margin-left: 4px;
    }
    .beside {
      display: grid;
      grid-template-columns: 340px minmax(0, 1fr);
      gap: 14px;
      align-items: start;
    }
    @media (max-width: 1180px) {
      .beside {
        grid-template-columns: minmax(0, 1fr);
      }
    }
    .verdict {
      margin: 8px 0;
      font-weight: 600;
    }
    .fault {
      color: var(--amber);
      font-weight: 500;
    }
    section h2 {
      margin: 8px 0 4px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HolesView {
  protected readonly selection = inject(Selection);
  private readonly open = inject(OpenStudy);
  private readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);

  protected readonly sources = HOLE_PATTERN_SOURCES;
  protected readonly may = computed(() => this.service.can()('holePattern.add'));
  private readonly partId = computed(() => this.selection.part()?.id ?? '');
  protected readonly own = computed(() => this.open.record().holePatterns.filter((p) => p.partId === this.partId()));
  protected readonly chosenId = signal('');
  protected readonly chosen = computed<HolePattern | null>(
    () => this.own().find((p) => p.id === this.chosenId()) ?? this.own().at(-1) ?? null,
  );
  protected readonly ontoId = signal('');
  protected readonly clearanceMm = signal(0.5);
  protected readonly mirrored = signal(false);
  protected readonly fault = signal('');
  protected readonly others = computed(() =>
    this.open
      .record()
      .holePatterns.filter((p) => p.id !== this.chosen()?.id)
      .map((pattern) => {
        const part = this.open.partById().get(pattern.partId);
        const vehicle = this.open.vehicleById().get(part?.vehicleId ?? '');
        return { id: pattern.id, pattern, word: `${vehicle?.name ?? ''}, ${part?.name ?? ''}: ${pattern.name}` };
      }),
  );
  private readonly onto = computed(() => this.others().find((o) => o.pattern.id === this.ontoId()) ?? null);
  protected readonly fit = computed(() => {
    const [pattern, onto, clearance] = [this.chosen(), this.onto(), this.clearanceMm()];
    return pattern && onto && clearance >= 0 ? matchHoles(pattern.points, onto.pattern.points, clearance / 1000, this.mirrored()) : null;
  });
  protected readonly ontoPoints = computed(() => this.onto()?.pattern.points ?? null);
  protected readonly verdict = computed(() => {
    const [fit, pattern, onto] = [this.fit(), this.chosen(), this.onto()];
    if (!fit || !pattern || !onto) return '';
    const way = fit.move.isMirrored ? ', mirrored' : '';
    const figures = `rms ${this.mm(fit.rmsM)} mm, worst ${this.mm(fit.worstM)} mm`;
    if (fit.bolts) return `“${pattern.name}” would bolt on${way}: every point within ${this.clearanceMm()} mm (${figures}).`;
    const off = fit.points.filter((p) => !p.isWithin);
    const within = fit.points.filter((p) => p.isWithin);
    const lacking = pattern.points.length - fit.points.length;
    const reasons = [
      ...(off.length > 0 ? [off.map((p) => `point ${p.from + 1} lies ${this.mm(p.residualM)} mm off`).join(', ')] : []),
      ...(lacking > 0 ? [`${lacking} without a partner`] : []),
      ...(within.length > 0 ? [`the others fit to ${this.mm(Math.max(...within.map((p) => p.residualM)))} mm`] : []),
    ];
    return fit.isProved
      ? `“${pattern.name}” would not bolt on${way}: ${reasons.join('; ')}.`
      : `“${pattern.name}” was not found to bolt on${way}, but there are too many ways to lay it to try them all; of those tried: ${reasons.join('; ')}.`;
  });

  protected mm(m: number): string {
    return fixed(m * 1000, 2);
  }

  protected async add(event: Event, name: HTMLInputElement, from: Choose, points: HTMLTextAreaElement): Promise<void> {
    event.preventDefault();
    const read = readPoints(points.value);
    this.fault.set(read.fault === '' ? '' : `${read.fault}. Nothing was kept`);
    if (read.fault !== '') return;
    const id = await this.edits.add('holePattern', {
      partId: this.partId(),
      sequence: nextSequence(this.own()),
      name: name.value.trim() || `hole pattern ${this.own().length + 1}`,
      points: read.points,
      source: from.value() as HolePatternFields['source'],
      note: '',
    });
    if (id === null) return;
    this.chosenId.set(id);
    name.value = '';
    points.value = '';
  }

  protected remove(pattern: HolePattern): void {
    void this.edits.remove('holePattern', pattern);
  }
}

/** Points "x y" or "x y z" in mm, one a line. */
export const readPoints = (text: string): { readonly points: readonly Triple[]; readonly fault: string } => {
  const points: Triple[] = [];
  for (const [i, line] of text.split(/\r?\n/).entries()) {
    if (line.trim() === '') continue;
    const texts = line.trim().split(/[\s;]+/);
    const [x = Number.NaN, y = Number.NaN, z = 0] = texts.map((p) => Number(p) / 1000);
    if (texts.length < 2 || texts.length > 3 || ![x, y, z].every(Number.isFinite))
      return { points: [], fault: `Line ${i + 1}: “${line.trim().slice(0, 40)}” is no point; write x and y, and z if there is one, in mm` };
    points.push([x, y, z]);
  }
  return points.length < 2 ? { points: [], fault: 'A hole pattern needs two points at least' } : { points, fault: '' };
};
