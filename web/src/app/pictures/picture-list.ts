import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { Picture } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { FileButton } from '../shared/file-button';

/** A picture as the list shows it. */
export interface ShownPicture {
  readonly picture: Picture;
  readonly url: string;
}

/** The pictures of a part; more are dropped, pasted or chosen. */
@Component({
  selector: 'eb-picture-list',
  imports: [ButtonDirective, FileButton],
  template: `<h3>Pictures</h3>
    <div
      class="drop"
      [class.over]="over()"
      (dragover)="hover($event)"
      (dragleave)="over.set(false)"
      (drop)="drop($event)"
      (paste)="paste($event)"
      [attr.tabindex]="mayAdd() ? 0 : null"
      [attr.aria-label]="mayAdd() ? 'Pictures: drop or paste here' : null"
      role="group"
    >
      @for (shown of pictures(); track shown.picture.id) {
        <button
          pButton
          [text]="true"
          severity="secondary"
          type="button"
          class="picture"
          (click)="opened.emit(shown.picture)"
          [attr.aria-label]="'Open picture: ' + (shown.picture.shows || 'no words yet')"
        >
          <img [src]="shown.url" alt="" />
          @if (shown.picture.marks.length > 0) {
            <span class="count">{{ shown.picture.marks.length }} marks</span>
          }
        </button>
      }
      @if (mayAdd()) {
        <eb-file-button class="add" label="Add pictures" accept="image/jpeg,image/png" [multiple]="true" (picked)="added.emit($event)"
          ><span>{{ hint() }}</span></eb-file-button
        >
        @if (hasCamera) {
          <eb-file-button
            class="add"
            label="Take a picture with the camera"
            accept="image/*"
            [isCamera]="true"
            (picked)="added.emit($event)"
            ><span><i class="pi pi-camera" aria-hidden="true"></i> Camera</span></eb-file-button
          >
        }
      } @else if (pictures().length === 0) {
        <p class="soft">None yet.</p>
      }
    </div>
    @for (fault of faults(); track $index) {
      <p class="fault" role="alert">{{ fault }}</p>
    }`,
  styles: `
    h3 {
      margin-bottom: 6px;
    }
    .drop {
      display: grid;
      grid-template-columns: repeat(3, 1fr);
      gap: 6px;
    }
    .over {
      outline: 2px dashed var(--dye);
      outline-offset: 3px;
    }
    .picture {
      position: relative;
      padding: 0;
      border: 1px solid var(--line);
      background: var(--paper);
      aspect-ratio: 4 / 3;
      cursor: zoom-in;
      overflow: hidden;
    }
    img {
      width: 100%;
      height: 100%;
      object-fit: cover;
      display: block;
    }
    .count {
      position: absolute;
      right: 2px;
      bottom: 2px;
      padding: 1px 4px;
      background: var(--sheet);
      font-size: 11.5px;
    }
    .add {
      display: grid;
      place-content: center;
      min-height: 64px;
      padding: 4px;
      border: 1px dashed var(--line);
      text-align: center;
      font: 500 12.5px/1.3 var(--label);
      color: var(--soft);
      cursor: pointer;
    }
    .add:first-child {
      grid-column: 1 / -1;
    }
    .fault {
      color: var(--amber);
      font-size: 13px;
      margin-top: 6px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PictureList {
  readonly pictures = input.required<readonly ShownPicture[]>();
  readonly mayAdd = input.required<boolean>();
  readonly faults = input<readonly string[]>([]);
  readonly added = output<readonly File[]>();
  readonly opened = output<Picture>();
  /** a device that is touched has a camera of its own to take pictures with */
  protected readonly hasCamera = matchMedia('(pointer: coarse)').matches;
  protected readonly over = signal(false);
  protected readonly hint = computed(() => (this.pictures().length === 0 ? 'Drop or paste pictures here, or choose files' : '+ more'));

  protected hover(event: DragEvent): void {
    if (!this.mayAdd()) return;
    event.preventDefault();
    this.over.set(true);
  }

  protected drop(event: DragEvent): void {
    event.preventDefault();
    this.over.set(false);
    this.give(event.dataTransfer?.files);
  }

  protected paste(event: ClipboardEvent): void {
    if (event.clipboardData?.files.length) event.preventDefault();
    this.give(event.clipboardData?.files);
  }

  private give(files: FileList | null | undefined): void {
    if (this.mayAdd() && files && files.length > 0) this.added.emit([...files]);
  }
}
