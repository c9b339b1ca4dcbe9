import { CdkDrag, type CdkDragEnd } from '@angular/cdk/drag-drop';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, input, output, signal, viewChild } from '@angular/core';
import type { Place } from '@each-bolt/core/bench';
import type { EvidenceMark as Mark } from '@each-bolt/core/shared';
import type { Outline } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { dropText, droppedOn } from '../shared/dragged';
import { CauseCount } from '../shared/cause-count';
import { EvidenceMark } from '../shared/evidence-mark';
import { CountPipe, MassPipe, MoneyPipe, UnitPipe } from '../shared/pipes';
import { TreeCursor, toggled } from '../shared/tree-cursor';
import { visibleRows, type TreeRow } from '../shared/visible-rows';

/** The figures of one row, worked out by core, ready to print. */
export interface RowFigures {
  readonly name: string;
  readonly detail: string;
  readonly count: number;
  /** "2–3", or empty where the count is certain */
  readonly countRange: string;
  readonly countMark: Mark | null;
  readonly fasteners: number | null;
  readonly joints: number | null;
  readonly massKg: number | null;
  /** "± 4.2 g", or empty */
  readonly massU: string;
  readonly weakest: Mark | null;
  readonly weakestShare: string;
  readonly cost: number | null;
  readonly costMark: Mark | null;
  readonly costGap: string;
  readonly costTitle: string;
  readonly weighed: string;
  readonly weighedTitle: string;
  /** causes of what does not close, in and below it */
  readonly causes: number;
}

/** Height of a row: ten are seen at the bench; for fingers and gloves it is a finger high. */
const rowHeight = (): number => (typeof matchMedia === 'function' && matchMedia('(pointer: coarse)').matches ? 44 : 33);

/** The parts of a subsystem as a tree, with totals at every node. */
@Component({
  selector: 'eb-parts-table',
  imports: [
    CauseCount,
    CdkDrag,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
    CdkVirtualScrollViewport,
    CountPipe,
    EvidenceMark,
    MassPipe,
    MoneyPipe,
    NgTemplateOutlet,
    ButtonDirective,
    UnitPipe,
  ],
  template: `<div class="table">
    <div class="row head" role="row" id="parts-head">
      <span role="columnheader">Part</span>
      <span role="columnheader" class="right" [title]="countTitle()">Count <span class="markroom"></span></span>
      <span role="columnheader" class="right spare">Fasteners</span>
      <span role="columnheader" class="right spare">Joints</span>
      <span role="columnheader" class="right">Mass, {{ 'kg' | ebUnit }} <span class="markroom"></span></span>
      <span role="columnheader" class="right">Cost, {{ currency() }} <span class="markroom"></span></span>
      <span role="columnheader">Weighed</span>
    </div>
    <cdk-virtual-scroll-viewport
      [itemSize]="rowPx"
      role="treegrid"
      aria-label="Parts"
      aria-multiselectable="true"
      aria-owns="parts-head parts-foot"
      [attr.aria-rowcount]="rows().length + 2"
      tabindex="0"
      [attr.aria-activedescendant]="cursor.activeId()"
      (keydown)="onKey($event)"
      (focus)="cursor.startAtChosen()"
    >
      <div
        *cdkVirtualFor="let row of rows(); trackBy: byKey; let i = index"
        class="row"
        role="row"
        [style.height.px]="rowPx"
        [id]="cursor.idOf(row)"
        [attr.aria-level]="row.level + 1"
        [attr.aria-expanded]="row.hasChildren ? row.isOpen : null"
        [attr.aria-selected]="row.node.key === chosen() || marked().has(row.node.id)"
        [attr.data-place]="dropText(row.node)"
        [class.chosen]="row.node.key === chosen()"
        [class.marked]="marked().has(row.node.id)"
        [class.cut]="cut().includes(row.node.id)"
        cdkDrag
        [cdkDragDisabled]="!mayMove()"
        [cdkDragStartDelay]="{ touch: 350, mouse: 0 }"
        (cdkDragEnded)="drop($event, row)"
        (contextmenu)="menu($event, row, i)"
        [class.position]="row.node.key === position()"
        [class.active]="i === cursor.active()"
        (click)="pick($event, row, i)"
      >
        @let f = figuresOf()(row.place);
        <span class="name" role="gridcell" [style.padding-left.px]="row.level * 16">
          <button
            pButton
            [text]="true"
            severity="secondary"
            type="button"
            class="fold"
            tabindex="-1"
            [class.hidden]="!row.hasChildren"
            [attr.aria-label]="row.isOpen ? 'Close' : 'Open'"
            (click)="toggle(row); $event.stopPropagation()"
          >
            <i [class]="row.isOpen ? 'pi pi-angle-down' : 'pi pi-angle-right'" aria-hidden="true"></i>
          </button>
          <span class="two">
            <span class="named">
              <span class="first" [title]="f.name">{{ f.name }}</span>
              <eb-cause-count [count]="f.causes" />
            </span>
            <span class="second" [title]="f.detail">{{ f.detail }}</span>
          </span>
        </span>
        <ng-container [ngTemplateOutlet]="cells" [ngTemplateOutletContext]="{ $implicit: f }" />
      </div>
    </cdk-virtual-scroll-viewport>
    @if (total(); as f) {
      <div class="row foot" role="row" id="parts-foot">
        <span class="name two" role="gridcell">
          <span>{{ f.name }}</span>
          @if (f.detail !== '') {
            <span class="second" [title]="f.detail">{{ f.detail }}</span>
          }
        </span>
        <ng-container [ngTemplateOutlet]="cells" [ngTemplateOutletContext]="{ $implicit: f }" />
      </div>
    }
    <ng-template #cells let-f>
      <span class="right" role="gridcell">
        <span class="figure">{{ f.count | ebCount }}</span><eb-mark class="gap" [mark]="f.countMark" of="the count" />
        @if (f.countRange !== '') {
          <span class="second figure">{{ f.countRange }}<span class="markroom"></span></span>
        }
      </span>
      <span class="figure right spare" role="gridcell">{{ f.fasteners | ebCount }}</span>
      <span class="figure right spare" role="gridcell">{{ f.joints | ebCount }}</span>
      <span class="right" role="gridcell">
        <span class="figure">{{ f.massKg | ebMass }}</span><eb-mark class="gap" [mark]="f.weakest" [share]="f.weakestShare" />
        <span class="second figure">{{ f.massU }}<span class="markroom"></span></span>
      </span>
      <span class="right" role="gridcell" [title]="f.costTitle">
        <span class="figure">{{ f.cost | ebMoney }}</span><eb-mark class="gap" [mark]="f.costMark" of="the cost" />
        @if (f.costGap !== '') {
          <span class="second">{{ f.costGap }}<span class="markroom"></span></span>
        }
      </span>
      <span class="first small" role="gridcell" [title]="f.weighedTitle">{{ f.weighed }}</span>
    </ng-template>
  </div>`,
  styles: `
    :host,
    .table {
      display: flex;
      flex-direction: column;
      min-height: 0;
      flex: 1;
    }
    :host {
      container-type: inline-size;
    }
    cdk-virtual-scroll-viewport:focus-visible {
      outline-offset: -2px;
    }
    cdk-virtual-scroll-viewport {
      flex: 1;
      min-height: 88px;
    }
    .row {
      display: grid;
      grid-template-columns: minmax(140px, 1fr) 82px 62px 46px 96px 88px 66px;
      column-gap: 8px;
      align-items: center;
      padding: 0 8px 0 0;
      border-bottom: 1px solid var(--fine);
      border-left: 3px solid transparent;
    }
    .head {
      height: 26px;
      border-bottom: 1px solid var(--ink);
      font: 500 12.5px/1 var(--label);
      color: var(--soft);
      padding-left: 4px;
      flex: none;
    }
    .foot {
      height: 40px;
      border-top: 1px solid var(--ink);
      border-bottom: 0;
      flex: none;
    }
    .foot .figure,
    .foot .name {
      font-weight: 600;
    }
    .foot .second.figure {
      font-weight: 400;
    }
    .foot .name {
      padding-left: 4px;
      font-family: var(--label);
    }
    cdk-virtual-scroll-viewport .row {
      cursor: pointer;
    }
    cdk-virtual-scroll-viewport .row:hover:not(.chosen) {
      background: var(--fine);
    }
    .row.chosen {
      background: var(--dye-tint);
      border-left-color: var(--dye);
    }
    .row.marked {
      background: var(--dye-tint);
    }
    .row.cut {
      opacity: 0.5;
    }
    .row.cdk-drag-dragging {
      position: relative;
      z-index: 2;
      background: var(--sheet);
      outline: 1px solid var(--dye);
      opacity: 0.85;
    }
    .row.position:not(.chosen) {
      border-left-color: var(--line);
    }
    cdk-virtual-scroll-viewport:focus .active {
      box-shadow: inset 0 0 0 1px var(--dye);
    }
    .right {
      line-height: 1.1;
      white-space: nowrap;
      text-align: right;
    }
    .name {
      display: flex;
      align-items: center;
      min-width: 0;
      overflow: hidden;
    }
    .two {
      min-width: 0;
      display: grid;
    }
    .first {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
      font-size: 13.5px;
      line-height: 1.15;
    }
    .named {
      --cause-count-size: 10.5px;
      display: flex;
      gap: 5px;
      align-items: center;
      min-width: 0;
    }
    .small {
      font-size: 13px;
    }
    .second {
      display: block;
      font-size: 11.5px;
      line-height: 1.15;
      color: var(--soft);
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .second.figure {
      font-size: 11.5px;
    }
    .markroom {
      display: inline-block;
      width: 21px;
    }
    .gap {
      margin-left: 5px;
    }
    .fold {
      flex: none;
      width: 22px;
      height: 30px;
      padding: 0;
      border: 0;
      background: none;
      color: var(--soft);
      cursor: pointer;
    }
    .fold i {
      font-size: 13px;
    }
    .hidden {
      visibility: hidden;
    }
    @container (max-width: 560px) {
      .row {
        grid-template-columns: minmax(110px, 1fr) 62px 92px 88px 56px;
      }
      .spare {
        display: none;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PartsTable {
  readonly outline = input.required<Outline>();
  /** place of the subsystem in the outline */
  readonly root = input.required<number>();
  readonly figuresOf = input.required<(place: number) => RowFigures>();
  readonly total = input.required<RowFigures | null>();
  readonly chosen = input('');
  /** the assembly that new parts go into */
  readonly position = input('');
  readonly currency = input.required<string>();
  readonly countTitle = input('');
  /** parts chosen together, and parts that were cut */
  readonly marked = input<ReadonlySet<string>>(new Set());
  readonly cut = input<readonly string[]>([]);
  readonly mayMove = input(false);
  readonly picked = output<string>();
  readonly markedToo = output<string>();
  readonly dropped = output<{ readonly place: Place; readonly ids: readonly string[] }>();
  readonly menuAsked = output<MouseEvent>();

  protected readonly dropText = dropText;

  protected readonly rowPx = rowHeight();
  private readonly closed = signal<ReadonlySet<string>>(new Set());
  private readonly viewport = viewChild.required(CdkVirtualScrollViewport);

  protected readonly rows = computed(() => {
    const closed = this.closed();
    return visibleRows(this.outline(), {
      roots: this.outline().nodes[this.root()]?.children ?? [],
      isOpen: (node) => !closed.has(node.key),
      matches: null,
    });
  });
  protected readonly cursor = new TreeCursor({
    rows: this.rows,
    chosen: this.chosen,
    viewport: this.viewport,
    rowPx: this.rowPx,
    idPrefix: 'part',
    pick: (row) => this.picked.emit(row.node.id),
    toggle: (row) => this.toggle(row),
  });

  protected byKey = (_: number, row: TreeRow): string => row.node.key;

  /** A click chooses; with Ctrl or Shift it chooses beside what is chosen. */
  protected pick(event: MouseEvent, row: TreeRow, at: number): void {
    if (event.ctrlKey || event.metaKey || event.shiftKey) this.markToo(row, at);
    else this.cursor.pick(row, at);
  }

  protected onKey(event: KeyboardEvent): void {
    const row = this.rows()[this.cursor.active()];
    if (event.key === ' ' && (event.ctrlKey || event.metaKey) && row) {
      event.preventDefault();
      this.markToo(row, this.cursor.active());
    } else this.cursor.onKey(event);
  }

  private markToo(row: TreeRow, at: number): void {
    this.cursor.active.set(at);
    // the part whose card is open is the first of those chosen together
    if (this.marked().size === 0 && this.chosen() !== '' && this.chosen() !== row.node.id) this.markedToo.emit(this.chosen());
    this.markedToo.emit(row.node.id);
  }

  protected menu(event: MouseEvent, row: TreeRow, at: number): void {
    if (!this.mayMove()) return;
    event.preventDefault();
    if (!this.marked().has(row.node.id)) this.cursor.pick(row, at);
    this.menuAsked.emit(event);
  }

  protected drop(event: CdkDragEnd, row: TreeRow): void {
    const place = droppedOn(event);
    event.source.reset();
    if (place) this.dropped.emit({ place, ids: this.marked().has(row.node.id) ? [...this.marked()] : [row.node.id] });
  }

  protected toggle(row: TreeRow): void {
    this.closed.update((keys) => toggled(keys, row.node.key));
  }
}
