import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { expandedIn, type EvidenceMark as Mark, type FieldShape, type FieldValue } from '@each-bolt/core/shared';
import { evidence, evidenceFor, fieldInput, type Entity, type EvidenceOf, type FieldName, type RowOf } from '@each-bolt/core/record';
import { RowEdits } from '../record/row-edits';
import { EditField } from '../shared/edit-field';
import { EvidenceMark } from '../shared/evidence-mark';

interface Line {
  readonly field: string;
  readonly name: FieldName;
  readonly label: string;
}

/** Fields of a record under their headings, each edited in place, with how it is known and its ±. */
@Component({
  selector: 'eb-input-form',
  imports: [EditField, EvidenceMark],
  template: `@for (g of groups(); track g.title) {
    <h2>{{ g.title }}</h2>
    <dl [attr.aria-label]="g.title">
      @for (l of g.lines; track l.field) {
        <dt>{{ l.label }}</dt>
        <dd>
          <eb-edit-field
            [of]="l.name"
            [value]="valueOf(l.field)"
            [disabled]="!may()"
            [fault]="edits.faultOf(row().id, l.field)"
            (committed)="edit(l.field, $event)"
          />
          @if (uShape(l); as shape) {
            <eb-edit-field
              class="u"
              [label]="'± of ' + l.label"
              [shape]="shape"
              [value]="uOf(l.field)"
              [disabled]="!may() || valueOf(l.field) === null"
              [showUnit]="false"
              placeholder="±"
              (committed)="setU(l.field, $event)"
            />
          }
          <eb-mark [mark]="markOf(l.field)" />
        </dd>
      }
    </dl>
  }`,
  styles: `
    :host {
      display: block;
    }
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
    dd eb-edit-field {
      flex: 1;
    }
    dd .u {
      flex: 0 0 62px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class InputForm {
  protected readonly edits = inject(RowEdits);
  readonly entity = input.required<Entity>();
  readonly row = input.required<RowOf<Entity>>();
  readonly groups = input.required<readonly { readonly title: string; readonly lines: readonly Line[] }[]>();
  /** fields whose uncertainty something carries */
  readonly uFields = input<readonly string[]>([]);
  readonly may = input.required<boolean>();

  private readonly fields = computed(() => this.row() as unknown as Readonly<Record<string, FieldValue>>);
  /** kept while the row itself changes: the record may answer between two fields */
  private readonly refused = linkedSignal<string, Readonly<Record<string, unknown>>>({
    source: () => this.row().id,
    computation: (id, before) => (before?.source === id ? before.value : {}),
  });
  private readonly known = computed((): EvidenceOf => (this.row() as { readonly evidence?: EvidenceOf }).evidence ?? {});

  /** yes and no stand in words, as they are chosen. */
  protected valueOf(field: string): never {
    const value = this.fields()[field] as FieldValue | boolean;
    return (typeof value === 'boolean' ? (value ? 'yes' : 'no') : value) as never;
  }

  protected markOf(field: string): Mark | null {
    return this.evidenceOf(field)?.mark ?? null;
  }

  /** ± in the unit of its field, expanded; null for fields whose uncertainty nothing carries. */
  protected uShape({ field, name }: Line): FieldShape | null {
    const { shape } = fieldInput(name);
    return this.uFields().includes(field) && shape.kind === 'number' ? { ...shape, ...expandedIn(shape) } : null;
  }

  protected uOf(field: string): number | null {
    return this.evidenceOf(field)?.u ?? null;
  }

  protected edit(field: string, value: FieldValue): void {
    const isTruth = value === 'yes' || value === 'no';
    void this.send(field, isTruth ? value === 'yes' : value);
  }

  /** Alone, or with what was refused before and waits for the field that makes it whole: a length for its width. */
  private async send(field: string, value: unknown): Promise<void> {
    const { [field]: _again, ...waiting } = this.refused();
    if (await this.kept({ [field]: value })) {
      this.refused.set(waiting);
      return;
    }
    const all = { ...waiting, [field]: value };
    const isWhole = Object.keys(waiting).length > 0 && (await this.kept(all));
    this.refused.set(isWhole ? {} : all);
  }

  private kept(fields: Readonly<Record<string, unknown>>): Promise<boolean> {
    return this.edits.edit(this.entity(), this.row(), fields);
  }

  /** How the value is known stays as it was. */
  protected setU(field: string, u: FieldValue): void {
    const said = this.evidenceOf(field) ?? evidence('I');
    void this.edits.edit(this.entity(), this.row(), {
      evidence: { ...this.known(), [field]: { ...said, u: typeof u === 'number' ? u : null } },
    });
  }

  private evidenceOf(field: string): ReturnType<typeof evidenceFor> {
    return evidenceFor(this.entity() as 'pack', this.row() as RowOf<'pack'>, field);
  }
}
