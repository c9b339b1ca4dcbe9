import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  HostListener,
  computed,
  effect,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterOutlet } from '@angular/router';
import { blank, VEHICLE_ROLES, VEHICLE_ROLE_WORD, type Op, type OutlineNode, type VehicleRole, nextSequence } from '@each-bolt/core/record';
import { map, of, startWith, switchMap, tap, timer } from 'rxjs';
import { ButtonDirective } from 'primeng/button';
import { Menu } from 'primeng/menu';
import { subsystemItems } from '../acts/tree-menu';
import { PartCardHost } from '../card/part-card-host';
import { Names } from '../record/names';
import { NotKept } from '../record/not-kept';
import { WhyHost } from '../evidence/why-host';
import { WhyService } from '../evidence/why-service';
import { OpenStudy } from '../record/open-study';
import { QuestionDialog } from '../record/question-dialog';
import { Outbox } from '../record/outbox';
import { RecordService } from '../record/record-service';
import { CardedPart } from '../record/carded-part';
import { Selection } from '../record/selection';
import { UndoService } from '../record/undo-service';
import { RefusalNote } from '../shared/refusal-note';
import { BasisLine } from './basis-line';
import { Commands } from '../acts/commands';
import { CountingRule } from './counting-rule';
import { KeyHelp } from './key-help';
import { isTyping } from './keys';
import { NameDialog } from './name-dialog';
import { ShellFigures } from './shell-figures';
import { ShellKeys } from './shell-keys';
import { Stack } from './stack';
import { ShellActs } from '../acts/shell-acts';
import { Strip } from './strip';
import { TreeActs } from '../acts/tree-acts';
import { TreeDialog } from './tree-dialog';
import { LetterKeys } from '../shared/letter-keys';
import { ThemeService } from '../shared/theme-service';
import { UndoDialog } from './undo-dialog';

const SAID_MS = 6000;

/** The frame: strip, stack, sheet, card and basis line. */
@Component({
  selector: 'eb-shell-page',
  imports: [
    Menu,
    BasisLine,
    KeyHelp,
    NameDialog,
    NotKept,
    PartCardHost,
    QuestionDialog,
    RefusalNote,
    RouterOutlet,
    Stack,
    Strip,
    TreeDialog,
    UndoDialog,
    WhyHost,
    ButtonDirective,
  ],
  template: `@switch (service.state().kind) {
      @case ('reading') {
        <p class="whole" role="status">Reading the study …</p>
      }
      @case ('failed') {
        <div class="whole"><eb-refusal [message]="failure()" action="Try again" (acted)="service.open(studyId())" /></div>
      }
      @case ('ready') {
        <eb-strip [title]="open.study().title" [figures]="figures()" [beside]="beside()" [behind]="behind" />
        @if (banner(); as text) {
          <p class="banner" role="status">{{ text }}</p>
        }
        <div class="body" [class.folded]="folded()" [class.with-card]="hasCard()" [style.--stack-width.px]="stackWidth()">
          @if (!folded()) {
            <eb-stack
              [outline]="open.outline()"
              [textOf]="textOf()"
              [chosen]="chosenKey()"
              [(filter)]="filter"
              [mayAdd]="service.can()('vehicle.add')"
              [cut]="tree.cut()"
              (picked)="pick($event)"
              (dropped)="tree.move($event.place, $event.ids)"
              (menuAsked)="subsystemMenu.toggle($event)"
              (addVehicle)="addingVehicle.set(true)"
              (addSubsystem)="addingSubsystem.set(true)"
            />
            <div
              class="grip"
              role="separator"
              aria-orientation="vertical"
              aria-label="Width of the stack"
              tabindex="0"
              [attr.aria-valuenow]="stackWidth()"
              (pointerdown)="grip($event)"
              (pointermove)="drag($event)"
              (keydown)="nudge($event)"
            ></div>
          } @else {
            <button
              pButton
              [text]="true"
              severity="secondary"
              type="button"
              class="unfold"
              title="Show the stack (s)"
              aria-label="Show the stack"
              (click)="folded.set(false)"
            >
              <i class="pi pi-angle-right" aria-hidden="true"></i> <span class="narrow">Vehicles and parts</span>
            </button>
          }
          <main id="sheet"><router-outlet /></main>
          @defer (when hasCard(); prefetch on idle) {
            @if (hasCard()) {
              <eb-part-card-host />
            }
          }
        </div>
        <eb-basis-line
          [study]="open.study()"
          [sync]="service.sync()"
          [elsewhere]="elsewhere()"
          [themeNow]="theme.theme()"
          [notKept]="service.refused().length"
          [canUndo]="undo.canUndo()"
          [canRedo]="undo.canRedo()"
          [mayCount]="service.can()('study.edit')"
          (undo)="undo.undo()"
          (redo)="undo.redo()"
          (showNotKept)="acts.showingNotKept.set(true)"
          (signIn)="acts.signIn()"
          (assemblies)="rule.switchAssemblies()"
          (fasteners)="rule.switchFasteners()"
          (otherUnits)="acts.otherUnits()"
          (theme)="theme.switch()"
          (help)="helping.set(true)"
        />
        <p-menu #subsystemMenu [model]="subsystemItems()" [popup]="true" appendTo="body" />
        <div class="said" role="status" [class.shown]="said() !== ''">{{ said() }}</div>
        @defer (when service.refused().length > 0; prefetch on idle) {
          <eb-not-kept
            [(visible)]="acts.showingNotKept"
            [entries]="service.refused()"
            [nameOf]="names.of()"
            (mended)="acts.mend($event)"
            (lineBack)="acts.lineBack($event)"
            (putBack)="acts.putBack($event)"
          />
        }
        @defer (when undo.asked() !== null; prefetch on idle) {
          <eb-undo-dialog [asked]="undo.asked()" [nameOf]="names.of()" (answered)="undo.answer($event)" />
        }
        @defer (when why.asked() !== null; prefetch on idle) {
          <eb-why-host />
        }
        @defer (when acts.asking(); prefetch on idle) {
          <eb-question-dialog [(visible)]="acts.asking" [about]="acts.about()" [people]="acts.members()" (saved)="acts.attach($event)" />
        }
        @defer (when tree.asking() !== null; prefetch on idle) {
          <eb-tree-dialog />
        }
        @defer (when addingVehicle() || addingSubsystem(); prefetch on idle) {
          <eb-name-dialog heading="New vehicle" [roles]="roles" [(visible)]="addingVehicle" (named)="addVehicle($event)" />
          <eb-name-dialog heading="New subsystem, on every vehicle" [(visible)]="addingSubsystem" (named)="addSubsystem($event.name)" />
        }
      }
    }
    @defer (when helping(); prefetch on idle) {
      <eb-key-help [(visible)]="helping" />
    }`,
  styleUrl: './shell-page.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ShellPage {
  protected readonly service = inject(RecordService);
  protected readonly open = inject(OpenStudy);
  protected readonly theme = inject(ThemeService);
  private readonly letters = inject(LetterKeys);
  private readonly outbox = inject(Outbox);
  protected readonly elsewhere = computed(() => this.outbox.waiting().length - this.service.waiting().length);
  protected readonly rule = inject(CountingRule);
  protected readonly why = inject(WhyService);
  protected readonly undo = inject(UndoService);
  protected readonly acts = inject(ShellActs);
  protected readonly tree = inject(TreeActs);
  protected readonly subsystemItems = computed(() => subsystemItems(this.tree));
  protected readonly names = inject(Names);
  private readonly shown = inject(ShellFigures);
  private readonly selection = inject(Selection);
  private readonly commands = inject(Commands);
  private readonly router = inject(Router);

  readonly studyId = input.required<string>();

  protected readonly helping = signal(false);
  /** on a narrow page the stack is folded away until it is asked for */
  protected readonly folded = signal(matchMedia('(max-width: 760px)').matches);
  protected readonly stackWidth = signal(248);
  protected readonly filter = signal('');
  protected readonly addingVehicle = signal(false);
  protected readonly addingSubsystem = signal(false);
  protected readonly roles = VEHICLE_ROLES.map((value) => ({ value, label: VEHICLE_ROLE_WORD[value] }));
  private readonly stack = viewChild(Stack);

  private readonly carded = inject(CardedPart);
  /** where somebody counts again, the card with the first count stays away */
  protected readonly hasCard = computed(() => this.carded.part() !== null && !this.selection.isCountingAgain());
  protected readonly failure = computed(() => {
    const state = this.service.state();
    return state.kind === 'failed' ? state.refusal.message : '';
  });
  protected readonly chosenKey = computed(() => this.selection.part()?.id ?? this.selection.subsystemKey());
  protected readonly textOf = this.shown.textOf;
  protected readonly beside = this.shown.beside;
  protected readonly figures = this.shown.figures;
  protected readonly behind = this.shown.behind;
  /** what was last done beside the sheet; it goes away by itself */
  protected readonly said = toSignal(
    toObservable(computed(() => this.undo.said() || this.acts.said())).pipe(
      switchMap((text) =>
        text === ''
          ? of('')
          : timer(SAID_MS).pipe(
              map(() => ''),
              startWith(text),
            ),
      ),
      tap((text) => {
        if (text !== '') return;
        this.undo.said.set('');
        this.acts.said.set('');
      }),
    ),
    { initialValue: '' },
  );
  protected readonly banner = computed(() => {
    if (this.open.study().state === 'archived')
      return 'This study is archived: it is read, not written. A lead can open it again on the studies page.';
    return this.service.role() === 'reader' ? 'You read this study; recording is for its recorders and leads.' : '';
  });
  constructor() {
    effect(() => {
      const id = this.studyId();
      this.undo.begin(id, this.service.open(id));
    });
    inject(DestroyRef).onDestroy(() => {
      this.presses.forget();
      this.service.close();
    });
    effect(() => void this.service.tellWhere(this.selection.part()?.id ?? null));
    this.commands.on('find', () => this.stack()?.focusFind());
    this.commands.on('add-vehicle', () => this.addingVehicle.set(true));
  }

  @HostListener('document:keydown', ['$event'])
  protected onKey(event: KeyboardEvent): void {
    this.presses.take(event);
  }

  private readonly presses = new ShellKeys(
    {
      p: () => this.go('plan'),
      b: () => this.go('bench'),
      m: () => this.go('measure'),
      r: () => this.go('reconcile'),
      c: () => this.go('cost'),
      v: () => this.go('compare'),
      '/': () => this.find(),
      f: () => this.rule.switchFasteners(),
      a: () => this.rule.switchAssemblies(),
      s: () => this.folded.update((is) => !is),
      d: () => this.theme.switch(),
      '?': () => this.helping.set(true),
      l: () => this.commands.give('entry-line'),
      e: () => this.commands.give('edit-part'),
      o: () => this.commands.give('record-inside'),
      u: () => this.commands.give('record-above'),
      i: () => this.commands.give('import'),
      q: () => this.acts.ask(),
      w: () => this.why.ask(this.chosenKey(), 'mass'),
      g: () => this.go('questions'),
      h: () => this.go('history'),
      y: () => this.tree.ask('move'),
      z: () => void this.undo.undo(),
      Z: () => void this.undo.redo(),
      n: () => this.acts.showingNotKept.set(this.service.refused().length > 0),
    },
    {
      isReady: () => this.service.state().kind === 'ready',
      takesLetters: () => this.letters.on(),
      escape: (target) => this.escape(target),
      scanned: (text) => this.acts.scanned(text),
    },
    this.tree,
    this.undo,
  );

  private find(): void {
    this.folded.set(false);
    setTimeout(() => this.stack()?.focusFind());
  }

  private escape(target: EventTarget | null): void {
    if (isTyping(target)) {
      if (target instanceof HTMLElement && target.closest('.p-dialog') === null) target.blur();
    } else if (this.hasCard()) void this.selection.choose({ part: null });
  }

  private go(stage: string): void {
    void this.router.navigate(['/studies', this.studyId(), stage], { queryParamsHandling: 'preserve' });
  }

  protected pick(node: OutlineNode): void {
    if (node.kind === 'vehicle') void this.selection.choose({ vehicle: node.id, inside: null, part: null });
    else if (node.kind === 'subsystem')
      void this.selection.choose({ vehicle: node.vehicleId, subsystem: node.id, inside: null, part: null });
    else this.selection.choosePart(node.id, node.children.length > 0 ? node.id : null);
  }

  protected async addVehicle({ name, role }: { readonly name: string; readonly role: string }): Promise<void> {
    const id = crypto.randomUUID();
    const sequence = nextSequence(this.open.record().vehicles);
    const op: Op = {
      kind: 'vehicle.add',
      id,
      fields: blank('vehicle', { name, role: role as VehicleRole, sequence }),
    };
    const result = await this.service.send([op]);
    if (result.kept) void this.selection.choose({ vehicle: id, inside: null, part: null });
  }

  protected async addSubsystem(name: string): Promise<void> {
    const id = crypto.randomUUID();
    const sequence = nextSequence(this.open.record().subsystems);
    const op: Op = { kind: 'subsystem.add', id, fields: { parentId: null, sequence, name } };
    const result = await this.service.send([op]);
    if (result.kept) void this.selection.choose({ subsystem: id, inside: null, part: null });
  }

  protected grip(event: PointerEvent): void {
    (event.target as HTMLElement).setPointerCapture(event.pointerId);
  }

  protected drag(event: PointerEvent): void {
    if ((event.target as HTMLElement).hasPointerCapture(event.pointerId)) this.resize(event.clientX);
  }

  protected nudge(event: KeyboardEvent): void {
    const step = { ArrowLeft: -16, ArrowRight: 16 }[event.key];
    if (step !== undefined) this.resize(this.stackWidth() + step);
  }

  private resize(width: number): void {
    if (width < 120) this.folded.set(true);
    else this.stackWidth.set(Math.min(480, Math.max(180, width)));
  }
}
