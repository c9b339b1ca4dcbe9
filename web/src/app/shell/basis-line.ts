import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { counted, unitWord } from '@each-bolt/core/shared';
import { costBasisText, type Study } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import type { SyncState } from '../record/outbox';
import type { Theme } from '../shared/theme-service';

/** What the numbers stand on, in one line. */
@Component({
  selector: 'eb-basis-line',
  imports: [ButtonDirective],
  template: `<footer>
    <span class="group">
      <span class="word">Count</span>
      <button
        pButton
        [text]="true"
        severity="secondary"
        type="button"
        [disabled]="!mayCount()"
        (click)="assemblies.emit()"
        title="Opened assemblies: as their parts, or each as one (a)"
      >
        {{ study().assembliesAs === 'parts' ? 'loose parts' : 'assemblies as one' }}
      </button>
      <button
        pButton
        [text]="true"
        severity="secondary"
        type="button"
        [disabled]="!mayCount()"
        (click)="fasteners.emit()"
        title="Fasteners: counted, weighed and costed with the parts, or left out (f)"
      >
        {{ study().fastenersIn ? '+ fasteners' : 'no fasteners' }}
      </button>
    </span>
    <span class="group shrink" [title]="basis()"><span class="word">Cost</span> {{ basis() }}</span>
    <span class="group" title="What stands behind ± is the expanded uncertainty, k = 2: about 95 of 100 true values lie within it">
      <span class="word">Units</span>
      <button
        pButton
        [text]="true"
        severity="secondary"
        type="button"
        aria-label="Units of mass and length"
        [title]="
          'Kilograms and millimetres, or pounds and inches; now ' +
          units +
          '. Any unit can be typed. Points of outlines and holes stay in mm'
        "
        (click)="otherUnits.emit()"
      >
        {{ units }}
      </button>
      ± at k = 2
    </span>
    <span class="push group">
      @if (notKept() > 0) {
        <button
          pButton
          [text]="true"
          severity="secondary"
          type="button"
          class="alarm"
          title="See what was not kept, and why (n)"
          (click)="showNotKept.emit()"
        >
          {{ notKept() }} not kept
        </button>
      }
      <span class="state" role="status" [class.alarm]="sync().kind === 'signed-out'">{{ syncText() }}</span>
      @if (sync().kind === 'signed-out') {
        <button pButton [text]="true" severity="secondary" type="button" (click)="signIn.emit()">Sign in</button>
      }
    </span>
    <span class="group">
      <button pButton [text]="true" severity="secondary" type="button" title="Undo (z)" [disabled]="!canUndo()" (click)="undo.emit()">
        Undo
      </button>
      <button pButton [text]="true" severity="secondary" type="button" title="Redo (Shift z)" [disabled]="!canRedo()" (click)="redo.emit()">
        Redo
      </button>
    </span>
    <button pButton [text]="true" severity="secondary" type="button" (click)="theme.emit()" title="Day or bay (d)">{{ themeNow() }}</button>
    <button pButton [text]="true" severity="secondary" type="button" (click)="help.emit()" title="Keys (?)">Keys ?</button>
  </footer>`,
  styles: `
    footer {
      display: flex;
      align-items: center;
      gap: 20px;
      height: 32px;
      padding: 0 14px;
      background: var(--band);
      color: var(--on-band);
      font: 400 12.5px/1 var(--figure);
      white-space: nowrap;
    }
    @media (max-width: 760px) {
      footer {
        flex-wrap: wrap;
        height: auto;
        min-height: 32px;
        gap: 4px 20px;
        padding: 6px 14px;
      }
    }
    .group {
      display: inline-flex;
      gap: 8px;
      align-items: center;
    }
    .group:not(.shrink),
    footer > button {
      flex: none;
    }
    .shrink {
      display: block;
      min-width: 0;
      overflow: hidden;
      text-overflow: ellipsis;
      line-height: 1.4;
    }
    .word {
      font: 600 12.5px/1 var(--label);
    }
    .push {
      margin-left: auto;
      font-family: var(--label);
    }
    button.alarm,
    .alarm {
      color: #f2bd66;
      font-weight: 600;
    }
    button {
      border: 0;
      border-bottom: 1px dotted var(--on-band-soft);
      background: none;
      color: inherit;
      font: inherit;
      line-height: 22px;
      padding: 0 1px;
      cursor: pointer;
    }
    button:focus-visible {
      outline-color: #93a2f5;
    }
    button:disabled {
      color: var(--on-band-soft);
      border-bottom-color: transparent;
      cursor: default;
    }
    button:hover:enabled {
      border-bottom-style: solid;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BasisLine {
  readonly study = input.required<Study>();
  readonly sync = input.required<SyncState>();
  readonly themeNow = input.required<Theme>();
  /** changes that wait on this device and are of other studies */
  readonly elsewhere = input(0);
  readonly notKept = input(0);
  readonly canUndo = input(false);
  readonly canRedo = input(false);
  /** may the counting rule be switched? */
  readonly mayCount = input(true);
  readonly undo = output();
  readonly redo = output();
  readonly showNotKept = output();
  readonly signIn = output();
  readonly assemblies = output();
  readonly fasteners = output();
  readonly theme = output();
  readonly help = output();
  readonly otherUnits = output();
  /** “kg · mm” */
  protected readonly units = `${unitWord('kg')} · ${unitWord('mm')}`;
  protected readonly basis = computed(() => costBasisText(this.study()));
  protected readonly syncText = computed(() => {
    const [sync, elsewhere] = [this.sync(), this.elsewhere()];
    const ofOthers = elsewhere === 0 ? '' : `, ${elsewhere} of other studies`;
    switch (sync.kind) {
      case 'sending':
        return `Sending ${counted(sync.waiting, 'change')}${ofOthers} …`;
      case 'offline':
        return sync.waiting === 0
          ? 'No connection: what you record waits here'
          : `No connection: ${counted(sync.waiting, 'change')} waiting here${ofOthers}`;
      case 'signed-out':
        return sync.waiting === 0 ? 'Signed out' : `Signed out: ${counted(sync.waiting, 'change')} waiting here${ofOthers}`;
      case 'kept':
        return sync.at === null ? 'All kept' : `All kept ${sync.at.toTimeString().slice(0, 8)}`;
    }
  });
}
