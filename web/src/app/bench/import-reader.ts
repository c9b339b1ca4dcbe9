import { Injectable, signal } from '@angular/core';
import type { Encoding, ImportPreview, ReadOptions, SheetHead, TableHead } from '@each-bolt/core/bench';
import { makeImportWorker } from './make-import-worker';

export type ImportAsked =
  | { readonly kind: 'open'; readonly id: number; readonly bytes: Uint8Array; readonly encoding: Encoding | null }
  | { readonly kind: 'head'; readonly id: number; readonly sheet: number; readonly headingRow: number }
  | { readonly kind: 'read'; readonly id: number; readonly sheet: number; readonly options: ReadOptions };

export type ImportTold =
  | { readonly kind: 'open'; readonly id: number; readonly told: TableHead }
  | { readonly kind: 'head'; readonly id: number; readonly told: SheetHead }
  | { readonly kind: 'read'; readonly id: number; readonly told: ImportPreview }
  | { readonly kind: 'progress'; readonly id: number; readonly told: number }
  /** why it could not be done */
  | { readonly kind: 'failed'; readonly id: number; readonly told: string };

/** Reads files of parts beside the page, with progress; given up at once. */
@Injectable({ providedIn: 'root' })
export class ImportReader {
  /** the share of the rows read so far; null while nothing is being read */
  readonly share = signal<number | null>(null);
  private worker: Worker | null = null;
  private id = 0;

  open(bytes: Uint8Array, encoding: Encoding | null): Promise<TableHead> {
    return this.ask({ kind: 'open', id: (this.id += 1), bytes, encoding }) as Promise<TableHead>;
  }

  head(sheet: number, headingRow: number): Promise<SheetHead> {
    return this.ask({ kind: 'head', id: (this.id += 1), sheet, headingRow }) as Promise<SheetHead>;
  }

  read(sheet: number, options: ReadOptions): Promise<ImportPreview> {
    return this.ask({ kind: 'read', id: (this.id += 1), sheet, options }) as Promise<ImportPreview>;
  }

  /** Lets go of the file; what is being read of it is never told. */
  stop(): void {
    this.worker?.terminate();
    this.worker = null;
    this.share.set(null);
  }

  private ask(asked: ImportAsked): Promise<ImportTold['told']> {
    const worker = (this.worker ??= makeImportWorker());
    this.share.set(0);
    return new Promise((done, fail) => {
      const settled = (): void => {
        worker.removeEventListener('message', told);
        worker.removeEventListener('error', failed);
        if (this.worker === worker) this.share.set(null);
      };
      const told = ({ data }: MessageEvent<ImportTold>): void => {
        if (data.id !== asked.id) return;
        if (data.kind === 'progress') return this.share.set(data.told);
        settled();
        if (data.kind === 'failed') fail(new Error(data.told));
        else done(data.told);
      };
      const failed = (event: ErrorEvent): void => {
        settled();
        fail(new Error(event.message));
      };
      worker.addEventListener('message', told);
      worker.addEventListener('error', failed);
      worker.postMessage(asked);
    });
  }
}
