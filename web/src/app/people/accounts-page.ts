import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormBuilder, ReactiveFormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { InputText } from 'primeng/inputtext';
import { Subject, catchError, firstValueFrom, map, of, startWith, switchMap } from 'rxjs';
import { deviceName, nameDevice } from '../record/device';
import type { Person, Refusal } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { Choose } from '../shared/choose';
import { RecordApi } from '../record/record-api';
import { Brand } from '../shared/brand';
import { RefusalNote } from '../shared/refusal-note';
import { Session } from '../record/session';

type Listed =
  | { readonly kind: 'reading' }
  | { readonly kind: 'failed'; readonly refusal: Refusal }
  | { readonly kind: 'ready'; readonly people: readonly Person[] };

/** One's own password and device, and for leads of the organisation the accounts of all. */
@Component({
  selector: 'eb-accounts-page',
  imports: [Brand, InputText, ReactiveFormsModule, RefusalNote, RouterLink, ButtonDirective, Choose, DataTable, TableHead, TableRow],
  template: `<main>
    <eb-brand />
    <p><a routerLink="/">All studies</a></p>
    <h1>{{ session.person?.name }}</h1>
    <section>
      <h2>This device</h2>
      <form class="row" (submit)="saveDevice($event, device.value)">
        <label for="device">Its name, as the history and the others see it</label>
        <input id="device" #device pInputText [value]="deviceNow()" maxlength="60" />
        <button pButton severity="secondary" type="submit">Keep the name</button>
      </form>
    </section>
    <section>
      <h2>Your password</h2>
      <form class="row" [formGroup]="own" (ngSubmit)="changeOwn()">
        <label for="current">Password now</label>
        <input id="current" type="password" pInputText formControlName="current" autocomplete="current-password" />
        <small role="alert">{{ faultOf(ownRefusal(), 'current') }}</small>
        <label for="next">New password, 10 characters or more</label>
        <input id="next" type="password" pInputText formControlName="next" autocomplete="new-password" />
        <small role="alert">{{ faultOf(ownRefusal(), 'next') }}</small>
        <button pButton severity="secondary" type="submit">Change it</button>
        <p role="status" class="soft">{{ ownSaid() }}</p>
      </form>
    </section>
    @if (isLead()) {
      <section>
        <h2>Accounts</h2>
        @let now = listed();
        @switch (now.kind) {
          @case ('reading') {
            <p role="status">Reading the accounts …</p>
          }
          @case ('failed') {
            <eb-refusal [message]="now.refusal.message" action="Try again" (acted)="asked$.next()" />
          }
          @case ('ready') {
            <eb-table
              ><ng-template ebHead>
                <tr>
                  <th>Name</th>
                  <th>Sign-in name</th>
                  <th>Role</th>
                  <th>Password</th>
                </tr> </ng-template
              ><ng-template [ebRow]="now.people" track="id" let-person>
                <tr>
                  <td>{{ person.name }}</td>
                  <td class="figure">{{ person.login }}</td>
                  <td>{{ person.standing === 'lead' ? 'lead of the organisation' : 'member' }}</td>
                  <td>
                    @if (resetting() === person.id) {
                      <form (submit)="reset($event, person, fresh.value)">
                        <input
                          #fresh
                          pInputText
                          pSize="small"
                          type="text"
                          [attr.aria-label]="'New password of ' + person.name"
                          autocomplete="off"
                        />
                        <button pButton severity="secondary" type="submit">Give it</button>
                      </form>
                    } @else {
                      {{ person.demoPassword ? 'as it came with the demo' : 'own' }}
                      <button pButton [text]="true" severity="secondary" type="button" class="link" (click)="resetting.set(person.id)">
                        give a new one
                      </button>
                    }
                  </td>
                </tr>
              </ng-template></eb-table
            >
            <p role="status" class="soft">{{ said() }}</p>
          }
        }
        <h3>New account</h3>
        <form class="new" [formGroup]="account" (ngSubmit)="add()">
          @for (field of fields; track field.name) {
            <label>
              <span>{{ field.label }}</span>
              <input
                pInputText
                [formControlName]="field.name"
                autocomplete="off"
                [attr.aria-invalid]="faultOf(refusal(), field.name) !== ''"
              />
              <small role="alert">{{ faultOf(refusal(), field.name) }}</small>
            </label>
          }
          <label>
            <span>Role</span>
            <eb-choose label="Role" formControlName="standing" [options]="standings" />
          </label>
          <button pButton type="submit">Make the account</button>
        </form>
      </section>
    }
  </main>`,
  styles: `
    main {
      max-width: 860px;
      margin: 48px auto;
      padding: 0 24px 48px;
      display: grid;
      gap: 14px;
    }
    a,
    .link {
      color: var(--dye);
    }
    .link {
      border: 0;
      background: none;
      font: inherit;
      cursor: pointer;
      text-decoration: underline;
    }
    section {
      border-top: 1px solid var(--line);
      padding-top: 14px;
    }
    h2 {
      margin-bottom: 8px;
    }
    h3 {
      margin: 18px 0 8px;
    }
    .row {
      display: grid;
      grid-template-columns: 300px 260px auto;
      gap: 6px 14px;
      align-items: center;
      justify-content: start;
    }
    label,
    label span {
      font: 500 13px/1.3 var(--label);
      color: var(--soft);
    }
    small {
      color: var(--amber);
      min-height: 1em;
    }
    .row button {
      grid-column: 2;
      justify-self: start;
    }
    .row p {
      grid-column: 2 / -1;
    }
    td form {
      display: flex;
      gap: 6px;
    }
    .new {
      display: grid;
      grid-template-columns: repeat(2, minmax(0, 1fr));
      gap: 4px 16px;
    }
    .new label {
      display: grid;
      gap: 3px;
    }
    select {
      height: 36px;
      border: 1px solid var(--line);
      border-radius: 2px;
      background: var(--sheet);
      color: var(--ink);
      padding: 0 6px;
    }
    .new button {
      justify-self: start;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AccountsPage {
  protected readonly session = inject(Session);
  private readonly api = inject(RecordApi);
  private readonly builder = inject(FormBuilder).nonNullable;
  protected readonly fields = [
    { name: 'name', label: 'Name, as the record shows it' },
    { name: 'login', label: 'Sign-in name' },
    { name: 'password', label: 'First password, 10 characters or more' },
  ];
  protected readonly standings = [
    { value: 'member', word: 'member' },
    { value: 'lead', word: 'lead of the organisation: begins studies, makes accounts' },
  ];
  protected readonly account = this.builder.group({ name: '', login: '', password: '', standing: 'member' });
  protected readonly own = this.builder.group({ current: '', next: '' });
  protected readonly refusal = signal<Refusal | null>(null);
  protected readonly ownRefusal = signal<Refusal | null>(null);
  protected readonly ownSaid = signal('');
  protected readonly said = signal('');
  protected readonly resetting = signal('');
  protected readonly deviceNow = signal(deviceName());
  protected readonly isLead = computed(() => {
    const state = this.session.state();
    return state.kind === 'in' && state.person.standing === 'lead';
  });
  protected readonly asked$ = new Subject<void>();
  protected readonly listed = toSignal(
    this.asked$.pipe(
      startWith(undefined),
      switchMap(() =>
        this.api.people().pipe(
          map((people): Listed => ({ kind: 'ready', people })),
          catchError((refusal: Refusal) => of<Listed>({ kind: 'failed', refusal })),
        ),
      ),
    ),
    { initialValue: { kind: 'reading' } satisfies Listed },
  );

  protected faultOf(refusal: Refusal | null, field: string): string {
    return refusal?.issues.find((issue) => issue.field === field)?.message ?? '';
  }

  protected saveDevice(event: Event, name: string): void {
    event.preventDefault();
    nameDevice(name);
    this.deviceNow.set(deviceName());
  }

  protected async changeOwn(): Promise<void> {
    const { current, next } = this.own.getRawValue();
    const refusal = await this.tried(() => firstValueFrom(this.api.changePassword(current, next)));
    this.ownRefusal.set(refusal);
    this.ownSaid.set(refusal ? refusal.message : 'Changed. Your other devices are signed out');
    if (!refusal) this.own.reset();
  }

  protected async add(): Promise<void> {
    const refusal = await this.tried(() => firstValueFrom(this.api.addPerson(this.account.getRawValue())));
    this.refusal.set(refusal);
    this.said.set(refusal?.issues.length === 0 ? refusal.message : '');
    if (refusal) return;
    this.said.set('The account is made. Take the person into a study on its People page');
    this.account.reset();
    this.asked$.next();
  }

  protected async reset(event: Event, person: Person, next: string): Promise<void> {
    event.preventDefault();
    const refusal = await this.tried(() => firstValueFrom(this.api.resetPassword(person.id, next)));
    this.said.set(refusal ? (refusal.issues[0]?.message ?? refusal.message) : `${person.name} has a new password`);
    if (refusal) return;
    this.resetting.set('');
    this.asked$.next();
  }

  private async tried(act: () => Promise<unknown>): Promise<Refusal | null> {
    try {
      await act();
      return null;
    } catch (refusal) {
      return refusal as Refusal;
    }
  }
}
