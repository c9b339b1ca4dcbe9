import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { cellLabel, valueText } from '@each-bolt/core/bench';
import type { NameOf } from '@each-bolt/core/record';
import { Dialog } from 'primeng/dialog';
import { ButtonDirective } from 'primeng/button';
import type { AskedUndo } from '../record/undo-service';

/** Asks what to do when an undo meets what has been changed since. */
@Component({
  selector: 'eb-undo-dialog',
  imports: [Dialog, ButtonDirective],
  template: `<p-dialog
    closeAriaLabel="Close"
    header="Changed since"
    [visible]="asked() !== null"
    (visibleChange)="answered.emit('leave')"
    [modal]="true"
    [style]="{ width: '620px', maxWidth: 'calc(100% - 40px)' }"
  >
    <p>What you want to take back has been changed since you did it.</p>
    @for (row of rows(); track row.id) {
      <h3>{{ row.name }}</h3>
      @if (row.gone) {
        <p>It was taken off meanwhile; there is nothing to undo on it.</p>
      }
      <dl>
        @for (cell of row.cells; track cell.label) {
          <dt>{{ cell.label }}</dt>
          <dd>
            is now <b>{{ cell.now }}</b>; undoing would make it <b>{{ cell.undone }}</b>
          </dd>
        }
      </dl>
    }
    <div class="buttons">
      <button pButton severity="secondary" type="button" (click)="answered.emit('leave')">Leave everything as it is</button>
      <button pButton severity="secondary" type="button" (click)="answered.emit('rest')">Undo only the rest</button>
      <button pButton type="button" (click)="answered.emit('over')">Undo anyway</button>
    </div>
  </p-dialog>`,
  styles: `
    h3 {
      margin: 12px 0 4px;
    }
    dl {
      display: grid;
      grid-template-columns: 160px 1fr;
      gap: 3px 12px;
      margin: 0;
    }
    dt {
      color: var(--soft);
    }
    dd {
      margin: 0;
    }
    .buttons {
      display: flex;
      justify-content: flex-end;
      gap: 8px;
      margin-top: 16px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UndoDialog {
  readonly asked = input.required<AskedUndo | null>();
  readonly nameOf = input.required<NameOf>();
  readonly answered = output<'over' | 'rest' | 'leave'>();
  protected readonly rows = computed(() =>
    (this.asked()?.conflicts ?? []).map((conflict) => ({
      id: conflict.id,
      name: this.nameOf()(conflict.id) ?? 'a record',
      gone: conflict.current === null,
      cells: conflict.cells.map((c) => ({
        label: cellLabel(conflict.entity, c.cell),
        now: valueText(conflict.entity, c.cell, c.theirs, this.nameOf()),
        undone: conflict.verb === 'remove' ? 'gone' : valueText(conflict.entity, c.cell, c.yours, this.nameOf()),
      })),
    })),
  );
}
