import { computed, inject, type Signal } from '@angular/core';
import { nextSequence, type FieldsOf, type RowOf } from '@each-bolt/core/record';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Session } from '../record/session';
import { keptChoice } from '../shared/kept-choice';

/** Kinds of record that are kept as recorded and, beside that, as what-ifs. */
export type StateEntity = 'pack' | 'boardDuty' | 'heating';

const LIST = { pack: 'packs', boardDuty: 'boardDuties', heating: 'heatings' } as const satisfies Record<StateEntity, string>;

/** The states of what is chosen: which one is looked at, which one beside it, and new what-ifs. */
export class States<E extends StateEntity> {
  private readonly edits = inject(RowEdits);
  private readonly open = inject(OpenStudy);
  private readonly session = inject(Session);
  private readonly service = inject(RecordService);

  /**
   * @param ownerOf the part or vehicle that a state belongs to
   * @param chosenOwner the one that is chosen
   */
  constructor(
    readonly entity: E,
    private readonly ownerOf: (row: RowOf<E>) => string,
    private readonly chosenOwner: Signal<string | null>,
    private readonly vehicleOf: (row: RowOf<E>) => string,
  ) {}

  readonly may = computed(() => this.service.can()(`${this.entity}.add`));
  readonly all = computed((): readonly RowOf<E>[] => this.open.record()[LIST[this.entity]] as unknown as readonly RowOf<E>[]);
  readonly own = computed(() => this.all().filter((row) => this.ownerOf(row) === this.chosenOwner()));
  /** a what-if is what one looks at, beside what is recorded */
  readonly chosenId = keptChoice(
    () => this.chosenOwner(),
    (id) => this.own().some((row) => row.id === id),
    () => this.own().at(-1)?.id ?? '',
  );
  readonly chosen = computed(() => this.own().find(({ id }) => id === this.chosenId()) ?? this.own()[0] ?? null);
  readonly besideId = keptChoice(
    () => this.chosenId(),
    (id) => id === '' || this.all().some((row) => row.id === id),
    () => this.own().find((row) => row.id !== this.chosenId() && !row.isWhatIf)?.id ?? '',
  );
  readonly beside = computed(() => this.all().find(({ id }) => id === this.besideId() && id !== this.chosen()?.id) ?? null);
  readonly choices = computed(() => this.own().map(({ id, name }) => ({ id, name })));
  /** any other of the study: another state of this one, or another vehicle’s */
  readonly others = computed(() =>
    this.all()
      .filter(({ id }) => id !== this.chosen()?.id)
      .map((row) => ({ id: row.id, name: this.ownerOf(row) === this.chosenOwner() ? row.name : `${row.name}, ${this.vehicleOf(row)}` })),
  );

  async begin(fields: FieldsOf[E]): Promise<void> {
    const id = await this.edits.add(this.entity, fields);
    if (id !== null) this.chosenId.set(id);
  }

  /** The chosen state once more, to be changed, with some of it changed already. */
  async whatIf(reason: string, changed: Partial<FieldsOf[E]> = {}): Promise<boolean> {
    const now = this.chosen();
    if (!now) return false;
    const { id: _id, version: _version, ...fields } = now;
    const count = this.own().filter((row) => row.isWhatIf).length + 1;
    const said = { name: `what if ${count}`, isWhatIf: true, author: this.session.person?.name ?? '', reason };
    const id = await this.edits.add(this.entity, {
      ...fields,
      ...changed,
      ...said,
      sequence: nextSequence(this.own()),
    } as unknown as FieldsOf[E]);
    if (id === null) return false;
    this.chosenId.set(id);
    this.besideId.set(now.id);
    return true;
  }

  async remove(): Promise<void> {
    const now = this.chosen();
    if (now) await this.edits.remove(this.entity, now);
  }
}
