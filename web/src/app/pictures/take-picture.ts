import { Injectable, inject, signal } from '@angular/core';
import { pictureFile } from '@each-bolt/core/shared';
import type { Op, Picture, PictureFields } from '@each-bolt/core/record';
import { LocalStore } from '../record/local-store';
import { RecordService } from '../record/record-service';
import { fileUrl } from './picture-url';

const hex = (bytes: ArrayBuffer): string => [...new Uint8Array(bytes)].map((b) => b.toString(16).padStart(2, '0')).join('');

/** Width and height as the picture is seen. */
const sizeOf = async (blob: Blob): Promise<readonly [number, number]> => {
  const image = await createImageBitmap(blob, { imageOrientation: 'from-image' });
  const size = [image.width, image.height] as const;
  image.close();
  return size;
};

/** Takes pictures in: cleaned of where they were taken, kept on this device until the server has them. */
@Injectable({ providedIn: 'root' })
export class TakePicture {
  private readonly store = inject(LocalStore);
  private readonly service = inject(RecordService);
  /** pictures the server may not have yet, to be shown from this device */
  private readonly local = signal<ReadonlyMap<string, string>>(new Map());

  /** Where to show a picture from. */
  url({ sha256 }: Pick<Picture, 'sha256'>, small: boolean): string {
    return this.local().get(sha256) ?? fileUrl(this.service.studyId, sha256, small);
  }

  /** Makes pictures that wait on this device visible again after a reload. */
  async recall(pictures: readonly Picture[]): Promise<void> {
    for (const { sha256 } of pictures) {
      if (this.local().has(sha256)) continue;
      const blob = await this.store.file(sha256);
      if (blob) this.show(sha256, blob);
    }
  }

  /** Attaches files to a part or a rig as one change. Says what is wrong with those that cannot be taken. */
  async take(of: Pick<PictureFields, 'partId' | 'rigId'>, files: readonly File[], nextSequence: number): Promise<readonly string[]> {
    const ops: Op[] = [];
    const faults: string[] = [];
    for (const file of files) {
      const read = pictureFile(new Uint8Array(await file.arrayBuffer()));
      if (!read.ok) {
        faults.push(`${file.name}: ${read.message}`);
        continue;
      }
      const blob = new Blob([read.file.bytes as Uint8Array<ArrayBuffer>], { type: read.file.mediaType });
      const sha256 = hex(await crypto.subtle.digest('SHA-256', await blob.arrayBuffer()));
      try {
        const [widthPx, heightPx] = await sizeOf(blob);
        await this.store.putFile(sha256, blob);
        this.show(sha256, blob);
        const fields = { ...of, sequence: nextSequence + ops.length, sha256, widthPx, heightPx, shows: '', marks: [] };
        ops.push({ kind: 'picture.add', id: crypto.randomUUID(), fields });
      } catch {
        faults.push(`${file.name}: the picture is damaged and cannot be drawn; take it from the camera again`);
      }
    }
    if (ops.length === 0) return faults;
    const result = await this.service.send(ops);
    return result.kept ? faults : [...faults, result.refusal.message, ...result.refusal.issues.map((i) => i.message)];
  }

  private show(sha256: string, blob: Blob): void {
    this.local.update((all) => new Map(all).set(sha256, URL.createObjectURL(blob)));
  }
}
