import { ChangeDetectionStrategy, Component, DestroyRef, computed, inject, input, output, signal } from '@angular/core';
import { FormBuilder, ReactiveFormsModule } from '@angular/forms';
import { check, type Issue } from '@each-bolt/core/shared';
import {
  blank,
  ROLES,
  schemaOf,
  SHIPPED_SUBSYSTEMS,
  VEHICLE_ROLES,
  USUAL_STUDY,
  VEHICLE_ROLE_WORD,
  newStudyOps,
  type Op,
  type Role,
  type StudyFields,
  type VehicleRole,
} from '@each-bolt/core/record';
import { InputText } from 'primeng/inputtext';
import { Textarea } from 'primeng/textarea';
import type { Person } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { Tick } from '../shared/tick';
import { Choose, ChoicesPipe } from '../shared/choose';
import { Unsaved } from './unsaved';

interface VehicleLine {
  readonly name: string;
  readonly role: VehicleRole;
}

const STEPS = ['What it asks', 'What figures stand on', 'Vehicles', 'People'] as const;
const STEP_OF: Readonly<Record<string, number>> = { title: 0, questions: 0 };

/** Begins a study in four short steps: its questions, its bases, its vehicles, its people. Each can be changed later. */
@Component({
  selector: 'eb-new-study',
  imports: [InputText, ReactiveFormsModule, Textarea, ButtonDirective, Choose, ChoicesPipe, Tick],
  template: `<form [formGroup]="form" (ngSubmit)="next()">
    <ol class="steps">
      @for (name of steps; track name; let i = $index) {
        <li [class.on]="i === step()" [attr.aria-current]="i === step() ? 'step' : null">
          <button pButton [text]="true" severity="secondary" type="button" (click)="go(i)">{{ i + 1 }} {{ name }}</button>
        </li>
      }
    </ol>
    @switch (step()) {
      @case (0) {
        <label for="title">Title</label>
        <input id="title" pInputText formControlName="title" autocomplete="off" [attr.aria-invalid]="faultOf('title') !== ''" />
        <small role="alert">{{ faultOf('title') }}</small>
        <label for="questions">Questions it must answer</label>
        <textarea id="questions" pTextarea rows="3" formControlName="questions"></textarea>
        <small role="alert">{{ faultOf('questions') }}</small>
      }
      @case (1) {
        <div class="grid">
          @for (field of basis; track field.name) {
            <label>
              <span>{{ field.label }}</span>
              <input pInputText [formControlName]="field.name" autocomplete="off" [attr.aria-invalid]="faultOf(field.name) !== ''" />
              <small role="alert">{{ faultOf(field.name) }}</small>
            </label>
          }
        </div>
        <p class="label">Counting rule, switched at any time</p>
        <eb-tick formControlName="fastenersIn">fasteners count with the parts</eb-tick>
        <eb-tick formControlName="openedAsParts">an opened assembly counts as its loose parts</eb-tick>
      }
      @case (2) {
        <p class="soft">The subsystem tree with {{ subsystems }} neutral names comes along; rename, add and remove as needed.</p>
        @for (vehicle of vehicles(); track $index; let i = $index) {
          <div class="line">
            <b>{{ vehicle.name }}</b> <span class="soft">{{ roleWord[vehicle.role] }}</span>
            <button pButton severity="secondary" type="button" (click)="dropVehicle(i)">Remove</button>
          </div>
        }
        <div class="line">
          <input
            #vehicleName
            pInputText
            placeholder="name of a vehicle"
            aria-label="Name of a vehicle"
            autocomplete="off"
            formControlName="vehicleName"
            (keydown.enter)="addVehicle($event, vehicleName)"
          />
          <eb-choose label="Its role in the study" formControlName="vehicleRole" [options]="vehicleRoles" />
          <button pButton severity="secondary" type="button" (click)="addVehicle($event, vehicleName)">Add the vehicle</button>
        </div>
      }
      @default {
        <p class="soft">You lead the study. Others see it once they are added, here or later.</p>
        @for (person of others(); track person.id) {
          <div class="line">
            <span>{{ person.name }}</span>
            <eb-choose
              [label]="'Role of ' + person.name"
              (valueChange)="setRole(person.id, $any($event))"
              [value]="roleOf(person.id) ?? ''"
              [options]="roles | ebChoices: undefined : undefined : 'not in it'"
            />
          </div>
        } @empty {
          <p>Nobody else has an account yet.</p>
        }
      }
    }
    <div class="buttons">
      <button pButton severity="secondary" type="button" (click)="cancelled.emit()">Cancel</button>
      @if (step() > 0) {
        <button pButton severity="secondary" type="button" (click)="go(step() - 1)">Back</button>
      }
      @if (step() < steps.length - 1) {
        <button pButton severity="secondary" type="button" (click)="begin()">Begin now</button>
        <button pButton type="submit">Next: {{ steps[step() + 1] }}</button>
      } @else {
        <button pButton type="submit">Begin the study</button>
      }
    </div>
  </form>`,
  styles: `
    form {
      display: grid;
      gap: 6px;
      padding: 14px 16px;
      background: var(--sheet);
      border: 1px solid var(--line);
      border-top: 3px solid var(--dye);
    }
    .steps {
      display: flex;
      gap: 18px;
      list-style: none;
      margin: 0 0 8px;
      padding: 0;
    }
    .steps button {
      border: 0;
      border-bottom: 2px solid transparent;
      background: none;
      padding: 4px 0;
      font: 500 13.5px/1.3 var(--label);
      color: var(--soft);
      cursor: pointer;
    }
    .steps .on button {
      color: var(--ink);
      border-bottom-color: var(--dye);
    }
    .grid {
      display: grid;
      grid-template-columns: repeat(3, 1fr);
      gap: 4px 16px;
    }
    .grid label {
      display: grid;
      gap: 3px;
    }
    label,
    label span {
      font: 500 13px/1.3 var(--label);
      color: var(--soft);
    }
    .tick {
      color: var(--ink);
    }
    .line {
      display: flex;
      gap: 12px;
      align-items: center;
      min-height: 36px;
    }
    .line > :first-child {
      min-width: 220px;
    }
    select {
      height: 36px;
      border: 1px solid var(--line);
      border-radius: 2px;
      background: var(--sheet);
      color: var(--ink);
      padding: 0 6px;
    }
    small {
      color: var(--amber);
      min-height: 1em;
    }
    .buttons {
      display: flex;
      justify-content: flex-end;
      gap: 8px;
      margin-top: 6px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewStudy {
  readonly me = input.required<Person>();
  readonly people = input.required<readonly Person[]>();
  readonly begun = output<{ readonly id: string; readonly ops: readonly Op[] }>();
  readonly cancelled = output();

  protected readonly steps = STEPS;
  protected readonly roles = ROLES;
  protected readonly vehicleRoles = VEHICLE_ROLES.map((value) => ({ value, word: VEHICLE_ROLE_WORD[value] }));
  protected readonly roleWord = VEHICLE_ROLE_WORD;
  protected readonly subsystems = SHIPPED_SUBSYSTEMS.length;
  protected readonly basis = [
    { name: 'currency', label: 'Currency' },
    { name: 'priceYear', label: 'Price year' },
    { name: 'region', label: 'Region' },
    { name: 'volumePerYear', label: 'Vehicles per year' },
    { name: 'productionYears', label: 'Years in production' },
  ];
  protected readonly form = inject(FormBuilder).nonNullable.group({
    title: '',
    questions: '',
    currency: 'EUR',
    priceYear: String(new Date().getFullYear()),
    region: 'Central Europe',
    volumePerYear: '60000',
    productionYears: '7',
    fastenersIn: true,
    openedAsParts: true,
    // the vehicle that is being typed
    vehicleName: '',
    vehicleRole: VEHICLE_ROLES[0],
  });
  protected readonly step = signal(0);
  protected readonly vehicles = signal<readonly VehicleLine[]>([]);
  private readonly memberRoles = signal<ReadonlyMap<string, Role>>(new Map());
  private readonly issues = signal<readonly Issue[]>([]);
  private begunId = '';
  protected readonly others = computed(() => this.people().filter((p) => p.id !== this.me().id));

  constructor() {
    const release = inject(Unsaved).hold({
      what: () => (this.form.dirty || this.vehicles().length > 0 || this.memberRoles().size > 0 ? 'a new study' : ''),
      stays: ({ url }) => this.begunId !== '' && url.startsWith(`/studies/${this.begunId}`),
    });
    inject(DestroyRef).onDestroy(release);
  }

  protected faultOf(field: string): string {
    return this.issues().find((issue) => issue.field === field)?.message ?? '';
  }

  protected roleOf(personId: string): Role | undefined {
    return this.memberRoles().get(personId);
  }

  protected setRole(personId: string, role: Role | ''): void {
    this.memberRoles.update((roles) => {
      const next = new Map(roles);
      if (role === '') next.delete(personId);
      else next.set(personId, role);
      return next;
    });
  }

  protected addVehicle(event: Event, name: HTMLInputElement): void {
    event.preventDefault();
    this.takeTyped();
    name.focus();
  }

  /** A vehicle that was typed is one of the study, whichever button is pressed next. */
  private takeTyped(): void {
    const { vehicleName, vehicleRole } = this.form.getRawValue();
    if (vehicleName.trim() === '') return;
    this.vehicles.update((all) => [...all, { name: vehicleName.trim(), role: vehicleRole }]);
    this.form.patchValue({ vehicleName: '' });
  }

  protected dropVehicle(at: number): void {
    this.vehicles.update((all) => all.filter((_, i) => i !== at));
  }

  /** Goes on when the steps passed over have no fault. */
  protected go(to: number): void {
    this.takeTyped();
    const faults = this.checked().issues.filter((issue) => (STEP_OF[issue.field ?? ''] ?? 1) < to);
    this.issues.set(faults);
    this.step.set(faults.length > 0 ? (STEP_OF[faults[0]?.field ?? ''] ?? 1) : to);
  }

  protected next(): void {
    if (this.step() < STEPS.length - 1) this.go(this.step() + 1);
    else this.begin();
  }

  protected begin(): void {
    this.takeTyped();
    const { fields, issues } = this.checked();
    this.issues.set(issues);
    if (!fields) {
      this.step.set(STEP_OF[issues[0]?.field ?? ''] ?? 1);
      return;
    }
    const id = crypto.randomUUID();
    const newId = (): string => crypto.randomUUID();
    const vehicles = this.vehicles().map(({ name, role }, sequence): Op => ({
      kind: 'vehicle.add',
      id: newId(),
      fields: blank('vehicle', { name, role, sequence }),
    }));
    const members = [...this.memberRoles()].map(([personId, role]): Op => ({
      kind: 'member.add',
      id: newId(),
      fields: { personId, role },
    }));
    this.begunId = id;
    this.begun.emit({ id, ops: [...newStudyOps(id, fields, this.me().id, newId), ...members, ...vehicles] });
  }

  private checked(): { readonly fields: StudyFields | null; readonly issues: readonly Issue[] } {
    const { title, questions, currency, priceYear, region, volumePerYear, productionYears, fastenersIn, openedAsParts } =
      this.form.getRawValue();
    const number = (text: string): number => (/^\d+$/.test(text.trim()) ? Number(text) : Number.NaN);
    const checked = check(schemaOf('study'), {
      title: title.trim(),
      questions: questions.trim(),
      lead: this.me().name,
      currency: currency.trim(),
      priceYear: number(priceYear),
      region: region.trim(),
      volumePerYear: number(volumePerYear),
      productionYears: number(productionYears),
      fastenersIn,
      assembliesAs: openedAsParts ? 'parts' : 'one',
      ...USUAL_STUDY,
    });
    return checked.ok ? { fields: checked.value, issues: [] } : { fields: null, issues: checked.issues };
  }
}
