import { ChangeDetectionStrategy, Component, inject, model } from '@angular/core';
import { Dialog } from 'primeng/dialog';
import { FocusBack } from '../shared/focus-back';
import { LetterKeys } from '../shared/letter-keys';
import { Tick } from '../shared/tick';
import { KEY_GROUPS } from './keys';

@Component({
  selector: 'eb-key-help',
  imports: [Dialog, Tick, FocusBack],
  template: `<p-dialog
    closeAriaLabel="Close"
    header="Keys"
    [(visible)]="visible"
    [ebFocusBack]="visible()"
    [modal]="true"
    [dismissableMask]="true"
    [style]="{ width: '720px', maxWidth: 'calc(100% - 40px)' }"
  >
    <div class="groups">
      @for (group of groups; track group.title) {
        <section>
          <h3>{{ group.title }}</h3>
          <dl>
            @for (key of group.keys; track key.does) {
              <dt>
                @for (cap of key.keys; track cap) {
                  <kbd>{{ cap }}</kbd>
                }
              </dt>
              <dd>{{ key.does }}</dd>
            }
          </dl>
        </section>
      }
    </div>
    <eb-tick [(checked)]="letters.on">Single letters act as keys on this device</eb-tick>
    <p class="soft">
      Single letters work while no field is being typed in. The shorthand of the entry line is explained in docs/method/bench.md.
    </p>
  </p-dialog>`,
  styles: `
    .groups {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 32px;
    }
    dl {
      display: grid;
      grid-template-columns: 108px 1fr;
      gap: 6px 12px;
      margin: 10px 0;
    }
    dd {
      margin: 0;
    }
    kbd {
      font: 500 12.5px/1 var(--figure);
      border: 1px solid var(--line);
      border-radius: 2px;
      padding: 2px 6px;
      background: var(--paper);
      margin-right: 3px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeyHelp {
  readonly visible = model(false);
  protected readonly letters = inject(LetterKeys);
  protected readonly groups = KEY_GROUPS;
}
