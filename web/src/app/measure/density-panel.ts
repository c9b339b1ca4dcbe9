import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { fixed, materialById, withU, READ_IN, readAs, unitWord } from '@each-bolt/core/shared';
import { density, densityDoubts, materialsByDensity } from '@each-bolt/core/measure';
import { massUKg, type Part } from '@each-bolt/core/record';

const DENSITY = { per: 1, unit: 'kg/m³', digits: 0 };

/** Weighed against scanned: the density, where it lies among the materials, and what contradicts it. */
@Component({
  selector: 'eb-density-panel',
  template: `<section aria-label="Weighed against scanned">
    <h3>Weighed against scanned</h3>
    @if (read(); as r) {
      <p>
        Density <b class="figure">{{ text() }} {{ unit }}</b
        >, from {{ massText() }} and the volume.
        {{ said() ? 'Recorded is ' + said()!.name + ', ' + number(said()!.densityKgPerM3) + ' ' + unit + '.' : 'No material is recorded.' }}
      </p>
      @if (doubts().length > 0) {
        <ul class="doubts" aria-label="What contradicts">
          @for (doubt of doubts(); track doubt) {
            <li>{{ doubt }}</li>
          }
        </ul>
      } @else if (said()) {
        <p class="soft">The two agree within their uncertainty.</p>
      }
      <p class="soft small">
        Nearest:
        @for (near of nearest(); track near.name) {
          {{ near.name }} <span class="figure">{{ near.density }}</span> ({{ near.apart }} u){{ $last ? '.' : ', ' }}
        }
      </p>
    } @else {
      <p class="soft">The part is not weighed yet: with its mass the density can be held against the material.</p>
    }
  </section>`,
  styles: `
    .doubts {
      margin: 4px 0;
      padding-left: 18px;
      color: var(--amber);
      font-weight: 500;
    }
    .small {
      font-size: 12.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DensityPanel {
  readonly part = input.required<Part>();
  readonly volumeM3 = input.required<number>();
  readonly uM3 = input.required<number>();

  protected readonly unit = unitWord(DENSITY.unit);
  protected readonly said = computed(() => materialById.get(this.part().materialId ?? '') ?? null);
  protected readonly read = computed(() => {
    const { massEachKg } = this.part();
    return massEachKg === null
      ? null
      : density({ massKg: massEachKg, uKg: massUKg(this.part()) ?? 0 }, { volumeM3: this.volumeM3(), uM3: this.uM3() });
  });
  protected readonly text = computed(() => {
    const read = this.read();
    return read ? withU(readAs(DENSITY, read.densityKgPerM3), readAs(DENSITY, read.uKgPerM3)) : '';
  });
  protected readonly massText = computed(
    () => `${withU(readAs(READ_IN.g, this.part().massEachKg ?? 0), readAs(READ_IN.g, massUKg(this.part()) ?? 0))} ${unitWord('g')}`,
  );
  protected readonly doubts = computed(() => {
    const read = this.read();
    return read ? densityDoubts(read, this.said()) : [];
  });
  protected readonly nearest = computed(() => {
    const read = this.read();
    return (read ? materialsByDensity(read) : []).slice(0, 4).map(({ material, apart }) => ({
      name: material.name,
      density: fixed(readAs(DENSITY, material.densityKgPerM3), 0),
      apart: fixed(apart, 1),
    }));
  });

  protected number(value: number): string {
    return fixed(readAs(DENSITY, value), 0);
  }
}
