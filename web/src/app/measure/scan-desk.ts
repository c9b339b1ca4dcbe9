import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { METRES_PER, circleThrough, type Circle, type Loop, type Place } from '@each-bolt/core/measure';
import { fixed } from '@each-bolt/core/shared';
import type { Scan, ScanUnit } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { RadioButton } from 'primeng/radiobutton';
import { Slider } from 'primeng/slider';
import { FormsModule } from '@angular/forms';
import { Choose, ChoicesPipe } from '../shared/choose';
import { MeshViewer, type ShownCut } from './mesh-viewer';
import type { Picked } from './mesh-scene';
import type { Compared, MeasuredFile } from './mesh-told';
import { MeshWork } from './mesh-work';
import { cutLines, deviationColours } from './scan-text';
import { TakeScan } from './take-scan';

type Axis = 0 | 1 | 2;
type Mode = 'distance' | 'wall' | 'hole';

const AXES = [
  { value: '', word: 'none' },
  { value: '0', word: 'x' },
  { value: '1', word: 'y' },
  { value: '2', word: 'z' },
];

/** A scan that is open: looked at, cut, measured between points, registered to another. All in the unit of its file, shown in mm. */
@Component({
  selector: 'eb-scan-desk',
  imports: [MeshViewer, ButtonDirective, Choose, ChoicesPipe, RadioButton, Slider, FormsModule],
  template: `<eb-mesh-viewer
      [mesh]="shown()"
      [label]="name()"
      [cut]="cut()"
      [marks]="marks()"
      [colours]="colours()"
      (picked)="pick($event)"
    />
    <div class="tools">
      <fieldset>
        <legend>Section plane</legend>
        <eb-choose
          label="Square to the plane"
          [disabled]="compared() !== null"
          [value]="squareTo()"
          (valueChange)="turnTo($event)"
          [options]="axes"
        />
        @if (compared() !== null) {
          <span class="soft small">not while it is registered to another</span>
        }
        @if (axis() !== null) {
          <p-slider [min]="0" [max]="1000" [ngModel]="along() * 1000" ariaLabel="Place of the plane" (ngModelChange)="move($event)" />
          <span class="figure">{{ planeText() }}</span>
          <span class="soft">{{ cutText() }}</span>
          @if (loops().length > 0 && scan() !== null) {
            <button pButton severity="secondary" type="button" (click)="keepSection()">Keep this section</button>
          }
        }
      </fieldset>
      <fieldset>
        <legend>Click measures</legend>
        <label
          ><p-radiobutton name="mode" value="distance" [ngModel]="mode()" (ngModelChange)="setMode('distance')" /> between two points</label
        >
        <label
          ><p-radiobutton name="mode" value="wall" [disabled]="compared() !== null" [ngModel]="mode()" (ngModelChange)="setMode('wall')" />
          the wall at a point</label
        >
        <label
          ><p-radiobutton name="mode" value="hole" [ngModel]="mode()" (ngModelChange)="setMode('hole')" /> a hole, by three corners of its
          rim</label
        >
        <span class="figure" role="status" aria-label="Measured on the scan">{{ measured() }}</span>
        @if (holes().length >= 1) {
          <button pButton severity="secondary" type="button" (click)="forgetHole()">Forget hole {{ holes().length }}</button>
        }
        @if (holes().length >= 2) {
          <button pButton severity="secondary" type="button" (click)="keepHoles()">
            Keep the {{ holes().length }} holes as a hole pattern
          </button>
        }
      </fieldset>
      @if (others().length > 0) {
        <fieldset>
          <legend>Registration and deviation</legend>
          <eb-choose
            label="Scan to register it to"
            value=""
            (valueChange)="registerScan($event)"
            [options]="others() | ebChoices: 'id' : 'word' : 'none'"
          />
          @if (compared(); as c) {
            <span
              >off by <b class="figure">{{ mm(c.rms) }}</b> rms, <b class="figure">{{ mm(c.worst) }}</b> at most</span
            >
            <span class="legend" aria-hidden="true"></span>
            <span class="soft small">blue {{ mm(c.worst) }} inside, orange outside</span>
          }
        </fieldset>
      }
      @if (said() !== '') {
        <p class="fault" role="status">{{ said() }}</p>
      }
    </div>`,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 8px;
      min-width: 0;
    }
    eb-mesh-viewer {
      height: clamp(260px, 42vh, 560px);
    }
    fieldset {
      min-width: 0;
      display: flex;
      flex-wrap: wrap;
      gap: 6px 10px;
      align-items: center;
      margin: 0 0 6px;
      padding: 4px 10px 6px;
      border: 1px solid var(--line);
    }
    fieldset select {
      max-width: 100%;
    }
    legend {
      padding: 0 4px;
      font: 600 12.5px/1 var(--label);
      color: var(--soft);
    }
    .legend {
      width: 90px;
      height: 10px;
      background: linear-gradient(90deg, rgb(33 69 199), rgb(184 186 184), rgb(217 107 13));
    }
    .small {
      font-size: 12.5px;
    }
    .fault {
      color: var(--amber);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScanDesk {
  readonly file = input.required<MeasuredFile>();
  readonly unit = input.required<ScanUnit>();
  readonly name = input.required<string>();
  readonly scan = input.required<Scan | null>();
  protected readonly axes = AXES;
  readonly others = input.required<readonly { readonly id: string; readonly scan: Scan; readonly word: string }[]>();
  /** outline in the unit of the file */
  readonly sectioned = output<{ readonly name: string; readonly loops: readonly Loop[] }>();

  /** middles of holes in the unit of the file */
  readonly patterned = output<readonly Place[]>();

  private readonly work = inject(MeshWork);
  private readonly takes = inject(TakeScan);

  protected readonly axis = signal<Axis | null>(null);
  /** place of the plane between the two ends of the scan, 0…1 */
  protected readonly along = signal(0.5);
  protected readonly loops = signal<readonly Loop[]>([]);
  private readonly openLines = signal(0);
  private readonly lines = signal<Float32Array>(new Float32Array());
  protected readonly mode = signal<Mode>('distance');
  private readonly points = signal<readonly (readonly number[])[]>([]);
  private readonly wall = signal<number | null | undefined>(undefined);
  protected readonly holes = signal<readonly Circle[]>([]);
  protected readonly compared = signal<Compared | null>(null);
  protected readonly said = signal('');

  private readonly ends = computed(() => {
    const { positions } = this.file();
    const [low, high] = [
      [Infinity, Infinity, Infinity],
      [-Infinity, -Infinity, -Infinity],
    ];
    for (let at = 0; at < positions.length; at++) {
      const i = at % 3;
      if (positions[at]! < low[i]!) low[i] = positions[at]!;
      if (positions[at]! > high[i]!) high[i] = positions[at]!;
    }
    return { low, high };
  });
  private readonly plane = computed(() => {
    const axis = this.axis();
    if (axis === null) return null;
    const { low, high } = this.ends();
    const normal = [0, 1, 2].map((i) => (i === axis ? 1 : 0)) as unknown as readonly [number, number, number];
    // never exactly at an end, where there is nothing to cut
    const share = 0.001 + 0.998 * this.along();
    return { normal, offset: low[axis]! + share * (high[axis]! - low[axis]!) };
  });
  protected readonly shown = computed(() => {
    const compared = this.compared();
    return compared ? { positions: compared.registered, triangles: compared.triangles } : this.file();
  });
  protected readonly cut = computed<ShownCut | null>(() => {
    const plane = this.plane();
    return plane && { ...plane, lines: this.lines() };
  });
  protected readonly marks = computed(() => [...this.points(), ...this.holes().map((h) => h.centre)]);
  protected readonly colours = computed(() => {
    const compared = this.compared();
    return compared && deviationColours(compared.deviation, compared.worst || 1);
  });
  protected readonly planeText = computed(() => {
    const plane = this.plane();
    return plane ? `${['x', 'y', 'z'][this.axis() ?? 0]} = ${this.mm(plane.offset)}` : '';
  });
  protected readonly cutText = computed(() => {
    const [loops, open] = [this.loops().length, this.openLines()];
    if (open > 0) return `${open} lines do not close: the scan is open there`;
    return loops === 0 ? 'nothing is cut here' : `${loops} closed ${loops === 1 ? 'line' : 'lines'}`;
  });
  protected readonly measured = computed(() => {
    const points = this.points();
    if (this.mode() === 'hole') {
      const last = this.holes().at(-1);
      const next = `click ${3 - points.length} more on the rim`;
      return last && points.length === 0
        ? `hole ${this.holes().length}: ${this.mm(2 * last.radius)} wide; the next one, or keep them`
        : next;
    }
    if (this.mode() === 'wall') {
      const wall = this.wall();
      if (wall === undefined) return 'click on the surface';
      return wall === null ? 'nothing lies behind that point' : `wall ${this.mm(wall)}, straight through`;
    }
    if (points.length < 2) return points.length === 0 ? 'click two points' : 'and the second point';
    const [a, b] = points as [readonly number[], readonly number[]];
    return `${this.mm(Math.hypot(...a.map((x, i) => x - b[i]!)))} apart`;
  });

  protected mm(length: number): string {
    const value = length * METRES_PER[this.unit()] * 1000;
    return `${fixed(value, Math.abs(value) < 10 ? 2 : 1)} mm`;
  }

  protected turnTo(axis: string): void {
    this.axis.set(axis === '' ? null : (Number(axis) as Axis));
    void this.slice();
  }

  protected move(thousandths: number): void {
    this.along.set(thousandths / 1000);
    void this.slice();
  }

  protected squareTo(): string {
    return String(this.axis() ?? '');
  }

  private isSlicing = false;
  private hasMoved = false;

  /** Cuts where the plane stands; while one cut is made, the plane may move on, and only its last place is cut next. */
  private async slice(): Promise<void> {
    if (this.isSlicing) {
      this.hasMoved = true;
      return;
    }
    this.isSlicing = true;
    do {
      this.hasMoved = false;
      await this.sliceOnce();
      // moved on meanwhile, from another call
    } while (this.movedOn());
    this.isSlicing = false;
  }

  private movedOn(): boolean {
    return this.hasMoved;
  }

  private async sliceOnce(): Promise<void> {
    const plane = this.plane();
    if (!plane) {
      this.loops.set([]);
      this.lines.set(new Float32Array());
      return;
    }
    const answer = await this.work.ask({ kind: 'slice', plane });
    if (answer.kind !== 'sliced') return;
    this.loops.set(answer.loops);
    this.openLines.set(answer.openLines);
    this.lines.set(cutLines(answer.loops, { ...plane, right: answer.right, up: answer.up }));
  }

  protected keepSection(): void {
    this.sectioned.emit({ name: `${this.name().replace(/\.[a-z]+$/i, '')} at ${this.planeText()}`.slice(0, 100), loops: this.loops() });
  }

  protected setMode(mode: Mode): void {
    this.mode.set(mode);
    this.points.set([]);
    this.holes.set([]);
    this.wall.set(undefined);
  }

  protected async pick({ point, triangle }: Picked): Promise<void> {
    if (this.mode() === 'distance') {
      this.points.update((points) => (points.length >= 2 ? [point] : [...points, point]));
      return;
    }
    if (this.mode() === 'hole') {
      this.pickRim(this.cornerNear(point, triangle));
      return;
    }
    this.points.set([point]);
    const answer = await this.work.ask({ kind: 'wall', triangle, from: point });
    if (answer.kind !== 'wall') return;
    this.wall.set(answer.wall?.thickness ?? null);
    if (answer.wall) this.points.set([point, answer.wall.onto]);
  }

  /** The corner of the triangle that lies nearest: the rim of a hole is a ring of corners, which nobody's hand meets exactly. */
  private cornerNear(point: Place, triangle: number): Place {
    const { positions, triangles } = this.shown();
    const corners = [0, 1, 2].map((k): Place => {
      const at = 3 * (triangles[3 * triangle + k] ?? 0);
      return [positions[at] ?? 0, positions[at + 1] ?? 0, positions[at + 2] ?? 0];
    });
    const distance = (p: Place): number => Math.hypot(p[0] - point[0], p[1] - point[1], p[2] - point[2]);
    return corners.reduce((a, b) => (distance(b) < distance(a) ? b : a));
  }

  private pickRim(point: Place): void {
    const [a, b] = this.points() as readonly Place[];
    if (!a || !b) {
      this.points.update((points) => [...points, point]);
      return;
    }
    const circle = circleThrough(a, b, point);
    this.points.set([]);
    this.said.set(circle ? '' : 'The three points lie in a line: click three that go round the rim');
    if (circle) this.holes.update((holes) => [...holes, circle]);
  }

  protected forgetHole(): void {
    this.points.set([]);
    this.holes.update((holes) => holes.slice(0, -1));
  }

  protected keepHoles(): void {
    this.patterned.emit(this.holes().map((h) => h.centre));
    this.holes.set([]);
  }

  protected async registerScan(scanId: string): Promise<void> {
    this.compared.set(null);
    this.points.set([]);
    const other = this.others().find((o) => o.scan.id === scanId)?.scan;
    if (!other) return;
    const file = await this.takes.file(other);
    if (!(file instanceof Blob)) {
      this.said.set(file.message);
      return;
    }
    const bytes = await file.arrayBuffer();
    const scale = METRES_PER[other.unit] / METRES_PER[this.unit()];
    const answer = await this.work.ask({ kind: 'register', bytes, fileName: other.fileName, scale }, [bytes]);
    if (answer.kind === 'compared') {
      // the plane and the wall are of the scan as its file has it, which is shown no more
      this.turnTo('');
      this.setMode('distance');
      this.compared.set(answer.compared);
    } else if (answer.kind === 'fault') this.said.set(answer.message);
  }
}
