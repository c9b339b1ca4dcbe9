import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import {
  ABSENT,
  READ_IN,
  counted,
  fixed,
  gramsText,
  inUnit,
  readAs,
  threeDigits,
  unitWord,
  type FieldValue,
  type ShownUnit,
} from '@each-bolt/core/shared';
import { CONDUCTOR_METALS, cableFigures, loopOf, placedParts, runTotals, runsOf, sameResistance, type Run } from '@each-bolt/core/measure';
import { OpenStudy } from '../record/open-study';
import { Selection } from '../record/selection';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { EditField } from '../shared/edit-field';
import { ListTable, type TableColumn } from '../shared/list-table';
import { VehicleMark } from '../shared/vehicle-mark';

const shape = (unit: ShownUnit): { readonly kind: 'number' } & ShownUnit => ({ kind: 'number', ...unit });

const inOwn = (unit: ShownUnit, value: number | null): number | null => (value === null ? null : readAs(unit, value));

/** Hoses, pipes and cables of a subsystem on every vehicle: how much of them, what is inside, what they cost in pressure and voltage. */
@Component({
  selector: 'eb-runs-view',
  imports: [DataTable, TableHead, TableRow, EditField, ListTable, VehicleMark],
  template: `<div class="sheet scroll">
    @if (every().length === 0) {
      <p class="soft">
        No hose, pipe or cable is recorded here yet. On the bench choose the part and type, for example,
        <code>1 hose id18 0.72 m epdm coolant clamp</code> or <code>2 cable 4 mm2 cu-etp shielded 0.94 m</code>.
      </p>
    } @else {
      <eb-table label="Runs by vehicle">
        <ng-template ebHead>
          <tr>
            <th scope="col">Run</th>
            @for (v of vehicles(); track v.id) {
              <th scope="col" class="right"><eb-vehicle-mark [place]="v.place" /> {{ v.name }}</th>
            }
          </tr>
        </ng-template>
        <ng-template [ebRow]="totals()" track="word" let-r>
          <tr>
            <th scope="row">{{ r.word }}</th>
            @for (cell of r.cells; track $index) {
              <td class="right figure">
                {{ cell.text }}
                @if (cell.lacks !== '') {
                  <small class="warn">{{ cell.lacks }}</small>
                }
              </td>
            }
          </tr>
        </ng-template>
      </eb-table>
      <section class="asked" aria-label="What lines cost in pressure and voltage">
        <h2>Lines in one loop, cables at a current</h2>
        <p class="soft">
          Hoses and pipes of a vehicle behind each other, with their ends; what lies between them, such as pump, core and plate, is not in
          it. Darcy–Weisbach with Colebrook–White, each pair of ends 0.8 of the velocity head, smooth inside: assumed.
        </p>
        <dl class="facts">
          <dt>Flow</dt>
          <dd><eb-edit-field label="Flow" [shape]="flowShape" [value]="flow()" (committed)="take(flow, $event)" /></dd>
          <dt>Coolant density, kg/m³</dt>
          <dd><eb-edit-field label="Coolant density, kg/m³" [shape]="plain" [value]="density()" (committed)="take(density, $event)" /></dd>
          <dt>Coolant viscosity</dt>
          <dd>
            <eb-edit-field label="Coolant viscosity" [shape]="viscosityShape" [value]="viscosity()" (committed)="take(viscosity, $event)" />
          </dd>
          <dt>Current, A</dt>
          <dd><eb-edit-field label="Current, A" [shape]="plain" [value]="current()" (committed)="take(current, $event)" /></dd>
          <dt>Conductor at, °C</dt>
          <dd><eb-edit-field label="Conductor at, °C" [shape]="plain" [value]="conductorC()" (committed)="take(conductorC, $event)" /></dd>
        </dl>
        @for (l of loops(); track l.vehicle) {
          <p>
            <b>{{ l.vehicle }}:</b> {{ l.text }}
            @if (l.lacks !== '') {
              <small class="warn">{{ l.lacks }}</small>
            }
          </p>
        }
        <p class="soft">{{ aluminium }}</p>
      </section>
      <eb-list-table label="All runs" [rows]="every()" [columns]="columns()" file="runs.csv" />
    }
  </div>`,
  styles: `
    .asked {
      margin: 14px 0;
    }
    h2 {
      margin: 0 0 2px;
      font-size: 14px;
    }
    .facts {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(120px, max-content) 110px);
      gap: 2px 10px;
      align-items: center;
      margin: 6px 0;
      font-size: 13px;
    }
    .facts dd {
      margin: 0;
    }
    p {
      margin: 3px 0;
    }
    small {
      display: block;
      font-size: 12px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RunsView {
  private readonly open = inject(OpenStudy);
  private readonly selection = inject(Selection);

  protected readonly flowShape = shape(READ_IN['l/min']);
  protected readonly viscosityShape = shape(READ_IN['mPa s']);
  protected readonly plain = shape({ per: 1, unit: '', digits: 1 });
  protected readonly flow = signal(10 * READ_IN['l/min'].per);
  protected readonly density = signal(1065);
  protected readonly viscosity = signal(2.8e-3);
  protected readonly current = signal(10);
  protected readonly conductorC = signal(20);

  protected readonly vehicles = computed(() => this.open.record().vehicles.map(({ id, name }, place) => ({ id, name, place })));
  private readonly placed = computed(() => placedParts(this.open.record().parts));
  protected readonly every = computed((): readonly (Run & { readonly id: string })[] => {
    const [placed, subsystem] = [this.placed(), this.selection.subsystem()?.id ?? null];
    return runsOf(
      this.open.record(),
      (part) => subsystem === null || placed.get(part.id)?.subsystemId === subsystem,
      (id) => placed.get(id)?.times ?? 1,
    ).map((run) => ({ ...run, id: run.connection.id }));
  });
  private readonly byVehicle = computed(() =>
    this.vehicles().map((vehicle) => ({ vehicle, runs: this.every().filter(({ part }) => part.vehicleId === vehicle.id) })),
  );
  protected readonly totals = computed(() => {
    const each = this.byVehicle().map(({ runs }) => runTotals(runs));
    const lacks = (many: number, what: string): string => (many === 0 ? '' : `${counted(many, 'piece', 'pieces')} without ${what}`);
    return [0, 1, 2].flatMap((k) => {
      const cells = each.map((totals) => totals[k]!);
      const kind = cells[0]?.kind ?? 'hose';
      const row = (word: string, of: (t: (typeof cells)[number]) => { readonly text: string; readonly lacks?: string }) => ({
        word,
        cells: cells.map((t) => (t.pieces === 0 ? { text: 'none', lacks: '' } : { lacks: '', ...of(t) })),
      });
      const metres = (value: number): string => inUnit(READ_IN.m, value);
      const plural = `${kind[0]!.toUpperCase()}${kind.slice(1)}s`;
      return [
        row(`${plural}, pieces`, (t) => ({ text: fixed(t.pieces, 0) })),
        row(`${plural}, length`, (t) => ({
          text: t.meanM === null ? ABSENT : metres(t.lengthM),
          lacks: lacks(t.withoutLength, 'a length'),
        })),
        row(`${plural}, mean piece`, (t) => ({ text: t.meanM === null ? ABSENT : metres(t.meanM) })),
        kind === 'cable'
          ? row('Cables, metal of the conductors', (t) => ({
              text: gramsText(t.metalKg, 0),
              lacks: lacks(t.withoutMetal, 'a cross-section or length'),
            }))
          : row(`${plural}, fluid inside`, (t) => ({
              text: inUnit(READ_IN.l, t.fluidM3),
              lacks: lacks(t.withoutFluid, 'a bore or length'),
            })),
      ];
    });
  });
  protected readonly loops = computed(() => {
    const fluid = { densityKgPerM3: this.density(), viscosityPaS: this.viscosity() };
    return this.byVehicle().flatMap(({ vehicle, runs }) => {
      const lines = runs.filter(({ kind }) => kind !== 'cable');
      if (lines.length === 0) return [];
      try {
        const loop = loopOf(lines, fluid, this.flow());
        if (loop.pieces === 0)
          return [{ vehicle: vehicle.name, text: 'no line with a bore and a length yet', lacks: loop.leftOut.join(', ') }];
        const fastest = loop.fastest === null ? '' : `; fastest in ${loop.fastest.part}, ${fixed(loop.fastest.velocityMPerS, 2)} m/s`;
        const lacks = loop.leftOut.length === 0 ? '' : `left out, without bore or length: ${loop.leftOut.join(', ')}`;
        const text = `${counted(loop.pieces, 'piece', 'pieces')}, ${inUnit(READ_IN.kPa, loop.dropPa)} and ${threeDigits(loop.pumpW)} W at ${inUnit(READ_IN['l/min'], loop.flowM3PerS)}${fastest}`;
        return [{ vehicle: vehicle.name, text, lacks }];
      } catch (fault) {
        return [{ vehicle: vehicle.name, text: (fault as Error).message, lacks: '' }];
      }
    });
  });
  protected readonly columns = computed((): readonly TableColumn<Run & { readonly id: string }>[] => {
    const names = new Map(this.vehicles().map((v) => [v.id, v.name]));
    const [amps, celsius] = [this.current(), this.conductorC()];
    return [
      { id: 'vehicle', head: 'Vehicle', of: ({ part }) => names.get(part.vehicleId) ?? '' },
      { id: 'part', head: 'Part', of: ({ part }) => part.name },
      { id: 'kind', head: 'Run', of: ({ kind }) => kind },
      { id: 'pieces', head: 'Pieces', of: ({ pieces }) => pieces },
      {
        id: 'length',
        head: 'Length each',
        unit: unitWord('m'),
        decimals: 3,
        of: ({ connection }) => inOwn(READ_IN.m, connection.lengthEachM),
      },
      {
        id: 'bore',
        head: 'Bore',
        unit: unitWord('mm'),
        decimals: 1,
        of: ({ connection }) => inOwn(READ_IN.mm, connection.innerM),
      },
      {
        id: 'section',
        head: 'Cross-section',
        unit: unitWord('mm²'),
        decimals: 2,
        of: ({ connection }) => inOwn(READ_IN['mm²'], connection.crossSectionM2),
      },
      { id: 'fluid', head: 'Leads', of: ({ connection }) => connection.fluid },
      { id: 'ends', head: 'Ends', of: ({ connection }) => connection.lock ?? '' },
      {
        id: 'drop',
        head: `Drop at ${fixed(amps, 0)} A, one way`,
        unit: 'V',
        decimals: 3,
        of: (run) => cableFigures(run, amps, celsius)?.dropV ?? null,
      },
    ];
  });
  protected readonly aluminium = ((): string => {
    const [copper, aluminium] = CONDUCTOR_METALS;
    const { area, mass } = sameResistance(copper!, aluminium!);
    return `Aluminium for copper at the same resistance: ${fixed(area, 2)} times the cross-section, ${fixed(100 * mass, 0)} % of the mass.`;
  })();

  protected take(into: { set(value: number): void }, value: FieldValue): void {
    if (typeof value === 'number' && value > 0) into.set(value);
  }
}
