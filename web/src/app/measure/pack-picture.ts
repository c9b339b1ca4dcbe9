import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { fixed } from '@each-bolt/core/shared';
import type { CoolantState } from '@each-bolt/core/measure';
import type { CoolantWay } from '@each-bolt/core/record';

const WIDTH = 360;
/** More circles than this are no picture any more but a delay: cells stand for several then. */
const MOST_DRAWN = 2500;

/** The cells of one module from above, each in the shade of its temperature, with the tubes between the rows. */
@Component({
  selector: 'eb-pack-picture',
  template: `<figure>
    <figcaption>
      <b>{{ name() }}</b>
      <span class="soft">one module, °C</span>
    </figcaption>
    <svg [attr.viewBox]="'0 0 ' + width + ' ' + height()" role="img" [attr.aria-label]="told()">
      @for (row of drawn(); track $index) {
        @for (cell of row; track $index) {
          <circle [attr.cx]="cell.x" [attr.cy]="cell.y" [attr.r]="radius()" [style.fill-opacity]="cell.shade">
            <title>{{ cell.says }}</title>
          </circle>
        }
        <line x1="4" [attr.x2]="width - 4" [attr.y1]="lineAt($index)" [attr.y2]="lineAt($index)" [class.back]="way() === 'two passes'" />
      }
    </svg>
    <p class="ends soft figure">
      @if (way() === 'two passes') {
        <span>→ in {{ inlet() }}, ← out {{ outlet() }}</span>
        <span>turned back</span>
      } @else {
        <span>→ in {{ inlet() }}</span>
        <span>out {{ outlet() }} →</span>
      }
    </p>
    <p class="scale figure">
      {{ low() }}<i aria-hidden="true"></i>{{ high() }} °C
      @if (step() > 1) {
        <span class="soft">one of {{ step() }} rows and places is drawn</span>
      }
    </p>
  </figure>`,
  styles: `
    figure {
      margin: 0;
      min-width: 0;
    }
    figcaption {
      display: flex;
      justify-content: space-between;
      font-size: 13px;
    }
    svg {
      display: block;
      width: 100%;
      border: 1px solid var(--line);
      background: var(--sheet);
    }
    circle {
      fill: var(--dye);
      stroke: var(--line);
      stroke-width: 0.4;
    }
    line {
      stroke: var(--ink);
      stroke-width: 1.2;
    }
    line.back {
      stroke-dasharray: 7 3;
    }
    .ends,
    .scale {
      display: flex;
      gap: 8px;
      justify-content: space-between;
      margin: 4px 0 0;
      font-size: 12.5px;
    }
    .scale {
      justify-content: flex-start;
      align-items: center;
    }
    i {
      width: 120px;
      height: 9px;
      border: 1px solid var(--line);
      background: linear-gradient(to right, color-mix(in srgb, var(--dye) 6%, var(--sheet)), var(--dye));
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PackPicture {
  readonly name = input.required<string>();
  readonly state = input.required<CoolantState>();
  readonly way = input.required<CoolantWay>();
  readonly inletC = input.required<number>();
  /** ends of the shades, so that two pictures beside each other are shaded alike */
  readonly lowC = input.required<number>();
  readonly highC = input.required<number>();

  protected readonly width = WIDTH;
  protected readonly step = computed(() => {
    const { cellsC } = this.state();
    const drawnAt = (step: number): number => Math.ceil(cellsC.length / step) * Math.ceil((cellsC[0]?.length ?? 0) / step);
    let step = 1;
    while (drawnAt(step) > MOST_DRAWN) step += 1;
    return step;
  });
  private readonly shown = computed(() => {
    const step = this.step();
    return this.state()
      .cellsC.map((row, at) => ({ at, cells: row.map((cellC, place) => ({ cellC, place })).filter(({ place }) => place % step === 0) }))
      .filter(({ at }) => at % step === 0);
  });
  private readonly pitch = computed(() => Math.min(22, (WIDTH - 16) / (this.shown()[0]?.cells.length ?? 1)));
  protected readonly radius = computed(() => this.pitch() * 0.42);
  protected readonly height = computed(() => Math.ceil(this.shown().length * this.pitch() * 1.12 + 10));
  protected readonly drawn = computed(() => {
    const [pitch, low, high] = [this.pitch(), this.lowC(), this.highC()];
    return this.shown().map(({ at, cells }, row) =>
      cells.map(({ cellC, place }, i) => ({
        x: 8 + pitch * (i + 0.5),
        y: 4 + pitch * 1.12 * (row + 0.5),
        shade: high > low ? 0.05 + 0.95 * ((cellC - low) / (high - low)) : 0.5,
        says: `row ${at + 1}, cell ${place + 1}: ${fixed(cellC, 2)} °C`,
      })),
    );
  });
  protected readonly low = computed(() => fixed(this.lowC(), 1));
  protected readonly high = computed(() => fixed(this.highC(), 1));
  protected readonly inlet = computed(() => fixed(this.inletC(), 1));
  protected readonly outlet = computed(() => fixed(this.state().outletC.reduce((sum, c) => sum + c, 0) / this.state().outletC.length, 1));
  protected readonly told = computed(
    () => `${this.name()}: cells from ${fixed(this.state().coldestC, 1)} to ${fixed(this.state().hottestC, 1)} °C, in ${this.way()}`,
  );

  protected lineAt(row: number): number {
    return 4 + this.pitch() * 1.12 * (row + 1);
  }
}
