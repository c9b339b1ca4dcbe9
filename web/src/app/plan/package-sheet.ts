import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { ActivatedRoute, Router } from '@angular/router';
import { counted, type FieldValue } from '@each-bolt/core/shared';
import { PLACES, PLACE_WORD, type PackageFields, type WorkPackage, fieldLines } from '@each-bolt/core/record';
import {
  HAZARDS,
  holdPointFault,
  hazardOps,
  numbered,
  printAfter,
  readAfter,
  removePackageOps,
  scopeExpectation,
  scopeOf,
  swapOps,
} from '@each-bolt/core/plan';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { EditField } from '../shared/edit-field';
import { FieldPipe } from '../shared/pipes';
import type { FieldChoice } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { Tick } from '../shared/tick';
import { PlanOrganisation } from './plan-organisation';
import { PlanScheduleService } from './plan-schedule-service';
import { RowEdits } from '../record/row-edits';

const ACTUALS = fieldLines('package', ['startedOn', 'doneOn', 'workedS', 'remainingS']);

/** One work package in full. */
@Component({
  selector: 'eb-package-sheet',
  imports: [EditField, FieldPipe, ButtonDirective, Tick],
  template: `<aside aria-label="Package">
    @let p = pack();
    <header>
      <h2>{{ number() }} · {{ p.name }}</h2>
      <button pButton severity="secondary" type="button" aria-label="Close the package" (click)="close()">
        <i class="pi pi-times" aria-hidden="true"></i>
      </button>
    </header>
    @if (left() !== '') {
      <p class="warn">{{ left() }}</p>
    }
    <dl class="facts">
      <dt>{{ 'package.name' | ebField }}</dt>
      <dd>
        <eb-edit-field
          of="package.name"
          [value]="p.name"
          [disabled]="!mayPlan()"
          [fault]="fault('name')"
          (committed)="edit('name', $event)"
        />
      </dd>
      <dt>{{ 'package.vehicleId' | ebField }}</dt>
      <dd>
        <eb-edit-field
          of="package.vehicleId"
          [options]="vehicles()"
          [value]="p.vehicleId ?? ''"
          [disabled]="!mayPlan()"
          (committed)="edit('vehicleId', $event)"
        />
      </dd>
      <dt>{{ 'package.subsystemId' | ebField }}</dt>
      <dd>
        <eb-edit-field
          of="package.subsystemId"
          [options]="subsystems()"
          [value]="p.subsystemId ?? ''"
          [disabled]="!mayPlan()"
          (committed)="edit('subsystemId', $event)"
        />
      </dd>
      <dt>Optimistic / most likely / pessimistic</dt>
      <dd>
        <eb-edit-field
          label="Optimistic, most likely and pessimistic hours"
          [shape]="{ kind: 'effort' }"
          [placeholder]="'2 / 3 / 6'"
          [value]="effort()"
          [disabled]="!mayPlan()"
          [fault]="fault('mostLikelyS')"
          (committed)="setEffort($event)"
        />
      </dd>
      <dt>{{ 'package.people' | ebField }}</dt>
      <dd>
        <eb-edit-field
          of="package.people"
          [value]="p.people"
          [disabled]="!mayPlan()"
          [fault]="fault('people')"
          (committed)="edit('people', $event ?? 0)"
        />
      </dd>
      <dt>{{ 'package.skill' | ebField }}</dt>
      <dd>
        <eb-edit-field
          of="package.skill"
          [options]="skills()"
          [value]="p.skill"
          [disabled]="!mayPlan()"
          (committed)="edit('skill', $event ?? '')"
        />
      </dd>
      <dt>By name</dt>
      <dd class="checks">
        @for (person of people(); track person.id) {
          <eb-tick [checked]="p.who.includes(person.id)" [disabled]="!mayPlan()" (checkedChange)="toggleWho(person.id, $event)">{{
            person.name
          }}</eb-tick>
        } @empty {
          <span class="soft">no people yet</span>
        }
        @if (fault('who') !== '') {
          <small role="alert">{{ fault('who') }}</small>
        }
      </dd>
      <dt>{{ 'package.place' | ebField }}</dt>
      <dd>
        <eb-edit-field of="package.place" [value]="p.place" [disabled]="!mayPlan()" (committed)="edit('place', $event)" />
      </dd>
      <dt>{{ 'package.rigId' | ebField }}</dt>
      <dd>
        <eb-edit-field
          of="package.rigId"
          [options]="rigs()"
          [value]="p.rigId ?? ''"
          [disabled]="!mayPlan()"
          (committed)="edit('rigId', $event)"
        />
      </dd>
      <dt>After numbers</dt>
      <dd>
        <eb-edit-field
          label="Numbers of the packages before"
          placeholder="3, 5"
          [value]="after()"
          [disabled]="!mayPlan()"
          [fault]="afterFault() || fault('after')"
          (committed)="setAfter($any($event) ?? '')"
        />
      </dd>
      <dt>{{ 'package.pinnedOn' | ebField }}</dt>
      <dd>
        <eb-edit-field
          of="package.pinnedOn"
          [value]="p.pinnedOn"
          [disabled]="!mayPlan()"
          [fault]="fault('pinnedOn')"
          (committed)="edit('pinnedOn', $event)"
        />
      </dd>
      <dt>{{ 'package.notBefore' | ebField }}</dt>
      <dd>
        <eb-edit-field of="package.notBefore" [value]="p.notBefore" [disabled]="!mayPlan()" (committed)="edit('notBefore', $event)" />
      </dd>
    </dl>
    <h3>What was done</h3>
    @if (recordedText() !== '') {
      <p class="soft small">{{ recordedText() }}</p>
    }
    <dl class="facts">
      @for (line of actuals; track line.field) {
        <dt>{{ line.label }}</dt>
        <dd>
          <eb-edit-field
            [of]="line.name"
            [value]="$any(p[line.field])"
            [disabled]="!mayRecord()"
            [fault]="fault(line.field)"
            (committed)="edit(line.field, $event)"
          />
        </dd>
      }
      <dt>{{ 'package.note' | ebField }}</dt>
      <dd>
        <eb-edit-field of="package.note" [value]="p.note" [disabled]="!mayRecord()" (committed)="edit('note', $event)" />
      </dd>
    </dl>
    <details [open]="p.hazards.length > 0">
      <summary>Hazards, {{ p.hazards.length === 0 ? 'none' : hazardText() }}</summary>
      <div class="checks">
        @for (hazard of hazards; track hazard.id) {
          <eb-tick [checked]="p.hazards.includes(hazard.id)" [disabled]="!mayPlan()" (checkedChange)="toggleHazard(hazard.id, $event)">{{
            hazard.name
          }}</eb-tick>
        }
      </div>
      <button pButton [text]="true" severity="secondary" type="button" class="link-button" (click)="toPrecautions()">
        {{ holdPointText() }}
      </button>
    </details>
    @if (mayPlan()) {
      <div class="acts">
        <button pButton severity="secondary" type="button" (click)="move(-1)">Up</button>
        <button pButton severity="secondary" type="button" (click)="move(1)">Down</button>
        <button pButton severity="secondary" type="button" (click)="remove()">Delete package</button>
      </div>
    }
  </aside>`,
  styles: `
    :host {
      display: block;
      min-height: 0;
      border-left: 1px solid var(--line);
      background: var(--sheet);
      overflow: auto;
    }
    aside {
      display: grid;
      gap: 10px;
      padding: 12px 14px 20px;
    }
    header {
      display: flex;
      gap: 8px;
      justify-content: space-between;
      align-items: start;
    }
    .checks {
      display: flex;
      flex-wrap: wrap;
      gap: 3px 12px;
      font-size: 13px;
    }
    .warn {
      padding: 6px 10px;
      border: 1px solid var(--amber-edge);
      background: var(--amber-tint);
      font-size: 13px;
    }
    .small {
      font-size: 12.5px;
    }
    small {
      color: var(--amber);
    }
    summary {
      font: 600 14px/1.6 var(--label);
      cursor: pointer;
    }
    details .link-button {
      margin-top: 8px;
      font-size: 13px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PackageSheet {
  readonly pack = input.required<WorkPackage>();

  private readonly open = inject(OpenStudy);
  private readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);
  private readonly organisation = inject(PlanOrganisation);
  private readonly schedules = inject(PlanScheduleService);
  private readonly router = inject(Router);
  private readonly route = inject(ActivatedRoute);

  protected readonly actuals = ACTUALS;
  protected readonly hazards = HAZARDS;
  protected readonly places: readonly FieldChoice[] = PLACES.map((value) => ({ value, word: PLACE_WORD[value] }));
  protected readonly mayPlan = computed(() => this.service.can()('package.add'));
  protected readonly mayRecord = computed(() => this.service.can()('package.edit'));
  protected readonly afterFault = signal('');
  protected readonly number = computed(() => numbered(this.open.record().packages).findIndex((p) => p.id === this.pack().id) + 1);
  protected readonly after = computed(() => printAfter(this.pack(), this.open.record().packages));
  protected readonly left = computed(() => this.schedules.schedule()?.leftOut.find((l) => l.packageId === this.pack().id)?.why ?? '');
  protected readonly effort = computed(() => {
    const { optimisticS, mostLikelyS, pessimisticS } = this.pack();
    return optimisticS === null || mostLikelyS === null || pessimisticS === null ? null : { optimisticS, mostLikelyS, pessimisticS };
  });
  protected readonly vehicles = computed(() => named('none in particular', this.open.record().vehicles));
  protected readonly subsystems = computed(() => named('none in particular', this.open.record().subsystems));
  protected readonly rigs = computed(() => named('none', this.open.record().rigs));
  protected readonly people = computed(() => this.open.record().resources.filter((r) => r.kind === 'person'));
  protected readonly skills = computed<readonly FieldChoice[]>(() => {
    const known = new Set([...this.people().flatMap((p) => p.skills), ...(this.pack().skill === '' ? [] : [this.pack().skill])]);
    return [{ value: '', word: 'anybody' }, ...[...known].sort().map((word) => ({ value: word, word }))];
  });
  protected readonly hazardText = computed(() => counted(this.pack().hazards.length, 'hazard'));
  protected readonly holdPointText = computed(() => {
    const holdPoints = this.open.record().holdPoints.filter((g) => g.packageId === this.pack().id);
    const open = holdPoints.filter((g) => holdPointFault(g) !== null).length;
    return holdPoints.length === 0 ? 'Cautions and hold points' : `Cautions, and ${counted(holdPoints.length, 'hold point')}, ${open} open`;
  });
  /** how far the bench is with the subsystem of this package */
  protected readonly recordedText = computed(() => {
    const { vehicleId, subsystemId } = this.pack();
    const subsystem = this.open.record().subsystems.find((s) => s.id === subsystemId);
    if (vehicleId === null || subsystemId === null || !subsystem) return '';
    const recorded = this.open.looseParts(vehicleId, subsystemId);
    const scope = scopeOf(this.open.record(), vehicleId).get(subsystemId);
    const expected = scope ? scopeExpectation(subsystem.name, scope, this.organisation.organisation().experience).parts : null;
    return `The bench has recorded ${counted(recorded, 'part')} of ${subsystem.name}${expected === null ? '' : ` of about ${expected} expected`}.`;
  });

  protected fault(field: string): string {
    return this.edits.faultOf(this.pack().id, field);
  }

  protected edit(field: keyof PackageFields, value: FieldValue): void {
    void this.edits.edit('package', this.pack(), { [field]: value });
  }

  protected setEffort(value: FieldValue): void {
    const none = { optimisticS: null, mostLikelyS: null, pessimisticS: null };
    void this.edits.edit('package', this.pack(), value === null ? none : (value as unknown as PackageFields));
  }

  protected setAfter(text: string): void {
    const read = readAfter(text, this.pack(), this.open.record().packages);
    this.afterFault.set(read.ok ? '' : read.message);
    if (read.ok) void this.edits.edit('package', this.pack(), { after: read.after });
  }

  protected toggleWho(id: string, on: boolean): void {
    const who = on ? [...this.pack().who, id] : this.pack().who.filter((w) => w !== id);
    // a crew is never smaller than those who are named for it
    void this.edits.edit('package', this.pack(), { who, people: Math.max(this.pack().people, who.length) });
  }

  protected toggleHazard(id: string, on: boolean): void {
    const hazards = on ? [...this.pack().hazards, id] : this.pack().hazards.filter((h) => h !== id);
    void this.edits.send(hazardOps(this.open.record(), this.pack(), hazards, () => crypto.randomUUID()));
  }

  protected move(by: -1 | 1): void {
    void this.edits.send(swapOps(this.open.record().packages, this.pack(), by));
  }

  protected async remove(): Promise<void> {
    const ops = removePackageOps(this.open.record(), this.pack());
    this.close();
    await this.edits.send(ops);
  }

  protected close(): void {
    void this.router.navigate([], { relativeTo: this.route, queryParams: { package: null }, queryParamsHandling: 'merge' });
  }

  protected toPrecautions(): void {
    void this.router.navigate(['../precautions'], { relativeTo: this.route, queryParamsHandling: 'preserve' });
  }
}

const named = (none: string, rows: readonly { readonly id: string; readonly name: string }[]): readonly FieldChoice[] => [
  { value: '', word: none },
  ...rows.map(({ id, name }) => ({ value: id, word: name })),
];
