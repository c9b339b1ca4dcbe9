import { ChangeDetectionStrategy, Component, HostListener, computed, effect, inject, output, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  isEmpty,
  isSameLoad,
  readingFault,
  readingText,
  takeElements,
  takeReading,
  takeTorque,
  watchLoad,
  type InstrumentNow,
  type InstrumentReading,
  type ReadField,
  type Taken,
  type TakenLoad,
} from '@each-bolt/core/bench';
import { nextSequence, type Op, type Part } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { Tick } from '../shared/tick';
import { Choose, ChoicesPipe } from '../shared/choose';
import { Session as SignedIn } from '../record/session';
import { OpenStudy } from '../record/open-study';
import { Selection } from '../record/selection';
import { TakePicture } from '../pictures/take-picture';
import { BenchWork } from './bench-work';
import { InstrumentService } from './instrument-service';

const CAMERA_HERE = 'bench camera';

/** What the instruments read now, and one key to take it. */
@Component({
  selector: 'eb-instrument-strip',
  imports: [RouterLink, ButtonDirective, Choose, ChoicesPipe, Tick],
  template: `<section aria-label="Instruments">
    @if (shown(); as row) {
      <eb-choose
        label="Instrument"
        (valueChange)="chosenId.set($event)"
        [value]="row.now.id"
        [options]="service.all() | ebChoices: 'id' : 'name'"
      />
      <span class="figure reads" role="status" aria-label="Reads now">{{ row.text }}</span>
      <small class="state" [class.fault]="row.isFault">{{ row.state }}</small>
    } @else {
      <span class="soft small">{{ service.isAway() ? 'The server tells of no instruments now.' : 'No instrument is set up.' }}</span>
    }
    @if (chosen(); as now) {
      <div class="acts">
        <button pButton type="button" title="Take the reading (F8)" (click)="take(1)">Take <kbd>F8</kbd></button>
        @if (many() > 1 && now.last?.quantity === 'mass') {
          <button pButton severity="secondary" type="button" title="All of the part lie on the scale (Shift F8)" (click)="take(many())">
            All {{ many() }} together
          </button>
        }
        @if (now.kind === 'scale' || now.kind === 'floor scale') {
          <button pButton severity="secondary" type="button" (click)="tell(now, 'tare')">Tare</button>
          <button pButton severity="secondary" type="button" (click)="tell(now, 'zero')">Zero</button>
          <eb-tick class="auto" [checked]="auto()" (checkedChange)="auto.set($event)">by itself</eb-tick>
        } @else if (now.kind === 'camera') {
          <button pButton severity="secondary" type="button" (click)="trigger(now)">Trigger</button>
          <eb-tick
            class="auto"
            title="Pictures made at the camera itself go onto the part that is open at this bench"
            [checked]="isCameraHere()"
            (checkedChange)="setCameraHere($event)"
            >this bench’s</eb-tick
          >
        } @else if (now.kind === 'alloy analyser' || now.kind === 'mesh scanner') {
          <button pButton severity="secondary" type="button" (click)="tell(now, 'trigger')">Trigger</button>
        }
        <a pButton severity="secondary" routerLink="../instruments" queryParamsHandling="preserve">Set up</a>
      </div>
    }
  </section>`,
  styles: `
    :host {
      flex: none;
    }
    section {
      display: flex;
      flex-wrap: wrap;
      gap: 6px 10px;
      align-items: center;
    }
    eb-choose {
      max-width: 150px;
    }
    .reads {
      min-width: 92px;
      font-size: 17px;
      text-align: right;
    }
    .state {
      min-width: 56px;
      font: 500 12.5px/1.3 var(--label);
      color: var(--soft);
    }
    .state.fault {
      color: var(--amber);
    }
    .acts {
      margin-left: auto;
    }
    .auto {
      display: inline-flex;
      gap: 5px;
      align-items: center;
      font: 500 13px/1 var(--label);
    }
    .small {
      font-size: 12.5px;
    }
    kbd {
      font: 400 11px/1 var(--figure);
      border: 1px solid currentColor;
      border-radius: 2px;
      padding: 0 3px;
      margin-left: 4px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class InstrumentStrip {
  /** a reading that goes into the entry line */
  readonly asText = output<Taken & { readonly text: string }>();
  readonly said = output<string>();

  protected readonly service = inject(InstrumentService);
  private readonly work = inject(BenchWork);
  private readonly open = inject(OpenStudy);
  private readonly selection = inject(Selection);
  private readonly signedIn = inject(SignedIn);
  private readonly takes = inject(TakePicture);

  protected readonly chosenId = signal('');
  protected readonly auto = signal(false);
  protected readonly chosen = computed<InstrumentNow | null>(
    () =>
      this.service.all().find((i) => i.id === this.chosenId()) ??
      this.service.all().find((i) => i.kind === 'scale') ??
      this.service.all()[0] ??
      null,
  );
  protected readonly many = computed(() => this.selection.part()?.quantity ?? 1);
  protected readonly shown = computed(() => {
    const now = this.chosen();
    if (!now) return null;
    const { last, state, fault } = now;
    if (state === 'connecting') return { now, text: '–', state: 'connecting …', isFault: false };
    if (state !== 'ready') return { now, text: '–', state: fault, isFault: true };
    if (last === null) return { now, text: '–', state: 'ready', isFault: false };
    if (last.overload) return { now, text: 'over', state: 'overload', isFault: true };
    return { now, text: readingText(last, now.most), state: last.stable ? 'still' : 'moving', isFault: false };
  });
  protected readonly isCameraHere = signal(localStorage.getItem(CAMERA_HERE) === 'yes');
  /** this bench asked for the next picture */
  private isTriggered = false;
  /** taken by itself once per part */
  private lastAuto = '';
  /** the scale was seen empty since the part was chosen, so that what lies on it now is this part */
  private emptied = '';
  private readonly seen = new Map<string, number>();
  /** the load of each scale that was taken and not lifted off since */
  private readonly loads = new Map<string, TakenLoad>();
  /** the last reading kept of each instrument that tells a reading once */
  private readonly takenOnce = new Map<string, number>();

  constructor() {
    effect(() => {
      const [now, part, auto] = [this.chosen(), this.selection.part(), this.auto()];
      untracked(() => this.autoTake(now, part, auto));
    });
    effect(() => this.watch(this.service.all()));
    effect(() => {
      const camera = this.service.all().find((i) => i.kind === 'camera');
      const seq = camera?.last?.seq ?? 0;
      untracked(() => {
        if (camera?.state !== 'ready') return;
        // what it made before this bench looked is not taken
        const before = this.seen.get(camera.id);
        this.seen.set(camera.id, seq);
        if (before === undefined || before === seq || !(this.isCameraHere() || this.isTriggered)) return;
        this.isTriggered = false;
        void this.takePicture(camera);
      });
    });
  }

  /** What is lifted off a scale may be weighed again. */
  private watch(instruments: readonly InstrumentNow[]): void {
    for (const { id, last, most } of instruments) {
      const load = this.loads.get(id);
      if (load && last?.quantity === 'mass' && watchLoad(load, last, most) === null) this.loads.delete(id);
    }
  }

  /** Why the load on a scale is not taken again, or empty where it may be. */
  private takenBefore(now: InstrumentNow, reading: InstrumentReading, part: Part, count: number): string {
    const load = this.loads.get(now.id) ?? null;
    const before = this.open.partById().get(load?.partId ?? '');
    // one that was undone is taken anew
    if ((before?.massEachKg ?? null) === null || !load || !before || !isSameLoad(load, reading)) return '';
    if (before.id === part.id) return load.count === count ? `This load of ${now.name} has been taken for ${part.name} already` : '';
    return `This load of ${now.name} was taken for ${before.name} and not lifted off since. Lift it off, then put ${part.name} on. Nothing was stored`;
  }

  private autoTake(now: InstrumentNow | null, part: Part | null, auto: boolean): void {
    const reading = now?.last;
    if (!auto || !now || !part || reading?.quantity !== 'mass' || part.massEachKg !== null || part.quantity !== 1) return;
    if (isEmpty(reading, now.most)) this.emptied = part.id;
    else if (this.emptied === part.id && this.lastAuto !== part.id && readingFault(now, reading, this.service.now()) === null) {
      // one that came too late or still moves is not the last: the next is looked at again
      this.lastAuto = part.id;
      void this.take(1);
    }
  }

  @HostListener('document:keydown.f8', ['$event'])
  @HostListener('document:keydown.shift.f8', ['$event'])
  protected onKey(event: Event): void {
    event.preventDefault();
    void this.take((event as KeyboardEvent).shiftKey ? this.many() : 1);
  }

  protected async take(count: number): Promise<void> {
    const now = this.chosen();
    if (!now) {
      this.said.emit('No instrument is set up');
      return;
    }
    const reading = now.last;
    const fault = readingFault(now, reading, this.service.now());
    if (fault !== null || !reading) {
      this.said.emit(fault ?? '');
      return;
    }
    const part = this.selection.part();
    if (reading.quantity === 'length') {
      this.asText.emit({ ...this.takenOf(now, reading), text: readingText(reading) });
      return;
    }
    if (!part) {
      this.said.emit('Choose the part first that this is read on');
      return;
    }
    if (reading.quantity === 'count') {
      this.said.emit(`${now.name} makes files; what it makes is taken by itself or under “Instruments”`);
      return;
    }
    // a shot or a screw let go is told once, and is kept once
    const isToldOnce = reading.quantity !== 'mass';
    if (isToldOnce && this.takenOnce.get(now.id) === reading.seq) {
      this.said.emit(`This reading of ${now.name} has been taken already`);
      return;
    }
    const again = reading.quantity === 'mass' ? this.takenBefore(now, reading, part, count) : '';
    if (again !== '') {
      this.said.emit(again);
      return;
    }
    const ops = this.opsOf(now, reading, part, count);
    if (ops.length === 0) {
      this.said.emit('Record a fastener set first that the torque was read on');
      return;
    }
    if (isToldOnce) this.takenOnce.set(now.id, reading.seq);
    const refusal = await this.work.send(ops);
    if (refusal && isToldOnce) this.takenOnce.delete(now.id);
    if (!refusal && reading.quantity === 'mass' && reading.value !== null)
      this.loads.set(now.id, { partId: part.id, count, valueKg: reading.value });
    this.said.emit(
      refusal
        ? refusal.message
        : `${readingText(reading, now.most)} from ${now.name} on ${part.name}${count > 1 ? `, ${count} together` : ''}`,
    );
  }

  private takenOf(instrument: InstrumentNow, reading: InstrumentReading): Taken {
    return { instrument, reading, by: this.signedIn.person?.name ?? '' };
  }

  private opsOf(now: InstrumentNow, reading: InstrumentReading, part: Part, count: number): readonly Op[] {
    const taken = this.takenOf(now, reading);
    const newId = (): string => crypto.randomUUID();
    if (reading.elements !== null) return takeElements(taken, part, newId);
    if (reading.quantity === 'torque') {
      const set = [...(this.open.fastenersOf().get(part.id) ?? [])].sort((a, b) => a.sequence - b.sequence).at(-1);
      return set ? takeTorque(taken, set, newId) : [];
    }
    return takeReading(taken, part, 'massEachKg' satisfies ReadField, count, newId);
  }

  /** A camera serves one bench: its own pictures must not land on the part that is open at another. */
  protected setCameraHere(is: boolean): void {
    localStorage.setItem(CAMERA_HERE, is ? 'yes' : '');
    this.isCameraHere.set(is);
  }

  protected async trigger(camera: InstrumentNow): Promise<void> {
    this.isTriggered = true;
    await this.tell(camera, 'trigger');
  }

  protected async tell(now: InstrumentNow, command: 'tare' | 'zero' | 'trigger'): Promise<void> {
    this.work.touch();
    const refusal = await this.service.command(now.id, command);
    this.said.emit(refusal ? refusal.message : `${now.name}: ${command}`);
  }

  /** The picture the camera made goes onto the chosen part. */
  private async takePicture(camera: InstrumentNow): Promise<void> {
    const part = this.selection.part();
    if (!part) {
      this.said.emit('The camera made a picture; choose the part first that it shows');
      return;
    }
    const file = await this.service.file(camera.id);
    if (!(file instanceof Blob)) {
      this.said.emit(file.message);
      return;
    }
    const next = nextSequence(this.open.picturesOf().get(part.id) ?? []);
    const faults = await this.takes.take({ partId: part.id, rigId: null }, [new File([file], 'bench.png', { type: 'image/png' })], next);
    this.work.touch();
    this.said.emit(faults[0] ?? `A picture of ${part.name} from ${camera.name}`);
  }
}
