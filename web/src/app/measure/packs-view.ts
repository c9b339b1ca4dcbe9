import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { catchError, map, of, switchMap } from 'rxjs';
import { ABSENT, fixed, massWithU, standardU, withU, type FieldValue } from '@each-bolt/core/shared';
import { blank, evidence, fieldLines, nextSequence, type Pack, type PackFields } from '@each-bolt/core/record';
import { totalsAt } from '@each-bolt/core/bench';
import { studyShown } from '@each-bolt/core/cost';
import { packDoubts, statedDoubts, type PackReport, type Weighed } from '@each-bolt/core/measure';
import { ButtonDirective } from 'primeng/button';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import { Session } from '../record/session';
import { Choose, ChoicesPipe } from '../shared/choose';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { EditField } from '../shared/edit-field';
import { PackPicture } from './pack-picture';
import { PackWork } from './pack-work';
import type { PackAsked, PackTold } from './pack-told';

const GROUPS = [
  {
    title: 'Topology',
    lines: fieldLines('pack', ['cellsInParallel', 'bricksPerModule', 'modules', 'cellsCounted', 'cellsInModule', 'tubes', 'cellsPerTube']),
  },
  { title: 'Cell', lines: fieldLines('pack', ['cellFormat', 'capacityC', 'nominalV', 'lowestV', 'highestV', 'cellMassKg']) },
  {
    title: 'Cooling',
    lines: fieldLines('pack', ['way', 'lay', 'rows', 'heatPerCellW', 'cellToCoolantWPerK', 'cellToCellWPerK', 'flowM3PerS', 'inletC']),
  },
  {
    title: 'Coolant and channel',
    lines: fieldLines('pack', ['coolantKgPerM3', 'coolantJPerKgK', 'coolantPaS', 'channelWidthM', 'channelHeightM', 'channelLengthM']),
  },
] as const;

/** Fields whose uncertainty the figures carry. */
const WITH_U: ReadonlySet<string> = new Set(
  [...GROUPS[2].lines, ...GROUPS[3].lines].map(({ field }) => field).filter((field) => !['way', 'lay', 'rows'].includes(field)),
);

interface Shown {
  readonly told: PackTold | null;
  readonly fault: string;
}

/** A difference below this is none: what is left of sums that cancel. */
const NOTHING = 1e-9;

const figureText = (value: number, u: number): string =>
  Math.abs(value) < NOTHING ? '0' : u < NOTHING ? fixed(value, 2) : withU(value, u, 4);

/** A battery pack: how it is joined, what it weighs by boundary, how evenly its cells are cooled, and what if. */
@Component({
  selector: 'eb-packs-view',
  imports: [ButtonDirective, Choose, ChoicesPipe, DataTable, TableHead, TableRow, EditField, PackPicture],
  providers: [PackWork],
  template: `<div class="sheet scroll">
    @if (selection.part(); as part) {
      <div class="acts">
        @if (own().length > 0) {
          <label
            >State
            <eb-choose
              label="State of the pack"
              [value]="chosenId()"
              (valueChange)="chosenId.set($event)"
              [options]="states() | ebChoices: 'id' : 'name'"
            />
          </label>
          <label
            >beside
            <eb-choose
              label="Beside it"
              [value]="besideId()"
              (valueChange)="besideId.set($event)"
              [options]="others() | ebChoices: 'id' : 'name' : 'nothing'"
            />
          </label>
        }
        @if (may()) {
          @if (own().length === 0) {
            <button pButton type="button" (click)="begin(part.id)">Record this part as a pack</button>
          } @else {
            <button pButton severity="secondary" type="button" (click)="whatIf()">What if …</button>
          }
        }
      </div>
      @if (chosen(); as pack) {
        @if (told(); as t) {
          @if (t.sentence !== '') {
            <p class="sentence" role="status">{{ t.sentence }}. <span class="soft">Computed, not measured.</span></p>
          }
          @for (i of stated(); track i.code) {
            <p class="fault" role="alert">{{ i.message }}</p>
          }
          @for (i of t.report.issues; track i.code) {
            <p class="fault" role="alert">{{ i.message }}</p>
          }
          @if (t.report.fault !== '') {
            <p class="fault" role="alert">{{ t.report.fault }}</p>
          }
          @if (t.report.missing.cooling.length > 0) {
            <p class="soft" role="status">For the temperatures it still needs: {{ t.report.missing.cooling.join(', ') }}.</p>
          }
          @if (t.report.missing.energy.length > 0) {
            <p class="soft" role="status">For the energy it still needs: {{ t.report.missing.energy.join(', ') }}.</p>
          }
        } @else if (fault() !== '') {
          <p class="fault" role="alert">{{ fault() }}</p>
        } @else {
          <p class="soft" role="status">Working it out …</p>
        }
        <div class="room">
          <div class="two">
            <div class="inputs">
              @if (pack.isWhatIf) {
                <dl class="facts">
                  @for (l of whatIfLines; track l.field) {
                    <dt>{{ l.label }}</dt>
                    <dd>
                      <eb-edit-field
                        [of]="l.name"
                        [value]="pack[l.field]"
                        [disabled]="!may()"
                        [leftward]="true"
                        [fault]="edits.faultOf(pack.id, l.field)"
                        (committed)="edit(pack, l.field, $event)"
                      />
                    </dd>
                  }
                </dl>
              }
              @for (g of groups; track g.title) {
                <h2>{{ g.title }}</h2>
                <dl class="facts" [attr.aria-label]="g.title">
                  @for (l of g.lines; track l.field) {
                    <dt>{{ l.label }}</dt>
                    <dd>
                      <eb-edit-field
                        [of]="l.name"
                        [value]="$any(pack[l.field])"
                        [disabled]="!may()"
                        [fault]="edits.faultOf(pack.id, l.field)"
                        (committed)="edit(pack, l.field, $event)"
                      />
                      @if (hasU(l.field)) {
                        <eb-edit-field
                          class="u"
                          [label]="'± of ' + l.label + ', %'"
                          [shape]="percent"
                          [value]="uPercent(pack, l.field)"
                          [disabled]="!may()"
                          placeholder="±, %"
                          (committed)="setU(pack, l.field, $event)"
                        />
                      }
                    </dd>
                  }
                </dl>
              }
              @if (may() && pack.isWhatIf) {
                <button pButton severity="secondary" type="button" (click)="remove(pack)">Delete this what-if</button>
              }
            </div>
            @if (told(); as t) {
              <div class="results">
                <div class="pictures">
                  @if (t.beside?.state; as state) {
                    <eb-pack-picture
                      [name]="beside()!.name"
                      [state]="state"
                      [way]="beside()!.way"
                      [inletC]="beside()!.inletC!"
                      [lowC]="ends()[0]"
                      [highC]="ends()[1]"
                    />
                  }
                  @if (t.report.state; as state) {
                    <eb-pack-picture
                      [name]="pack.name"
                      [state]="state"
                      [way]="pack.way"
                      [inletC]="pack.inletC!"
                      [lowC]="ends()[0]"
                      [highC]="ends()[1]"
                    />
                  }
                </div>
                <eb-table label="Figures of the pack">
                  <ng-template ebHead>
                    <tr>
                      <th scope="col">Figure</th>
                      @if (beside(); as b) {
                        <th scope="col" class="right">{{ b.name }}</th>
                      }
                      <th scope="col" class="right">{{ pack.name }}</th>
                      @if (beside()) {
                        <th scope="col" class="right">Change</th>
                      }
                    </tr>
                  </ng-template>
                  <ng-template [ebRow]="rows()" track="word" let-r>
                    <tr>
                      <th scope="row">{{ r.word }}</th>
                      @if (beside()) {
                        <td class="right figure">{{ r.beside }}</td>
                      }
                      <td class="right figure">{{ r.now }}</td>
                      @if (beside()) {
                        <td class="right figure">{{ r.change }}</td>
                      }
                    </tr>
                  </ng-template>
                </eb-table>
                <eb-table label="Energy per mass by boundary">
                  <ng-template ebHead>
                    <tr>
                      <th scope="col">What is counted as the pack</th>
                      <th scope="col" class="right">Mass</th>
                      <th scope="col" class="right">Wh/kg</th>
                    </tr>
                  </ng-template>
                  <ng-template [ebRow]="boundaries()" track="name" let-b>
                    <tr>
                      <th scope="row">{{ b.name }}</th>
                      <td class="right figure">{{ b.mass }}</td>
                      <td class="right figure">{{ b.perMass }}</td>
                    </tr>
                  </ng-template>
                </eb-table>
                @if (t.report.lines.length > 0) {
                  <h2>Formulas with their numbers</h2>
                  <dl class="formulas">
                    @for (l of t.report.lines; track l.word) {
                      <dt>
                        {{ l.word }} <b class="figure">{{ l.text }}</b>
                      </dt>
                      <dd class="figure soft">{{ l.formula }}</dd>
                    }
                  </dl>
                }
              </div>
            }
          </div>
        </div>
      } @else {
        <p class="soft">
          This part is not recorded as a battery pack. As one it is checked against the cells that were counted, its energy is held against
          its mass by boundary, and its cooling is worked out cell by cell.
        </p>
      }
    } @else {
      <p class="soft">Choose the part that is the battery pack, in the stack or by its tag. Packs of this study:</p>
      @for (p of listed(); track p.pack.id) {
        <p>
          <button pButton [text]="true" severity="secondary" type="button" class="link-button" (click)="choose(p.pack)">
            {{ p.text }}
          </button>
        </p>
      } @empty {
        <p class="soft">None yet.</p>
      }
    }
  </div>`,
  styles: `
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
      align-items: end;
    }
    label {
      font: 500 12.5px/1.5 var(--label);
      color: var(--soft);
    }
    .sentence {
      margin: 10px 0;
      padding: 8px 12px;
      border-left: 3px solid var(--dye);
      background: var(--sheet);
      font-size: 14px;
    }
    .fault {
      color: var(--amber);
    }
    /* the card takes room away: what counts is the room that is left */
    .room {
      container-type: inline-size;
    }
    .two {
      display: grid;
      grid-template-columns: minmax(340px, 400px) minmax(0, 1fr);
      gap: 22px;
      align-items: start;
    }
    h2 {
      margin: 12px 0 2px;
      font-size: 14px;
    }
    .facts {
      display: grid;
      grid-template-columns: minmax(110px, 3fr) minmax(190px, 4fr);
      gap: 1px 8px;
      align-items: center;
      margin: 0;
      font-size: 13px;
    }
    .facts dd {
      display: flex;
      gap: 4px;
      margin: 0;
      min-width: 0;
    }
    .facts eb-edit-field {
      flex: 1;
    }
    .facts .u {
      flex: 0 0 78px;
    }
    .results {
      display: grid;
      gap: 14px;
      min-width: 0;
    }
    .pictures {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
      gap: 14px;
      max-width: 860px;
    }
    .formulas {
      margin: 0;
      font-size: 13px;
    }
    .formulas dt {
      display: flex;
      justify-content: space-between;
    }
    .formulas dd {
      margin: 0 0 6px;
    }
    @container (max-width: 860px) {
      .two {
        grid-template-columns: minmax(0, 1fr);
      }
      .inputs {
        order: 1;
        max-width: 480px;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PacksView {
  protected readonly selection = inject(Selection);
  protected readonly edits = inject(RowEdits);
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  private readonly session = inject(Session);
  private readonly work = inject(PackWork);

  protected readonly groups = GROUPS;
  protected readonly whatIfLines = fieldLines('pack', ['name', 'author', 'reason']);
  protected readonly percent = { kind: 'number', per: 0.01, unit: '%', digits: 1 } as const;

  protected readonly may = computed(() => this.service.can()('pack.add'));
  protected readonly all = computed(() => this.open.record().packs);
  protected readonly listed = computed(() => {
    const vehicles = new Map(this.open.record().vehicles.map((v) => [v.id, v.name]));
    return this.all().map((pack) => {
      const part = this.open.partById().get(pack.partId);
      return { pack, text: `${part?.name ?? ''} of ${vehicles.get(part?.vehicleId ?? '') ?? ''}, ${pack.name}` };
    });
  });
  protected readonly own = computed(() => this.all().filter((pack) => pack.partId === this.selection.part()?.id));
  /** a what-if is what one looks at, beside what is recorded */
  protected readonly chosenId = linkedSignal(() => this.own().at(-1)?.id ?? '');
  protected readonly chosen = computed(() => this.own().find((pack) => pack.id === this.chosenId()) ?? this.own()[0] ?? null);
  protected readonly states = computed(() => this.own().map(({ id, name }) => ({ id, name })));
  /** any other pack of the study: another state of this one, or another vehicle’s */
  protected readonly others = computed(() => {
    const vehicles = new Map(this.open.record().vehicles.map((v) => [v.id, v.name]));
    const parts = this.open.partById();
    return this.all()
      .filter((pack) => pack.id !== this.chosen()?.id)
      .map((pack) => ({
        id: pack.id,
        name:
          pack.partId === this.chosen()?.partId
            ? pack.name
            : `${pack.name}, ${vehicles.get(parts.get(pack.partId)?.vehicleId ?? '') ?? ''}`,
      }));
  });
  protected readonly besideId = linkedSignal(() => this.own().find((pack) => pack.id !== this.chosenId() && !pack.isWhatIf)?.id ?? '');
  protected readonly beside = computed(
    () => this.all().find((pack) => pack.id === this.besideId() && pack.id !== this.chosen()?.id) ?? null,
  );

  private readonly asked = computed((): PackAsked | null => {
    const [pack, beside] = [this.chosen(), this.beside()];
    if (pack === null) return null;
    const parts = [pack, ...(beside ? [beside] : [])].flatMap((p) => [
      p.partId,
      ...p.shields,
      ...[p.modulesPartId, p.chargerPartId].filter((id) => id !== null),
    ]);
    return { pack, beside, masses: Object.fromEntries(parts.map((id) => [id, this.massOf(id)])) };
  });
  private readonly shown = toSignal(
    toObservable(this.asked).pipe(
      switchMap((asked) =>
        asked === null
          ? of<Shown>({ told: null, fault: '' })
          : this.work.figures(asked).pipe(
              map((told): Shown => ({ told, fault: '' })),
              catchError((fault: unknown) => of<Shown>({ told: null, fault: (fault as Error).message })),
            ),
      ),
    ),
    { initialValue: { told: null, fault: '' } },
  );
  /** until a change is worked out the figures from before it stand; those of another pack do not */
  protected readonly told = computed(() => {
    const { told } = this.shown();
    return told?.of === this.chosen()?.id && told?.besideOf === (this.beside()?.id ?? null) ? told : null;
  });
  protected readonly fault = computed(() => this.shown().fault);
  /** coldest and hottest of what is shown */
  protected readonly ends = computed((): readonly [number, number] => {
    const states = [this.told()?.report.state, this.told()?.beside?.state].filter((s) => s !== null && s !== undefined);
    return [Math.min(...states.map((s) => s.coldestC)), Math.max(...states.map((s) => s.hottestC))];
  });
  /** what the record states of the vehicle, held against itself and against the cells */
  protected readonly stated = computed(() => {
    const vehicle = this.open.record().vehicles.find(({ id }) => id === this.selection.part()?.vehicleId);
    const values = this.told()?.report.values;
    return vehicle && values ? [...statedDoubts(vehicle), ...packDoubts(vehicle, values.energyJ, values.nominalV)] : [];
  });
  protected readonly rows = computed(() => {
    const told = this.told();
    if (!told) return [];
    const text = (report: PackReport | null, key: keyof PackReport['values'], per: number): string => {
      const value = report?.values[key] ?? null;
      return report === null || value === null ? ABSENT : figureText(value / per, report.us[key] / per);
    };
    return (
      [
        ['Energy, kWh', 'energyJ', 3.6e6],
        ['Nominal voltage, V', 'nominalV', 1],
        ['Hottest cell, °C', 'hottestC', 1],
        ['Coldest cell, °C', 'coldestC', 1],
        ['Largest spread in a brick, K', 'spreadK', 1],
        ['Coolant out, °C', 'outletC', 1],
        ['Drop along a channel, kPa', 'dropPa', 1000],
      ] as const
    ).map(([word, key, per]) => {
      const by = told.difference?.by[key] ?? null;
      return {
        word,
        now: text(told.report, key, per),
        beside: text(told.beside, key, per),
        change: by === null ? ABSENT : `${by / per > NOTHING ? '+' : ''}${figureText(by / per, told.difference!.us[key] / per)}`,
      };
    });
  });
  protected readonly boundaries = computed(() =>
    (this.told()?.report.boundaries ?? []).map(({ name, massKg, uKg, whPerKg, uWhPerKg }) => ({
      name,
      mass: massKg === null ? ABSENT : massWithU(massKg, uKg),
      perMass: whPerKg === null ? ABSENT : withU(whPerKg, uWhPerKg, 1),
    })),
  );

  protected hasU(field: string): boolean {
    return WITH_U.has(field);
  }

  protected uPercent(pack: Pack, field: keyof PackFields): number | null {
    const [u, value] = [
      (pack.evidence as Record<string, { readonly u?: number | null } | undefined>)[field]?.u ?? null,
      pack[field] as number | null,
    ];
    return u === null || value === null || value === 0 ? null : (2 * u) / Math.abs(value);
  }

  protected edit(pack: Pack, field: keyof PackFields, value: FieldValue): void {
    void this.edits.edit('pack', pack, { [field]: value });
  }

  /** ± is typed expanded, in percent of the value. */
  protected setU(pack: Pack, field: keyof PackFields, share: FieldValue): void {
    const value = pack[field] as number | null;
    if (value === null) return;
    const u = typeof share === 'number' ? standardU(share * Math.abs(value)) : null;
    void this.edits.edit('pack', pack, { evidence: { ...pack.evidence, [field]: evidence('I', { u }) } });
  }

  protected choose(pack: Pack): void {
    void this.selection.choose({ part: pack.partId });
  }

  protected async begin(partId: string): Promise<void> {
    const fields = blank('pack', { partId, sequence: 0, name: 'as recorded', isWhatIf: false });
    const id = await this.edits.add('pack', fields);
    if (id !== null) this.chosenId.set(id);
  }

  /** The chosen state once more, to be changed. */
  protected async whatIf(): Promise<void> {
    const now = this.chosen();
    if (!now) return;
    const { id: _id, version: _version, ...fields } = now;
    const count = this.own().filter((pack) => pack.isWhatIf).length + 1;
    const id = await this.edits.add('pack', {
      ...fields,
      sequence: nextSequence(this.own()),
      name: `what if ${count}`,
      isWhatIf: true,
      author: this.session.person?.name ?? '',
      reason: `to be told against “${now.name}”`,
    });
    if (id === null) return;
    this.chosenId.set(id);
    this.besideId.set(now.id);
  }

  protected async remove(pack: Pack): Promise<void> {
    await this.edits.remove('pack', pack);
  }

  private massOf(partId: string): Weighed | null {
    const { rolled } = this.open.rollUp();
    const place = rolled.outline.placeOf.get(partId);
    const totals = place === undefined ? null : totalsAt(rolled, place);
    if (!totals) return null;
    const { massKg, massUKg } = studyShown(totals, true);
    return massKg === null ? null : { massKg, uKg: massUKg ?? 0 };
  }
}
