import { Injectable, computed, inject } from '@angular/core';
import { SET_KINDS, setLineOf, type NameOf } from '@each-bolt/core/bench';
import { rowsOf } from '@each-bolt/core/record';
import { OpenStudy } from './open-study';
import { RecordService } from './record-service';

/** What every record and person of the open study is called. */
@Injectable({ providedIn: 'root' })
export class Names {
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  private readonly sets = computed<ReadonlyMap<string, string>>(() => {
    const record = this.open.record();
    return new Map(SET_KINDS.flatMap((kind) => rowsOf(record, kind).map((row) => [row.id, setLineOf(kind, row as never)] as const)));
  });
  private readonly others = computed<ReadonlyMap<string, string>>(() => {
    const { study, questions, pictures, members, candidates, requests, claims, scopes, resources, rigs, packages, gates, hoists, unloads } =
      this.open.record();
    const { sessions, steps, readings, recounts, sheets, scans, identifications, sections, patterns, gauges } = this.open.record();
    const pieces = this.open.pieceById();
    const named = [...candidates, ...resources, ...rigs, ...packages, ...sections, ...patterns, ...gauges].map(
      (row) => [row.id, row.name] as const,
    );
    const subsystems = this.open.subsystemById();
    const vehicles = this.open.vehicleById();
    const people = new Map(this.service.people().map((p) => [p.id, p.name]));
    return new Map([
      [study.id, study.title],
      ...people,
      ...members.map((m) => [m.id, people.get(m.personId) ?? 'somebody'] as const),
      ...questions.map((q) => [q.id, q.text] as const),
      ...named,
      ...requests.map((r) => [r.id, r.who] as const),
      ...claims.map((c) => [c.id, c.statement] as const),
      ...scopes.map((s) => [s.id, `${subsystems.get(s.subsystemId)?.name ?? ''} of ${vehicles.get(s.vehicleId)?.name ?? ''}`] as const),
      ...gates.map((g) => [g.id, g.asks] as const),
      ...hoists.map((h) => [h.id, vehicles.get(h.vehicleId)?.name ?? ''] as const),
      ...unloads.map((u) => [u.id, u.label] as const),
      ...sessions.map((s) => [s.id, s.name] as const),
      ...steps.map((s) => [s.id, s.pieces.map((id) => pieces.get(id)?.name ?? 'a piece').join(', ') || 'a removal'] as const),
      ...readings.map((r) => [r.id, r.raw] as const),
      ...recounts.map((r) => [r.id, pieces.get(r.pieceId)?.name ?? ''] as const),
      ...sheets.map((s) => [s.id, s.prefix] as const),
      ...scans.map((s) => [s.id, s.fileName] as const),
      ...identifications.map((i) => [i.id, pieces.get(i.pieceId)?.name ?? ''] as const),
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
