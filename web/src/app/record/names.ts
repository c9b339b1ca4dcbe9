import { Injectable, computed, inject } from '@angular/core';
import { fastenerLine, jointLine, type NameOf } from '@each-bolt/core/bench';
import { OpenStudy } from './open-study';
import { RecordService } from './record-service';

/** What every record and person of the open study is called. */
@Injectable({ providedIn: 'root' })
export class Names {
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  private readonly sets = computed<ReadonlyMap<string, string>>(() => {
    const { fastenerSets, jointSets } = this.open.record();
    return new Map([...fastenerSets.map((s) => [s.id, fastenerLine(s)] as const), ...jointSets.map((s) => [s.id, jointLine(s)] as const)]);
  });
  private readonly others = computed<ReadonlyMap<string, string>>(() => {
    const { study, questions, pictures, members } = this.open.record();
    const people = new Map(this.service.people().map((p) => [p.id, p.name]));
    return new Map([
      [study.id, study.title],
      ...people,
      ...members.map((m) => [m.id, people.get(m.personId) ?? 'somebody'] as const),
      ...questions.map((q) => [q.id, q.text] as const),
      ...pictures.map((p) => [p.id, p.shows === '' ? 'picture' : p.shows] as const),
    ]);
  });

  readonly of = computed<NameOf>(() => {
    const [pieces, vehicles, subsystems, others] = [
      this.open.pieceById(),
      this.open.vehicleById(),
      this.open.subsystemById(),
      this.others(),
    ];
    return (id) =>
      pieces.get(id)?.name ?? vehicles.get(id)?.name ?? subsystems.get(id)?.name ?? others.get(id) ?? this.sets().get(id) ?? null;
  });
}
