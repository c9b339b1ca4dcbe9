import { Injectable, inject } from '@angular/core';
import type { ScanFields, Scan } from '@each-bolt/core/record';
import { firstValueFrom } from 'rxjs';
import { LocalStore } from '../record/local-store';
import type { Refusal } from '@each-bolt/core/wire';
import { RecordApi } from '../record/record-api';
import { RecordService } from '../record/record-service';

const hex = (bytes: ArrayBuffer): string => [...new Uint8Array(bytes)].map((b) => b.toString(16).padStart(2, '0')).join('');

/** Keeps scan files: on this device until the server has them, and brings them back. */
@Injectable({ providedIn: 'root' })
export class TakeScan {
  private readonly store = inject(LocalStore);
  private readonly api = inject(RecordApi);
  private readonly service = inject(RecordService);

  /** Stores the file here and records the scan; null when it is kept. */
  async keep(file: Blob, fields: Omit<ScanFields, 'sha256' | 'bytes'>): Promise<Refusal | null> {
    const bytes = await file.arrayBuffer();
    const sha256 = hex(await crypto.subtle.digest('SHA-256', bytes));
    const blob = new Blob([bytes], { type: `model/${fields.format.toLowerCase()}` });
    await this.store.putFile(sha256, blob);
    const result = await this.service.send([
      { kind: 'scan.add', id: crypto.randomUUID(), fields: { ...fields, sha256, bytes: bytes.byteLength } },
    ]);
    return result.kept ? null : result.refusal;
  }

  /** The file of a scan, from this device or the server. */
  async file({ sha256 }: Pick<Scan, 'sha256'>): Promise<Blob | Refusal> {
    const local = await this.store.file(sha256);
    if (local) return local;
    try {
      return await firstValueFrom(this.api.file(this.service.studyId, sha256));
    } catch (refusal) {
      return refusal as Refusal;
    }
  }
}
