import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { catchError, map, of, switchMap } from 'rxjs';
import { blank, type Pack } from '@each-bolt/core/record';
import { totalsAt } from '@each-bolt/core/bench';
import { studyShown } from '@each-bolt/core/cost';
import { boxesM3, packDoubts, statedDoubts, type Weighed } from '@each-bolt/core/measure';
import { ButtonDirective } from 'primeng/button';
import { OpenStudy } from '../record/open-study';
import { Selection } from '../record/selection';
import { Choose, ChoicesPipe } from '../shared/choose';
import { PackForm } from './pack-form';
import { PackResults } from './pack-results';
import { PackWork } from './pack-work';
import type { PackAsked, PackTold } from './pack-told';
import { StateBar } from './state-bar';
import { States } from './states';

/** What makes a layout of the cooling, apart from the cells and the coolant. */
const LAYOUT = ['way', 'lay', 'rows', 'channelWidthM', 'channelHeightM', 'channelLengthM'] as const satisfies readonly (keyof Pack)[];

interface Shown {
  readonly told: PackTold | null;
  readonly fault: string;
}

/** A battery pack: how it is joined, what it weighs by boundary, how evenly its cells are cooled, and what if. */
@Component({
  selector: 'eb-packs-view',
  imports: [ButtonDirective, Choose, ChoicesPipe, PackForm, PackResults, StateBar],
  providers: [PackWork],
  template: `<div class="sheet scroll">
    @if (selection.part(); as part) {
      @if (own().length > 0) {
        <div class="acts">
          <eb-state-bar [states]="$any(states)" word="pack" />
          @if (states.may() && layouts().length > 0) {
            <eb-choose
              label="This pack with the layout of"
              value=""
              (valueChange)="withLayout($event)"
              [options]="layouts() | ebChoices: 'id' : 'name' : 'with the layout of …'"
            />
          }
        </div>
      } @else if (states.may()) {
        <div class="acts">
          <button pButton type="button" (click)="begin(part.id)">Record this part as a pack</button>
        </div>
      }
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
          @if (t.report.missing.drop.length > 0) {
            <p class="soft" role="status">For the drop along a channel it still needs: {{ t.report.missing.drop.join(', ') }}.</p>
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
              <eb-pack-form [pack]="pack" [may]="states.may()" />
            </div>
            @if (told(); as t) {
              <eb-pack-results [pack]="pack" [beside]="beside()" [told]="t" />
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
  styleUrl: './state-view.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PacksView {
  protected readonly selection = inject(Selection);
  private readonly open = inject(OpenStudy);
  private readonly work = inject(PackWork);

  protected readonly states = new States(
    'pack',
    (pack) => pack.partId,
    computed(() => this.selection.part()?.id ?? null),
    (pack) => this.vehicleOf(pack.partId),
  );
  protected readonly own = this.states.own;
  protected readonly chosen = this.states.chosen;
  protected readonly beside = this.states.beside;
  protected readonly listed = computed(() =>
    this.states.all().map((pack) => ({
      pack,
      text: `${this.open.partById().get(pack.partId)?.name ?? ''} of ${this.vehicleOf(pack.partId)}, ${pack.name}`,
    })),
  );
  /** packs whose layout this one may be tried with */
  protected readonly layouts = computed(() => this.states.others());

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
  /** what the record states of the vehicle, held against itself and against the cells */
  protected readonly stated = computed(() => {
    const vehicle = this.open.record().vehicles.find(({ id }) => id === this.selection.part()?.vehicleId);
    const values = this.told()?.report.values;
    return vehicle && values ? [...statedDoubts(vehicle), ...packDoubts(vehicle, values.energyJ, values.nominalV)] : [];
  });

  protected choose(pack: Pack): void {
    void this.selection.choose({ part: pack.partId });
  }

  protected begin(partId: string): void {
    void this.states.begin(blank('pack', { partId, sequence: 0, name: 'as recorded', isWhatIf: false }));
  }

  /** The chosen pack cooled as another is: how the coolant goes, how bricks lie, its rows and channels. */
  protected withLayout(id: string): void {
    const other = this.states.all().find((pack) => pack.id === id);
    const name = this.layouts().find((layout) => layout.id === id)?.name ?? '';
    const own = this.chosen();
    if (!other || !own) return;
    // rows that would not share out its cells stay its own
    const fits = other.rows !== null && (own.cellsInParallel * own.bricksPerModule) % other.rows === 0;
    const fields = LAYOUT.filter((field) => field !== 'rows' || fits).map((field) => [field, other[field]]);
    void this.states.whatIf(`cooled as ${name}`, Object.fromEntries(fields) as Partial<Pack>);
  }

  private vehicleOf(partId: string): string {
    const vehicleId = this.open.partById().get(partId)?.vehicleId;
    return this.open.record().vehicles.find(({ id }) => id === vehicleId)?.name ?? '';
  }

  private massOf(partId: string): Weighed | null {
    const { rolled } = this.open.rollUp();
    const place = rolled.outline.placeOf.get(partId);
    const totals = place === undefined ? null : totalsAt(rolled, place);
    if (!totals) return null;
    const { massKg, massUKg } = studyShown(totals, true);
    const part = this.open.partById().get(partId);
    const boxM3 = part ? boxesM3(part) : null;
    return massKg === null ? null : { massKg, uKg: massUKg ?? 0, boxM3 };
  }
}
