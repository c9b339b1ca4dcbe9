import { Injectable, inject } from '@angular/core';
import { METRES_PER, type Place } from '@each-bolt/core/measure';
import { editOp, evidence, nextSequence, type Part, type Scan, type ScanUnit } from '@each-bolt/core/record';
import { OpenStudy } from '../record/open-study';
import { RowEdits } from '../record/row-edits';

/** A cut through a scan, in the unit of its file. */
export interface Cut {
  readonly name: string;
  readonly loops: readonly (readonly (readonly [number, number])[])[];
}

/** Takes what was measured on a scan over into the record of its part. */
@Injectable()
export class ScanResults {
  private readonly open = inject(OpenStudy);
  private readonly edits = inject(RowEdits);

  /** The measured sides become the envelope of the part; what was there stays in its history. */
  takeSides(part: Part, scan: Scan): void {
    const [lengthM, widthM, heightM] = scan.figures.minimumM;
    const said = evidence('M', { instrument: scan.instrument, source: `scan ${scan.fileName}, minimum bounding box in any orientation` });
    const op = editOp('part', part, { lengthM, widthM, heightM, evidence: { lengthM: said } });
    if (op) void this.edits.send([op]);
  }

  /** Says whether the cut was kept among the sections of the part. */
  async keepSection(part: Part, scan: Scan | null, unit: ScanUnit, { name, loops }: Cut): Promise<boolean> {
    const k = METRES_PER[unit];
    const sections = this.open.record().sections.filter((s) => s.partId === part.id);
    const id = await this.edits.add('section', {
      partId: part.id,
      sequence: nextSequence(sections),
      name,
      kind: 'outline',
      dimensions: {},
      loops: loops.map((loop) => loop.map(([x, y]) => [x * k, y * k] as const)),
      scanId: scan?.id ?? null,
      materialId: part.materialId,
      note: '',
    });
    return id !== null;
  }

  /** Says whether the holes were kept among the hole patterns of the part. */
  async keepPattern(part: Part, unit: ScanUnit, name: string, places: readonly Place[]): Promise<boolean> {
    const k = METRES_PER[unit];
    const patterns = this.open.record().holePatterns.filter((p) => p.partId === part.id);
    const id = await this.edits.add('holePattern', {
      partId: part.id,
      sequence: nextSequence(patterns),
      name,
      points: places.map(([x, y, z]) => [x * k, y * k, z * k] as const),
      source: 'scan',
      note: '',
    });
    return id !== null;
  }
}
