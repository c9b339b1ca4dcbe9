import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { TagSheet } from '@each-bolt/core/record';
import { LABEL_STOCKS, judgeTag, nextFreeTag, nextTagNumber, tagPrefix, tagText, tagsOf, withoutTag } from '@each-bolt/core/bench';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { DataTable, TableHead, TableRow, TableFoot } from '../shared/data-table';
import { Tick } from '../shared/tick';
import { Choose, ChoicesPipe } from '../shared/choose';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import { BenchWork } from './bench-work';

import { NextParts } from '../record/next-parts';

/** Tags: sheets to print, and what a scanned tag is. */
@Component({
  selector: 'eb-tags-view',
  imports: [NextParts, ButtonDirective, InputText, Choose, ChoicesPipe, Tick, DataTable, TableHead, TableRow, TableFoot],
  template: `<div class="sheet scroll">
    <header class="sheet-head">
      <div>
        <h1>Tags</h1>
        <p class="soft">
          A tag names vehicle and subsystem, counts up, and ends in a character that finds every misread one. The square beside it holds the
          same text.
        </p>
      </div>
    </header>
    <section class="scan" aria-label="Scan">
      <label
        >Scan or type a tag
        <input pInputText #tag type="text" class="figure" autocomplete="off" aria-label="Scan or type a tag" (keydown.enter)="scan(tag)" />
      </label>
      @if (found(); as text) {
        <p role="status" [class.stop]="isStop()">{{ text }}</p>
      }
    </section>
    @if (mayPrint()) {
      <section class="make" aria-label="A new sheet">
        <h2>A new sheet for {{ selection.subsystem()?.name ?? 'the vehicle' }}, {{ selection.vehicle()?.name }}</h2>
        <div class="acts">
          <label>Tags <input pInputText #n type="number" min="1" max="2000" value="65" aria-label="How many tags" /></label>
          <label
            >Labels
            <eb-choose #stock label="Label size" [value]="stocks[0]?.name ?? ''" [options]="stocks | ebChoices: 'name' : 'name'" />
          </label>
          @if (work.pack(); as pack) {
            <eb-tick class="only" [(checked)]="isForPackage">only for “{{ pack.name }}”</eb-tick>
          }
          <button pButton type="button" (click)="make(n, stock.value())">Make {{ nextText() }} …</button>
        </div>
      </section>
    }
    <eb-next-parts [title]="'Parts of ' + (selection.vehicle()?.name ?? 'the vehicle') + ' without a tag'" [parts]="untagged()" />
    <eb-table label="Sheets of tags"
      ><ng-template ebHead>
        <tr>
          <th scope="col">Tags</th>
          <th scope="col">For</th>
          <th scope="col" class="right">Printed</th>
          <th scope="col" class="right">On parts</th>
          <th scope="col">Next free</th>
          <th scope="col">Labels</th>
          <th></th>
        </tr> </ng-template
      ><ng-template [ebRow]="sheets()" track="sheet.id" let-row>
        <tr>
          <th scope="row" class="figure">{{ row.span }}</th>
          <td>{{ row.of }}</td>
          <td class="right figure">{{ row.sheet.count }}</td>
          <td class="right figure">{{ row.used }}</td>
          <td class="figure">{{ row.next }}</td>
          <td>
            {{ row.sheet.stock }}
          </td>
          <td class="links">
            <label class="skip"
              >from label
              <input pInputText #skip type="number" min="1" max="200" value="1" aria-label="First label of the sheet to print on"
            /></label>
            @if (isKept()) {
              <a pButton severity="secondary" [href]="url(row.sheet, 'pdf', skip.valueAsNumber)" download>PDF</a>
              <a pButton severity="secondary" [href]="url(row.sheet, 'svg', skip.valueAsNumber)" target="_blank" rel="noopener">SVG</a>
            } @else {
              <span class="soft">being kept …</span>
            }
          </td>
        </tr> </ng-template
      ><ng-template ebFoot>
        @if (sheets().length === 0) {
          <tr>
            <td colspan="7" class="soft">No sheet is printed yet.</td>
          </tr>
        }
      </ng-template></eb-table
    >
  </div>`,
  styles: `
    .scan {
      display: flex;
      gap: 16px;
      align-items: end;
    }
    label {
      font: 500 12.5px/1.6 var(--label);
      color: var(--soft);
    }
    .scan input {
      display: block;
      width: 220px;
      height: 36px;
    }
    .scan p {
      padding-bottom: 6px;
      font-weight: 500;
    }
    .stop {
      color: var(--amber);
    }
    .make input {
      width: 76px;
    }
    .only input {
      width: auto;
    }
    .links {
      white-space: nowrap;
      text-align: right;
    }
    .links a {
      text-decoration: none;
      display: inline-block;
    }
    .skip input {
      width: 56px;
    }
    .make h2 {
      margin-bottom: 6px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TagsView {
  protected readonly open = inject(OpenStudy);
  protected readonly selection = inject(Selection);
  protected readonly work = inject(BenchWork);
  private readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);

  protected readonly stocks = LABEL_STOCKS;
  protected readonly isForPackage = signal(false);
  protected readonly found = signal('');
  protected readonly isStop = signal(false);
  /** the server prints what it has */
  protected readonly isKept = computed(() => this.service.waiting().length === 0);
  protected readonly mayPrint = computed(() => this.service.can()('sheet.add'));
  private readonly next = computed(() => {
    const vehicle = this.selection.vehicle();
    const record = this.open.record();
    if (!vehicle) return null;
    const prefix = tagPrefix(record, vehicle, this.selection.subsystem());
    return { prefix, firstNumber: nextTagNumber(record.sheets, prefix) };
  });
  protected readonly nextText = computed(() => {
    const next = this.next();
    return next ? tagText({ prefix: next.prefix, number: next.firstNumber }) : '';
  });
  protected readonly untagged = computed(() => withoutTag(this.open.record(), this.selection.vehicle()?.id ?? ''));
  protected readonly sheets = computed(() => {
    const { sheets, parts, packages } = this.open.record();
    const used = new Set(parts.map((p) => p.tag));
    return [...sheets]
      .sort((a, b) => (a.prefix < b.prefix ? -1 : a.prefix > b.prefix ? 1 : a.firstNumber - b.firstNumber))
      .map((sheet) => {
        const tags = tagsOf(sheet);
        return {
          sheet,
          span: tags.length > 1 ? `${tags[0]} to ${tags.at(-1)}` : (tags[0] ?? ''),
          of: [
            this.open.vehicleById().get(sheet.vehicleId)?.name,
            this.open.subsystemById().get(sheet.subsystemId ?? '')?.name,
            packages.find((p) => p.id === sheet.packageId)?.name,
          ]
            .filter((text) => text !== undefined)
            .join(', '),
          used: tags.filter((tag) => used.has(tag)).length,
          next: tags.find((tag) => !used.has(tag)) ?? 'none left',
        };
      });
  });

  protected url(sheet: TagSheet, format: 'pdf' | 'svg', from: number): string {
    const skip = Number.isFinite(from) ? Math.max(0, Math.floor(from) - 1) : 0;
    return `/api/studies/${this.open.study().id}/bench/sheets/${sheet.id}/labels?format=${format}&skip=${skip}`;
  }

  protected make(n: HTMLInputElement, stock: string): void {
    const [vehicle, next] = [this.selection.vehicle(), this.next()];
    if (!vehicle || !next) return;
    void this.edits.add('sheet', {
      vehicleId: vehicle.id,
      subsystemId: this.selection.subsystem()?.id ?? null,
      packageId: this.isForPackage() ? (this.work.pack()?.id ?? null) : null,
      ...next,
      count: n.valueAsNumber,
      stock,
      printedAt: new Date().toISOString(),
    });
  }

  protected scan(input: HTMLInputElement): void {
    const text = input.value.trim();
    if (text === '') return;
    const vehicle = this.selection.vehicle();
    const place = {
      vehicleId: vehicle?.id ?? '',
      subsystemId: this.selection.subsystem()?.id ?? null,
      packageId: this.work.session()?.packageId ?? null,
    };
    const judged = judgeTag(this.open.record(), text, place);
    this.isStop.set(judged.kind === 'stop');
    if (judged.kind === 'opens') {
      this.selection.choosePart(judged.part.id);
      this.found.set(`${judged.tag} is on “${judged.part.name}”`);
    } else if (judged.kind === 'free') this.found.set(`${judged.tag} is free to use here`);
    else {
      const likely = judged.likely ?? nextFreeTag(this.open.record(), place);
      this.found.set(`${judged.message}.${likely === null ? '' : ` Probably meant: ${likely}`}`);
    }
    input.select();
  }
}
