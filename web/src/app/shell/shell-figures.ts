import { Injectable, computed, inject } from '@angular/core';
import { ABSENT, counted, fixed, type Stage } from '@each-bolt/core/shared';
import { VEHICLE_ROLE_WORD, subsystemKey, type OutlineNode } from '@each-bolt/core/record';
import { totalsAt } from '@each-bolt/core/bench';
import { studyShown, type StudyShown } from '@each-bolt/core/cost';
import { ShellActs } from '../acts/shell-acts';
import { CheckingService } from '../checking/checking-service';
import { OpenStudy } from '../record/open-study';
import { todayHere } from '../record/when';
import type { BehindLine } from './behind-figure';
import type { NodeText } from './stack';
import type { Beside, StageFigures } from './strip';

/** What strip and stack say of the open study: how far each stage is, what is open, what each node holds. */
@Injectable({ providedIn: 'root' })
export class ShellFigures {
  private readonly open = inject(OpenStudy);
  private readonly acts = inject(ShellActs);
  private readonly checking = inject(CheckingService);

  private readonly shownAt = computed(() => {
    const { rolled } = this.open.rollUp();
    const { fastenersIn } = this.open.study();
    return (place: number): StudyShown | null => {
      const totals = totalsAt(rolled, place);
      return totals ? studyShown(totals, fastenersIn) : null;
    };
  });
  readonly textOf = computed(() => {
    const { placeOf } = this.open.outline();
    const shownAt = this.shownAt();
    const causes = this.checking.countAt();
    const [parts, vehicles, subsystems] = [this.open.partById(), this.open.vehicleById(), this.open.subsystemById()];
    const places = new Map(this.open.record().vehicles.map((vehicle, place) => [vehicle.id, place]));
    return (node: OutlineNode): NodeText => {
      const part = parts.get(node.id);
      return {
        name: part?.name ?? vehicles.get(node.id)?.name ?? subsystems.get(node.id)?.name ?? '',
        tag: part?.tag ?? '',
        parts: shownAt(placeOf.get(node.key) ?? -1)?.parts ?? 0,
        causes: causes[placeOf.get(node.key) ?? -1] ?? 0,
        vehiclePlace: places.get(node.vehicleId) ?? 0,
      };
    };
  });
  readonly beside = computed<Beside>(() => {
    const open = this.open.openQuestions();
    const today = todayHere();
    const late = open.filter((q) => q.dueOn !== null && q.dueOn < today).length;
    return {
      questions: late > 0 ? `${open.length} open, ${late} late` : `${open.length} open`,
      late: late > 0,
      revision: this.open.record().revision,
      here: [...new Set(this.acts.others().map((h) => (h.part === '' ? h.name : `${h.name} on ${h.part}`)))],
    };
  });
  readonly figures = computed<StageFigures>(() => {
    const vehicles = this.open.record().vehicles;
    const { placeOf } = this.open.outline();
    const all = vehicles.flatMap((v) => this.shownAt()(placeOf.get(v.id) ?? -1) ?? []);
    const sum = (figure: (s: StudyShown) => number): number => all.reduce((total, s) => total + figure(s), 0);
    const parts = sum((s) => s.partsOfMass);
    const progress = (done: number): 'empty' | 'half' | 'full' => (done === 0 ? 'empty' : done < parts ? 'half' : 'full');
    const costed = sum((s) => s.partsCosted);
    const cost = all.some((s) => s.cost !== null)
      ? `${this.open.study().currency} ${fixed(
          sum((s) => s.cost ?? 0),
          2,
        )}`
      : ABSENT;
    return {
      plan: this.planFigure(),
      bench: {
        figure: `${fixed(
          sum((s) => s.parts),
          0,
        )} counted`,
        progress: progress(sum((s) => s.partsWeighed)),
      },
      measure: this.measureFigure(),
      reconcile: this.reconcileFigure(parts),
      cost: { figure: cost, progress: progress(costed) },
      compare: { figure: counted(vehicles.length, 'vehicle'), progress: vehicles.length < 2 ? 'empty' : 'half' },
    };
  });

  /** What the figure of a stage is made of, line by line. */
  readonly behind = (stage: Stage): (() => readonly BehindLine[]) => {
    switch (stage) {
      case 'plan':
        return () => this.packagesLeft();
      case 'bench':
        return () => this.bySubsystem('bench/record', (s) => counted(s.parts, 'counted', 'counted'));
      case 'measure':
        return () => this.measured();
      case 'reconcile':
        return () => this.notClosing();
      case 'cost':
        return () =>
          this.bySubsystem('cost', (s) =>
            s.cost === null ? 'not costed' : `${fixed(s.cost, 2)}, ${fixed(s.partsCosted, 0)} of ${fixed(s.partsOfMass, 0)} parts`,
          );
      case 'compare':
        return () =>
          this.open
            .record()
            .vehicles.map((v) => ({ name: v.name, figure: VEHICLE_ROLE_WORD[v.role], path: 'compare', params: { vehicle: v.id } }));
    }
  };

  /** Work packages that are not done, in the order of the plan. */
  private packagesLeft(): readonly BehindLine[] {
    return [...this.open.record().packages]
      .filter((p) => p.doneOn === null)
      .sort((a, b) => a.sequence - b.sequence)
      .map((p) => ({
        name: p.name,
        figure: p.startedOn === null ? 'not begun' : 'running',
        path: 'plan/packages',
        params: { package: p.id },
      }));
  }

  /** Every subsystem of every vehicle with anything recorded. */
  private bySubsystem(path: string, figure: (shown: StudyShown) => string): readonly BehindLine[] {
    const { vehicles, subsystems } = this.open.record();
    const { placeOf } = this.open.outline();
    const ordered = [...subsystems].sort((a, b) => a.sequence - b.sequence);
    return vehicles.flatMap((vehicle) =>
      ordered.flatMap((subsystem) => {
        const shown = this.shownAt()(placeOf.get(subsystemKey(vehicle.id, subsystem.id)) ?? -1);
        if (!shown || shown.parts === 0) return [];
        const params = { vehicle: vehicle.id, subsystem: subsystem.id, part: null, inside: null };
        return [{ name: `${subsystem.name}, ${vehicle.name}`, figure: figure(shown), path, params }];
      }),
    );
  }

  /** Every part that was scanned, or has a section or a hole pattern. */
  private measured(): readonly BehindLine[] {
    const { scans, sections, holePatterns, gaugeStudies } = this.open.record();
    const parts = this.open.partById();
    const line = (path: string, partId: string, figure: string): BehindLine => ({
      name: parts.get(partId)?.name ?? '',
      figure,
      path,
      params: { part: partId, vehicle: parts.get(partId)?.vehicleId ?? null },
    });
    return [
      ...scans.map((s) => line('measure/scans', s.partId, 'scan')),
      ...sections.map((s) => line('measure/sections', s.partId, `section “${s.name}”`)),
      ...holePatterns.map((h) => line('measure/holes', h.partId, `holes “${h.name}”`)),
      ...gaugeStudies.map((g) => ({ name: g.name, figure: 'gauge R&R study', path: 'measure/gauge-studies', params: {} })),
    ];
  }

  /** What does not close, by check and subsystem: the gravest first. */
  private notClosing(): readonly BehindLine[] {
    return this.checking
      .causes()
      .slice(0, 40)
      .map((cause) => ({ name: cause.says, figure: counted(cause.findings.length, 'finding'), path: 'reconcile/open', params: {} }));
  }

  private reconcileFigure(parts: number): StageFigures['reconcile'] {
    const said = this.checking.said();
    if (said === null) return { figure: parts === 0 ? 'nothing yet' : 'checking', progress: 'empty' };
    return { figure: `${said.causes.length} open`, progress: said.causes.length === 0 ? 'full' : 'half' };
  }

  private measureFigure(): StageFigures['measure'] {
    const { scans, sections, holePatterns, gaugeStudies } = this.open.record();
    const figures = [
      ...(scans.length > 0 ? [counted(scans.length, 'scan')] : []),
      ...(sections.length > 0 ? [counted(sections.length, 'section')] : []),
    ];
    const any = scans.length + sections.length + holePatterns.length + gaugeStudies.length > 0;
    return { figure: figures[0] ?? (any ? 'begun' : 'no scans'), progress: any ? 'half' : 'empty' };
  }

  /** packages done of all, whatever the schedule says */
  private planFigure(): StageFigures['plan'] {
    const { packages } = this.open.record();
    const done = packages.filter((p) => p.doneOn !== null).length;
    if (packages.length === 0) return { figure: 'no packages', progress: 'empty' };
    return { figure: `${done} of ${packages.length} done`, progress: done === packages.length ? 'full' : 'half' };
  }
}
