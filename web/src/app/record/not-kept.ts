import { ChangeDetectionStrategy, Component, computed, input, model, output, signal } from '@angular/core';
import type { NameOf, Op } from '@each-bolt/core/record';
import { cellLabel, changeLine, changeWords, valueText } from '@each-bolt/core/bench';
import { Dialog } from 'primeng/dialog';
import { FocusBack } from '../shared/focus-back';
import type { OutboxEntry } from './stored';
import { choiceKey, faultyFields, resolved, retyped, type FaultyField } from './mend';
import type { ToldConflict } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { RadioButton } from 'primeng/radiobutton';
import { FormsModule } from '@angular/forms';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { whenText } from './when';

/** What a refused change becomes: other ops in its place, or nothing. */
export interface Mended {
  readonly entry: OutboxEntry;
  /** empty gives it up */
  readonly ops: readonly Op[];
}

/** What the server did not keep, each with its reason and a way on. Nothing here is lost until it is given up. */
@Component({
  selector: 'eb-not-kept',
  imports: [Dialog, ButtonDirective, InputText, RadioButton, FormsModule, DataTable, TableHead, TableRow, FocusBack],
  template: `<p-dialog
    closeAriaLabel="Close"
    header="Not kept"
    [(visible)]="visible"
    [ebFocusBack]="visible()"
    [modal]="true"
    [style]="{ width: '760px', maxWidth: 'calc(100% - 40px)' }"
  >
    @for (entry of entries(); track entry.seq) {
      <section>
        <p class="head">
          <b>{{ line(entry) }}</b> <span class="soft">recorded here {{ when(entry.madeAt) }}</span>
        </p>
        <p>{{ entry.refusal?.message }}</p>
        @for (conflict of conflictsOf(entry); track conflict.id) {
          @if (conflict.current === null) {
            <p class="clash">
              “{{ name(conflict.id) }}” was taken off{{ conflict.by ? ' by ' + conflict.by : '' }} {{ when(conflict.at) }}.
              <button pButton severity="secondary" type="button" (click)="putBack.emit({ entry, rowId: conflict.id })">
                Put it back with your values
              </button>
            </p>
          } @else if (conflict.verb === 'remove') {
            <div class="clash">
              <p>You took off “{{ name(conflict.id) }}”; meanwhile {{ conflict.by ?? 'someone' }} changed it {{ when(conflict.at) }}:</p>
              <dl>
                @for (cell of conflict.cells; track cell.cell) {
                  <dt>{{ label(conflict, cell.cell) }}</dt>
                  <dd>
                    <del>{{ text(conflict, cell.cell, cell.was) }}</del> → {{ text(conflict, cell.cell, cell.theirs) }}
                  </dd>
                }
              </dl>
              <label
                ><p-radiobutton
                  [name]="entry.seq + conflict.id"
                  value="mine"
                  [ngModel]="chosen(conflict, '')"
                  (ngModelChange)="choose(conflict, '', 'mine')"
                />
                delete it anyway</label
              >
              <label
                ><p-radiobutton
                  [name]="entry.seq + conflict.id"
                  value="theirs"
                  [ngModel]="chosen(conflict, '')"
                  (ngModelChange)="choose(conflict, '', 'theirs')"
                />
                leave it</label
              >
            </div>
          } @else {
            <eb-table class="clash"
              ><ng-template ebHead>
                <tr>
                  <th>{{ name(conflict.id) }}</th>
                  <th>Yours</th>
                  <th>Theirs</th>
                </tr> </ng-template
              ><ng-template [ebRow]="conflict.cells" track="cell" let-cell>
                <tr>
                  <td>
                    {{ label(conflict, cell.cell) }}
                    <small class="soft">was {{ text(conflict, cell.cell, cell.was) }}</small>
                  </td>
                  <td>
                    <label>
                      <p-radiobutton
                        [name]="entry.seq + conflict.id + cell.cell"
                        value="mine"
                        [ngModel]="chosen(conflict, cell.cell)"
                        (ngModelChange)="choose(conflict, cell.cell, 'mine')"
                      />
                      <b>{{ text(conflict, cell.cell, cell.yours) }}</b>
                      <small class="soft">you, {{ when(entry.madeAt) }}</small>
                    </label>
                  </td>
                  <td>
                    <label>
                      <p-radiobutton
                        [name]="entry.seq + conflict.id + cell.cell"
                        value="theirs"
                        [ngModel]="chosen(conflict, cell.cell)"
                        (ngModelChange)="choose(conflict, cell.cell, 'theirs')"
                      />
                      <b>{{ text(conflict, cell.cell, cell.theirs) }}</b>
                      <small class="soft">{{ cell.by ?? 'someone' }}, {{ when(cell.at) }}</small>
                    </label>
                  </td>
                </tr>
              </ng-template></eb-table
            >
          }
        }
        @for (fault of faultsOf(entry); track fault.op + fault.field) {
          <form (submit)="retype($event, entry, fault, typed.value)">
            <label [for]="'mend' + entry.seq + fault.field">{{ fault.message }}</label>
            <input pInputText #typed [id]="'mend' + entry.seq + fault.field" [value]="fault.value" autocomplete="off" />
            <button pButton severity="secondary" type="submit">Send it so</button>
          </form>
        }
        @for (issue of otherIssues(entry); track $index) {
          <p class="fault">{{ issue }}</p>
        }
        <div class="buttons">
          @if (conflictsOf(entry).length > 0) {
            <button pButton type="button" (click)="settle(entry)">Send what is chosen</button>
          } @else {
            <button pButton severity="secondary" type="button" (click)="mended.emit({ entry, ops: entry.change.ops })">Send again</button>
          }
          @if (entry.typed !== '') {
            <button pButton severity="secondary" type="button" (click)="lineBack.emit(entry)">Restore the line</button>
          }
          @if (givingUp() === entry.seq) {
            <button pButton severity="secondary" type="button" class="warn" (click)="mended.emit({ entry, ops: [] })">Discard</button>
            <button pButton severity="secondary" type="button" (click)="givingUp.set(-1)">Keep it here</button>
          } @else {
            <button pButton severity="secondary" type="button" (click)="givingUp.set(entry.seq)">Discard</button>
          }
        </div>
      </section>
    } @empty {
      <p>Everything is kept.</p>
    }
  </p-dialog>`,
  styles: `
    section {
      border-top: 1px solid var(--line);
      padding: 10px 0;
      display: grid;
      gap: 6px;
    }
    .head {
      display: flex;
      justify-content: space-between;
      gap: 16px;
    }
    .clash {
      border: 1px solid var(--amber-edge);
      background: var(--amber-tint);
      border-collapse: collapse;
      width: 100%;
      padding: 6px 10px;
    }
    td small {
      display: block;
    }
    dl {
      display: grid;
      grid-template-columns: 170px 1fr;
      gap: 2px 12px;
      margin: 4px 0;
    }
    dd {
      margin: 0;
    }
    del {
      color: var(--soft);
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
    }
    input:not([type]) {
      height: 32px;
      padding: 0 8px;
      border: 1px solid var(--line);
      border-radius: 2px;
      background: var(--sheet);
      color: var(--ink);
    }
    .fault,
    .warn {
      color: var(--amber);
    }
    .buttons {
      display: flex;
      gap: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NotKept {
  readonly visible = model(false);
  readonly entries = input.required<readonly OutboxEntry[]>();
  readonly nameOf = input.required<NameOf>();
  readonly mended = output<Mended>();
  readonly lineBack = output<OutboxEntry>();
  readonly putBack = output<{ readonly entry: OutboxEntry; readonly rowId: string }>();

  private readonly choices = signal<ReadonlyMap<string, 'mine' | 'theirs'>>(new Map());
  protected readonly givingUp = signal(-1);
  protected readonly when = whenText;
  private readonly lines = computed(
    () => new Map(this.entries().map((e) => [e.seq, changeLine(changeWords({ ops: e.change.ops, inverse: e.inverse }, this.nameOf()))])),
  );

  protected line(entry: OutboxEntry): string {
    return this.lines().get(entry.seq) ?? '';
  }

  protected conflictsOf(entry: OutboxEntry): readonly ToldConflict[] {
    return entry.refusal?.conflicts ?? [];
  }

  protected faultsOf(entry: OutboxEntry): readonly FaultyField[] {
    return faultyFields(entry.change.ops, entry.refusal?.issues ?? []);
  }

  protected otherIssues(entry: OutboxEntry): readonly string[] {
    const shown = new Set(this.faultsOf(entry).map((fault) => fault.message));
    return (entry.refusal?.issues ?? []).map((issue) => issue.message).filter((message) => !shown.has(message));
  }

  protected name(id: string): string {
    return this.nameOf()(id) ?? 'a record';
  }

  protected label({ entity }: ToldConflict, cell: string): string {
    return cellLabel(entity, cell);
  }

  protected text({ entity }: ToldConflict, cell: string, value: unknown): string {
    return valueText(entity, cell, value, this.nameOf());
  }

  /** What is chosen, or what holds unless something else is: one’s own values, but nobody’s deletion. */
  protected chosen(conflict: ToldConflict, cell: string): 'mine' | 'theirs' {
    return this.choices().get(choiceKey(conflict, cell)) ?? (cell === '' ? 'theirs' : 'mine');
  }

  protected choose(conflict: ToldConflict, cell: string, which: 'mine' | 'theirs'): void {
    this.choices.update((all) => new Map(all).set(choiceKey(conflict, cell), which));
  }

  protected settle(entry: OutboxEntry): void {
    this.mended.emit({ entry, ops: resolved(entry.change.ops, this.conflictsOf(entry), this.choices()) });
  }

  protected retype(event: Event, entry: OutboxEntry, fault: FaultyField, text: string): void {
    event.preventDefault();
    this.mended.emit({ entry, ops: retyped(entry.change.ops, fault, text) });
  }
}
