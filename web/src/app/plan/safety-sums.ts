import { ChangeDetectionStrategy, Component, computed, signal } from '@angular/core';
import { fixed, riskText, threeDigits, type FieldShape, type FieldValue, READ_IN, readAs, unitWord } from '@each-bolt/core/shared';
import { MOST_LEAN_RAD, RIG_LOAD_SOURCE, capacitorDischarge, rigLoad } from '@each-bolt/core/plan';
import { Tick } from '../shared/tick';
import { EditField } from '../shared/edit-field';

type CapacitorField = 'capacitanceF' | 'voltageV' | 'resistanceOhm' | 'safeV';
type LoadField = 'massKg' | 'pullN' | 'factor' | 'legs' | 'leanRad' | 'ratedN';

const number = (per: number, unit: string): FieldShape => ({ kind: 'number', per, unit, digits: 3 });
const DEGREE_RAD = Math.PI / 180;

/** Sums that say how long to wait and what a rig must bear, each with its formula. Nothing typed here is kept. */
@Component({
  selector: 'eb-safety-sums',
  imports: [EditField, Tick],
  template: `<div class="two">
    <section aria-label="Link capacitor">
      <h2>Energy in a link capacitor, and the wait</h2>
      <p class="formula figure">E = ½ C U² · τ = R C · t = τ ln(U / Uₛ)</p>
      <dl class="facts">
        @for (line of capacitorLines; track line.field) {
          <dt>{{ line.label }}</dt>
          <dd>
            <eb-edit-field
              [label]="line.label"
              [shape]="line.shape"
              [value]="capacitor()[line.field]"
              (committed)="setCapacitor(line.field, $event)"
            />
          </dd>
        }
      </dl>
      @if (discharge(); as d) {
        <p role="status">
          It holds <b class="figure">{{ d.energy }}</b> and falls below {{ d.safe }} after <b class="figure">{{ d.wait }}</b> through this
          resistance alone (τ {{ d.tau }}).
        </p>
        <p class="soft">The wait is never proof: measure before touching. A bleeder can be broken.</p>
      } @else {
        <p class="fault" role="alert">All four must be more than 0.</p>
      }
    </section>
    <section aria-label="Load on a rig">
      <h2>Load on a rig</h2>
      <p class="formula figure">F = k (m g or P) / (n cos θ) against the rating</p>
      <eb-tick class="rigid" [checked]="rigid()" (checkedChange)="rigid.set($event)"
        >The load is rigid: of three legs or more two bear it</eb-tick
      >
      <dl class="facts">
        @for (line of loadLines; track line.field) {
          <dt>{{ line.label }}</dt>
          <dd>
            <eb-edit-field
              [label]="line.label"
              [shape]="line.shape"
              [value]="load()[line.field]"
              (committed)="setLoad(line.field, $event)"
            />
          </dd>
        }
      </dl>
      @if (result(); as r) {
        <p role="status" [class.bad]="!r.holds">
          {{ r.bearing }} of {{ r.legs }} legs bear it. Each bears <b class="figure">{{ r.force }}</b>, <b class="figure">{{ r.use }}</b> of
          its rating with the factor {{ r.factor }}: {{ r.holds ? 'it holds' : 'too much for this rig' }}.
        </p>
      } @else {
        <p class="fault" role="alert">
          Give a mass or a pull (not both), a factor of 1 or more, legs that lean at most 60°, and the rating.
        </p>
      }
      <p class="soft">{{ source }}</p>
    </section>
  </div>`,
  styles: `
    .two {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 36px;
    }
    section {
      display: grid;
      gap: 8px;
      align-content: start;
    }
    .rigid {
      display: flex;
      gap: 8px;
      align-items: baseline;
    }
    .formula {
      padding: 6px 10px;
      background: var(--sheet);
      border: 1px solid var(--line);
      white-space: normal;
    }
    .fault {
      color: var(--amber);
    }
    .bad {
      color: var(--red);
      font-weight: 500;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SafetySums {
  protected readonly capacitorLines: readonly { readonly field: CapacitorField; readonly label: string; readonly shape: FieldShape }[] = [
    { field: 'capacitanceF', label: 'Capacitance', shape: number(1e-6, 'µF') },
    { field: 'voltageV', label: 'Voltage before switching off', shape: number(1, 'V') },
    { field: 'resistanceOhm', label: 'Resistance it empties through', shape: number(1000, 'kΩ') },
    { field: 'safeV', label: 'Voltage taken as safe', shape: number(1, 'V') },
  ];
  protected readonly loadLines: readonly { readonly field: LoadField; readonly label: string; readonly shape: FieldShape }[] = [
    { field: 'massKg', label: 'Mass lifted', shape: number(1, 'kg') },
    { field: 'pullN', label: 'or pull', shape: number(1000, 'kN') },
    { field: 'factor', label: 'Load factor', shape: number(1, '×') },
    { field: 'legs', label: 'Legs that share it', shape: { kind: 'whole' } },
    { field: 'leanRad', label: 'Lean of each leg from the vertical', shape: number(DEGREE_RAD, '°') },
    { field: 'ratedN', label: 'Rating of each leg', shape: number(1000, 'kN') },
  ];
  protected readonly rigid = signal(true);
  protected readonly source = RIG_LOAD_SOURCE;
  protected readonly capacitor = signal<Readonly<Record<CapacitorField, number | null>>>({
    capacitanceF: 500e-6,
    voltageV: 400,
    resistanceOhm: 100_000,
    safeV: 60,
  });
  protected readonly load = signal<Readonly<Record<LoadField, number | null>>>({
    massKg: 320,
    pullN: null,
    factor: 2,
    legs: 4,
    leanRad: 30 * DEGREE_RAD,
    ratedN: 2000,
  });
  protected readonly discharge = computed(() => {
    const { capacitanceF, voltageV, resistanceOhm, safeV } = this.capacitor();
    if (!((capacitanceF ?? 0) > 0 && (voltageV ?? 0) > 0 && (resistanceOhm ?? 0) > 0 && (safeV ?? 0) > 0)) return null;
    const found = capacitorDischarge({ capacitanceF: capacitanceF!, voltageV: voltageV!, resistanceOhm: resistanceOhm!, safeV: safeV! });
    return {
      energy: `${threeDigits(found.energyJ)} J`,
      safe: `${fixed(safeV!, 0)} V`,
      wait: `${fixed(Math.ceil(found.timeToSafeS), 0)} s`,
      tau: `${threeDigits(found.timeConstantS)} s`,
    };
  });
  protected readonly result = computed(() => {
    const { massKg, pullN, factor, legs, leanRad, ratedN } = this.load();
    const both = massKg !== null && pullN !== null;
    const load = massKg ?? pullN ?? 0;
    if (
      both ||
      !(load > 0 && (factor ?? 0) >= 1 && (legs ?? 0) >= 1 && (leanRad ?? -1) >= 0 && (leanRad ?? 2) <= MOST_LEAN_RAD && (ratedN ?? 0) > 0)
    )
      return null;
    const found = rigLoad({
      ...{ massKg, pullN, factor: factor!, legs: legs!, leanRad: leanRad!, ratedN: ratedN!, isRigid: this.rigid() },
    });
    return {
      force: `${threeDigits(readAs(READ_IN.kN, found.perLegN))} ${unitWord('kN')}`,
      use: riskText(found.useFraction),
      bearing: fixed(found.bearing, 0),
      legs: fixed(legs!, 0),
      factor: fixed(factor!, 1),
      holds: found.holds,
    };
  });

  protected setCapacitor(field: CapacitorField, value: FieldValue): void {
    this.capacitor.update((all) => ({ ...all, [field]: value as number | null }));
  }

  protected setLoad(field: LoadField, value: FieldValue): void {
    this.load.update((all) => ({ ...all, [field]: value as number | null }));
  }
}
