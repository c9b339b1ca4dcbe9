import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { INSTRUMENT_KINDS, readingText, type InstrumentKind, type InstrumentNow } from '@each-bolt/core/bench';
import { Session as SignedIn } from '../record/session';
import type { Refusal } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { DataTable, TableHead, TableRow, TableFoot } from '../shared/data-table';
import { Choose, ChoicesPipe } from '../shared/choose';
import { RefusalNote } from '../shared/refusal-note';
import { BenchWork } from './bench-work';
import { CountByWeighing } from './count-by-weighing';
import { InstrumentService } from './instrument-service';

/** Demo parts that can be put on a stand-in: mass in kg for scales, and so on, as plain numbers in SI. */
interface Demo {
  readonly word: string;
  readonly numbers: readonly number[];
  readonly symbols?: readonly string[];
}

const DEMO: Readonly<Partial<Record<InstrumentKind, readonly Demo[]>>> = {
  scale: [
    { word: 'nothing', numbers: [0] },
    { word: 'roller bracket', numbers: [0.1874] },
    { word: 'lock carrier', numbers: [0.6421] },
    { word: '10 bolts M6x16', numbers: [0.0612] },
    { word: '37 bolts M6x16', numbers: [0.2264] },
    { word: 'door shell (too heavy)', numbers: [18.4] },
  ],
  'floor scale': [
    { word: 'nothing', numbers: [0] },
    { word: 'sliding door', numbers: [28.6] },
    { word: 'rear axle', numbers: [96.2] },
  ],
  caliper: [
    { word: 'a sheet', numbers: [0.00081] },
    { word: 'a wall of a casting', numbers: [0.00304] },
    { word: 'a bush', numbers: [0.01602] },
  ],
  'torque driver': [
    { word: 'one screw, 9 N m', numbers: [1, 9] },
    { word: 'eight screws, 9 N m', numbers: [8, 9] },
  ],
  'alloy analyser': [
    { word: 'a cast part', numbers: [0.872, 0.1, 0.005, 0.005, 0.004], symbols: ['Al', 'Si', 'Fe', 'Mn', 'Mg'] },
    { word: 'a sheet', numbers: [0.958, 0.031, 0.004, 0.003], symbols: ['Al', 'Mg', 'Mn', 'Si'] },
  ],
  'mesh scanner': [{ word: 'a box', numbers: [0.12, 0.045, 0.012] }],
};

/** How the instruments are, a demo part on each stand-in, counting by weight, and where real ones are. */
@Component({
  selector: 'eb-instruments-view',
  imports: [CountByWeighing, RefusalNote, ButtonDirective, InputText, Choose, ChoicesPipe, DataTable, TableHead, TableRow, TableFoot],
  template: `<div class="sheet scroll">
    <header class="sheet-head">
      <div>
        <h1>Instruments</h1>
        <p class="soft">
          A reading is taken at the bench with F8. What has not settled, is overloaded or cannot be understood is never stored.
        </p>
      </div>
    </header>
    @if (refusal(); as why) {
      <eb-refusal [message]="why.message" [issues]="why.issues" action="Close" (acted)="refusal.set(null)" />
    }
    <eb-table label="Instruments"
      ><ng-template ebHead>
        <tr>
          <th scope="col">Instrument</th>
          <th scope="col">Serial number</th>
          <th scope="col">Address</th>
          <th scope="col" class="right">Reads now</th>
          <th scope="col">State</th>
          <th scope="col">Demo part on the stand-in</th>
          <th></th>
        </tr> </ng-template
      ><ng-template [ebRow]="rows()" track="now.id" let-row>
        <tr>
          <th scope="row">
            {{ row.now.name }} <small class="soft">{{ row.now.model }}</small>
          </th>
          <td class="figure">{{ row.now.serial }}</td>
          <td class="figure soft">{{ row.now.address }}</td>
          <td class="right figure reads">{{ row.text }}</td>
          <td [class.fault]="row.fault !== ''">{{ row.fault || row.state }}</td>
          <td class="demo">
            @if (row.now.simulated && row.demo.length > 0) {
              <eb-choose
                [label]="'Demo part on ' + row.now.name"
                placeholder="choose a part …"
                (valueChange)="place(row.now, row.demo, $event)"
                [options]="row.demo | ebChoices: 'word' : 'word'"
              />
              @if (row.takesMass) {
                <input
                  pInputText
                  type="number"
                  class="mass"
                  min="0"
                  step="0.1"
                  placeholder="g"
                  [attr.aria-label]="'Grams on ' + row.now.name"
                  (change)="placeGrams(row.now, $any($event.target).valueAsNumber)"
                />
              }
            }
          </td>
          <td class="right">
            @if (row.canTrigger) {
              <button pButton severity="secondary" type="button" (click)="trigger(row.now)">Trigger</button>
            }
            @if (mayset() && !row.now.simulated) {
              <button pButton severity="secondary" type="button" (click)="remove(row.now)">Remove</button>
            }
          </td>
        </tr> </ng-template
      ><ng-template ebFoot>
        @if (rows().length === 0) {
          <tr>
            <td colspan="7" class="soft">
              {{ service.isAway() ? 'The server tells of no instruments now; they come back by themselves.' : 'No instrument is set up.' }}
            </td>
          </tr>
        }
      </ng-template></eb-table
    >
    <eb-count-by-weighing />
    @if (mayset()) {
      <section aria-label="A real instrument">
        <h2>A real instrument</h2>
        <p class="soft small">Any device that speaks lines of text over TCP in the way of IEEE 488.2 works by its address.</p>
        <form class="acts" (submit)="add($event, name, kind, host, port)">
          <label>Name <input pInputText #name type="text" aria-label="Name of the instrument" /></label>
          <label
            >Kind
            <eb-choose #kind label="Kind of instrument" [value]="kinds[0]" [options]="kinds | ebChoices" />
          </label>
          <label>Address <input pInputText #host type="text" placeholder="192.0.2.7" aria-label="Address of the instrument" /></label>
          <label>Port <input pInputText #port type="number" min="1" max="65535" value="5025" aria-label="Port of the instrument" /></label>
          <button pButton severity="secondary" type="submit">Add it</button>
        </form>
      </section>
    }
  </div>`,
  styles: `
    label {
      font: 500 12.5px/1.6 var(--label);
      color: var(--soft);
    }
    input[type='number'] {
      width: 84px;
    }
    .mass {
      width: 84px;
      margin-left: 6px;
    }
    .demo {
      white-space: nowrap;
    }
    th[scope='row'] {
      white-space: nowrap;
    }
    th small {
      display: block;
      font-weight: 400;
    }
    .reads {
      min-width: 96px;
    }
    .fault {
      color: var(--amber);
      font-weight: 500;
    }
    section h2 {
      margin: 14px 0 4px;
    }
    .small {
      font-size: 12.5px;
      margin-bottom: 6px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class InstrumentsView {
  protected readonly service = inject(InstrumentService);
  private readonly work = inject(BenchWork);
  private readonly signedIn = inject(SignedIn);

  protected readonly kinds = INSTRUMENT_KINDS;
  protected readonly refusal = signal<Refusal | null>(null);
  protected readonly mayset = computed(() => this.signedIn.person?.standing === 'lead');
  protected readonly rows = computed(() =>
    this.service.all().map((now) => {
      const { last } = now;
      const makesFiles = now.kind === 'camera' || now.kind === 'mesh scanner';
      return {
        now,
        text: makesFiles || last?.elements !== null ? '–' : last.overload ? 'overload' : readingText(last, now.most),
        state: now.state === 'connecting' ? 'connecting …' : this.stateOf(now, makesFiles),
        fault: now.state === 'away' || now.state === 'refused' ? now.fault : last?.overload ? 'overload: take something off' : '',
        demo: DEMO[now.kind] ?? [],
        takesMass: now.kind === 'scale' || now.kind === 'floor scale',
        canTrigger: now.kind === 'alloy analyser' || now.kind === 'camera' || now.kind === 'mesh scanner',
      };
    }),
  );
  private stateOf({ last, most }: InstrumentNow, makesFiles: boolean): string {
    if (last === null) return 'ready';
    if (makesFiles) return 'made a file';
    if (last.elements) return readingText(last, most);
    return last.stable ? 'still' : 'moving';
  }

  protected async place(now: InstrumentNow, demo: readonly Demo[], word: string): Promise<void> {
    const part = demo.find((one) => one.word === word);
    if (part) this.refusal.set(await this.service.place(now.id, part.numbers, part.symbols));
  }

  protected async placeGrams(now: InstrumentNow, grams: number): Promise<void> {
    if (Number.isFinite(grams)) this.refusal.set(await this.service.place(now.id, [Number((grams / 1000).toFixed(6))]));
  }

  protected async trigger(now: InstrumentNow): Promise<void> {
    this.work.touch();
    this.refusal.set(await this.service.command(now.id, 'trigger'));
  }

  protected async remove(now: InstrumentNow): Promise<void> {
    this.refusal.set(await this.service.remove(now.id));
  }

  protected async add(event: Event, name: HTMLInputElement, kind: Choose, host: HTMLInputElement, port: HTMLInputElement): Promise<void> {
    event.preventDefault();
    const refusal = await this.service.add({
      id: crypto.randomUUID(),
      name: name.value.trim(),
      kind: kind.value() as InstrumentKind,
      host: host.value.trim(),
      port: port.valueAsNumber,
    });
    this.refusal.set(refusal);
    if (refusal === null) name.value = '';
  }
}
