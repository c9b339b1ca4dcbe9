import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { dayText, isDay, unitShape, type FieldShape, type FieldValue, READ_IN } from '@each-bolt/core/shared';
import {
  type DaysOff,
  type Resource,
  type ResourceFields,
  type ResourceKind,
  type WorkCalendar,
  nextSequence,
} from '@each-bolt/core/record';
import { clockText, readClock, workingCalendar } from '@each-bolt/core/plan';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { EditField } from '../shared/edit-field';
import type { FieldChoice } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { IconButton } from '../shared/icon-button';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { DayField } from '../shared/day-field';
import { Tick } from '../shared/tick';
import { RefusalNote } from '../shared/refusal-note';
import { PlanScheduleService } from './plan-schedule-service';
import { RowEdits } from '../record/row-edits';

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const KINDS: readonly { readonly kind: ResourceKind; readonly heading: string; readonly add: string; readonly name: string }[] = [
  { kind: 'person', heading: 'People', add: 'Add a person', name: 'Somebody' },
  { kind: 'bay', heading: 'Bays', add: 'Add a bay', name: 'Bay' },
  { kind: 'lift', heading: 'Lifts', add: 'Add a lift', name: 'Lift' },
];

/** Who and what there is to do the work, and when the workshop works. */
@Component({
  selector: 'eb-people-view',
  imports: [EditField, RefusalNote, ButtonDirective, InputText, Tick, DayField, DataTable, TableHead, TableRow, IconButton],
  template: `<div class="sheet scroll">
    <h1>People, places and working time</h1>
    @for (issue of axisIssues(); track issue.code) {
      <eb-refusal [message]="issue.message" />
    }
    <section aria-label="Working calendar" class="calendar">
      <dl class="facts">
        <dt>First day of the plan</dt>
        <dd>
          <eb-edit-field
            label="First day of the plan"
            [shape]="{ kind: 'date' }"
            [value]="calendar().startsOn"
            [disabled]="!mayPlan()"
            (committed)="set({ startsOn: $any($event) })"
          />
        </dd>
        <dt>Working days</dt>
        <dd class="days">
          @for (day of weekdays; track day; let i = $index) {
            <eb-tick [checked]="calendar().weekdays.includes(i + 1)" [disabled]="!mayPlan()" (checkedChange)="toggle(i + 1, $event)">{{
              day
            }}</eb-tick>
          }
        </dd>
        <dt>The day begins at</dt>
        <dd>
          <input
            pInputText
            type="text"
            class="clock"
            inputmode="numeric"
            placeholder="08:00"
            aria-label="The day begins at"
            [value]="opens()"
            [disabled]="!mayPlan()"
            [attr.aria-invalid]="opensFault() !== ''"
            (change)="setOpens($any($event.target).value)"
          />
          @if (opensFault() !== '') {
            <small role="alert">{{ opensFault() }}</small>
          }
        </dd>
        <dt>Working time a day, breaks left out</dt>
        <dd>
          <eb-edit-field
            label="Working time a day"
            [shape]="dayShape"
            [value]="calendar().dayMin"
            [disabled]="!mayPlan()"
            [fault]="edits.faultOf(open.study().id, 'calendar')"
            (committed)="set({ dayMin: $any($event) ?? 480 })"
          />
        </dd>
      </dl>
      <div>
        <h3>Company holidays</h3>
        <ul class="off">
          @for (off of calendar().daysOff; track $index; let i = $index) {
            <li>
              <span>{{ span(off) }}</span> <span class="soft">{{ off.why }}</span>
              @if (mayPlan()) {
                <eb-icon-button [label]="'Work again ' + span(off)" (acted)="dropOff(i)" />
              }
            </li>
          } @empty {
            <li class="soft">none</li>
          }
        </ul>
        @if (mayPlan()) {
          <form (submit)="addOff($event, from, to, why)">
            <eb-day-field #from label="Day off from" />
            <eb-day-field #to label="Day off to" />
            <input pInputText #why aria-label="Why" placeholder="why" autocomplete="off" />
            <button pButton severity="secondary" type="submit">Add</button>
          </form>
          @if (offFault() !== '') {
            <small role="alert">{{ offFault() }}</small>
          }
        }
      </div>
    </section>
    @for (group of kinds; track group.kind) {
      <section [attr.aria-label]="group.heading">
        <div class="sheet-head">
          <h2>{{ group.heading }}</h2>
          @if (mayPlan()) {
            <button pButton severity="secondary" type="button" (click)="add(group.kind, group.name)">{{ group.add }}</button>
          }
        </div>
        @if (of(group.kind).length > 0) {
          <eb-table
            ><ng-template ebHead>
              <tr>
                <th scope="col">Name</th>
                @if (group.kind === 'person') {
                  <th scope="col">Account</th>
                  <th scope="col">Skills, separated by commas</th>
                }
                @if (group.kind === 'lift') {
                  <th scope="col">Rated load</th>
                }
                <th scope="col">Away</th>
                <th scope="col">Note</th>
                <th scope="col" class="right">Packages ahead</th>
                <th></th>
              </tr> </ng-template
            ><ng-template [ebRow]="of(group.kind)" track="id" let-row>
              <tr>
                <td>
                  <eb-edit-field
                    of="resource.name"
                    [value]="row.name"
                    [disabled]="!mayPlan()"
                    [fault]="edits.faultOf(row.id, 'name')"
                    (committed)="edit(row, 'name', $event)"
                  />
                </td>
                @if (group.kind === 'person') {
                  <td>
                    <eb-edit-field
                      of="resource.personId"
                      [whose]="row.name"
                      [options]="accounts()"
                      [value]="row.personId ?? ''"
                      [disabled]="!mayPlan()"
                      (committed)="edit(row, 'personId', $event)"
                    />
                  </td>
                  <td class="wide">
                    <eb-edit-field
                      of="resource.skills"
                      [whose]="row.name"
                      [value]="row.skills"
                      [disabled]="!mayPlan()"
                      [fault]="edits.faultOf(row.id, 'skills')"
                      (committed)="edit(row, 'skills', $event)"
                    />
                  </td>
                }
                @if (group.kind === 'lift') {
                  <td>
                    <eb-edit-field
                      of="resource.ratedKg"
                      [whose]="row.name"
                      [value]="row.ratedKg"
                      [disabled]="!mayPlan()"
                      [fault]="edits.faultOf(row.id, 'ratedKg')"
                      (committed)="edit(row, 'ratedKg', $event)"
                    />
                  </td>
                }
                <td>
                  <eb-edit-field
                    [label]="'Days when ' + row.name + ' is away'"
                    placeholder="2026-06-03 to 2026-06-05"
                    [value]="awayText(row)"
                    [disabled]="!mayPlan()"
                    [fault]="awayFault().get(row.id) ?? ''"
                    (committed)="setAway(row, $any($event))"
                  />
                </td>
                <td>
                  <eb-edit-field
                    of="resource.note"
                    [whose]="row.name"
                    [value]="row.note"
                    [disabled]="!mayPlan()"
                    (committed)="edit(row, 'note', $event)"
                  />
                </td>
                <td class="right figure">{{ ahead().get(row.id) ?? 0 }}</td>
                <td>
                  @if (mayPlan()) {
                    <eb-icon-button [label]="'Take ' + row.name + ' off the plan'" (acted)="remove(row)" />
                  }
                </td>
              </tr> </ng-template
          ></eb-table>
        } @else {
          <p class="soft">None yet.</p>
        }
      </section>
    }
    <p class="soft">The schedule gives packages to whoever can do them and is free; name somebody on a package to have it done by them.</p>
  </div>`,
  styles: `
    .clock {
      width: 76px;
    }
    .calendar {
      display: grid;
      grid-template-columns: minmax(360px, 1fr) minmax(300px, 1fr);
      gap: 28px;
    }
    .days {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
    }
    .days label {
      font-size: 13.5px;
      white-space: nowrap;
    }
    .off {
      list-style: none;
      margin: 4px 0;
      padding: 0;
      display: grid;
      gap: 4px;
      font-size: 13.5px;
    }
    .off li {
      display: flex;
      gap: 10px;
      align-items: center;
    }
    small[role='alert'] {
      display: block;
      color: var(--amber);
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
    }
    .wide {
      min-width: 200px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PeopleView {
  protected readonly open = inject(OpenStudy);
  protected readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);
  private readonly schedules = inject(PlanScheduleService);

  protected readonly kinds = KINDS;
  protected readonly weekdays = WEEKDAYS;
  protected readonly dayShape: FieldShape = { kind: 'number', per: 60, unit: 'h', digits: 2 };
  protected readonly kgShape: FieldShape = { kind: 'number', per: 1, unit: 'kg', digits: 0 };
  protected readonly hours = unitShape(READ_IN.h);
  protected readonly mayPlan = computed(() => this.service.can()('resource.edit'));
  protected readonly calendar = computed(() => this.open.study().calendar);
  protected readonly axisIssues = computed(() => workingCalendar(this.calendar()).issues);
  protected readonly awayFault = signal<ReadonlyMap<string, string>>(new Map());
  protected readonly opensFault = signal('');
  protected readonly offFault = signal('');
  protected readonly opens = computed(() => clockText(this.calendar().opensMin));
  protected readonly accounts = computed<readonly FieldChoice[]>(() => {
    const nameOf = new Map(this.service.people().map((p) => [p.id, p.name]));
    return [
      { value: '', word: 'none' },
      ...this.open.record().members.map((m) => ({ value: m.personId, word: nameOf.get(m.personId) ?? '' })),
    ];
  });
  /** packages still to be done that the schedule gives to each */
  protected readonly ahead = computed(() => {
    const counts = new Map<string, number>();
    for (const { state, holds } of this.schedules.schedule()?.packages ?? [])
      if (state !== 'done') for (const id of holds) counts.set(id, (counts.get(id) ?? 0) + 1);
    return counts;
  });

  protected of(kind: ResourceKind): readonly Resource[] {
    return this.open
      .record()
      .resources.filter((r) => r.kind === kind)
      .sort((a, b) => a.sequence - b.sequence);
  }

  protected span(off: DaysOff): string {
    return off.from === off.to
      ? `${dayText(off.from)} ${off.from.slice(0, 4)}`
      : `${dayText(off.from)} to ${dayText(off.to)} ${off.to.slice(0, 4)}`;
  }

  protected set(fields: Partial<WorkCalendar>): void {
    void this.edits.edit('study', this.open.study(), { calendar: { ...this.calendar(), ...fields } });
  }

  protected toggle(day: number, on: boolean): void {
    const rest = this.calendar().weekdays.filter((d) => d !== day);
    this.set({ weekdays: on ? [...rest, day].sort((a, b) => a - b) : rest });
  }

  protected setOpens(time: string): void {
    const opensMin = readClock(time);
    this.opensFault.set(opensMin === null ? 'Write the hour as 08:00, from 00:00 to 23:59' : '');
    if (opensMin !== null) this.set({ opensMin });
  }

  protected addOff(event: Event, from: DayField, to: DayField, why: HTMLInputElement): void {
    event.preventDefault();
    const off = { from: from.value(), to: to.value() === '' ? from.value() : to.value(), why: why.value.trim() };
    const bad = [off.from, off.to].find((day) => !isDay(day));
    this.offFault.set(
      bad !== undefined
        ? bad === ''
          ? 'Say the first day off'
          : `“${bad}” is no day of the calendar; write it as 2026-06-03`
        : off.to < off.from
          ? `The last day off, ${off.to}, is before the first, ${off.from}`
          : '',
    );
    if (this.offFault() !== '') return;
    this.set({ daysOff: [...this.calendar().daysOff, off].sort((a, b) => (a.from < b.from ? -1 : 1)) });
    for (const field of [from, to]) field.value.set('');
    why.value = '';
  }

  protected dropOff(at: number): void {
    this.set({ daysOff: this.calendar().daysOff.filter((_, i) => i !== at) });
  }

  protected edit(row: Resource, field: keyof ResourceFields, value: FieldValue): void {
    void this.edits.edit('resource', row, { [field]: value });
  }

  protected awayText(row: Resource): string {
    return row.daysOff.map((off) => (off.from === off.to ? off.from : `${off.from} to ${off.to}`)).join(', ');
  }

  protected setAway(row: Resource, text: string): void {
    const parts = text
      .split(',')
      .map((part) => part.trim())
      .filter((text) => text !== '');
    const read = parts.map((part) => /^(\d{4}-\d{2}-\d{2})(?:\s*(?:to|–|\.\.)\s*(\d{4}-\d{2}-\d{2}))?$/.exec(part));
    const isSpan = (match: RegExpExecArray | null | undefined): boolean =>
      match !== null && match !== undefined && [match[1]!, match[2] ?? match[1]!].every(isDay) && match[1]! <= (match[2] ?? match[1]!);
    const wrong = parts.find((_, i) => !isSpan(read[i]));
    this.awayFault.set(
      wrong === undefined
        ? new Map()
        : new Map([
            [row.id, `“${wrong}” is not a day of the calendar, or a span from the earlier to the later; write 2026-06-03 to 2026-06-05`],
          ]),
    );
    if (wrong !== undefined) return;
    const daysOff = read.map((match) => ({ from: match![1]!, to: match![2] ?? match![1]!, why: '' }));
    void this.edits.edit('resource', row, { daysOff });
  }

  protected add(kind: ResourceKind, name: string): void {
    const all = this.open.record().resources;
    const sequence = nextSequence(all);
    const fields = {
      sequence,
      kind,
      name: `${name} ${this.of(kind).length + 1}`,
      personId: null,
      skills: [],
      daysOff: [],
      ratedKg: null,
      note: '',
    };
    void this.edits.add('resource', fields);
  }

  protected remove(row: Resource): void {
    void this.edits.remove('resource', row);
  }
}
