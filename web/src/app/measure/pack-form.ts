import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { FieldValue } from '@each-bolt/core/shared';
import { fieldLines, type Pack, type PackFields } from '@each-bolt/core/record';
import { PACK_U_FIELDS } from '@each-bolt/core/measure';
import { ButtonDirective } from 'primeng/button';
import { OpenStudy } from '../record/open-study';
import { RowEdits } from '../record/row-edits';
import { Choose, ChoicesPipe } from '../shared/choose';
import { InputForm } from './input-form';

const WHAT_IF = { title: 'What if', lines: fieldLines('pack', ['name', 'author', 'reason']) };
const GROUPS = [
  {
    title: 'Topology',
    lines: fieldLines('pack', ['cellsInParallel', 'bricksPerModule', 'modules', 'cellsCounted', 'cellsInModule', 'tubes', 'cellsPerTube']),
  },
  { title: 'Cell', lines: fieldLines('pack', ['cellFormat', 'capacityC', 'nominalV', 'lowestV', 'highestV', 'cellMassKg']) },
  {
    title: 'Current of a brick, and the roll',
    lines: fieldLines('pack', ['brickA', 'cellOhm', 'cellOhmPerK', 'rollOuterM', 'rollCoreM', 'rollLayerM']),
  },
  {
    title: 'Cooling',
    lines: fieldLines('pack', ['way', 'lay', 'rows', 'heatPerCellW', 'cellToCoolantWPerK', 'cellToCellWPerK', 'flowM3PerS', 'inletC']),
  },
  {
    title: 'Coolant and channel',
    lines: fieldLines('pack', ['coolantKgPerM3', 'coolantJPerKgK', 'coolantPaS', 'channelWidthM', 'channelHeightM', 'channelLengthM']),
  },
];

/** What is recorded of a pack, field by field from its declaration: with how each is known, its ±, and which parts are its boundaries. */
@Component({
  selector: 'eb-pack-form',
  imports: [ButtonDirective, Choose, ChoicesPipe, InputForm],
  template: `<eb-input-form entity="pack" [row]="pack()" [groups]="groups()" [uFields]="uFields" [may]="may()" />
    <h2>What is counted as the pack</h2>
    <dl aria-label="Boundaries">
      <dt>Modules are</dt>
      <dd>
        <eb-choose
          label="Modules are"
          [value]="pack().modulesPartId ?? ''"
          (valueChange)="edit('modulesPartId', $event === '' ? null : $event)"
          [options]="inside() | ebChoices: 'id' : 'name' : 'not said'"
          [disabled]="!may()"
        />
      </dd>
      <dt>Charger box</dt>
      <dd>
        <eb-choose
          label="Charger box"
          [value]="pack().chargerPartId ?? ''"
          (valueChange)="edit('chargerPartId', $event === '' ? null : $event)"
          [options]="besides() | ebChoices: 'id' : 'name' : 'none'"
          [disabled]="!may()"
        />
      </dd>
      <dt>Shields</dt>
      <dd class="shields">
        @for (s of shields(); track s.id) {
          <span>
            {{ s.name }}
            @if (may()) {
              <button
                pButton
                [text]="true"
                severity="secondary"
                type="button"
                [attr.aria-label]="'No shield: ' + s.name"
                (click)="drop(s.id)"
              >
                ×
              </button>
            }
          </span>
        }
        @if (may()) {
          <eb-choose
            label="Add a shield"
            value=""
            (valueChange)="shield($event)"
            [options]="besides() | ebChoices: 'id' : 'name' : 'add one'"
          />
        }
      </dd>
    </dl>`,
  styles: `
    h2 {
      margin: 12px 0 2px;
      font-size: 14px;
    }
    dl {
      display: grid;
      grid-template-columns: minmax(110px, 3fr) minmax(190px, 4fr);
      gap: 1px 8px;
      align-items: center;
      margin: 0;
      font-size: 13px;
    }
    dd {
      display: flex;
      gap: 4px;
      align-items: center;
      margin: 0;
      min-width: 0;
    }
    dd eb-choose {
      flex: 1;
    }
    .shields {
      flex-wrap: wrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PackForm {
  protected readonly edits = inject(RowEdits);
  private readonly open = inject(OpenStudy);
  readonly pack = input.required<Pack>();
  readonly may = input.required<boolean>();

  protected readonly uFields = PACK_U_FIELDS;
  protected readonly groups = computed(() => (this.pack().isWhatIf ? [WHAT_IF, ...GROUPS] : GROUPS));
  private readonly part = computed(() => this.open.partById().get(this.pack().partId));
  /** parts inside the pack: one line of them is its modules */
  protected readonly inside = computed(() => this.open.record().parts.filter(({ parentId }) => parentId === this.pack().partId));
  /** other parts of the vehicle that are not inside anything */
  protected readonly besides = computed(() =>
    this.open
      .record()
      .parts.filter(
        ({ id, parentId, vehicleId }) => parentId === null && vehicleId === this.part()?.vehicleId && id !== this.pack().partId,
      ),
  );
  protected readonly shields = computed(() => this.pack().shields.map((id) => ({ id, name: this.open.partById().get(id)?.name ?? '' })));

  protected edit(field: keyof PackFields, value: FieldValue): void {
    void this.edits.edit('pack', this.pack(), { [field]: value });
  }

  protected shield(partId: string): void {
    const { shields } = this.pack();
    if (partId !== '' && !shields.includes(partId)) void this.edits.edit('pack', this.pack(), { shields: [...shields, partId] });
  }

  protected drop(partId: string): void {
    void this.edits.edit('pack', this.pack(), { shields: this.pack().shields.filter((id) => id !== partId) });
  }
}
