import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router } from '@angular/router';
import { fieldLabel, type FieldsOf, type Op, type Question } from '@each-bolt/core/record';
import { RefusalNote } from '../shared/refusal-note';
import { Names } from './names';
import { OpenStudy } from './open-study';
import { QuestionDialog, type About } from './question-dialog';
import type { Refusal } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { Tick } from '../shared/tick';
import { RecordService } from './record-service';
import { Selection } from './selection';
import { todayHere } from './when';

interface Row {
  readonly question: Question;
  readonly about: string;
  readonly owner: string;
  readonly late: boolean;
}

const STATE_WORD = { open: 'open', answered: 'answered', dropped: 'dropped' } as const;

/** Every open question and every figure owed in the study, the one due first on top. */
@Component({
  selector: 'eb-questions-page',
  imports: [QuestionDialog, RefusalNote, ButtonDirective, Tick, DataTable, TableHead, TableRow],
  template: `<div class="sheet">
    <header>
      <h1>Questions and promises</h1>
      <div class="acts">
        <eb-tick [checked]="all()" (checkedChange)="all.set($event)">also what is answered or dropped</eb-tick>
        @if (mayAsk()) {
          <button pButton severity="secondary" type="button" (click)="ask()">Ask about the study</button>
        }
      </div>
    </header>
    @if (refusal(); as why) {
      <eb-refusal [message]="why.message" [issues]="why.issues" />
    }
    @if (rows().length === 0) {
      <p class="sheet-empty">
        {{ all() ? 'Nothing was ever asked or promised here.' : 'Nothing is open.' }} Choose a part and press q to attach a question or a
        promise to it.
      </p>
    } @else {
      <eb-table
        ><ng-template ebHead>
          <tr>
            <th>Due</th>
            <th>Kind</th>
            <th>What</th>
            <th>About</th>
            <th>Assigned to</th>
            <th>State</th>
          </tr> </ng-template
        ><ng-template [ebRow]="rows()" track="question.id" let-row>
          <tr [class.late]="row.late">
            <td class="figure">{{ row.question.dueOn ?? '–' }}{{ row.late ? ' late' : '' }}</td>
            <td>{{ row.question.kind === 'promise' ? 'promise' : 'question' }}</td>
            <td>
              <button pButton [text]="true" severity="secondary" type="button" class="link" (click)="edit(row)">
                {{ row.question.text }}
              </button>
              @if (row.question.owedTo !== '') {
                <small class="soft">promised to {{ row.question.owedTo }}</small>
              }
              @if (row.question.answer !== '') {
                <small>{{ row.question.answer }}</small>
              }
            </td>
            <td>
              @if (row.question.aboutKind === 'part' && isThere(row.question.aboutId)) {
                <button pButton [text]="true" severity="secondary" type="button" class="link" (click)="jump(row.question.aboutId)">
                  {{ row.about }}
                </button>
              } @else {
                {{ row.about }}
              }
            </td>
            <td>{{ row.owner }}</td>
            <td>{{ word[row.question.state] }}</td>
          </tr>
        </ng-template></eb-table
      >
    }
    <eb-question-dialog [(visible)]="editing" [question]="chosen()" [about]="about()" [people]="members()" (saved)="send($event)" />
  </div>`,
  styles: `
    :host {
      display: contents;
    }
    .sheet {
      overflow: auto;
    }
    header {
      display: flex;
      flex-wrap: wrap;
      justify-content: space-between;
      gap: 8px 24px;
      align-items: center;
    }
    .acts {
      display: flex;
      gap: 16px;
      align-items: center;
      font: 500 13px/1 var(--label);
      color: var(--soft);
    }
    .late td:first-child {
      color: var(--amber);
      font-weight: 600;
    }
    small {
      display: block;
    }
    .link {
      border: 0;
      background: none;
      padding: 0;
      color: var(--dye);
      font: inherit;
      cursor: pointer;
      text-align: left;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QuestionsPage {
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  private readonly names = inject(Names);
  private readonly router = inject(Router);
  private readonly selection = inject(Selection);
  protected readonly word = STATE_WORD;
  protected readonly all = signal(false);
  protected readonly editing = signal(false);
  protected readonly chosen = signal<Question | null>(null);
  protected readonly refusal = signal<Refusal | null>(null);
  protected readonly mayAsk = computed(() => this.service.can()('question.add'));
  protected readonly members = computed(() => {
    const members = new Set(this.open.record().members.map((m) => m.personId));
    return this.service.people().filter((p) => members.has(p.id));
  });
  protected readonly about = computed<About>(() => {
    const q = this.chosen();
    const { id, title } = this.open.study();
    return q
      ? { kind: q.aboutKind, id: q.aboutId, field: q.aboutField, text: this.aboutOf(q) }
      : { kind: 'study', id, field: null, text: title };
  });
  protected readonly rows = computed<readonly Row[]>(() => {
    const today = todayHere();
    const nameOf = this.names.of();
    return this.open
      .record()
      .questions.filter((q) => this.all() || q.state === 'open')
      .map((question) => ({
        question,
        about: this.aboutOf(question),
        owner: question.ownerId === null ? '–' : (nameOf(question.ownerId) ?? 'somebody'),
        late: question.state === 'open' && question.dueOn !== null && question.dueOn < today,
      }))
      .sort((a, b) => ((a.question.dueOn ?? '9999') < (b.question.dueOn ?? '9999') ? -1 : 1));
  });

  private aboutOf({ aboutKind, aboutId, aboutField }: Question): string {
    const name = this.names.of()(aboutId) ?? `a ${aboutKind} taken off since`;
    return aboutField === null ? name : `${name}, ${fieldLabel(aboutKind, aboutField as keyof FieldsOf[typeof aboutKind]).toLowerCase()}`;
  }

  protected isThere(id: string): boolean {
    return this.open.partById().has(id);
  }

  protected ask(): void {
    this.chosen.set(null);
    this.editing.set(true);
  }

  protected edit(row: Row): void {
    this.chosen.set(row.question);
    this.editing.set(true);
  }

  protected jump(id: string): void {
    void this.router
      .navigate(['/studies', this.service.studyId, 'bench'], { queryParamsHandling: 'preserve' })
      .then(() => this.selection.choosePart(id));
  }

  protected async send(op: Op): Promise<void> {
    const result = await this.service.send([op]);
    this.refusal.set(result.kept ? null : result.refusal);
  }
}
