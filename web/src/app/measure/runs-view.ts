import { ChangeDetectionStrategy, Component, computed, inject, signal, type WritableSignal } from '@angular/core';
import {
  ABSENT,
  READ_IN,
  asShown,
  counted,
  fixed,
  gramsText,
  inUnit,
  materialById,
  readAs,
  threeDigits,
  unitWord,
  withU,
  type FieldValue,
  type ShownUnit,
} from '@each-bolt/core/shared';
import {
  CONDUCTOR_METALS,
  cableFigures,
  fluidsOf,
  loopOf,
  placedParts,
  portsById,
  routeOf,
  runDetails,
  runTotals,
  runsOf,
  sameResistance,
  type Run,
} from '@each-bolt/core/measure';
import { totalsAt } from '@each-bolt/core/bench';
import { studyShown } from '@each-bolt/core/cost';
import type { Part } from '@each-bolt/core/record';
import { OpenStudy } from '../record/open-study';
import { Selection } from '../record/selection';
import { Choose, ChoicesPipe } from '../shared/choose';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { keptChoice } from '../shared/kept-choice';
import { EditField } from '../shared/edit-field';
import { ListTable, type TableColumn } from '../shared/list-table';
import { VehicleMark } from '../shared/vehicle-mark';
import { RunCases } from './run-cases';
import { RunCircuit } from './run-circuit';
import { RunEnds } from './run-ends';

const ABSOLUTE_ZERO_C = -273.15;

/** A number that is asked for, not recorded: in SI, with what is wrong with what was typed last. */
interface Asked {
  readonly label: string;
  readonly shape: { readonly kind: 'number' } & ShownUnit;
  readonly value: WritableSignal<number | null>;
  readonly fault: WritableSignal<string>;
  /** it must be more than this */
  readonly above: number;
  /** it may be left empty */
  readonly isOptional: boolean;
}

const asked = (label: string, unit: ShownUnit, usual: number | null, above = 0): Asked => ({
  ...{ label, above, isOptional: usual === null },
  shape: { kind: 'number', ...unit },
  value: signal(usual === null ? null : usual * unit.per),
  fault: signal(''),
});

const inOwn = (unit: ShownUnit, value: number | null): number | null => (value === null ? null : readAs(unit, value));
/** Unit and decimals of a column of such figures, as they are read. */
const headed = (of: ShownUnit): { readonly unit: string; readonly decimals: number } => {
  const { unit, digits } = asShown(of);
  return { unit, decimals: digits };
};

/** Lines that nobody said the fluid of. */
const NOT_SAID = '–';

/** Hoses, pipes and cables of a subsystem on every vehicle: how much of them, what is inside, what they cost in pressure and voltage. */
@Component({
  selector: 'eb-runs-view',
  imports: [Choose, ChoicesPipe, DataTable, TableHead, TableRow, EditField, ListTable, VehicleMark, RunCases, RunCircuit, RunEnds],
  template: `<div class="sheet scroll">
    @if (every().length === 0) {
      <p class="soft">
        No hose, pipe or cable is recorded here yet. On the bench choose the part and type, for example,
        <code>1 hose id18 0.72 m epdm coolant clamp</code> or <code>2 cable 4 mm2 cu-etp shielded 0.94 m</code>.
      </p>
      @if (selection.part()) {
        <eb-run-ends />
      }
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
        <ng-template [ebRow]="allTotals()" track="word" let-r>
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
          Hoses and pipes of one fluid and vehicle behind each other, with their ends, at a flow or driven by a pump whose pressure falls
          with the square of the flow; what lies between them, such as pump, core and plate, is not in it. Darcy–Weisbach with
          Colebrook–White, each pair of ends 0.8 of the velocity head, smooth inside: assumed.
        </p>
        <dl class="facts">
          <dt>Fluid</dt>
          <dd>
            <eb-choose label="Fluid" [value]="fluid()" (valueChange)="fluid.set($event)" [options]="fluids() | ebChoices: 'id' : 'name'" />
          </dd>
          @for (a of asked; track a.label) {
            <dt>{{ a.label }}</dt>
            <dd>
              <eb-edit-field [label]="a.label" [shape]="a.shape" [value]="a.value()" [fault]="a.fault()" (committed)="take(a, $event)" />
            </dd>
          }
        </dl>
        @for (l of loops(); track l.vehicle) {
          <p>
            <b>{{ l.vehicle }}:</b> {{ l.text }}
            @if (l.lacks !== '') {
              <small class="warn">{{ l.lacks }}</small>
            }
          </p>
        }
        @for (c of circuits(); track c.vehicle) {
          <eb-run-circuit [vehicle]="c.vehicle" [runs]="c.runs" [densityKgPerM3]="density.value()!" [viscosityPaS]="viscosity.value()!" />
        }
        @for (i of routeIssues(); track i.code + i.recordId) {
          <p class="warn">{{ i.message }}.</p>
        }
        <p class="soft">{{ aluminium }}</p>
      </section>
      <eb-run-cases
        [runs]="every()"
        [isOfThem]="isOfThem()"
        [timesOf]="timesOf()"
        [fluid]="fluid() === notSaid ? '' : fluid()"
        [densityKgPerM3]="density.value()!"
        [viscosityPaS]="viscosity.value()!"
      />
      @if (selection.part()) {
        <eb-run-ends />
      }
      <eb-list-table label="All runs" [rows]="every()" [columns]="columns()" file="runs" />
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
  protected readonly selection = inject(Selection);

  private readonly flow = asked('Flow', READ_IN['l/min'], 10);
  protected readonly density = asked('Density', { per: 1, unit: 'kg/m³', digits: 0 }, 1065);
  protected readonly viscosity = asked('Viscosity', READ_IN['mPa s'], 2.8);
  private readonly shutOff = asked('Pump, pressure at no flow', READ_IN.kPa, null);
  private readonly largest = asked('Pump, flow at no pressure', READ_IN['l/min'], null);
  private readonly current = asked('Current', { per: 1, unit: 'A', digits: 1 }, 10);
  private readonly conductorC = asked('Conductor at', { per: 1, unit: '°C', digits: 0 }, 20, ABSOLUTE_ZERO_C);
  protected readonly asked = [this.flow, this.density, this.viscosity, this.shutOff, this.largest, this.current, this.conductorC];

  protected readonly vehicles = computed(() => this.open.record().vehicles.map(({ id, name }, place) => ({ id, name, place })));
  private readonly placed = computed(() => placedParts(this.open.record().parts));
  protected readonly notSaid = NOT_SAID;
  protected readonly isOfThem = computed(() => {
    const [placed, subsystem] = [this.placed(), this.selection.subsystem()?.id ?? null];
    return (part: Part): boolean => subsystem === null || placed.get(part.id)?.subsystemId === subsystem;
  });
  protected readonly timesOf = computed(() => {
    const placed = this.placed();
    return (id: string): number => placed.get(id)?.times ?? 1;
  });
  protected readonly every = computed((): readonly (Run & { readonly id: string })[] =>
    runsOf(this.open.record(), this.isOfThem(), this.timesOf()).map((run) => ({ ...run, id: run.connection.id })),
  );
  private readonly byVehicle = computed(() =>
    this.vehicles().map((vehicle) => ({ vehicle, runs: this.every().filter(({ part }) => part.vehicleId === vehicle.id) })),
  );
  private readonly totals = computed(() => {
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
      const metresWithU = (value: number, u: number): string =>
        u === 0 ? metres(value) : `${withU(readAs(READ_IN.m, value), readAs(READ_IN.m, u), 3)} ${unitWord('m')}`;
      const plural = `${kind[0]!.toUpperCase()}${kind.slice(1)}s`;
      return [
        row(`${plural}, pieces`, (t) => ({ text: fixed(t.pieces, 0) })),
        row(`${plural}, length`, (t) => ({
          text: t.meanM === null ? ABSENT : metresWithU(t.lengthM, t.lengthUM),
          lacks: lacks(t.withoutLength, 'a length'),
        })),
        row(`${plural}, mean piece`, (t) => ({ text: t.meanM === null ? ABSENT : metres(t.meanM) })),
        kind === 'cable'
          ? row('Cables, metal of the conductors', (t) => ({
              text: gramsText(t.metalKg, 0),
              lacks: lacks(t.withoutMetal, 'a metal, cross-section or length'),
            }))
          : row(`${plural}, fluid inside`, (t) => ({
              text: inUnit(READ_IN.l, t.fluidM3),
              lacks: lacks(t.withoutFluid, 'a bore or length'),
            })),
      ];
    });
  });
  protected readonly allTotals = computed(() => [...this.totals(), ...this.details()]);
  /** how lines are led and held, by vehicle */
  private readonly details = computed(() => {
    const [ports, record] = [portsById(this.open.record()), this.open.record()];
    const each = this.byVehicle().map(({ runs }) =>
      runDetails(runs, record.fastenerSets, ports, record.passages, this.timesOf(), (id) => this.massOf(id), this.density.value()!),
    );
    const row = (word: string, of: (d: (typeof each)[number]) => { readonly text: string; readonly lacks?: string }) => ({
      word,
      cells: each.map((d) => (d.pieces === 0 ? { text: 'none', lacks: '' } : { lacks: '', ...of(d) })),
    });
    return [
      row(`Fluid inside, at ${fixed(this.density.value()!, 0)} kg/m³`, (d) => ({ text: gramsText(d.fluidKg, 0) })),
      row('Parts they are on, dry', (d) => ({
        text: d.dryKg === null ? ABSENT : gramsText(d.dryKg, 0),
        lacks: d.withoutMass === 0 ? '' : `${counted(d.withoutMass, 'part')} without a mass`,
      })),
      row('Rigid share of hoses and pipes, by length', (d) => ({
        text: d.rigidFraction === null ? ABSENT : `${fixed(100 * d.rigidFraction, 0)} %`,
      })),
      row('Length over the straight line of their ends', (d) => ({
        text: d.overStraight === null ? ABSENT : `${fixed(d.overStraight, 2)} times`,
        lacks: d.overStraight === null || d.placedPieces === d.pieces ? '' : `${d.placedPieces} of ${counted(d.pieces, 'piece')} placed`,
      })),
      row('Fittings that lines meet at', (d) => ({ text: fixed(d.fittings, 0) })),
      row('Clips, push pins and ties', (d) => ({ text: fixed(d.guides, 0) })),
      row('Fasteners and clips for each piece', (d) => ({ text: d.holdersPerPiece === null ? ABSENT : fixed(d.holdersPerPiece, 2) })),
    ];
  });
  /** hoses and pipes with ends, by vehicle: those of a circuit */
  protected readonly circuits = computed(() =>
    this.byVehicle().flatMap(({ vehicle, runs }) => {
      const own = runs.filter(
        ({ kind, connection: line }) =>
          kind !== 'cable' && (line.fluid || NOT_SAID) === this.fluid() && (line.fromPortId !== null || line.toPortId !== null),
      );
      return own.length === 0 ? [] : [{ vehicle: vehicle.name, runs: own }];
    }),
  );
  protected readonly routeIssues = computed(() => {
    const ports = portsById(this.open.record());
    return this.every().flatMap(({ connection, part }) => routeOf(connection, part.name, ports).issues.filter(({ code }) => code === 'shorter-than-straight')); // prettier-ignore
  });
  protected readonly fluids = computed(() =>
    fluidsOf(this.every()).map((id) => ({ id: id === '' ? NOT_SAID : id, name: id === '' ? 'not said' : id })),
  );
  protected readonly fluid = keptChoice(
    () => this.selection.subsystem()?.id,
    (id) => this.fluids().some((fluid) => fluid.id === id),
    () => this.fluids()[0]?.id ?? NOT_SAID,
  );
  protected readonly loops = computed(() => {
    const [fluid, shutOffPa, largestM3PerS] = [this.fluid(), this.shutOff.value(), this.largest.value()];
    const data = { densityKgPerM3: this.density.value()!, viscosityPaS: this.viscosity.value()! };
    const driven = shutOffPa !== null && largestM3PerS !== null ? { shutOffPa, largestM3PerS } : this.flow.value()!;
    return this.byVehicle().flatMap(({ vehicle, runs }) => {
      const lines = runs.filter(({ kind, connection }) => kind !== 'cable' && (connection.fluid || NOT_SAID) === fluid);
      if (lines.length === 0) return [];
      const loop = loopOf(lines, data, driven);
      const lacks = loop.leftOut.length === 0 ? '' : `left out, without bore or length: ${loop.leftOut.join(', ')}`;
      if (loop.pieces === 0) return [{ vehicle: vehicle.name, text: 'no line with a bore and a length yet', lacks }];
      const fastest = loop.fastest === null ? '' : `; fastest in ${loop.fastest.part}, ${fixed(loop.fastest.velocityMPerS, 2)} m/s`;
      const text = `${counted(loop.pieces, 'piece', 'pieces')}, ${inUnit(READ_IN.kPa, loop.dropPa)} and ${threeDigits(loop.pumpW)} W at ${inUnit(READ_IN['l/min'], loop.flowM3PerS)}${fastest}`;
      return [{ vehicle: vehicle.name, text, lacks }];
    });
  });
  protected readonly columns = computed((): readonly TableColumn<Run & { readonly id: string }>[] => {
    const names = new Map(this.vehicles().map((v) => [v.id, v.name]));
    const [amps, celsius] = [this.current.value()!, this.conductorC.value()!];
    return [
      { id: 'vehicle', head: 'Vehicle', of: ({ part }) => names.get(part.vehicleId) ?? '' },
      { id: 'part', head: 'Part', of: ({ part }) => part.name },
      { id: 'kind', head: 'Run', of: ({ kind }) => kind },
      { id: 'pieces', head: 'Pieces', of: ({ pieces }) => pieces },
      {
        id: 'length',
        head: 'Length each',
        ...headed(READ_IN.m),
        of: ({ connection }) => inOwn(READ_IN.m, connection.lengthEachM),
      },
      {
        id: 'bore',
        head: 'Bore',
        ...headed({ ...READ_IN.mm, digits: 1 }),
        of: ({ connection }) => inOwn(READ_IN.mm, connection.innerM),
      },
      {
        id: 'section',
        head: 'Cross-section',
        ...headed(READ_IN['mm²']),
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
    const perKg = [copper!, aluminium!].map(({ materialId }) => materialById.get(materialId)?.priceEurPerKg ?? 0);
    const { area, mass, cost } = sameResistance(copper!, aluminium!, [perKg[0]!, perKg[1]!]);
    return `Aluminium for copper at the same resistance: ${fixed(area, 2)} times the cross-section, ${fixed(100 * mass, 0)} % of the mass, ${fixed(100 * cost, 0)} % of the cost of its metal, at EUR ${fixed(perKg[1]!, 2)} and ${fixed(perKg[0]!, 2)} a kg, 2026, assumed.`;
  })();

  private massOf(partId: string): number | null {
    const { rolled } = this.open.rollUp();
    const place = rolled.outline.placeOf.get(partId);
    const totals = place === undefined ? null : totalsAt(rolled, place);
    return totals === null ? null : studyShown(totals, true).massKg;
  }

  protected take(into: Asked, value: FieldValue): void {
    const isFit = typeof value === 'number' ? value > into.above : into.isOptional;
    into.fault.set(isFit ? '' : `${into.label} must be more than ${fixed(readAs(into.shape, into.above), 0)} ${into.shape.unit}`);
    if (isFit) into.value.set(typeof value === 'number' ? value : null);
  }
}
