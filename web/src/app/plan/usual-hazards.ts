import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { UsualHazards } from '@each-bolt/core/record';
import { HAZARDS, hazardById } from '@each-bolt/core/plan';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { IconButton } from '../shared/icon-button';
import { DataTable, TableHead, TableRow, TableFoot } from '../shared/data-table';
import { Choose, ChoicesPipe } from '../shared/choose';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { EditField } from '../shared/edit-field';

/** Which hazards work on a subsystem usually has, by words of its name: packages made from the scope begin with them. */
@Component({
  selector: 'eb-usual-hazards',
  imports: [EditField, ButtonDirective, InputText, Choose, ChoicesPipe, DataTable, TableHead, TableRow, TableFoot, IconButton],
  template: `<p class="soft">
      A package made from the scope begins with the hazards of every line that has a word of its subsystem’s name. Packages that are there
      already do not change.
    </p>
    <eb-table
      ><ng-template ebHead>
        <tr>
          <th scope="col">Words in the name of the subsystem</th>
          <th scope="col">Hazards</th>
          <th></th>
        </tr> </ng-template
      ><ng-template [ebRow]="lines()" let-line let-i="index">
        <tr>
          <td class="words">
            <eb-edit-field
              [label]="'Words of line ' + (i + 1)"
              [shape]="{ kind: 'words' }"
              [value]="line.words"
              [disabled]="!mayEdit()"
              (committed)="set(i, { words: $any($event) })"
            />
          </td>
          <td>
            <div class="ticks" role="group" [attr.aria-label]="'Hazards of line ' + (i + 1)">
              @for (hazard of line.known; track hazard.id) {
                <span class="chip">
                  {{ hazard.name }}
                  @if (mayEdit()) {
                    <eb-icon-button [label]="'Take ' + hazard.name + ' out of line ' + (i + 1)" (acted)="tick(i, hazard.id, false)" />
                  }
                </span>
              }
              @if (mayEdit()) {
                <eb-choose
                  #more
                  [label]="'Add a hazard to line ' + (i + 1)"
                  (valueChange)="$event !== '' && tick(i, $event, true); more.value.set('')"
                  [options]="line.others | ebChoices: 'id' : 'name' : 'add a hazard'"
                />
              }
            </div>
          </td>
          <td>
            @if (mayEdit()) {
              <eb-icon-button [label]="'Take line ' + (i + 1) + ' out'" (acted)="take(i)" />
            }
          </td>
        </tr> </ng-template
      ><ng-template ebFoot>
        @if (lines().length === 0) {
          <tr>
            <td colspan="3" class="soft">No line yet: packages from the scope begin without hazards.</td>
          </tr>
        }
      </ng-template></eb-table
    >
    @if (edits.faultOf(open.study().id, 'usualHazards'); as fault) {
      <p class="fault" role="alert">{{ fault }}</p>
    }
    @if (mayEdit()) {
      <form (submit)="add($event, words)">
        <input
          pInputText
          #words
          aria-label="Words of a new line"
          placeholder="words of a subsystem, such as exhaust, silencer"
          autocomplete="off"
        />
        <button pButton severity="secondary" type="submit">Add a line</button>
      </form>
    } @else {
      <p class="soft">The lead of the study keeps this table.</p>
    }`,
  styles: `
    :host {
      display: grid;
      gap: 10px;
    }
    .words {
      width: 320px;
      vertical-align: top;
    }
    .ticks {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      align-items: center;
      font-size: 13px;
    }
    .chip {
      display: inline-flex;
      gap: 2px;
      align-items: center;
      padding: 0 2px 0 8px;
      border: 1px solid var(--line);
      background: var(--sheet);
    }
    form {
      display: flex;
      gap: 6px;
    }
    form input {
      width: 320px;
    }
    .fault {
      color: var(--red);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UsualHazardsTable {
  protected readonly open = inject(OpenStudy);
  protected readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);
  protected readonly lines = computed(() =>
    this.open.study().usualHazards.map(({ words, hazards }) => ({
      words,
      hazards,
      known: hazards.flatMap((id) => hazardById.get(id) ?? []),
      others: HAZARDS.filter(({ id }) => !hazards.includes(id)),
    })),
  );
  protected readonly mayEdit = computed(() => this.service.role() === 'lead' && this.service.can()('study.edit'));

  private table(): readonly UsualHazards[] {
    return this.open.study().usualHazards;
  }

  private keep(usualHazards: readonly UsualHazards[]): Promise<boolean> {
    return this.edits.edit('study', this.open.study(), { usualHazards });
  }

  protected set(at: number, fields: Partial<UsualHazards>): void {
    void this.keep(this.table().map((line, i) => (i === at ? { ...line, ...fields } : line)));
  }

  protected tick(at: number, hazard: string, isOn: boolean): void {
    if (hazard === '') return;
    const before = this.table()[at]?.hazards ?? [];
    this.set(at, { hazards: isOn ? [...before, hazard] : before.filter((id) => id !== hazard) });
  }

  protected take(at: number): void {
    void this.keep(this.table().filter((_, i) => i !== at));
  }

  protected async add(event: Event, input: HTMLInputElement): Promise<void> {
    event.preventDefault();
    const words = input.value
      .split(',')
      .map((word) => word.trim())
      .filter((word) => word !== '');
    if (words.length > 0 && (await this.keep([...this.table(), { words, hazards: [] }]))) input.value = '';
  }
}
