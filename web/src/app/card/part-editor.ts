import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FormBuilder, ReactiveFormsModule } from '@angular/forms';
import { EVIDENCE_MARKS, EVIDENCE_WORD, MATERIALS, PROCESSES, type Issue, unitWord, unitsShown } from '@each-bolt/core/shared';
import { HANDS, HAND_WORD, PART_STATES, editTo, type Op, type Part, type Study } from '@each-bolt/core/record';
import { partForm, partFromForm, rebasedForm, type PartForm } from '@each-bolt/core/bench';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { Textarea } from 'primeng/textarea';
import { ButtonDirective } from 'primeng/button';
import { Unsaved } from '../record/unsaved';

/** What became of an edit that was not kept: the part as it is now, when somebody changed it, and what is wrong, by field. */
export interface RefusedEdit {
  readonly now: Part | null;
  readonly issues: readonly Issue[];
}

interface FormField {
  readonly name: keyof PartForm;
  readonly label: string;
  readonly as: 'text' | 'lines' | 'choice';
  readonly hint?: string;
  readonly half?: boolean;
  readonly options?: readonly { readonly label: string; readonly value: string }[];
}

const options = (entries: readonly { readonly id: string; readonly name: string }[]): FormField['options'] =>
  entries.map(({ id, name }) => ({ value: id, label: name }));

const isMetric = unitsShown() === 'metric';
const GROUPS: readonly { readonly title: string; readonly fields: readonly FormField[] }[] = [
  {
    title: 'What it is',
    fields: [
      { name: 'name', label: 'Name', as: 'text' },
      { name: 'tag', label: 'Tag', as: 'text', half: true },
      { name: 'quantity', label: 'Quantity per parent', as: 'text', half: true },
      { name: 'function', label: 'Function', as: 'text' },
      { name: 'hand', label: 'Hand', as: 'choice', options: HANDS.map((value) => ({ value, label: HAND_WORD[value] })) },
    ],
  },
  {
    title: 'What it is made of',
    fields: [
      { name: 'materialId', label: 'Material', as: 'choice', options: options(MATERIALS) },
      { name: 'materialDetail', label: 'Exact grade as marked', as: 'text' },
      { name: 'processId', label: 'Made by', as: 'choice', options: options(PROCESSES) },
      { name: 'processDetail', label: 'Process detail', as: 'text' },
      { name: 'markings', label: 'Markings', as: 'text' },
    ],
  },
  {
    title: 'Figures',
    fields: [
      {
        name: 'mass',
        label: 'Mass each, with unit',
        as: 'text',
        half: true,
        hint: isMetric ? '41 g, ~1.2 kg, 41 g ±2 g' : '1.4 oz, ~2.6 lb, 1.4 oz ±0.1 oz',
      },
      {
        name: 'massEvidence',
        label: 'Evidence',
        as: 'choice',
        half: true,
        options: EVIDENCE_MARKS.map((mark) => ({ value: mark, label: `${mark}  ${EVIDENCE_WORD[mark]}` })),
      },
      { name: 'envelope', label: `Envelope, ${unitWord('mm')}`, as: 'text', half: true, hint: isMetric ? '620x410x35' : '24.4x16.1x1.4' },
      { name: 'thickness', label: `Wall thickness, ${unitWord('mm')}`, as: 'text', half: true },
      { name: 'runLength', label: 'Run length, with unit', as: 'text', half: true, hint: isMetric ? '640 mm' : '25.2 in' },
      { name: 'runDiameter', label: `Run diameter, ${unitWord('mm')}`, as: 'text', half: true, hint: isMetric ? '19' : '0.75' },
      { name: 'location', label: 'Location', as: 'text', half: true },
      { name: 'place', label: 'Centre of mass on the vehicle: x y z, mm', as: 'text', hint: '1450 -420 600' },
    ],
  },
  {
    title: 'Where it comes from',
    fields: [
      { name: 'supplier', label: 'Supplier', as: 'text' },
      { name: 'price', label: 'Bought-out price each', as: 'text', half: true, hint: '4.20' },
      { name: 'priceCurrency', label: 'Currency', as: 'text', half: true },
      { name: 'priceYear', label: 'Price year', as: 'text', half: true },
      { name: 'priceVolume', label: 'Vehicles per year', as: 'text', half: true },
      { name: 'priceRegion', label: 'Region of the price', as: 'text' },
    ],
  },
  {
    title: 'Condition',
    fields: [
      {
        name: 'state',
        label: 'State',
        as: 'choice',
        options: PART_STATES.map((value) => ({ value, label: value })),
      },
      {
        name: 'opened',
        label: 'Opened',
        as: 'choice',
        options: [
          { value: 'opened', label: 'opened' },
          { value: 'closed', label: 'left closed' },
        ],
      },
      { name: 'closedReason', label: 'Reason left closed', as: 'text' },
      { name: 'damage', label: 'Damage done', as: 'text' },
      { name: 'notes', label: 'Notes', as: 'lines' },
    ],
  },
];

const CLEARABLE: readonly (keyof PartForm)[] = ['materialId', 'processId', 'massEvidence', 'state', 'opened'];

/** Every field of a part in one form; faults stand at their field, and only what changed is sent. */
@Component({
  selector: 'eb-part-editor',
  imports: [InputText, ReactiveFormsModule, Select, Textarea, ButtonDirective],
  template: `<form [formGroup]="form" (ngSubmit)="save()" (keydown)="onKey($event)">
    @for (group of groups; track group.title) {
      <fieldset>
        <legend>{{ group.title }}</legend>
        @for (field of group.fields; track field.name) {
          <div class="field" [class.half]="field.half">
            <label [for]="'edit-' + field.name" [id]="'label-' + field.name">{{ field.label }}</label>
            @switch (field.as) {
              @case ('choice') {
                <p-select
                  [inputId]="'edit-' + field.name"
                  [ariaLabelledBy]="'label-' + field.name"
                  [formControlName]="field.name"
                  [options]="asMutable(field.options)"
                  optionLabel="label"
                  optionValue="value"
                  [filter]="(field.options?.length ?? 0) > 10"
                  [showClear]="clearable(field.name)"
                  placeholder="–"
                  appendTo="body"
                  size="small"
                />
              }
              @case ('lines') {
                <textarea [id]="'edit-' + field.name" pTextarea rows="3" [formControlName]="field.name"></textarea>
              }
              @default {
                <input
                  [id]="'edit-' + field.name"
                  pInputText
                  pSize="small"
                  autocomplete="off"
                  [formControlName]="field.name"
                  [placeholder]="field.hint ?? ''"
                  [attr.aria-invalid]="faultOf(field.name) !== ''"
                  [attr.aria-describedby]="faultOf(field.name) === '' ? null : 'fault-' + field.name"
                />
              }
            }
            @if (faultOf(field.name); as fault) {
              <small class="fault" [id]="'fault-' + field.name" role="alert">{{ fault }}</small>
            }
          </div>
        }
      </fieldset>
    }
    @if (otherFaults().length > 0) {
      <ul class="fault" role="alert">
        @for (fault of otherFaults(); track $index) {
          <li>{{ fault.message }}</li>
        }
      </ul>
    }
    <div class="buttons">
      <button pButton severity="secondary" type="button" (click)="cancelled.emit()">Cancel</button>
      <button pButton type="submit" title="Save (Ctrl Enter)" [disabled]="saving()">
        {{ saving() ? 'Saving …' : 'Save' }}
      </button>
    </div>
  </form>`,
  styles: `
    fieldset {
      display: grid;
      grid-template-columns: repeat(2, minmax(0, 1fr));
      gap: 8px 10px;
      margin: 0 0 12px;
      padding: 10px 0 0;
      border: 0;
      border-top: 1px solid var(--line);
    }
    legend {
      font: 600 13px/1.3 var(--label);
      padding: 0 8px 0 0;
    }
    .field {
      grid-column: 1 / -1;
      display: grid;
      gap: 2px;
      align-content: start;
    }
    .half {
      grid-column: auto;
    }
    .field {
      min-width: 0;
    }
    .field input,
    .field textarea,
    .field p-select {
      width: 100%;
      min-width: 0;
    }
    label {
      font: 500 12.5px/1.3 var(--label);
      color: var(--soft);
    }
    /* keeps a field that is gone to clear of the buttons that stay in view */
    .field input,
    .field textarea {
      scroll-margin: 40px 0 130px;
    }
    .fault {
      color: var(--amber);
      line-height: 1.3;
      margin: 0;
    }
    .buttons {
      display: flex;
      justify-content: flex-end;
      gap: 8px;
      position: sticky;
      bottom: 0;
      margin: 0 -16px -24px;
      padding: 10px 16px;
      background: var(--sheet);
      border-top: 1px solid var(--line);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PartEditor {
  readonly part = input.required<Part>();
  readonly study = input.required<Study>();
  /** true while it is not known yet whether the server keeps what was saved */
  readonly saving = input(false);
  /** why the server did not keep it */
  readonly refused = input<RefusedEdit | null>(null);
  readonly saved = output<readonly Op[]>();
  readonly cancelled = output();

  protected readonly groups = GROUPS;
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly form = inject(FormBuilder).group(
    Object.fromEntries(GROUPS.flatMap((group) => group.fields.map((field) => [field.name, ['']]))),
  );
  private readonly issues = signal<readonly Issue[]>([]);
  private readonly shownFields = new Set<string>(GROUPS.flatMap((group) => group.fields.map((field) => field.name)));
  protected readonly otherFaults = computed(() => this.issues().filter((issue) => !this.shownFields.has(issue.field ?? '')));
  /** the part as it was when the form was filled */
  private base: Part | null = null;

  constructor() {
    // filled once per part: what someone is typing is not overwritten when the record moves on
    effect(() => {
      const part = this.part();
      if (part.id === this.base?.id) return;
      this.base = part;
      this.form.setValue({ ...partForm(part, this.study()) });
      this.issues.set([]);
      queueMicrotask(() => this.host.nativeElement.querySelector<HTMLInputElement>('input')?.focus());
    });
    effect(() => {
      const refused = this.refused();
      if (refused) untracked(() => this.goOnFrom(refused));
    });
    const release = inject(Unsaved).hold({
      what: () => this.unsaved(),
      stays: ({ url, root }) => root.queryParams.part === this.base?.id && url.startsWith(`/studies/${this.study().id}/`),
    });
    inject(DestroyRef).onDestroy(release);
  }

  /** Shows at its fields why it was not kept, and goes on from the part as it is now; what was typed stays. */
  private goOnFrom({ now, issues }: RefusedEdit): void {
    if (now && this.base) {
      this.form.setValue({ ...rebasedForm(this.form.getRawValue() as unknown as PartForm, this.base, now, this.study()) });
      this.base = now;
    }
    this.issues.set(issues);
    queueMicrotask(() => this.goToFirstFault());
  }

  /** What is typed and not saved, in words; empty when there is nothing. */
  private unsaved(): string {
    if (!this.base || this.saving()) return '';
    const [typed, was] = [this.form.getRawValue() as Record<string, unknown>, partForm(this.base, this.study())];
    const isSame = Object.entries(was).every(([field, value]) => (typed[field] ?? '') === (value ?? ''));
    return isSame ? '' : `“${this.base.name}”`;
  }

  protected clearable(field: keyof PartForm): boolean {
    return CLEARABLE.includes(field);
  }

  protected asMutable(list: FormField['options']): { label: string; value: string }[] {
    return [...(list ?? [])];
  }

  protected faultOf(field: keyof PartForm): string {
    return this.issues().find((issue) => issue.field === field)?.message ?? '';
  }

  private goToFirstFault(): void {
    const first = GROUPS.flatMap((group) => group.fields).find((field) => this.faultOf(field.name) !== '');
    if (first) this.host.nativeElement.querySelector<HTMLElement>(`#edit-${first.name}`)?.focus();
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.key === 'Enter' && event.ctrlKey) this.save();
  }

  protected save(): void {
    const part = this.base ?? this.part();
    const checked = partFromForm(this.form.getRawValue() as unknown as PartForm, part);
    this.issues.set(checked.ok ? [] : checked.issues);
    if (!checked.ok) {
      this.goToFirstFault();
      return;
    }
    // what someone else changed meanwhile stays: only what differs from when the form was filled is sent
    const op = editTo('part', part, checked.value);
    if (op) this.saved.emit([op]);
    else this.cancelled.emit();
  }
}
