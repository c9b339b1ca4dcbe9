import { ChangeDetectionStrategy, Component, computed, effect, input, model, output, signal } from '@angular/core';
import { editOp, removeOp, type Op, type Picture, type PictureMark } from '@each-bolt/core/record';
import { Dialog } from 'primeng/dialog';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { arrowHead, radiusOf } from './mark-shapes';

type Tool = 'look' | PictureMark['kind'];
const TOOLS: readonly { readonly tool: Tool; readonly label: string }[] = [
  { tool: 'look', label: 'Look' },
  { tool: 'arrow', label: 'Arrow' },
  { tool: 'circle', label: 'Circle' },
  { tool: 'text', label: 'Text' },
];
const ZOOMS = [1, 1.5, 2, 3, 4, 6] as const;

/** A picture large, with zoom, and marks that lie over it as data. */
@Component({
  selector: 'eb-picture-viewer',
  imports: [Dialog, ButtonDirective, InputText],
  template: `<p-dialog
    closeAriaLabel="Close"
    [header]="picture().shows || 'Picture'"
    [visible]="true"
    (visibleChange)="closed.emit()"
    [modal]="true"
    [style]="{ width: '1100px', maxWidth: 'calc(100% - 40px)' }"
  >
    <div class="bar">
      <div class="tools" role="radiogroup" aria-label="Mark">
        @for (one of tools(); track one.tool) {
          <button
            pButton
            severity="secondary"
            type="button"
            role="radio"
            [attr.aria-checked]="tool() === one.tool"
            [class.on]="tool() === one.tool"
            (click)="tool.set(one.tool)"
          >
            {{ one.label }}
          </button>
        }
      </div>
      @if (tool() === 'text') {
        <input
          pInputText
          [value]="words()"
          (input)="words.set($any($event.target).value)"
          aria-label="Text of the mark"
          placeholder="text to put"
          maxlength="200"
        />
      }
      <span class="push"></span>
      <button pButton severity="secondary" type="button" [disabled]="zoom() === 0" (click)="zoom.set(zoom() - 1)" aria-label="Smaller">
        −
      </button>
      <span class="figure">{{ zooms[zoom()] }}×</span>
      <button
        pButton
        severity="secondary"
        type="button"
        [disabled]="zoom() === zooms.length - 1"
        (click)="zoom.set(zoom() + 1)"
        aria-label="Larger"
      >
        +
      </button>
    </div>
    <div class="frame" (wheel)="wheel($event)">
      <div class="paper" [style.width.px]="widthPx()" [style.aspect-ratio]="picture().widthPx + ' / ' + picture().heightPx">
        <img [src]="url()" [alt]="picture().shows || 'picture of the part'" draggable="false" />
        <svg
          viewBox="0 0 1000 1000"
          preserveAspectRatio="none"
          [class.drawing]="tool() !== 'look'"
          (pointerdown)="begin($event)"
          (pointermove)="draw($event)"
          (pointerup)="finish()"
        >
          @for (mark of drawn(); track $index) {
            @switch (mark.kind) {
              @case ('arrow') {
                <line
                  class="under"
                  [attr.x1]="mark.fromX * 1000"
                  [attr.y1]="mark.fromY * 1000"
                  [attr.x2]="mark.toX * 1000"
                  [attr.y2]="mark.toY * 1000"
                />
                <line [attr.x1]="mark.fromX * 1000" [attr.y1]="mark.fromY * 1000" [attr.x2]="mark.toX * 1000" [attr.y2]="mark.toY * 1000" />
                <path [attr.d]="head(mark)" />
              }
              @case ('circle') {
                <ellipse
                  class="under"
                  [attr.cx]="mark.fromX * 1000"
                  [attr.cy]="mark.fromY * 1000"
                  [attr.rx]="radius(mark)[0]"
                  [attr.ry]="radius(mark)[1]"
                />
                <ellipse
                  [attr.cx]="mark.fromX * 1000"
                  [attr.cy]="mark.fromY * 1000"
                  [attr.rx]="radius(mark)[0]"
                  [attr.ry]="radius(mark)[1]"
                />
              }
            }
          }
        </svg>
        @for (mark of drawn(); track $index) {
          @if (mark.kind === 'text') {
            <span class="text" [style.left.%]="mark.fromX * 100" [style.top.%]="mark.fromY * 100">{{ mark.text }}</span>
          }
        }
      </div>
    </div>
    <form class="below" (submit)="save($event, shows.value)">
      <label for="shows">What it shows</label>
      <input pInputText #shows id="shows" [value]="picture().shows" maxlength="400" autocomplete="off" [disabled]="!mayEdit()" />
      @if (mayEdit()) {
        <button pButton severity="secondary" type="button" [disabled]="marks().length === 0" (click)="marks.set(marks().slice(0, -1))">
          Delete the last mark
        </button>
        <button pButton severity="secondary" type="button" (click)="ops.emit([off()])">Delete picture</button>
        <button pButton type="submit">Save</button>
      }
    </form>
  </p-dialog>`,
  styles: `
    .bar,
    .below {
      display: flex;
      gap: 8px;
      align-items: center;
    }
    .tools {
      display: flex;
    }
    .tools button + button {
      border-left: 0;
    }
    .on {
      background: var(--dye);
      color: var(--on-dye);
    }
    .push {
      flex: 1;
    }
    .frame {
      margin: 10px 0;
      height: min(60vh, 560px);
      overflow: auto;
      background: var(--paper);
      border: 1px solid var(--line);
      display: grid;
      place-items: safe center;
    }
    .paper {
      position: relative;
      max-height: none;
    }
    img {
      display: block;
      width: 100%;
      height: 100%;
    }
    svg {
      position: absolute;
      inset: 0;
      width: 100%;
      height: 100%;
    }
    svg.drawing {
      cursor: crosshair;
      touch-action: none;
    }
    line,
    ellipse,
    path {
      fill: none;
      stroke: #2f3e9e;
      stroke-width: 3px;
      vector-effect: non-scaling-stroke;
    }
    .under {
      stroke: #fffefb;
      stroke-width: 7px;
    }
    .text {
      position: absolute;
      transform: translate(-2px, -50%);
      padding: 1px 6px;
      background: #fffefb;
      border: 1px solid #2f3e9e;
      color: #1b2127;
      font: 600 13px/1.4 var(--label);
      pointer-events: none;
      white-space: nowrap;
    }
    input {
      height: 34px;
      padding: 0 8px;
      border: 1px solid var(--line);
      border-radius: 2px;
      background: var(--sheet);
      color: var(--ink);
    }
    .below input {
      flex: 1;
    }
    label {
      font: 500 13px/1 var(--label);
      color: var(--soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PictureViewer {
  readonly picture = input.required<Picture>();
  readonly url = input.required<string>();
  readonly mayEdit = input.required<boolean>();
  readonly ops = output<readonly Op[]>();
  readonly closed = output();

  protected readonly zooms = ZOOMS;
  protected readonly zoom = signal(0);
  protected readonly tool = model<Tool>('look');
  protected readonly words = signal('');
  protected readonly marks = signal<readonly PictureMark[]>([]);
  private readonly open = signal<PictureMark | null>(null);
  protected readonly tools = computed(() => (this.mayEdit() ? TOOLS : TOOLS.slice(0, 1)));
  protected readonly drawn = computed(() => {
    const open = this.open();
    return open ? [...this.marks(), open] : this.marks();
  });
  /** fits the frame at first, and grows from there */
  protected readonly widthPx = computed(
    () => Math.min(1040, (520 * this.picture().widthPx) / this.picture().heightPx) * ZOOMS[this.zoom()]!,
  );
  protected readonly head = (mark: PictureMark): string => arrowHead(mark, this.picture().widthPx / this.picture().heightPx);
  protected readonly radius = (mark: PictureMark): readonly [number, number] =>
    radiusOf(mark, this.picture().widthPx / this.picture().heightPx);

  constructor() {
    effect(() => this.marks.set(this.picture().marks));
  }

  protected off(): Op {
    return removeOp('picture', this.picture());
  }

  protected wheel(event: WheelEvent): void {
    if (!event.ctrlKey && this.tool() === 'look' && this.zoom() === 0 && event.deltaY > 0) return;
    event.preventDefault();
    const next = this.zoom() + (event.deltaY < 0 ? 1 : -1);
    this.zoom.set(Math.min(ZOOMS.length - 1, Math.max(0, next)));
  }

  private at(event: PointerEvent): readonly [number, number] {
    const box = (event.currentTarget as Element).getBoundingClientRect();
    const within = (value: number): number => Math.min(1, Math.max(0, value));
    return [within((event.clientX - box.left) / box.width), within((event.clientY - box.top) / box.height)];
  }

  protected begin(event: PointerEvent): void {
    const kind = this.tool();
    if (kind === 'look') return;
    const [x, y] = this.at(event);
    const mark: PictureMark = { kind, fromX: x, fromY: y, toX: x, toY: y, text: kind === 'text' ? this.words().trim() : '' };
    if (kind === 'text') {
      if (mark.text !== '') this.marks.update((marks) => [...marks, mark]);
      return;
    }
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    this.open.set(mark);
  }

  protected draw(event: PointerEvent): void {
    const mark = this.open();
    if (!mark) return;
    const [toX, toY] = this.at(event);
    this.open.set({ ...mark, toX, toY });
  }

  protected finish(): void {
    const mark = this.open();
    this.open.set(null);
    // a click without a drag is no mark
    if (mark && Math.hypot(mark.toX - mark.fromX, mark.toY - mark.fromY) > 0.01) this.marks.update((marks) => [...marks, mark]);
  }

  protected save(event: Event, shows: string): void {
    event.preventDefault();
    const op = editOp('picture', this.picture(), { shows: shows.trim(), marks: this.marks() });
    if (op) this.ops.emit([op]);
    this.closed.emit();
  }
}
