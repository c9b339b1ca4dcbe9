import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { fixed } from '@each-bolt/core/shared';

const WIDTH = 520;
const STEP = 26;

/** The way of the heat drawn as steps down from the hottest to the coolant: each as wide as the kelvins it costs. */
@Component({
  selector: 'eb-heat-path',
  template: `<svg [attr.viewBox]="'0 0 ' + (width + 150) + ' ' + (steps().length * step + 30)" role="img" [attr.aria-label]="told()">
    @for (s of steps(); track s.word) {
      <g>
        <rect [attr.x]="s.x" [attr.y]="$index * step + 4" [attr.width]="s.w" [attr.height]="step - 8" class="bar" />
        <text [attr.x]="s.x + s.w + 8" [attr.y]="$index * step + step / 2 + 4">{{ s.word }} {{ s.kelvin }} K</text>
      </g>
    }
    <line x1="0" [attr.x2]="width" [attr.y1]="steps().length * step + 4" [attr.y2]="steps().length * step + 4" class="axis" />
    <text x="0" [attr.y]="steps().length * step + 22">{{ cold() }} °C</text>
    <text [attr.x]="width" [attr.y]="steps().length * step + 22" text-anchor="end">{{ hot() }} °C</text>
  </svg>`,
  styles: `
    svg {
      display: block;
      width: 100%;
      max-width: 680px;
      font: 12.5px var(--label);
    }
    text {
      fill: var(--ink);
    }
    .bar {
      fill: var(--dye);
      fill-opacity: 0.35;
      stroke: var(--dye);
    }
    .axis {
      stroke: var(--line);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HeatPath {
  /** resistance of each layer from the part to the coolant, K/W */
  readonly layers = input.required<readonly { readonly word: string; readonly kPerW: number }[]>();
  readonly lossW = input.required<number>();
  readonly sinkC = input.required<number>();

  protected readonly width = WIDTH;
  protected readonly step = STEP;
  private readonly risesK = computed(() => this.layers().map(({ kPerW }) => kPerW * this.lossW()));
  private readonly totalK = computed(() => this.risesK().reduce((sum, k) => sum + k, 0));
  protected readonly steps = computed(() => {
    let hotter = this.totalK();
    return this.layers().map(({ word }, i) => {
      const kelvin = this.risesK()[i]!;
      hotter -= kelvin;
      const scale = this.totalK() === 0 ? 0 : WIDTH / this.totalK();
      return { word, kelvin: fixed(kelvin, 1), x: hotter * scale, w: Math.max(1, kelvin * scale) };
    });
  });
  protected readonly cold = computed(() => fixed(this.sinkC(), 1));
  protected readonly hot = computed(() => fixed(this.sinkC() + this.totalK(), 1));
  protected readonly told = computed(
    () =>
      `From ${this.hot()} °C down to ${this.cold()} °C: ${this.steps()
        .map((s) => `${s.word} ${s.kelvin} K`)
        .join(', ')}`,
  );
}
