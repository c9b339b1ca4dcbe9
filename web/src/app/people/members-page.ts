import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { ROLES, editOp, removeOp, type Member, type Op, type Role } from '@each-bolt/core/record';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RefusalNote } from '../shared/refusal-note';
import { RouterLink } from '@angular/router';
import type { Refusal } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { Choose, ChoicesPipe } from '../shared/choose';
import { ROLE_TEXT } from './role-words';
import { Session } from '../record/session';

/** Who is of the study, and with which role. */
@Component({
  selector: 'eb-members-page',
  imports: [RefusalNote, RouterLink, ButtonDirective, Choose, ChoicesPipe, DataTable, TableHead, TableRow],
  template: `<div class="sheet">
    <h1>People of this study</h1>
    <p class="soft">
      Taken off, a person no longer sees the study; what they did stays in its history under their name.
      @if (isOrganisationLead()) {
        Accounts are made on <a routerLink="/people">the accounts page</a>.
      }
    </p>
    @if (refusal(); as why) {
      <eb-refusal [message]="why.message" [issues]="why.issues" />
    }
    <eb-table
      ><ng-template ebHead>
        <tr>
          <th>Name</th>
          <th>Role</th>
          <th>May</th>
          <th>Here now</th>
          <th></th>
        </tr> </ng-template
      ><ng-template [ebRow]="rows()" track="member.id" let-row>
        <tr>
          <td>{{ row.name }}</td>
          <td>
            @if (mayEdit()) {
              <eb-choose
                [label]="'Role of ' + row.name"
                [value]="row.member.role"
                (valueChange)="setRole(row.member, $any($event))"
                [options]="roles | ebChoices"
              />
            } @else {
              {{ row.member.role }}
            }
          </td>
          <td class="soft">{{ texts[row.member.role] }}</td>
          <td>{{ row.here }}</td>
          <td>
            @if (mayEdit()) {
              <button pButton severity="secondary" type="button" (click)="takeOff(row.member)">Remove</button>
            }
          </td>
        </tr>
      </ng-template></eb-table
    >
    @if (mayEdit()) {
      @if (others().length > 0) {
        <form (submit)="take($event, person.value(), $any(role.value()))">
          <label for="person">Add to study</label>
          <eb-choose
            inputId="person"
            #person
            label="Who joins the study"
            placeholder="choose a person"
            [options]="others() | ebChoices: 'id' : 'name'"
          />
          <label for="role">as</label>
          <eb-choose inputId="role" #role label="Role in the study" value="recorder" [options]="roles | ebChoices" />
          <button pButton type="submit">Add to study</button>
        </form>
      } @else {
        <p class="soft">Everybody who has an account is of this study.</p>
      }
    }
  </div>`,
  styles: `
    :host {
      display: contents;
    }
    a {
      color: var(--dye);
    }
    form {
      display: flex;
      gap: 10px;
      align-items: center;
      margin-top: 10px;
    }
    select {
      height: 34px;
      border: 1px solid var(--line);
      border-radius: 2px;
      background: var(--sheet);
      color: var(--ink);
      padding: 0 6px;
    }
    label {
      font: 500 13px/1 var(--label);
      color: var(--soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MembersPage {
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  private readonly session = inject(Session);
  protected readonly roles = ROLES;
  protected readonly texts = ROLE_TEXT;
  protected readonly refusal = signal<Refusal | null>(null);
  protected readonly mayEdit = computed(() => this.service.can()('member.edit'));
  protected readonly isOrganisationLead = computed(() => {
    const state = this.session.state();
    return state.kind === 'in' && state.person.standing === 'lead';
  });
  protected readonly rows = computed(() => {
    const names = new Map(this.service.people().map((p) => [p.id, p.name]));
    const here = this.service.here();
    return this.open
      .record()
      .members.map((member) => ({
        member,
        name: names.get(member.personId) ?? 'somebody with a new account',
        here: here
          .filter((h) => h.personId === member.personId)
          .map((h) => h.device)
          .join(', '),
      }))
      .sort((a, b) => (a.name < b.name ? -1 : 1));
  });
  protected readonly others = computed(() => {
    const members = new Set(this.open.record().members.map((m) => m.personId));
    return this.service.people().filter((p) => !members.has(p.id));
  });

  protected setRole(member: Member, role: Role): void {
    const op = editOp('member', member, { role });
    if (op) void this.send(op);
  }

  protected takeOff(member: Member): void {
    void this.send(removeOp('member', member));
  }

  protected take(event: Event, personId: string, role: Role): void {
    event.preventDefault();
    if (personId === '') return this.refusal.set({ code: 'invalid', message: 'Choose first who is added to the study', issues: [] });
    void this.send({ kind: 'member.add', id: crypto.randomUUID(), fields: { personId, role } });
  }

  private async send(op: Op): Promise<void> {
    const result = await this.service.send([op]);
    this.refusal.set(result.kept ? null : result.refusal);
  }
}
