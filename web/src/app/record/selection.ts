import { Injectable, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, NavigationEnd, Router } from '@angular/router';
import { subsystemKey, type Part, type Subsystem, type Vehicle, type WorkPackage } from '@each-bolt/core/record';
import { filter, map, startWith } from 'rxjs';
import { OpenStudy } from './open-study';

/** What is chosen, as the address says it. */
export interface Chosen {
  readonly vehicle?: string | null;
  readonly subsystem?: string | null;
  /** the assembly new parts go into; none: straight under the subsystem */
  readonly inside?: string | null;
  readonly part?: string | null;
  /** the vehicle compared with */
  readonly against?: string | null;
}

/** What people have chosen lives in the address, so that it survives a reload and can be sent to someone. */
@Injectable({ providedIn: 'root' })
export class Selection {
  private readonly router = inject(Router);
  private readonly route = inject(ActivatedRoute);
  private readonly open = inject(OpenStudy);
  private readonly params = toSignal(
    this.router.events.pipe(
      filter((event) => event instanceof NavigationEnd),
      startWith(null),
      map(() => this.router.parseUrl(this.router.url).queryParams as Readonly<Record<string, string | undefined>>),
    ),
    { requireSync: true },
  );
  private readonly inPlan = computed(() => {
    this.params();
    return this.router.url.includes('/plan/');
  });

  readonly isCountingAgain = computed(() => {
    this.params();
    return this.router.url.includes('/bench/recount');
  });

  readonly vehicle = computed<Vehicle | null>(
    () => this.open.vehicleById().get(this.params().vehicle ?? '') ?? this.open.record().vehicles[0] ?? null,
  );
  /** place of the vehicle in the study, which decides its hue and marker */
  readonly vehiclePlace = computed(() => this.open.record().vehicles.findIndex((v) => v.id === this.vehicle()?.id));
  readonly subsystem = computed<Subsystem | null>(
    () => this.open.subsystemById().get(this.params().subsystem ?? '') ?? this.open.record().subsystems[0] ?? null,
  );
  /** id of the part the address names, whether it is in the record or not */
  readonly partId = computed(() => this.params().part ?? '');
  readonly part = computed<Part | null>(() => this.open.partById().get(this.params().part ?? '') ?? null);
  /** the work package that is chosen in the plan */
  readonly pack = computed<WorkPackage | null>(() => {
    const id = this.params().package;
    return this.inPlan() ? (this.open.record().packages.find((p) => p.id === id) ?? null) : null;
  });
  readonly inside = computed<Part | null>(() => {
    const part = this.open.partById().get(this.params().inside ?? '') ?? null;
    return part && part.vehicleId === this.vehicle()?.id ? part : null;
  });
  readonly against = computed<Vehicle | null>(() => {
    const others = this.open.record().vehicles.filter((v) => v.id !== this.vehicle()?.id);
    return others.find((v) => v.id === this.params().against) ?? others[0] ?? null;
  });
  /** key of the subsystem on the vehicle, as the outline knows it */
  readonly subsystemKey = computed(() => subsystemKey(this.vehicle()?.id ?? '', this.subsystem()?.id ?? ''));

  /** Resolves once the address says so. */
  choose(chosen: Chosen): Promise<boolean> {
    return this.router.navigate([], { relativeTo: this.route, queryParams: chosen, queryParamsHandling: 'merge' });
  }

  /** Chooses a part with the vehicle and subsystem it stands in. */
  choosePart(partId: string, inside?: string | null): void {
    const { nodes, placeOf } = this.open.outline();
    let subsystem: string | null = null;
    for (let at = placeOf.get(partId) ?? -1; at >= 0; at = nodes[at]?.parent ?? -1) {
      const node = nodes[at];
      if (node?.kind === 'subsystem') {
        subsystem = node.id;
        break;
      }
    }
    const vehicle = this.open.partById().get(partId)?.vehicleId ?? null;
    void this.choose({ vehicle, subsystem, part: partId, ...(inside === undefined ? {} : { inside }) });
  }
}
