import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { Op, Recount, Recounted } from '@each-bolt/core/record';
import { blindSets, differences, fastenerLine, jointLine, recountState, worthRecounting } from '@each-bolt/core/bench';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { DataTable, TableHead, TableRow, TableFoot } from '../shared/data-table';
import { Session as SignedIn } from '../record/session';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { PartLink } from '../record/part-link';
import { Selection } from '../record/selection';
import { EditField } from '../shared/edit-field';
import { whenText } from '../record/when';

import { NextParts } from '../record/next-parts';

/** A second person counts fasteners and joints without seeing the first count. */
@Component({
  selector: 'eb-recount-view',
  imports: [EditField, NextParts, ButtonDirective, InputText, DataTable, TableHead, TableRow, TableFoot, PartLink],
  template: `<div class="sheet scroll">
    <header class="sheet-head">
      <div>
        <h1>Blind recount</h1>
        <p class="soft">
          Somebody else counts again without seeing the first count. Where the two differ, they are shown side by side and settled.
        </p>
      </div>
    </header>
    @if (mayCount()) {
      @if (selection.part(); as part) {
        <section class="count" aria-label="Count again">
          <h2>{{ part.name }}</h2>
          @if (isOwn()) {
            <p class="own" role="note">You wrote the first count in this session. Somebody else should count now.</p>
          }
          @if (sets().length === 0) {
            <p class="soft">No fasteners or joints are recorded on it. What you find is written below all the same.</p>
          }
          <form (submit)="keep($event, others)">
            <eb-table class="blind"
              ><ng-template [ebRow]="sets()" track="setId" let-set>
                <tr>
                  <td class="figure">{{ set.words }}</td>
                  <td>
                    <input
                      pInputText
                      class="figure"
                      type="text"
                      inputmode="numeric"
                      autocomplete="off"
                      [attr.aria-label]="'How many: ' + set.words"
                      [value]="typed().get(set.setId) ?? ''"
                      (input)="type(set.setId, $any($event.target).value)"
                    />
                  </td>
                </tr> </ng-template
            ></eb-table>
            <label
              >Found besides
              <input
                pInputText
                #others
                type="text"
                class="wide"
                maxlength="1000"
                placeholder="2 clips behind the trim"
                aria-label="Found besides"
              />
            </label>
            @if (fault() !== '') {
              <p role="alert" class="fault">{{ fault() }}</p>
            }
            <button pButton type="submit">Keep the blind recount</button>
          </form>
        </section>
      } @else {
        <p class="sheet-empty">
          Choose the part in the stack that is counted again. Its card is closed here, so that the first count stays hidden.
        </p>
        <eb-next-parts title="Worth counting again" [parts]="next()" />
      }
    }
    <eb-table label="Blind recounts"
      ><ng-template ebHead>
        <tr>
          <th scope="col">Part</th>
          <th scope="col">Counted by</th>
          <th scope="col">What differs</th>
          <th scope="col">Settled</th>
        </tr> </ng-template
      ><ng-template [ebRow]="rows()" track="recount.id" let-row>
        <tr>
          <th scope="row">
            <eb-part-link [partId]="row.recount.partId" [name]="row.name" />
          </th>
          <td>{{ row.recount.by }}, {{ row.when }}</td>
          <td>
            @for (difference of row.differences; track difference.setId) {
              <div>
                <span class="figure">{{ difference.words }}</span> first {{ difference.first }}, then {{ difference.second }}
                @if (row.recount.state === 'differs' && mayCount()) {
                  <button pButton severity="secondary" type="button" (click)="takeSecond(row.recount, difference)">The second holds</button>
                }
              </div>
            }
            @if (row.recount.others !== '') {
              <div>found besides: {{ row.recount.others }}</div>
            }
            @if (row.recount.state === 'agrees') {
              <span class="soft">both agree</span>
            }
          </td>
          <td>
            @if (row.recount.state !== 'agrees') {
              <eb-edit-field
                [label]="'How the count of ' + row.name + ' was settled'"
                [placeholder]="row.recount.state === 'differs' ? 'how, and which holds' : ''"
                [value]="row.recount.settled"
                [disabled]="!mayCount()"
                (committed)="settle(row.recount, $any($event))"
              />
            }
          </td>
        </tr> </ng-template
      ><ng-template ebFoot>
        @if (rows().length === 0) {
          <tr>
            <td colspan="4" class="soft">Nothing was counted a second time yet.</td>
          </tr>
        }
      </ng-template></eb-table
    >
  </div>`,
  styles: `
    .blind {
      width: auto;
      min-width: 320px;
      margin: 6px 0;
    }
    .blind td {
      padding-right: 24px;
    }
    .blind input {
      width: 88px;
      height: 44px;
      font-size: 18px;
      text-align: right;
    }
    label {
      display: block;
      font: 500 12.5px/1.6 var(--label);
      color: var(--soft);
      margin-bottom: 8px;
    }
    .wide {
      display: block;
      width: 420px;
      max-width: 100%;
    }
    .fault {
      color: var(--amber);
      margin-bottom: 8px;
    }
    .own {
      color: var(--amber);
      font-weight: 500;
    }
    .count button[type='submit'] {
      min-height: 44px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecountView {
  protected readonly open = inject(OpenStudy);
  protected readonly selection = inject(Selection);
  private readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);
  private readonly signedIn = inject(SignedIn);

  protected readonly mayCount = computed(() => this.service.can()('recount.add'));
  protected readonly fault = signal('');
  protected readonly typed = signal<ReadonlyMap<string, string>>(new Map());
  private readonly fasteners = computed(() => this.open.fastenersOf().get(this.selection.part()?.id ?? '') ?? []);
  private readonly joints = computed(() => this.open.jointsOf().get(this.selection.part()?.id ?? '') ?? []);
  protected readonly sets = computed(() => blindSets(this.fasteners(), this.joints()));
  protected readonly next = computed(() => worthRecounting(this.open.record(), this.selection.vehicle()?.id ?? ''));
  protected readonly rows = computed(() => {
    const { recounts, fastenerSets, jointSets } = this.open.record();
    const all = [...fastenerSets, ...jointSets];
    return [...recounts]
      .sort((a, b) => (a.countedAt < b.countedAt ? 1 : -1))
      .map((recount) => ({
        recount,
        name: this.open.partById().get(recount.partId)?.name ?? '',
        when: whenText(recount.countedAt),
        differences: differences(recount.counts, all).map((d) => ({ ...d, words: this.wordsOf(d) })),
      }));
  });

  /** true when whoever is signed in wrote the first count */
  protected readonly isOwn = computed(() => {
    const partId = this.selection.part()?.id ?? '';
    const { steps, sessions } = this.open.record();
    const step = steps.find((s) => s.parts.includes(partId));
    const session = sessions.find((s) => s.id === step?.sessionId);
    return session !== undefined && session.recorder !== '' && session.recorder === this.signedIn.person?.name;
  });

  private wordsOf({ kind, setId }: Recounted): string {
    const { fastenerSets, jointSets } = this.open.record();
    const set = kind === 'fasteners' ? fastenerSets.find((s) => s.id === setId) : undefined;
    if (set) return fastenerLine(set).replace(/^\S+\s+/, '');
    const joints = jointSets.find((s) => s.id === setId);
    return joints ? jointLine(joints).replace(/^\S+\s+/, '') : 'a set taken off since';
  }

  protected type(setId: string, text: string): void {
    this.typed.update((all) => new Map([...all, [setId, text.trim()]]));
  }

  protected async keep(event: Event, others: HTMLInputElement): Promise<void> {
    event.preventDefault();
    const part = this.selection.part();
    if (!part) return;
    const counts: Recounted[] = [];
    for (const { kind, setId, words } of this.sets()) {
      const text = this.typed().get(setId) ?? '';
      if (!/^\d{1,6}$/.test(text)) {
        this.fault.set(`${words}: type how many you counted, 0 for none`);
        return;
      }
      const first = [...this.fasteners(), ...this.joints()].find((s) => s.id === setId)?.count ?? 0;
      counts.push({ kind, setId, first, second: Number(text) });
    }
    if (counts.length === 0 && others.value.trim() === '') {
      this.fault.set('Nothing was counted: write what you found, or choose another part');
      return;
    }
    this.fault.set('');
    const id = await this.edits.add('recount', {
      partId: part.id,
      by: this.signedIn.person?.name ?? '',
      countedAt: new Date().toISOString(),
      counts,
      others: others.value.trim(),
      state: recountState(counts, others.value, [...this.fasteners(), ...this.joints()]),
      settled: '',
    });
    if (id === null) return;
    this.typed.set(new Map());
    others.value = '';
  }

  protected takeSecond(recount: Recount, { kind, setId, second }: Recounted): void {
    const row = this.open.record()[kind === 'fasteners' ? 'fastenerSets' : 'jointSets'].find((s) => s.id === setId);
    if (!row) return;
    if (second === 0) {
      this.fault.set('A set of none is taken off in the card of the part');
      return;
    }
    const ops: readonly Op[] = [
      { kind: `${kind}.edit`, id: row.id, was: { count: row.count }, fields: { count: second } },
      {
        kind: 'recount.edit',
        id: recount.id,
        was: { state: recount.state, settled: recount.settled },
        fields: { state: 'settled', settled: `the blind recount holds: ${second}` },
      },
    ];
    void this.edits.send(ops);
  }

  protected settle(recount: Recount, settled: string): void {
    void this.edits.edit('recount', recount, { settled, state: settled.trim() === '' ? 'differs' : 'settled' });
  }
}
