import { Injectable, computed, inject } from '@angular/core';
import { SET_KINDS, setLineOf } from '@each-bolt/core/bench';
import { ENTITIES, recordName, rowsOf, type Entity, type NameOf, type RowOf } from '@each-bolt/core/record';
import { OpenStudy } from './open-study';
import { RecordService } from './record-service';

/** Kinds of which there are very many: they are found by maps that the record keeps anyway. */
const BY_THE_THOUSAND: readonly Entity[] = ['part', ...SET_KINDS];
const OTHERS = ENTITIES.filter((entity) => !BY_THE_THOUSAND.includes(entity));

/** What every record and person of the open study is called. */
@Injectable({ providedIn: 'root' })
export class Names {
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  private readonly sets = computed<ReadonlyMap<string, string>>(() => {
    const record = this.open.record();
    return new Map(SET_KINDS.flatMap((kind) => rowsOf(record, kind).map((row) => [row.id, setLineOf(kind, row as never)] as const)));
  });
  private readonly people = computed<ReadonlyMap<string, string>>(() => new Map(this.service.people().map((p) => [p.id, p.name])));
  private readonly rows = computed<ReadonlyMap<string, readonly [Entity, RowOf<Entity>]>>(() => {
    const record = this.open.record();
    return new Map(OTHERS.flatMap((entity) => rowsOf(record, entity).map((row) => [row.id, [entity, row] as const] as const)));
  });

  readonly of = computed<NameOf>(() => {
    const [parts, rows, people, sets] = [this.open.partById(), this.rows(), this.people(), this.sets];
    const nameOf: NameOf = (id) => {
      const part = parts.get(id);
      if (part) return part.name;
      const row = rows.get(id);
      return row ? recordName(row[0], row[1], nameOf) : (people.get(id) ?? sets().get(id) ?? null);
    };
    return nameOf;
  });
}
