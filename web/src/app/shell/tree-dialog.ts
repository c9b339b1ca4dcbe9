import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { placesOf, type Given, type NamedPlace } from '@each-bolt/core/bench';
import { EVIDENCE_WORD, MATERIALS, PROCESSES, type EvidenceMark } from '@each-bolt/core/shared';
import { AutoComplete } from 'primeng/autocomplete';
import { ButtonDirective } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { TreeActs, type TreeAsk } from '../acts/tree-acts';
import { OpenStudy } from '../record/open-study';
import { Choose, ChoicesPipe } from '../shared/choose';

/** So many places are offered at once; more letters narrow them. */
const MOST_OFFERED = 40;

const HEADING: Readonly<Record<TreeAsk, string>> = {
  move: 'Move',
  copy: 'Copy',
  assemble: 'Make an assembly of',
  split: 'Split',
  give: 'Give the same values to',
  delete: 'Delete',
  'rename subsystem': 'Rename the subsystem',
  'move subsystem': 'Move the subsystem',
  'merge subsystem': 'Merge the subsystem',
};
const ACT: Readonly<Record<TreeAsk, string>> = {
  move: 'Move',
  copy: 'Copy',
  assemble: 'Make the assembly',
  split: 'Split',
  give: 'Give',
  delete: 'Delete',
  'rename subsystem': 'Rename',
  'move subsystem': 'Move',
  'merge subsystem': 'Merge',
};
/** Marks that a value given to several parts may have. */
const MARKS: readonly EvidenceMark[] = ['S', 'T', 'R', 'I', '?'];

/** Asks what an act on the tree needs to know, and shows what goes with it. */
@Component({
  selector: 'eb-tree-dialog',
  imports: [AutoComplete, ButtonDirective, Choose, ChoicesPipe, Dialog, FormsModule, InputText],
  template: `<p-dialog
    closeAriaLabel="Close"
    [header]="heading()"
    [visible]="acts.asking() !== null"
    (visibleChange)="$event || acts.asking.set(null)"
    [modal]="true"
    [focusOnShow]="true"
    (onHide)="acts.focusBack()"
    [style]="{ width: '520px', maxWidth: 'calc(100% - 24px)' }"
  >
    <div class="form" (keydown.enter)="submitByKey($event)">
      @switch (acts.asking()) {
        @case ('move') {
          <label for="tree-place">To</label>
        }
        @case ('copy') {
          <label for="tree-place">To</label>
        }
      }
      @if (acts.asking() === 'move' || acts.asking() === 'copy') {
        <p-autocomplete
          inputId="tree-place"
          [ngModel]="place()"
          (ngModelChange)="place.set($event)"
          [suggestions]="offered()"
          (completeMethod)="look($event.query)"
          optionLabel="text"
          [autofocus]="true"
          [forceSelection]="true"
          [dropdown]="true"
          [minLength]="0"
          appendTo="body"
          [fluid]="true"
          placeholder="vehicle, subsystem or part"
          emptyMessage="No place of that name"
        />
        @if (acts.asking() === 'copy') {
          <p class="soft">
            All inside and the sets of fasteners, joints and connections come along. On another vehicle every value is marked as to be
            confirmed; tags, readings and pictures stay with the original.
          </p>
        }
      }
      @if (acts.asking() === 'assemble' || acts.asking() === 'rename subsystem') {
        <label for="tree-name">Name</label>
        <input
          pInputText
          id="tree-name"
          autocomplete="off"
          maxlength="200"
          [value]="name()"
          (input)="name.set($any($event.target).value)"
        />
      }
      @if (acts.asking() === 'split') {
        <label for="tree-count">How many of the {{ quantity() }} go into a line of their own</label>
        <input
          pInputText
          id="tree-count"
          inputmode="numeric"
          autocomplete="off"
          [value]="count()"
          (input)="count.set($any($event.target).value)"
        />
      }
      @if (acts.asking() === 'give') {
        <p class="soft">What is left empty stays as each part has it.</p>
        <span class="label">Material</span>
        <eb-choose label="Material" [(value)]="material" [options]="materials | ebChoices: 'id' : 'name' : 'as it is'" />
        <span class="label">Made by</span>
        <eb-choose label="Made by" [(value)]="process" [options]="processes | ebChoices: 'id' : 'name' : 'as it is'" />
        <label for="tree-supplier">Supplier</label>
        <input
          pInputText
          id="tree-supplier"
          autocomplete="off"
          maxlength="200"
          [value]="supplier()"
          (input)="supplier.set($any($event.target).value)"
        />
        <label for="tree-location">Location</label>
        <input
          pInputText
          id="tree-location"
          autocomplete="off"
          maxlength="200"
          [value]="location()"
          (input)="location.set($any($event.target).value)"
        />
        <span class="label">How it is known</span>
        <eb-choose label="How it is known" [(value)]="mark" [options]="marks" />
      }
      @if (acts.asking() === 'delete') {
        <p>
          {{ acts.goesWith() === '' ? 'Nothing else goes with it.' : 'With it: ' + acts.goesWith() + '.' }}
          The history keeps what is deleted.
        </p>
      }
      @if (acts.asking() === 'move subsystem' || acts.asking() === 'merge subsystem') {
        <span class="label">{{ acts.asking() === 'move subsystem' ? 'Below' : 'Into' }}</span>
        <eb-choose
          label="Other subsystem"
          [(value)]="other"
          [options]="others() | ebChoices: 'id' : 'name' : (acts.asking() === 'move subsystem' ? 'the top of the tree' : 'choose one')"
        />
        @if (acts.asking() === 'merge subsystem') {
          <p class="soft">Its parts on every vehicle, its packages, scope and questions go there; it is deleted itself.</p>
        }
      }
      @if (acts.fault() !== '') {
        <p class="fault" role="alert">{{ acts.fault() }}</p>
      }
      <div class="buttons">
        <button pButton severity="secondary" type="button" (click)="acts.asking.set(null)">Cancel</button>
        <button pButton type="button" [disabled]="busy()" (click)="submit()">{{ actText() }}</button>
      </div>
    </div>
  </p-dialog>`,
  styles: `
    .form {
      display: grid;
      gap: 6px;
    }
    label {
      font: 500 13px/1.3 var(--label);
      color: var(--soft);
    }
    p {
      font-size: 13.5px;
    }
    .fault {
      color: var(--amber);
      font-weight: 500;
    }
    .buttons {
      display: flex;
      justify-content: flex-end;
      gap: 8px;
      margin-top: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TreeDialog {
  protected readonly acts = inject(TreeActs);
  private readonly open = inject(OpenStudy);

  protected readonly materials = MATERIALS;
  protected readonly processes = PROCESSES;
  protected readonly marks = [
    { value: '', word: 'as it goes without saying' },
    ...MARKS.map((value) => ({ value, word: `${value} ${EVIDENCE_WORD[value]}` })),
  ];
  protected readonly busy = signal(false);

  /** each question begins with an empty form */
  private readonly fresh = <T>(value: () => T) => linkedSignal<TreeAsk | null, T>({ source: this.acts.asking, computation: value });
  protected readonly place = this.fresh<NamedPlace | string | null>(() => null);
  protected readonly name = this.fresh(() => (this.acts.asking() === 'rename subsystem' ? (this.acts.subsystem()?.name ?? '') : ''));
  protected readonly count = this.fresh(() => '1');
  protected readonly material = this.fresh(() => '');
  protected readonly process = this.fresh(() => '');
  protected readonly supplier = this.fresh(() => '');
  protected readonly location = this.fresh(() => '');
  protected readonly mark = this.fresh(() => '');
  protected readonly other = this.fresh(() => '');

  protected readonly heading = computed(() => {
    const asking = this.acts.asking();
    if (asking === null) return '';
    const what = asking.endsWith('subsystem') ? (this.acts.subsystem()?.name ?? '') : this.acts.names();
    return `${HEADING[asking]}: ${what}`;
  });
  protected readonly actText = computed(() => ACT[this.acts.asking() ?? 'move']);
  protected readonly quantity = computed(() => this.acts.parts()[0]?.quantity ?? 0);
  protected readonly others = computed(() => this.open.record().subsystems.filter((one) => one.id !== this.acts.subsystem()?.id));
  private readonly places = computed(() => placesOf(this.open.record()).map((place) => ({ ...place, words: place.text.toLowerCase() })));
  protected readonly offered = signal<NamedPlace[]>([]);

  /** Offers the places in whose way all words stand. */
  protected look(text: string): void {
    const words = text
      .toLowerCase()
      .split(/\s+/)
      .filter((word) => word !== '');
    const isMoved = new Set(this.acts.ids());
    const found: NamedPlace[] = [];
    for (const place of this.places()) {
      if (found.length === MOST_OFFERED) break;
      if (!isMoved.has(place.key) && words.every((word) => place.words.includes(word))) found.push(place);
    }
    this.offered.set(found);
  }

  protected submitByKey(event: Event): void {
    // Enter on a list that is open takes what is chosen in it
    if ((event.target as HTMLElement).getAttribute('aria-expanded') !== 'true' && !(event.target instanceof HTMLButtonElement))
      void this.submit();
  }

  protected async submit(): Promise<void> {
    this.busy.set(true);
    await this.act();
    this.busy.set(false);
  }

  private async act(): Promise<void> {
    const asking = this.acts.asking();
    const place = this.place();
    if (asking === 'move' || asking === 'copy') {
      if (place === null || typeof place === 'string')
        this.acts.fault.set('Choose the place from the list; type part of its name to find it');
      else await (asking === 'move' ? this.acts.move(place.place) : this.acts.copy(place.place));
    } else if (asking === 'assemble') await this.acts.assemble(this.name());
    else if (asking === 'split') await this.acts.split(Number(this.count()));
    else if (asking === 'give') await this.acts.give(this.given(), this.mark() === '' ? null : (this.mark() as EvidenceMark));
    else if (asking === 'delete') await this.acts.remove();
    else if (asking === 'rename subsystem') await this.rename();
    else if (asking === 'move subsystem') await this.acts.moveSubsystem(this.other() === '' ? null : this.other());
    else if (asking === 'merge subsystem') await this.acts.mergeSubsystem(this.other());
  }

  private async rename(): Promise<void> {
    const name = this.name().trim();
    if (name === '') this.acts.fault.set('Give it a name');
    else await this.acts.renameSubsystem(name);
  }

  private given(): Given {
    const [supplier, location] = [this.supplier().trim(), this.location().trim()];
    return {
      ...(this.material() === '' ? {} : { materialId: this.material() }),
      ...(this.process() === '' ? {} : { processId: this.process() }),
      ...(supplier === '' ? {} : { supplier }),
      ...(location === '' ? {} : { location }),
    };
  }
}
