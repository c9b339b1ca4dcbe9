import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormBuilder, ReactiveFormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import type { Role } from '@each-bolt/core/record';
import { InputText } from 'primeng/inputtext';
import { counted } from '@each-bolt/core/shared';
import type { Left } from '../record/device-store';
import { LocalStore } from '../record/local-store';
import type { DemoSignIn, Refusal } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { Brand } from '../shared/brand';
import { RefusalNote } from '../shared/refusal-note';
import { ROLE_TEXT } from './role-words';
import { Session } from '../record/session';

/** Signing in; on the very first run, making the first account. */
@Component({
  selector: 'eb-sign-in-page',
  imports: [Brand, InputText, ReactiveFormsModule, RefusalNote, ButtonDirective],
  template: `<main>
    <eb-brand />
    @if (failed(); as why) {
      <eb-refusal [message]="why.message" action="Try again" (acted)="session.read()" />
    } @else {
      <form [formGroup]="form" (ngSubmit)="submit()">
        <h1>{{ firstRun() ? 'The first account' : 'Sign in' }}</h1>
        @if (firstRun()) {
          <p class="soft">
            There is no account yet. This one leads the organisation: it begins studies and makes the accounts of the others.
          </p>
          <label for="name">Your name, as the record shows it</label>
          <input id="name" pInputText formControlName="name" autocomplete="name" [attr.aria-invalid]="faultOf('name') !== ''" />
          <small role="alert">{{ faultOf('name') }}</small>
        }
        <label for="login">Sign-in name</label>
        <input
          id="login"
          pInputText
          formControlName="login"
          autocomplete="username"
          autocapitalize="off"
          spellcheck="false"
          [attr.aria-invalid]="faultOf('login') !== ''"
        />
        <small role="alert">{{ faultOf('login') }}</small>
        <label for="password">Password</label>
        <input
          id="password"
          type="password"
          pInputText
          formControlName="password"
          [attr.autocomplete]="firstRun() ? 'new-password' : 'current-password'"
          [attr.aria-invalid]="faultOf('password') !== ''"
        />
        <small role="alert">{{ faultOf('password') }}</small>
        @if (refusal(); as why) {
          @if (why.issues.length === 0) {
            <eb-refusal [message]="why.message" />
          }
        }
        @for (left of left(); track left.id) {
          <p class="left" role="status">
            {{ leftWords(left) }}
          </p>
        }
        <button pButton type="submit" [disabled]="busy()">{{ firstRun() ? 'Make it and sign in' : 'Sign in' }}</button>
      </form>
      @if (demo().length > 0) {
        <section>
          <h2>Demo sign-ins</h2>
          <p class="soft">They came with the demo study. Everybody can read them here until their passwords are changed.</p>
          @for (person of demo(); track person.login) {
            <button pButton [text]="true" severity="secondary" type="button" class="person" (click)="fill(person)">
              <b>{{ person.name }}</b>
              <span class="role">{{ person.role }}</span>
              <span class="soft">{{ roleText(person.role) }}</span>
              <span class="figure">{{ person.login }} · {{ person.password }}</span>
            </button>
          }
        </section>
      }
    }
  </main>`,
  styles: `
    main {
      max-width: 980px;
      margin: 64px auto;
      padding: 0 24px;
      display: grid;
      grid-template-columns: minmax(300px, 380px) minmax(0, 1fr);
      gap: 28px 56px;
      align-items: start;
    }
    eb-brand,
    eb-refusal {
      grid-column: 1 / -1;
    }
    form {
      display: grid;
      gap: 4px;
    }
    h1 {
      margin-bottom: 10px;
    }
    label {
      font: 500 13px/1.3 var(--label);
      color: var(--soft);
      margin-top: 6px;
    }
    input {
      min-height: 44px;
    }
    small {
      color: var(--amber);
      min-height: 16px;
    }
    .left {
      padding: 8px 12px;
      border-left: 3px solid var(--amber);
      background: var(--sheet);
    }
    button[type='submit'] {
      min-height: 44px;
      margin-top: 8px;
    }
    section {
      display: grid;
      gap: 8px;
    }
    .person {
      display: grid;
      grid-template-columns: auto 1fr auto;
      gap: 2px 10px;
      align-items: baseline;
      text-align: left;
      padding: 10px 14px;
      background: var(--sheet);
      border: 1px solid var(--line);
      border-left: 3px solid var(--dye);
      border-radius: 0;
      color: var(--ink);
      font: inherit;
      cursor: pointer;
    }
    .person:hover {
      border-color: var(--dye);
    }
    .person b {
      font: 600 15px/1.3 var(--label);
    }
    .person .figure {
      grid-row: 1;
      grid-column: 3;
    }
    .person .soft {
      grid-column: 1 / -1;
      font-size: 13px;
    }
    .role {
      font: 500 12.5px/1 var(--label);
      color: var(--dye);
    }
    @media (max-width: 760px) {
      main {
        grid-template-columns: 1fr;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignInPage {
  protected readonly session = inject(Session);
  private readonly router = inject(Router);
  private readonly store = inject(LocalStore);
  /** where to go afterwards */
  readonly to = input('/', { transform: (path?: string) => path ?? '/' });

  protected readonly form = inject(FormBuilder).nonNullable.group({ name: '', login: '', password: '' });
  protected readonly refusal = signal<Refusal | null>(null);
  protected readonly busy = signal(false);
  /** what accounts left on this device unsent */
  protected readonly left = signal<readonly Left[]>([]);
  private readonly me = computed(() => {
    const state = this.session.state();
    return state.kind === 'out' ? state.me : null;
  });
  protected readonly firstRun = computed(() => this.me()?.firstRun ?? false);
  protected readonly demo = computed<readonly DemoSignIn[]>(() => this.me()?.demo ?? []);
  protected readonly failed = computed(() => {
    const state = this.session.state();
    return state.kind === 'failed' ? state.refusal : null;
  });

  constructor() {
    void this.store.left().then((left) => this.left.set(left));
    // the page says what there is to sign in with, which only the server knows
    if (this.session.state().kind !== 'in') void this.session.read();
  }

  protected leftWords({ name, waiting, sealed }: Left): string {
    const what = `${counted(waiting, 'change')} of ${name} ${waiting === 1 ? 'waits' : 'wait'} on this device`;
    return `${what}${sealed ? ', sealed,' : ''} and ${waiting === 1 ? 'is' : 'are'} sent when ${name} signs in here`;
  }

  protected roleText(role: Role): string {
    return ROLE_TEXT[role];
  }

  protected faultOf(field: string): string {
    return this.refusal()?.issues.find((issue) => issue.field === field)?.message ?? '';
  }

  protected fill({ login, password }: DemoSignIn): void {
    this.form.patchValue({ login, password });
    void this.submit();
  }

  protected async submit(): Promise<void> {
    const { name, login, password } = this.form.getRawValue();
    this.busy.set(true);
    const refusal = this.firstRun() ? await this.session.firstLead({ name, login, password }) : await this.session.signIn(login, password);
    this.busy.set(false);
    this.refusal.set(refusal);
    if (refusal !== null) return;
    await this.router.navigateByUrl(this.to().startsWith('/') ? this.to() : '/');
    if (this.session.isOfOtherUnits) location.reload();
  }
}
