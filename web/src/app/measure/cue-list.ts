import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { CUES } from '@each-bolt/core/measure';
import { Tick } from '../shared/tick';

const GROUPS = ['surface', 'edges and shape', 'marks', 'material'] as const;

/** What may be seen on a part, to be ticked. */
@Component({
  selector: 'eb-cue-list',
  imports: [Tick],
  template: `@for (group of groups(); track group.word) {
    <fieldset>
      <legend>{{ group.word }}</legend>
      @for (cue of group.cues; track cue.id) {
        <eb-tick [title]="cue.hint" [checked]="seen().includes(cue.id)" (checkedChange)="toggle(cue.id)">{{ cue.word }}</eb-tick>
      }
    </fieldset>
  }`,
  styles: `
    fieldset {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
      gap: 3px 10px;
      margin: 0 0 6px;
      padding: 4px 10px 8px;
      border: 1px solid var(--line);
      font-size: 13px;
    }
    legend {
      padding: 0 4px;
      font: 600 12.5px/1 var(--label);
      color: var(--soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CueList {
  readonly seen = input.required<readonly string[]>();
  readonly changed = output<readonly string[]>();

  protected readonly groups = computed(() => GROUPS.map((word) => ({ word, cues: CUES.filter((c) => c.group === word) })));

  protected toggle(id: string): void {
    const seen = this.seen();
    this.changed.emit(seen.includes(id) ? seen.filter((s) => s !== id) : [...seen, id]);
  }
}
