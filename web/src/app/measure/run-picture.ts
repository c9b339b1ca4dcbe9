import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { READ_IN, inUnit } from '@each-bolt/core/shared';
import type { Connection, Port, Triple } from '@each-bolt/core/record';

const ROOM = { width: 680, height: 250, margin: 26 } as const;

interface Drawn {
  readonly id: string;
  readonly points: string;
  readonly isWhatIf: boolean;
}

const placeOf = (port: Port | undefined): Triple | null =>
  port === undefined || port.xM === null || port.yM === null || port.zM === null ? null : [port.xM, port.yM, port.zM];

/** Lines over their ends and route points, seen from above: front to the left; what would be, dashed. */
@Component({
  selector: 'eb-run-picture',
  template: `@if (drawn().length > 0) {
    <svg [attr.viewBox]="'0 0 ' + room.width + ' ' + room.height" role="img" [attr.aria-label]="told()">
      @for (d of drawn(); track d.id) {
        <polyline [attr.points]="d.points" [class.would]="d.isWhatIf" />
      }
      @for (p of marks(); track p.id) {
        <circle [attr.cx]="p.x" [attr.cy]="p.y" r="4" [class.would]="p.isWhatIf" />
        <text [attr.x]="p.x" [attr.y]="p.y + p.dy" text-anchor="middle">{{ p.name }}</text>
      }
      <text [attr.x]="4" [attr.y]="room.height - 6" class="soft">front</text>
      <text [attr.x]="room.width - 4" [attr.y]="room.height - 6" class="soft" text-anchor="end">seen from above, {{ span() }}</text>
    </svg>
  }`,
  styles: `
    svg {
      display: block;
      width: 100%;
      max-width: 760px;
      border: 1px solid var(--line);
      background: var(--sheet);
      font: 11.5px var(--label);
    }
    polyline {
      fill: none;
      stroke: var(--soft);
      stroke-width: 2.5;
    }
    polyline.would {
      stroke: var(--dye);
      stroke-dasharray: 6 4;
    }
    circle {
      fill: var(--ink);
    }
    circle.would {
      fill: var(--dye);
    }
    /* a name stays legible over a line */
    text {
      fill: var(--ink);
      paint-order: stroke;
      stroke: var(--sheet);
      stroke-width: 4px;
    }
    .soft {
      fill: var(--soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RunPicture {
  readonly lines = input.required<readonly Connection[]>();
  readonly ports = input.required<readonly Port[]>();
  /** the same as they would be; nothing where no what-if is chosen */
  readonly would = input<{ readonly lines: readonly Connection[]; readonly ports: readonly Port[] }>({ lines: [], ports: [] });

  protected readonly room = ROOM;
  private readonly shapes = computed(() => {
    const shapesOf = (lines: readonly Connection[], ports: readonly Port[], isWhatIf: boolean) => {
      const byId = new Map(ports.map((port) => [port.id, port]));
      return lines.flatMap((line) => {
        const [from, to] = [placeOf(byId.get(line.fromPortId ?? '')), placeOf(byId.get(line.toPortId ?? ''))];
        if (from === null || to === null) return [];
        return [{ id: `${line.id} ${isWhatIf}`, line, isWhatIf, points: [from, ...(line.route as readonly Triple[]), to] }];
      });
    };
    const now = shapesOf(this.lines(), this.ports(), false);
    const would = shapesOf(this.would().lines, this.would().ports, true).filter(({ line, points }) => {
      const same = now.find((shape) => shape.line.id === line.id);
      return JSON.stringify(same?.points) !== JSON.stringify(points);
    });
    return [...now, ...would];
  });
  private readonly box = computed(() => {
    const points = this.shapes().flatMap((shape) => shape.points);
    const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
    const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    const scale = Math.min(
      (ROOM.width - 8 * ROOM.margin) / Math.max(right - left, 0.2),
      (ROOM.height - 3 * ROOM.margin) / Math.max(bottom - top, 0.2),
    );
    return { left, right, top, scale, height: (bottom - top) * scale };
  });
  protected readonly span = computed(() => inUnit(READ_IN.m, this.box().right - this.box().left));
  private readonly at = (point: Triple): readonly [number, number] => {
    const { left, right, top, scale, height } = this.box();
    return [(ROOM.width - (right - left) * scale) / 2 + (point[0] - left) * scale, (ROOM.height - height) / 2 + (point[1] - top) * scale];
  };
  protected readonly drawn = computed((): readonly Drawn[] =>
    this.shapes().map(({ id, isWhatIf, points }) => ({
      id,
      isWhatIf,
      points: points
        .map((p) =>
          this.at(p)
            .map((v) => v.toFixed(1))
            .join(','),
        )
        .join(' '),
    })),
  );
  protected readonly marks = computed(() => {
    const used = new Set(this.shapes().flatMap(({ line }) => [line.fromPortId, line.toPortId]));
    const marksOf = (ports: readonly Port[], isWhatIf: boolean) =>
      ports.flatMap((port) => {
        const place = used.has(port.id) ? placeOf(port) : null;
        if (place === null) return [];
        const [x, y] = this.at(place);
        return [{ id: `${port.id} ${isWhatIf}`, name: port.name, x, y, isWhatIf, port }];
      });
    const now = marksOf(this.ports(), false);
    const moved = marksOf(this.would().ports, true).filter((mark) =>
      now.every((n) => n.port.id !== mark.port.id || n.x !== mark.x || n.y !== mark.y),
    );
    // names of ports near to each other go above and below in turn
    return [...now, ...moved].map((mark, i, all) => {
      const near = all.slice(0, i).filter((other) => Math.abs(other.x - mark.x) < 110 && Math.abs(other.y - mark.y) < 26).length;
      return { ...mark, dy: near % 2 === 0 ? -9 - 13 * Math.floor(near / 2) : 18 + 13 * Math.floor(near / 2) };
    });
  });
  protected readonly told = computed(
    () =>
      `Lines seen from above: ${this.shapes().filter(({ isWhatIf }) => !isWhatIf).length} as recorded, ${this.shapes().filter(({ isWhatIf }) => isWhatIf).length} as they would be`,
  );
}
