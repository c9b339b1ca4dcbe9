import { ChangeDetectionStrategy, Component, afterNextRender, input, output, viewChild, type ElementRef } from '@angular/core';
import { ButtonDirective } from 'primeng/button';

/** A line that is to be kept at another place than the session is of. */
export interface Elsewhere {
  readonly typed: string;
  readonly here: string;
  readonly there: string;
  readonly isOtherVehicle: boolean;
}

/** What is done with it: kept in the place of the session, here beside the session, or put back to be typed on. */
export type ElsewhereAnswer = 'there' | 'here' | 'back';

/** A line that belongs to something else than the open session is asked about before it is kept. */
@Component({
  selector: 'eb-elsewhere-question',
  imports: [ButtonDirective],
  template: `<section role="alertdialog" aria-label="Where does this line go?" (keydown.escape)="back($event)">
    <p>
      <strong>“{{ asked().typed }}”</strong> would go to {{ asked().here }}, and the open session is of {{ asked().there }}.
    </p>
    <div class="acts">
      <button #first pButton type="button" (click)="answered.emit('there')">Keep it on {{ asked().there }}</button>
      <button pButton severity="secondary" type="button" (click)="answered.emit('here')">
        {{ asked().isOtherVehicle ? 'Keep it here, as no removal of the session' : 'Keep it here: it came off in this session' }}
      </button>
      <button pButton severity="secondary" type="button" (click)="answered.emit('back')">Back to the line</button>
    </div>
  </section>`,
  styles: `
    section {
      border: 1px solid var(--amber-edge);
      background: var(--amber-tint);
      padding: 8px 12px;
      display: grid;
      gap: 8px;
    }
    strong {
      font-weight: 500;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ElsewhereQuestion {
  readonly asked = input.required<Elsewhere>();
  readonly answered = output<ElsewhereAnswer>();
  private readonly first = viewChild.required<ElementRef<HTMLButtonElement>>('first');

  constructor() {
    afterNextRender({ read: () => this.first().nativeElement.focus() });
  }

  protected back(event: Event): void {
    event.stopPropagation();
    this.answered.emit('back');
  }
}
