import { Injectable, computed, inject } from '@angular/core';
import type { LiftSetUp } from '@each-bolt/core/record';
import { liftBalance, lumpOf } from '@each-bolt/core/plan';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { Selection } from '../record/selection';

/** The chosen vehicle on its lift: what comes off it, in order, and how it then stands. */
@Injectable()
export class LiftSums {
  private readonly open = inject(OpenStudy);
  private readonly selection = inject(Selection);
  private readonly service = inject(RecordService);

  readonly mayEdit = computed(() => this.service.can()('liftSetUp.edit'));
  readonly liftSetUp = computed<LiftSetUp | null>(
    () => this.open.record().liftSetUps.find((h) => h.vehicleId === this.selection.vehicle()?.id) ?? null,
  );
  readonly liftSteps = computed(() =>
    this.open
      .record()
      .liftSteps.filter((u) => u.vehicleId === this.selection.vehicle()?.id)
      .sort((a, b) => a.sequence - b.sequence || (a.id < b.id ? -1 : 1)),
  );
  readonly lumps = computed(() =>
    this.liftSteps().map((liftStep) => {
      const part = this.open.partById().get(liftStep.partId ?? '') ?? null;
      const within =
        liftStep.subsystemId === null
          ? part && this.open.massOf(part.id)
          : this.open.massOfSubsystem(liftStep.vehicleId, liftStep.subsystemId);
      return { part, within, lump: lumpOf(liftStep, part, within?.kg ?? null, within?.uKg ?? null) };
    }),
  );
  readonly balance = computed(() => {
    const liftSetUp = this.liftSetUp();
    return (
      liftSetUp &&
      liftBalance(
        liftSetUp,
        this.liftSteps(),
        this.lumps().map(({ lump }) => lump),
      )
    );
  });
}
