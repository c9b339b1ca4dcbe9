import { Injectable, inject, signal } from '@angular/core';
import { check, type Issue } from '@each-bolt/core/shared';
import {
  schemaOf,
  editOp,
  fieldsOf,
  removalOps,
  rowFaults,
  withFields,
  type Entity,
  type FieldsOf,
  type Op,
  type RowOf,
} from '@each-bolt/core/record';
import type { Schema } from 'yup';
import { OpenStudy } from './open-study';
import { RecordService } from './record-service';

/** Rows edited in place: checked here by the rules of the record, then sent; what is wrong stays beside the row. */
@Injectable()
export class RowEdits {
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  /** what is wrong, by row and field, until it is mended */
  private readonly faults = signal<ReadonlyMap<string, string>>(new Map());
  /** what the record refused as a whole */
  readonly refused = signal<readonly Issue[]>([]);

  faultOf(rowId: string, field: string): string {
    return this.faults().get(`${rowId} ${field}`) ?? '';
  }

  async edit<E extends Entity>(entity: E, row: RowOf<E>, fields: Partial<FieldsOf[E]>): Promise<boolean> {
    const after = withFields(row, fields);
    const issues = this.issuesOf(entity, after);
    this.note(row.id, fields, issues);
    if (issues.length > 0) return false;
    const op = editOp(entity, row, fields);
    return op === null ? true : this.send([op]);
  }

  /** Adds a row and gives its id, or null when it cannot be. */
  async add<E extends Entity>(entity: E, fields: FieldsOf[E], more: readonly Op[] = []): Promise<string | null> {
    const id = crypto.randomUUID();
    const issues = this.issuesOf(entity, { id, version: 0, ...fields });
    this.refused.set(issues);
    if (issues.length > 0) return null;
    return (await this.send([{ kind: `${entity}.add`, id, fields } as unknown as Op, ...more])) ? id : null;
  }

  /** Takes a row off with what goes with it. */
  remove<E extends Entity>(entity: E, row: RowOf<E>): Promise<boolean> {
    return this.send(removalOps(this.open.record(), entity, [row.id]));
  }

  async send(ops: readonly Op[]): Promise<boolean> {
    if (ops.length === 0) return true;
    const result = await this.service.send(ops);
    this.refused.set(
      result.kept
        ? []
        : [{ code: result.refusal.code, message: result.refusal.message, field: null, recordId: null }, ...result.refusal.issues],
    );
    return result.kept;
  }

  private issuesOf<E extends Entity>(entity: E, row: RowOf<E>): readonly Issue[] {
    const checked = check(schemaOf(entity) as Schema<unknown>, fieldsOf(row), row.id);
    return checked.ok ? rowFaults(entity, row) : checked.issues;
  }

  private note(rowId: string, fields: object, issues: readonly Issue[]): void {
    const edited = Object.keys(fields);
    this.faults.update((faults) => {
      const next = new Map([...faults].filter(([key]) => !key.startsWith(`${rowId} `)));
      // a fault of the row as a whole is shown where it was just edited
      for (const { field, message } of issues)
        next.set(`${rowId} ${field !== null && edited.includes(field) ? field : (edited[0] ?? field ?? '')}`, message);
      return next;
    });
  }
}
