import { CdkDrag, type CdkDragEnd } from '@angular/cdk/drag-drop';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, input, model, output, signal, viewChild } from '@angular/core';
import type { Place } from '@each-bolt/core/bench';
import type { Outline, OutlineNode } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { CauseCount } from '../shared/cause-count';
import { dropText, droppedOn } from '../shared/dragged';
import { CountPipe } from '../shared/pipes';
import { VehicleMark } from '../shared/vehicle-mark';
import { TreeCursor, toggled } from '../shared/tree-cursor';
import { visibleRows, type TreeRow } from '../shared/visible-rows';

/** How a node reads in the stack. */
export interface NodeText {
  readonly name: string;
  readonly tag: string;
  readonly parts: number;
  /** causes of what does not close, in and below it */
  readonly causes: number;
  /** place of its vehicle in the study */
  readonly vehiclePlace: number;
}

const ROW_PX = 26;

/** Vehicles, their subsystems and parts; a filter; arrow keys. */
@Component({
  selector: 'eb-stack',
  imports: [
    CauseCount,
    CdkDrag,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
    CdkVirtualScrollViewport,
    CountPipe,
    VehicleMark,
    ButtonDirective,
    InputText,
  ],
  template: `<div class="find">
      <input
        pInputText
        #find
        type="search"
        aria-label="Find part, tag or word"
        placeholder="/  find part, tag, word"
        [value]="filter()"
        (input)="filter.set(find.value)"
        (keydown.escape)="leaveFilter(find)"
      />
    </div>
    <cdk-virtual-scroll-viewport
      role="tree"
      aria-label="Vehicles, subsystems and parts"
      tabindex="0"
      [itemSize]="rowPx"
      [attr.aria-activedescendant]="cursor.activeId()"
      (keydown)="cursor.onKey($event)"
      (focus)="cursor.startAtChosen()"
    >
      <div
        *cdkVirtualFor="let row of rows(); trackBy: byKey; let i = index"
        class="row"
        role="treeitem"
        [id]="cursor.idOf(row)"
        [attr.aria-level]="row.level + 1"
        [attr.aria-expanded]="row.hasChildren ? row.isOpen : null"
        [attr.aria-selected]="row.node.key === chosen()"
        [attr.data-place]="dropText(row.node)"
        [class.chosen]="row.node.key === chosen()"
        [class.cut]="cut().includes(row.node.id)"
        cdkDrag
        [cdkDragDisabled]="!mayAdd() || row.node.kind !== 'part'"
        [cdkDragStartDelay]="{ touch: 350, mouse: 0 }"
        (cdkDragEnded)="drop($event, row)"
        [class.active]="i === cursor.active()"
        [class.vehicle]="row.node.kind === 'vehicle'"
        [style.padding-left.px]="row.level * 14 + 10"
        (click)="cursor.pick(row, i)"
      >
        <button
          pButton
          [text]="true"
          severity="secondary"
          type="button"
          class="fold"
          tabindex="-1"
          [attr.aria-label]="row.isOpen ? 'Close' : 'Open'"
          [class.hidden]="!row.hasChildren"
          (click)="toggle(row); $event.stopPropagation()"
        >
          <i [class]="row.isOpen ? 'pi pi-angle-down' : 'pi pi-angle-right'" aria-hidden="true"></i>
        </button>
        @if (row.node.kind === 'vehicle') {
          <eb-vehicle-mark [place]="textOf()(row.node).vehiclePlace" />
        }
        <span class="text" [title]="textOf()(row.node).name">{{ textOf()(row.node).name }}</span>
        <eb-cause-count [count]="textOf()(row.node).causes" />
        <span class="count figure">{{ textOf()(row.node).parts | ebCount }}</span>
      </div>
    </cdk-virtual-scroll-viewport>
    @if (rows().length === 0) {
      <p class="none soft">{{ filter() === '' ? 'No vehicle yet.' : 'Nothing is called or tagged that.' }}</p>
    }
    @if (mayAdd()) {
      <div class="foot">
        <button pButton severity="secondary" type="button" (click)="addVehicle.emit()">+ vehicle</button>
        <button pButton severity="secondary" type="button" (click)="addSubsystem.emit()">+ subsystem</button>
        <button
          pButton
          severity="secondary"
          type="button"
          aria-haspopup="menu"
          title="Rename, move, merge or delete the chosen subsystem"
          (click)="menuAsked.emit($event)"
        >
          subsystem …
        </button>
      </div>
    }`,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      min-height: 0;
      position: relative;
    }
    .find {
      padding: 10px 12px 8px;
    }
    input {
      width: 100%;
      height: 32px;
      padding: 0 10px;
      border: 1px solid var(--line);
      border-radius: 2px;
      background: var(--sheet);
      color: var(--ink);
      font-size: 13.5px;
    }
    cdk-virtual-scroll-viewport {
      flex: 1;
      min-height: 0;
    }
    cdk-virtual-scroll-viewport:focus-visible {
      outline-offset: -2px;
    }
    .row {
      display: flex;
      align-items: center;
      gap: 6px;
      height: 26px;
      padding-right: 14px;
      border-left: 3px solid transparent;
      cursor: pointer;
      white-space: nowrap;
    }
    .row:hover:not(.chosen) {
      background: var(--fine);
    }
    .vehicle .text {
      font-weight: 600;
    }
    .chosen {
      background: var(--dye-tint);
      border-left-color: var(--dye);
    }
    .chosen .text {
      font-weight: 600;
    }
    cdk-virtual-scroll-viewport:focus .active {
      box-shadow: inset 0 0 0 1px var(--dye);
    }
    .cut {
      opacity: 0.5;
    }
    .row.cdk-drag-dragging {
      position: relative;
      z-index: 2;
      background: var(--sheet);
      outline: 1px solid var(--dye);
      opacity: 0.85;
    }
    .fold {
      flex: none;
      width: 18px;
      height: 22px;
      padding: 0;
      border: 0;
      background: none;
      color: var(--soft);
      cursor: pointer;
    }
    .fold i {
      font-size: 12px;
    }
    .hidden {
      visibility: hidden;
    }
    .text {
      flex: 1;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .count {
      min-width: 26px;
      text-align: right;
      color: var(--soft);
      font-size: 12.5px;
    }
    .none {
      position: absolute;
      top: 62px;
      left: 16px;
      right: 16px;
    }
    .foot {
      display: flex;
      gap: 8px;
      padding: 8px 12px;
      border-top: 1px solid var(--line);
    }
    .foot button {
      padding: 6px 9px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Stack {
  readonly outline = input.required<Outline>();
  readonly textOf = input.required<(node: OutlineNode) => NodeText>();
  readonly chosen = input.required<string>();
  readonly filter = model('');
  readonly picked = output<OutlineNode>();
  readonly mayAdd = input(true);
  /** parts that were cut and wait to be put somewhere */
  readonly cut = input<readonly string[]>([]);
  readonly dropped = output<{ readonly place: Place; readonly ids: readonly string[] }>();
  readonly menuAsked = output<MouseEvent>();

  protected readonly dropText = dropText;
  readonly addVehicle = output();
  readonly addSubsystem = output();

  protected readonly rowPx = ROW_PX;
  private readonly toggled = signal<ReadonlySet<string>>(new Set());
  private readonly find = viewChild.required<ElementRef<HTMLInputElement>>('find');
  private readonly viewport = viewChild.required(CdkVirtualScrollViewport);

  protected readonly rows = computed(() => {
    const outline = this.outline();
    const toggled = this.toggled();
    const words = this.filter()
      .trim()
      .toLowerCase()
      .split(/\s+/)
      .filter((word) => word !== '');
    const text = this.textOf();
    const matches = (node: OutlineNode): boolean => {
      const { name, tag } = text(node);
      const all = `${name} ${tag}`.toLowerCase();
      return words.every((word) => all.includes(word));
    };
    return visibleRows(outline, {
      roots: outline.nodes.flatMap((node, place) => (node.parent < 0 ? [place] : [])),
      isOpen: (node) => (node.kind === 'vehicle' || this.holdsChosen().has(node.key)) !== toggled.has(node.key),
      matches: words.length > 0 ? matches : null,
    });
  });
  /** the nodes above the chosen one, which are open of themselves */
  private readonly holdsChosen = computed<ReadonlySet<string>>(() => {
    const { nodes, placeOf } = this.outline();
    const above = new Set<string>();
    const place = placeOf.get(this.chosen());
    for (let at = nodes[place ?? -1]?.parent ?? -1; at >= 0; at = nodes[at]?.parent ?? -1) above.add(nodes[at]?.key ?? '');
    return above;
  });

  protected readonly cursor = new TreeCursor({
    rows: this.rows,
    chosen: this.chosen,
    viewport: this.viewport,
    rowPx: ROW_PX,
    idPrefix: 'stack',
    pick: (row) => this.picked.emit(row.node),
    toggle: (row) => this.toggle(row),
  });

  focusFind(): void {
    this.find().nativeElement.focus();
    this.find().nativeElement.select();
  }

  protected byKey = (_: number, row: TreeRow): string => row.node.key;

  protected leaveFilter(find: HTMLInputElement): void {
    this.filter.set('');
    find.blur();
  }

  protected drop(event: CdkDragEnd, row: TreeRow): void {
    const place = droppedOn(event);
    event.source.reset();
    if (place) this.dropped.emit({ place, ids: [row.node.id] });
  }

  protected toggle(row: TreeRow): void {
    this.toggled.update((keys) => toggled(keys, row.node.key));
  }
}
