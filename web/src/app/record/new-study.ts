import { ChangeDetectionStrategy, Component, inject, output, signal } from '@angular/core';
import { FormBuilder, ReactiveFormsModule } from '@angular/forms';
import { check, type Issue } from '@each-bolt/core/shared';
import { SCHEMAS, newStudyOps, type Op } from '@each-bolt/core/record';
import { InputText } from 'primeng/inputtext';

/** Begins a study: its title and what its costs stand on. */
@Component({
  selector: 'eb-new-study',
  imports: [InputText, ReactiveFormsModule],
  template: `<details>
    <summary>Begin a new study</summary>
    <form [formGroup]="form" (ngSubmit)="submit()">
      @for (field of fields; track field.name) {
        <label>
          <span>{{ field.label }}</span>
          <input pInputText [formControlName]="field.name" autocomplete="off" [attr.aria-invalid]="faultOf(field.name) !== ''" />
          @if (faultOf(field.name); as fault) {
            <small role="alert">{{ fault }}</small>
          }
        </label>
      }
      <button type="submit" class="main-button">Begin</button>
    </form>
  </details>`,
  styles: `
    summary {
      cursor: pointer;
      font: 600 15px/2.4 var(--label);
    }
    form {
      display: grid;
      grid-template-columns: repeat(3, 1fr);
      gap: 12px 16px;
      padding: 14px 16px;
      background: var(--sheet);
      border: 1px solid var(--line);
    }
    label {
      display: grid;
      gap: 3px;
      align-content: start;
    }
    label:first-child {
      grid-column: 1 / -1;
    }
    label span {
      font: 500 12.5px/1.3 var(--label);
      color: var(--soft);
    }
    small {
      color: var(--amber);
    }
    button {
      justify-self: end;
      align-self: end;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewStudy {
  readonly begun = output<{ readonly id: string; readonly ops: readonly Op[] }>();
  protected readonly form = inject(FormBuilder).nonNullable.group({
    title: '',
    currency: 'EUR',
    priceYear: '2026',
    volumePerYear: '60000',
    productionYears: '7',
    region: 'Central Europe',
  });
  protected readonly fields = [
    { name: 'title', label: 'Title' },
    { name: 'currency', label: 'Currency of all costs' },
    { name: 'priceYear', label: 'Price year' },
    { name: 'volumePerYear', label: 'Vehicles per year' },
    { name: 'productionYears', label: 'Years in production' },
    { name: 'region', label: 'Region' },
  ] as const;
  private readonly issues = signal<readonly Issue[]>([]);

  protected faultOf(field: string): string {
    return this.issues().find((issue) => issue.field === field)?.message ?? '';
  }

  protected submit(): void {
    const typed = this.form.getRawValue();
    const whole = (text: string): number => (/^\d+$/.test(text.trim()) ? Number(text) : Number.NaN);
    const study = {
      ...typed,
      title: typed.title.trim(),
      priceYear: whole(typed.priceYear),
      volumePerYear: whole(typed.volumePerYear),
      productionYears: whole(typed.productionYears),
      questions: '',
      lead: '',
      fastenersIn: true,
      assembliesAs: 'pieces',
    };
    const checked = check(SCHEMAS.study, study);
    this.issues.set(checked.ok ? [] : checked.issues);
    if (!checked.ok) return;
    const id = crypto.randomUUID();
    this.begun.emit({ id, ops: newStudyOps(id, checked.value, () => crypto.randomUUID()) });
  }
}
