import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { catchError, map, of, switchMap } from 'rxjs';
import { blank, nextSequence, type Pack } from '@each-bolt/core/record';
import { totalsAt } from '@each-bolt/core/bench';
import { studyShown } from '@each-bolt/core/cost';
import { packDoubts, statedDoubts, type Weighed } from '@each-bolt/core/measure';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import { Session } from '../record/session';
import { Choose, ChoicesPipe } from '../shared/choose';
import { PackForm } from './pack-form';
import { PackResults } from './pack-results';
import { PackWork } from './pack-work';
import type { PackAsked, PackTold } from './pack-told';

interface Shown {
  readonly told: PackTold | null;
  readonly fault: string;
}

/** A battery pack: how it is joined, what it weighs by boundary, how evenly its cells are cooled, and what if. */
@Component({
  selector: 'eb-packs-view',
  imports: [ButtonDirective, InputText, Choose, ChoicesPipe, PackForm, PackResults],
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
            <form (submit)="whatIf($event, why)">
              <input
                pInputText
                #why
                type="text"
                maxlength="400"
                aria-label="What would a what-if tell?"
                placeholder="what would it tell?"
              />
              <button pButton severity="secondary" type="submit">What if …</button>
            </form>
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
              <eb-pack-form [pack]="pack" [may]="may()" />
              @if (may() && pack.isWhatIf) {
                <button pButton severity="secondary" type="button" (click)="remove(pack)">Delete this what-if</button>
              }
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
  private readonly edits = inject(RowEdits);
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  private readonly session = inject(Session);
  private readonly work = inject(PackWork);

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
  /** what the record states of the vehicle, held against itself and against the cells */
  protected readonly stated = computed(() => {
    const vehicle = this.open.record().vehicles.find(({ id }) => id === this.selection.part()?.vehicleId);
    const values = this.told()?.report.values;
    return vehicle && values ? [...statedDoubts(vehicle), ...packDoubts(vehicle, values.energyJ, values.nominalV)] : [];
  });

  protected choose(pack: Pack): void {
    void this.selection.choose({ part: pack.partId });
  }

  protected async begin(partId: string): Promise<void> {
    const fields = blank('pack', { partId, sequence: 0, name: 'as recorded', isWhatIf: false });
    const id = await this.edits.add('pack', fields);
    if (id !== null) this.chosenId.set(id);
  }

  /** The chosen state once more, to be changed. */
  protected async whatIf(event: Event, why: HTMLInputElement): Promise<void> {
    event.preventDefault();
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
      reason: why.value.trim(),
    });
    if (id === null) return;
    why.value = '';
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
