import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ButtonDirective } from 'primeng/button';
import { Popover } from 'primeng/popover';

/** One line of what a figure is made of, and where it is found. */
export interface BehindLine {
  readonly name: string;
  readonly figure: string;
  /** below the study: `bench/record` */
  readonly path: string;
  readonly params: Readonly<Record<string, string | null>>;
}

/** A figure of the strip that opens the list it is made of; each line leads to its place. */
@Component({
  selector: 'eb-behind-figure',
  imports: [ButtonDirective, Popover, RouterLink],
  template: `<button
      pButton
      [text]="true"
      severity="secondary"
      type="button"
      class="of-strip"
      [attr.aria-label]="stage() + ': ' + figure() + ', what is behind it'"
      aria-haspopup="dialog"
      (click)="shown.set(true); list.toggle($event)"
    >
      {{ figure() }}
    </button>
    <p-popover #list [ariaLabel]="stage() + ', what is behind ' + figure()" (onHide)="shown.set(false)">
      @if (shown()) {
        <ul>
          @for (line of rows(); track $index) {
            <li>
              <a [routerLink]="line.path.split('/')" [queryParams]="line.params" queryParamsHandling="merge" (click)="list.hide()">{{
                line.name
              }}</a>
              <span class="figure">{{ line.figure }}</span>
            </li>
          } @empty {
            <li class="soft">{{ empty() }}</li>
          }
        </ul>
      }
    </p-popover>`,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    button {
      justify-content: start;
      max-width: 100%;
      height: 24px;
      min-width: 40px;
      min-height: 0;
      padding: 0;
      border: 0;
      background: none;
      color: inherit;
      font: 400 12.5px/1.4 var(--label);
      text-align: left;
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
      cursor: pointer;
    }
    button:hover {
      text-decoration: underline;
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
      max-height: 60vh;
      min-width: 280px;
      overflow-y: auto;
    }
    li {
      display: flex;
      justify-content: space-between;
      gap: 24px;
      padding: 5px 4px;
      border-bottom: 1px solid var(--fine);
      font-size: 13.5px;
    }
    li a {
      color: var(--ink);
      text-decoration-color: var(--soft);
      text-underline-offset: 3px;
    }
    li a:hover {
      color: var(--dye);
    }
    li:last-child {
      border-bottom: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BehindFigure {
  readonly stage = input.required<string>();
  readonly figure = input.required<string>();
  /** made only while the list is open */
  readonly lines = input.required<() => readonly BehindLine[]>();
  readonly empty = input('Nothing yet.');
  protected readonly shown = signal(false);
  protected readonly rows = computed(() => (this.shown() ? this.lines()() : []));
}
