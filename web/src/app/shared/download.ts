import { DOCUMENT, Injectable, inject } from '@angular/core';

/** Hands a file made here to the person. */
@Injectable({ providedIn: 'root' })
export class Download {
  private readonly document = inject(DOCUMENT);

  /** A byte order mark goes first, so that spreadsheets read the text as UTF-8. */
  text(fileName: string, type: string, text: string): void {
    this.exact(fileName, type, `\ufeff${text}`);
  }

  exact(fileName: string, type: string, text: string): void {
    const url = URL.createObjectURL(new Blob([text], { type: `${type};charset=utf-8` }));
    const link = this.document.createElement('a');
    link.href = url;
    link.download = fileName.replace(/[\\/:*?"<>|]+/g, ' ').trim();
    link.click();
    URL.revokeObjectURL(url);
  }
}
