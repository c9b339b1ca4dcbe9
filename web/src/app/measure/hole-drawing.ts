import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { drawnLonger, moved, seenSquare, type FlatPlace, type HoleFit, type Place } from '@each-bolt/core/measure';

const WIDTH = 340;
const HEIGHT = 230;
const MARGIN = 26;
/** no misfit is drawn longer than this, px */
const LONGEST = 22;

interface Drawn {
  readonly n: number;
  readonly x: number;
  readonly y: number;
  readonly isOff: boolean;
}

/** A hole pattern, alone or registered to another: points in their numbers, and how far each lies off, drawn longer. */
@Component({
  selector: 'eb-hole-drawing',
  template: `<figure>
    <svg [attr.width]="width" [attr.height]="height" role="img" [attr.aria-label]="label()">
      @for (p of under(); track p.n) {
        <path class="under" [attr.d]="'M' + (p.x - 6) + ' ' + p.y + 'h12M' + p.x + ' ' + (p.y - 6) + 'v12'" />
      }
      @for (p of over(); track p.n) {
        <circle [class.off]="p.isOff" [attr.cx]="p.x" [attr.cy]="p.y" r="8" />
        <text [attr.x]="p.x + 11" [attr.y]="p.y - 7">{{ p.n }}</text>
      }
      @for (line of lines(); track $index) {
        <path class="misfit" [attr.d]="line" />
      }
    </svg>
    <figcaption class="soft">{{ caption() }}</figcaption>
  </figure>`,
  styles: `
    figure {
      margin: 0;
    }
    svg {
      display: block;
      border: 1px solid var(--line);
      background: var(--sheet);
    }
    circle {
      fill: var(--dye-tint);
      stroke: var(--dye);
      stroke-width: 1.5;
    }
    circle.off {
      fill: none;
      stroke: var(--amber);
      stroke-width: 2;
    }
    .under {
      stroke: var(--soft);
      stroke-width: 1.5;
    }
    .misfit {
      fill: none;
      stroke: var(--amber);
      stroke-width: 2;
    }
    text {
      font: 600 12.5px/1 var(--figure);
      fill: var(--ink);
    }
    figcaption {
      margin-top: 4px;
      font-size: 12.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HoleDrawing {
  readonly name = input.required<string>();
  readonly points = input.required<readonly Place[]>();
  readonly onto = input<readonly Place[] | null>(null);
  readonly fit = input<HoleFit | null>(null);

  protected readonly width = WIDTH;
  protected readonly height = HEIGHT;
  protected readonly label = computed(() => `Drawing of ${this.name()}${this.fit() ? ', registered to the other pattern' : ''}`);
  private readonly seen = computed(() => {
    const [points, onto, fit] = [this.points(), this.onto() ?? [], this.fit()];
    const registered = fit ? points.map((p) => moved(fit.move, p)) : points;
    const flat = seenSquare([...registered, ...(fit ? onto : [])]);
    const [xs, ys] = [flat.map((p) => p[0]), flat.map((p) => p[1])];
    const [left, low] = [Math.min(...xs), Math.min(...ys)];
    const [wide, high] = [Math.max(...xs) - left, Math.max(...ys) - low];
    const scale = Math.min((WIDTH - 2 * MARGIN) / (wide || 1e-9), (HEIGHT - 2 * MARGIN) / (high || 1e-9));
    const [x0, y0] = [(WIDTH - wide * scale) / 2, (HEIGHT + high * scale) / 2];
    const at = ([x, y]: FlatPlace): FlatPlace => [x0 + (x - left) * scale, y0 - (y - low) * scale];
    const drawn = flat.map(at);
    return { over: drawn.slice(0, points.length), under: drawn.slice(points.length), pxPerM: scale };
  });
  private readonly off = computed(() => {
    const fit = this.fit();
    const within = new Set(fit?.points.filter((p) => p.isWithin).map((p) => p.from));
    return (i: number): boolean => fit !== null && !within.has(i);
  });
  protected readonly over = computed(() => this.seen().over.map(([x, y], i): Drawn => ({ n: i + 1, x, y, isOff: this.off()(i) })));
  protected readonly under = computed(() => this.seen().under.map(([x, y], i): Drawn => ({ n: i + 1, x, y, isOff: false })));
  private readonly factor = computed(() => {
    const fit = this.fit();
    return fit ? drawnLonger(fit.worstM, this.seen().pxPerM, LONGEST) : 1;
  });
  /** from each point of the other pattern to where this one lies, drawn longer */
  protected readonly lines = computed(() => {
    const { over, under } = this.seen();
    return (this.fit()?.points ?? []).map(({ from, onto }) => {
      const [[x, y], [u, v]] = [over[from]!, under[onto]!];
      return `M${u} ${v}l${(x - u) * this.factor()} ${(y - v) * this.factor()}`;
    });
  });
  protected readonly caption = computed(() =>
    this.fit()
      ? `Circles: this pattern. Crosses: the other. Lines: how far each lies off, ${this.factor() === 1 ? 'true to scale' : `drawn ${this.factor()} times longer`}.`
      : 'Seen square to the plane of its points.',
  );
}
