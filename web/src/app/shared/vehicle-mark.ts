import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** Outline of each vehicle's marker in a 14 × 14 box, by its place in the study; used again by the charts. */
export const VEHICLE_SHAPES = [
  'M7 1A6 6 0 1 1 7 13A6 6 0 1 1 7 1Z',
  'M1.5 1.5H12.5V12.5H1.5Z',
  'M7 1L13.5 12.5H0.5Z',
  'M7 0.5L13.5 7L7 13.5L0.5 7Z',
  'M5 1H9V5H13V9H9V13H5V9H1V5H5Z',
] as const;

/** The hue and shape a vehicle keeps everywhere. */
@Component({
  selector: 'eb-vehicle-mark',
  template: `<svg viewBox="0 0 14 14" width="13" height="13" aria-hidden="true"><path [attr.d]="shape()" [attr.fill]="hue()" /></svg>`,
  styles: `
    :host {
      display: inline-block;
      line-height: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class VehicleMark {
  readonly place = input.required<number>();
  readonly shape = computed(() => VEHICLE_SHAPES[this.place() % VEHICLE_SHAPES.length] ?? '');
  readonly hue = computed(() => `var(--vehicle-${this.place() % VEHICLE_SHAPES.length})`);
}
