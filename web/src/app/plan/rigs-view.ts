import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { counted, fixed, type FieldValue, READ_IN, readAs, unitsShown, unitWord } from '@each-bolt/core/shared';
import { type Op, type Rig, type RigFields, nextSequence, fieldLines } from '@each-bolt/core/record';
import { HAZARDS, findRigs, hazardById } from '@each-bolt/core/plan';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { PictureList } from '../pictures/picture-list';
import { PictureViewer } from '../pictures/picture-viewer';
import { TakePicture } from '../pictures/take-picture';
import { EditField } from '../shared/edit-field';
import type { OrganisationRig } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { DataTable, TableHead, TableRow, TableFoot } from '../shared/data-table';
import { Tick } from '../shared/tick';
import { Choose, ChoicesPipe } from '../shared/choose';
import { PlanOrganisation } from './plan-organisation';
import { RowEdits } from '../record/row-edits';

const LINES = fieldLines('rig', ['name', 'madeFor', 'state', 'copies', 'ratedN', 'factor', 'timeToMakeS', 'design', 'wentWrong']);

/** Rigs of this study and of the organisation: what they are made for, what they bear, what went wrong last time. */
@Component({
  selector: 'eb-rigs-view',
  imports: [
    EditField,
    PictureList,
    PictureViewer,
    ButtonDirective,
    InputText,
    Choose,
    ChoicesPipe,
    Tick,
    DataTable,
    TableHead,
    TableRow,
    TableFoot,
  ],
  template: `<div class="sheet scroll">
    <header class="sheet-head">
      <div>
        <h1>Rigs</h1>
        <p class="soft">{{ summary() }}</p>
      </div>
      <div class="acts">
        <input
          pInputText
          type="search"
          aria-label="Find a rig by part, hazard or word"
          placeholder="find by part, hazard or word"
          [value]="words()"
          (input)="words.set($any($event.target).value)"
        />
        <eb-choose
          label="Hazard"
          (valueChange)="hazard.set($event)"
          [value]="hazard()"
          [options]="hazards | ebChoices: 'id' : 'name' : 'any hazard'"
        />
        @if (mayEdit()) {
          <button pButton type="button" (click)="add()">Add a rig</button>
        }
      </div>
    </header>
    @if (organisation.isAway()) {
      <p class="soft" role="status">Without a connection the rigs of other studies cannot be seen.</p>
    }
    <div class="two">
      <div>
        <eb-table label="Rigs">
          <ng-template ebHead>
            <tr>
              <th scope="col">Rig</th>
              <th scope="col">Made for</th>
              <th scope="col" class="right">Rated load</th>
              <th scope="col">Study</th>
              <th></th>
            </tr>
          </ng-template>
          <ng-template [ebRow]="found()" track="id" let-row>
            <tr [class.on]="row.id === chosen()?.id">
              <td>
                @if (row.own; as rig) {
                  <button pButton [text]="true" severity="secondary" type="button" class="link-button" (click)="chosenId.set(rig.id)">
                    {{ rig.name }}
                  </button>
                } @else {
                  {{ row.rig.name }}
                  @if (row.rig.wentWrong !== '') {
                    <small class="warn">last time: {{ row.rig.wentWrong }}</small>
                  }
                }
              </td>
              <td class="small">{{ row.rig.madeFor }}</td>
              <td class="right figure">{{ bears(row.rig) }}</td>
              <td class="small soft">{{ row.other?.study ?? 'this one' }}</td>
              <td>
                @if (row.other; as rig) {
                  @if (mayEdit()) {
                    <button pButton severity="secondary" type="button" (click)="takeOver(rig)">Copy to this study</button>
                  }
                }
              </td>
            </tr>
          </ng-template>
          <ng-template ebFoot>
            @if (found().length === 0) {
              <tr>
                <td colspan="5" class="soft">
                  {{ words() === '' && hazard() === '' ? 'No rig yet, here or in another study.' : 'No rig is like that.' }}
                </td>
              </tr>
            }
          </ng-template>
        </eb-table>
      </div>
      @if (chosen(); as rig) {
        <section [attr.aria-label]="'Rig ' + rig.name">
          <h2>{{ rig.name }}</h2>
          <dl class="facts">
            @for (l of lines; track l.field) {
              <dt>{{ l.label }}</dt>
              <dd>
                <eb-edit-field
                  [of]="l.name"
                  [value]="$any(rig[l.field])"
                  [disabled]="!mayEdit()"
                  [fault]="edits.faultOf(rig.id, l.field)"
                  (committed)="edit(rig, l.field, $event)"
                />
              </dd>
            }
            <dt>Against</dt>
            <dd class="checks">
              @for (h of hazards; track h.id) {
                <eb-tick [checked]="rig.hazards.includes(h.id)" [disabled]="!mayEdit()" (checkedChange)="toggle(rig, h.id, $event)">{{
                  h.name
                }}</eb-tick>
              }
            </dd>
          </dl>
          <p class="soft small">{{ usedBy(rig) }}</p>
          <eb-picture-list
            [pictures]="pictures()"
            [mayAdd]="mayEdit()"
            [faults]="faults()"
            (added)="addPictures(rig, $event)"
            (opened)="viewing.set($event.id)"
          />
          @if (mayEdit()) {
            <button pButton severity="secondary" type="button" class="off" (click)="remove(rig)">Delete rig</button>
          }
        </section>
      }
    </div>
    @if (viewed(); as picture) {
      <eb-picture-viewer
        [picture]="picture"
        [url]="takes.url(picture, false)"
        [mayEdit]="mayEdit()"
        (ops)="sendPicture($event)"
        (closed)="viewing.set('')"
      />
    }
  </div>`,
  styles: `
    .two {
      display: grid;
      grid-template-columns: minmax(380px, 3fr) minmax(330px, 2fr);
      gap: 28px;
      align-items: start;
    }
    .small,
    small {
      font-size: 12.5px;
    }
    small {
      display: block;
    }
    .warn {
      color: var(--amber);
    }
    .checks {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 12px;
      font-size: 13px;
    }
    section {
      display: grid;
      gap: 10px;
    }
    .off {
      justify-self: start;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RigsView {
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  protected readonly organisation = inject(PlanOrganisation);
  protected readonly edits = inject(RowEdits);
  protected readonly takes = inject(TakePicture);

  protected readonly lines = LINES;
  protected readonly hazards = HAZARDS;
  protected readonly words = signal('');
  protected readonly hazard = signal('');
  protected readonly chosenId = signal('');
  protected readonly viewing = signal('');
  protected readonly faults = signal<readonly string[]>([]);
  protected readonly mayEdit = computed(() => this.service.can()('rig.edit'));
  private readonly own = computed(() =>
    findRigs(this.open.record().rigs, this.words(), this.hazard()).sort((a, b) => a.sequence - b.sequence),
  );
  private readonly others = computed(() => findRigs(this.organisation.organisation().rigs, this.words(), this.hazard()));
  /** rigs of this study first, then those of others */
  protected readonly found = computed(() => [
    ...this.own().map((own) => ({ id: own.id, rig: own, own, other: null })),
    ...this.others().map((other) => ({ id: other.id, rig: other, own: null, other })),
  ]);
  protected readonly chosen = computed<Rig | null>(
    () => this.open.record().rigs.find((r) => r.id === this.chosenId()) ?? this.own()[0] ?? null,
  );
  private readonly ownPictures = computed(() => this.open.picturesOf().get(this.chosen()?.id ?? '') ?? []);
  protected readonly pictures = computed(() => this.ownPictures().map((picture) => ({ picture, url: this.takes.url(picture, true) })));
  protected readonly viewed = computed(() => this.ownPictures().find((p) => p.id === this.viewing()) ?? null);
  protected readonly summary = computed(
    () =>
      `${counted(this.open.record().rigs.length, 'rig')} in this study, ${fixed(this.organisation.organisation().rigs.length, 0)} in others of the organisation`,
  );

  constructor() {
    effect(() => void this.takes.recall(this.ownPictures()));
  }

  protected bears({ ratedN, factor }: Pick<RigFields, 'ratedN' | 'factor'>): string {
    return ratedN === null
      ? 'not rated'
      : `${fixed(readAs(READ_IN.kN, ratedN), unitsShown() === 'metric' ? 1 : 0)} ${unitWord('kN')} at ${fixed(factor, 1)}×`;
  }

  protected usedBy(rig: Rig): string {
    const names = this.open
      .record()
      .packages.filter((p) => p.rigId === rig.id)
      .map((p) => p.name);
    const against = rig.hazards.map((h) => hazardById.get(h)?.name ?? h).join(', ');
    return [
      names.length === 0 ? 'No package uses it yet.' : `Used by ${names.join(', ')}.`,
      against === '' ? '' : `Against: ${against}.`,
    ].join(' ');
  }

  protected edit(rig: Rig, field: keyof RigFields, value: FieldValue): void {
    void this.edits.edit('rig', rig, { [field]: value });
  }

  protected toggle(rig: Rig, id: string, on: boolean): void {
    void this.edits.edit('rig', rig, { hazards: on ? [...rig.hazards, id] : rig.hazards.filter((h) => h !== id) });
  }

  protected async add(): Promise<void> {
    const sequence = nextSequence(this.open.record().rigs);
    const id = await this.edits.add('rig', {
      ...{ sequence, name: `Rig ${sequence + 1}`, madeFor: '', hazards: [], design: '', timeToMakeS: null, ratedN: null, factor: 2 },
      ...{ wentWrong: '', state: 'idea' as const, copies: 1 },
    });
    if (id !== null) this.chosenId.set(id);
  }

  /** A rig of another study, with its lesson, in this one. Its pictures stay where they are. */
  protected async takeOver({ id: _id, studyId: _studyId, study, ...fields }: OrganisationRig): Promise<void> {
    const design = `${fields.design}\n(from ${study})`.trim();
    const id = await this.edits.add('rig', { ...fields, design, sequence: nextSequence(this.open.record().rigs) });
    if (id !== null) this.chosenId.set(id);
  }

  protected async addPictures(rig: Rig, files: readonly File[]): Promise<void> {
    const next = nextSequence(this.ownPictures());
    this.faults.set(await this.takes.take({ partId: null, rigId: rig.id }, files, next));
  }

  protected sendPicture(ops: readonly Op[]): void {
    void this.edits.send(ops);
  }

  /** Its pictures go with it, and packages do without it. */
  protected remove(rig: Rig): void {
    void this.edits.remove('rig', rig);
  }
}
