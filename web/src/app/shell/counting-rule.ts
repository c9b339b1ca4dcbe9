import { Injectable, inject } from '@angular/core';
import type { Op, StudyFields } from '@each-bolt/core/record';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';

/** Switches the study's counting rule through the ledger. */
@Injectable({ providedIn: 'root' })
export class CountingRule {
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);

  switchFasteners(): void {
    this.edit({ fastenersIn: !this.open.study().fastenersIn });
  }

  switchAssemblies(): void {
    this.edit({ assembliesAs: this.open.study().assembliesAs === 'pieces' ? 'one' : 'pieces' });
  }

  private edit(fields: Partial<StudyFields>): void {
    const { id, version } = this.open.study();
    const op: Op = { kind: 'study.edit', id, expectsVersion: version, fields };
    void this.service.send([op]);
  }
}
