import { Injectable, inject } from '@angular/core';
import { editOp, type StudyFields } from '@each-bolt/core/record';
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
    this.edit({ assembliesAs: this.open.study().assembliesAs === 'parts' ? 'one' : 'parts' });
  }

  private edit(fields: Partial<StudyFields>): void {
    const op = editOp('study', this.open.study(), fields);
    if (op && this.service.can()('study.edit')) void this.service.send([op]);
  }
}
