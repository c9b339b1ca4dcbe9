import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  afterNextRender,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { ThemeService } from '../shared/theme-service';
import { MeshScene, type Picked, type SceneInk } from './mesh-scene';
import type { DrawnMesh } from './mesh-told';

export interface ShownCut {
  readonly normal: readonly [number, number, number];
  readonly offset: number;
  /** [segment × 6] ends of the lines of the cut */
  readonly lines: Float32Array;
}

const TURN = 0.15;

/** A scan to look at and to pick points on. Arrow keys turn it, + and − bring it nearer. */
@Component({
  selector: 'eb-mesh-viewer',
  template: `<div
      #host
      class="host"
      tabindex="0"
      role="application"
      [attr.aria-label]="label() + ': drag or arrow keys turn, plus and minus zoom, a click picks a point'"
      (pointerdown)="down($event)"
      (pointerup)="up($event)"
      (keydown)="onKey($event)"
    ></div>
    @if (fault() !== '') {
      <p class="soft fault">{{ fault() }}</p>
    }`,
  styles: `
    :host {
      display: block;
      position: relative;
      min-height: 0;
    }
    .host {
      position: absolute;
      inset: 0;
      background: var(--paper);
      border: 1px solid var(--line);
      overflow: hidden;
      touch-action: none;
    }
    .fault {
      position: absolute;
      inset: 40% 0 auto;
      text-align: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MeshViewer {
  readonly mesh = input.required<DrawnMesh>();
  readonly label = input.required<string>();
  readonly cut = input<ShownCut | null>(null);
  readonly marks = input<readonly (readonly number[])[]>([]);
  /** [vertex × 3] colours, 0…1 */
  readonly colours = input<Float32Array | null>(null);
  readonly picked = output<Picked>();

  private readonly theme = inject(ThemeService);
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly scene = signal<MeshScene | null>(null);
  protected readonly fault = signal('');
  private pressed: readonly [number, number] = [0, 0];
  private readonly inkNow = computed(() => {
    this.theme.theme();
    return this.scene() ? this.ink() : null;
  });

  constructor() {
    const destroyed = inject(DestroyRef);
    afterNextRender(() => {
      try {
        const scene = new MeshScene(this.host().nativeElement, this.ink());
        const watch = new ResizeObserver(() => scene.resize());
        watch.observe(this.host().nativeElement);
        destroyed.onDestroy(() => {
          watch.disconnect();
          scene.dispose();
        });
        this.scene.set(scene);
      } catch {
        this.fault.set('This browser draws no three-dimensional pictures; the figures are the same without one.');
      }
    });
    effect(() => {
      const [scene, mesh] = [this.scene(), this.mesh()];
      scene?.show(mesh);
    });
    effect(() => {
      const [scene, cut] = [this.scene(), this.cut()];
      this.mesh();
      scene?.section(cut, cut?.lines ?? new Float32Array());
    });
    effect(() => {
      const [scene, marks] = [this.scene(), this.marks()];
      this.mesh();
      scene?.mark(marks);
    });
    effect(() => {
      const [scene, colours] = [this.scene(), this.colours()];
      const { triangles } = this.mesh();
      scene?.paint(triangles, colours);
    });
    effect(() => {
      const ink = this.inkNow();
      if (ink) untracked(this.scene)?.colours(ink);
    });
  }

  private ink(): SceneInk {
    const style = getComputedStyle(this.host().nativeElement);
    const of = (name: string): string => style.getPropertyValue(name).trim();
    return { part: of('--on-band-soft'), line: of('--amber'), mark: of('--dye') };
  }

  protected down(event: PointerEvent): void {
    this.pressed = [event.clientX, event.clientY];
  }

  /** a press that hardly moved picks; a longer one turned the view */
  protected up(event: PointerEvent): void {
    if (Math.hypot(event.clientX - this.pressed[0], event.clientY - this.pressed[1]) > 4) return;
    const hit = this.scene()?.pick(event.clientX, event.clientY);
    if (hit) this.picked.emit(hit);
  }

  protected onKey(event: KeyboardEvent): void {
    const scene = this.scene();
    const acts: Readonly<Record<string, (() => void) | undefined>> = {
      ArrowLeft: () => scene?.turn(-TURN, 0),
      ArrowRight: () => scene?.turn(TURN, 0),
      ArrowUp: () => scene?.turn(0, TURN),
      ArrowDown: () => scene?.turn(0, -TURN),
      '+': () => scene?.zoom(0.85),
      '-': () => scene?.zoom(1.18),
      Home: () => scene?.look(),
    };
    const act = acts[event.key];
    if (!act) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  }
}
