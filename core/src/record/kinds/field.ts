import { READ_IN, type EvidenceMark, type ShownUnit } from '../../shared';

// What a field of a record is, as plain data: its type, its check, its column, what it holds until somebody says
// otherwise and its words all follow from it.

/** What may be said of any field. */
export interface Common<V = unknown> {
  /** it may be absent: null */
  readonly optional?: true;
  /** what it holds until somebody says otherwise, where that is not nothing */
  readonly blank?: V;
  /** it came after records were kept: where it is missing it holds what is blank */
  readonly later?: true;
  /** how it is known unless somebody says otherwise; a field without a mark does not say how it is known */
  readonly evidence?: EvidenceMark;
  /** it says nothing to people, or the name of the record says it: the history leaves it out */
  readonly unsaid?: true;
  /** its column in files of these records, and what that holds, in words */
  readonly column?: { readonly heading: string; readonly holds: string };
  /** a line that helps whoever fills it in */
  readonly help?: string;
  /** a value that has values of its own by name, as people read it */
  readonly shows?: (value: never) => string;
}

interface Said<T extends string> extends Common {
  readonly type: T;
  /** what people call it, with a capital */
  readonly label: string;
}

/** What a text must look like, and what is said when it does not; `\${label}` stands for the label. */
interface Pattern {
  readonly is: RegExp;
  readonly says: string;
}

export interface TextField extends Said<'text'> {
  readonly max: number;
  /** it may be of several lines; so may any text of a thousand characters or more */
  readonly lines?: true;
  /** it must not be blank */
  readonly needed?: true;
  readonly pattern?: Pattern;
}

export interface NumberField extends Said<'number'> {
  /** SI unit, or empty */
  readonly unit: string;
  /** the unit in which people read and type it, where that is another or its digits are to be said */
  readonly readIn?: ShownUnit;
  readonly whole?: true;
  /** it must be more than this */
  readonly above?: number;
  readonly min?: number;
  readonly max?: number;
  /** what is said when it is too small or too large, where that needs words of its own */
  readonly says?: { readonly min?: string; readonly max?: string };
}

interface ChoiceField<T extends string = string> extends Said<'choice'> {
  readonly choices: readonly T[];
}

interface FlagField extends Said<'flag'> {
  /** what yes and no are called */
  readonly words?: readonly [yes: string, no: string];
}
/** A calendar date as YYYY-MM-DD. */
type DateField = Said<'date'>;
/** A moment as ISO 8601 in UTC. */
type InstantField = Said<'instant'>;
/** A local time as YYYY-MM-DDTHH:MM. */
type LocalTimeField = Said<'local time'>;
/** A price in decimal digits: 4.20 stays 4.20. */
type PriceField = Said<'price'>;

/** What happens to a record when the one it refers to goes: it goes too, it forgets it, or the other cannot go. */
export type WhenGone = 'remove too' | 'clear' | 'refuse';

/** Another record of the study, by its id. */
export interface ReferenceField extends Said<'reference'> {
  /** kind of the other record */
  readonly to: string;
  readonly whenGone: WhenGone;
  /** a field that both records have, and that must be the same in both */
  readonly alike?: string;
}

/** Another record of the study, of the kind that a field beside it names; null where nothing does. */
interface AnyReferenceField extends Said<'any reference'> {
  readonly toKindIn: string | null;
  readonly whenGone: WhenGone | 'stays';
}

/** An account of the organisation, by its id. */
type PersonField = Said<'person'>;

/** An entry of a library that ships with the program, by its name there. */
interface LibraryField extends Said<'library'> {
  readonly of: 'material' | 'process';
}

/** A file of the study, by the SHA-256 of what is in it, hexadecimal. */
export interface FileField extends Said<'file'> {
  readonly holds: 'picture' | 'mesh';
}

export interface ListField<I = unknown> extends Said<'list'> {
  readonly item: I;
  readonly most: number;
}

/** So many values of one kind, neither more nor fewer. */
export interface TupleField<I = unknown, N extends 2 | 3 = 2 | 3> extends Said<'tuple'> {
  readonly item: I;
  readonly size: N;
}

/** A rule that looks at several parts of a value. */
interface GroupRule<V> {
  readonly name: string;
  readonly says: string;
  readonly holds: (value: V) => boolean;
}

/** A value that has values of its own by name. */
export interface GroupField<S = unknown> extends Said<'group'> {
  readonly fields: S;
  readonly rule?: GroupRule<never>;
}

/** Values by a name that is not known beforehand. */
export interface ByNameField<I = unknown> extends Said<'by name'> {
  readonly item: I;
  /** what it must be, in words */
  readonly says: string;
  readonly names?: { readonly are: RegExp; readonly says: string };
}

/** How the fields of the record are known, by field. */
type EvidenceField = Said<'evidence'>;

export type Field =
  | TextField
  | NumberField
  | ChoiceField
  | FlagField
  | DateField
  | InstantField
  | LocalTimeField
  | PriceField
  | ReferenceField
  | AnyReferenceField
  | PersonField
  | LibraryField
  | FileField
  | ListField
  | TupleField
  | GroupField
  | ByNameField
  | EvidenceField;

export type Fields = Readonly<Record<string, Field>>;

/** How one recorded value is known. */
export interface Evidence {
  readonly mark: EvidenceMark;
  /** standard uncertainty in the unit of the field; null where none was stated */
  readonly u: number | null;
  /** a count or measure may be a range; low alone is "at least" */
  readonly low: number | null;
  readonly high: number | null;
  /** the value as typed, with its unit */
  readonly typed: string | null;
  readonly instrument: string;
  /** who told it, which picture, which file */
  readonly source: string;
}

/** How values are known, by field. */
export type EvidenceOf = Readonly<Record<string, Evidence>>;

type Bare<F> = F extends { readonly type: 'choice'; readonly choices: readonly (infer T)[] }
  ? T
  : F extends { readonly type: 'number' }
    ? number
    : F extends { readonly type: 'flag' }
      ? boolean
      : F extends { readonly type: 'evidence' }
        ? EvidenceOf
        : F extends { readonly type: 'list'; readonly item: infer I }
          ? readonly ValueOf<I>[]
          : F extends { readonly type: 'tuple'; readonly item: infer I; readonly size: infer N }
            ? N extends 2
              ? readonly [ValueOf<I>, ValueOf<I>]
              : readonly [ValueOf<I>, ValueOf<I>, ValueOf<I>]
            : F extends { readonly type: 'group'; readonly fields: infer S }
              ? ValuesOf<S>
              : F extends { readonly type: 'by name'; readonly item: infer I }
                ? Readonly<Record<string, ValueOf<I>>>
                : string;

/** What a field holds. */
export type ValueOf<F> = F extends { readonly optional: true } ? Bare<F> | null : Bare<F>;

/** What fields hold, by their names. */
export type ValuesOf<S> = { readonly [K in keyof S]: ValueOf<S[K]> };

interface None {
  readonly label: string;
}

const of =
  <T extends string>(type: T) =>
  <const O extends Common = object>(label: string, options?: O): None & { readonly type: T } & O =>
    ({ type, label, ...options }) as None & { readonly type: T } & O;

/** A field with what else was said of it. */
export type As<F, O> = F & O;

/** Text of at most so many characters. */
export const text = <const O extends Common<string> & Pick<TextField, 'needed' | 'pattern' | 'lines'> = object>(
  label: string,
  max: number,
  options?: O,
): As<TextField, O> => ({ type: 'text', label, max, ...options }) as As<TextField, O>;

export type NumberOptions = Common<number> & Pick<NumberField, 'whole' | 'above' | 'min' | 'max' | 'says' | 'readIn'>;

/** A number in an SI unit. */
export const number = <const O extends NumberOptions = object>(label: string, unit: string, options?: O): As<NumberField, O> =>
  ({ type: 'number', label, unit, ...options }) as As<NumberField, O>;

/** A number above zero and at most `max`. */
export const positive = <const O extends NumberOptions = object>(
  label: string,
  unit: string,
  max: number,
  options?: O,
): As<NumberField, O> => ({ type: 'number', label, unit, above: 0, max, ...options }) as As<NumberField, O>;

/** A number of zero or more. */
export const notNegative = <const O extends NumberOptions = object>(label: string, unit: string, options?: O): As<NumberField, O> =>
  ({ type: 'number', label, unit, min: 0, ...options, says: { min: '${label} must not be less than 0', ...options?.says } }) as As<
    NumberField,
    O
  >;

/** A whole number from `min` to `max`. */
export const whole = <const O extends NumberOptions = object>(label: string, min: number, max: number, options?: O): As<NumberField, O> =>
  ({ type: 'number', label, unit: '', whole: true, min, max, ...options }) as As<NumberField, O>;

/** A share above 0 and up to 1, read in percent. */
export const fraction = <const O extends NumberOptions = object>(label: string, options?: O): As<NumberField, O> =>
  positive(label, '', 1, { readIn: READ_IN['%'], ...options } as unknown as O);

/** One of the given words. */
export const choice = <const T extends string, const O extends Common<NoInfer<T>> = object>(
  label: string,
  choices: readonly T[],
  options?: O,
): As<ChoiceField<T>, O> => ({ type: 'choice', label, choices, ...options }) as As<ChoiceField<T>, O>;

export const flag = <const O extends Common & Pick<FlagField, 'words'> = object>(label: string, options?: O): As<FlagField, O> =>
  ({ type: 'flag', label, ...options }) as As<FlagField, O>;
export const date = of('date');
export const instant = of('instant');
export const localTime = of('local time');
export const price = of('price');
export const person = of('person');

export const reference = <const O extends Common & Pick<ReferenceField, 'alike'> = object>(
  label: string,
  to: string,
  whenGone: WhenGone,
  options?: O,
): As<ReferenceField, O> => ({ type: 'reference', label, to, whenGone, ...options }) as As<ReferenceField, O>;

export const anyReference = <const O extends Common = object>(
  label: string,
  toKindIn: string | null,
  whenGone: AnyReferenceField['whenGone'],
  options?: O,
): As<AnyReferenceField, O> => ({ type: 'any reference', label, toKindIn, whenGone, ...options }) as As<AnyReferenceField, O>;

export const library = <const O extends Common = object>(label: string, from: LibraryField['of'], options?: O): As<LibraryField, O> =>
  ({ type: 'library', label, of: from, ...options }) as As<LibraryField, O>;

export const file = (label: string, holds: FileField['holds']): FileField & { readonly unsaid: true } => ({
  type: 'file',
  label,
  holds,
  unsaid: true,
});

export const list = <const I extends Field, const O extends Common = object>(
  label: string,
  item: I,
  most: number,
  options?: O,
): As<ListField<I>, O> => ({ type: 'list', label, item, most, ...options }) as As<ListField<I>, O>;

export const tuple = <const I extends Field, const N extends 2 | 3>(label: string, item: I, size: N): TupleField<I, N> => ({
  type: 'tuple',
  label,
  item,
  size,
});

export const group = <const S extends Fields, const O extends Common<ValuesOf<NoInfer<S>>> = object>(
  label: string,
  fields: S,
  options?: O & { readonly rule?: GroupRule<ValuesOf<NoInfer<S>>> },
): As<GroupField<S>, O> => ({ type: 'group', label, fields, ...options }) as As<GroupField<S>, O>;

export const byName = <const I extends Field, const O extends Common & Pick<ByNameField, 'names'> = object>(
  label: string,
  item: I,
  says: string,
  options?: O,
): As<ByNameField<I>, O> => ({ type: 'by name', label, item, says, ...options }) as As<ByNameField<I>, O>;

/** How values of the record are known; every kind whose fields have marks has it last. */
export const EVIDENCE: EvidenceField = { type: 'evidence', label: 'Evidence', unsaid: true };

/** A value that has values of its own by name, with how people read it. */
export const shown = <const F extends Field>(field: F, shows: (value: Bare<NoInfer<F>>) => string): F => ({ ...field, shows });

/** May be absent. */
export const optional = { optional: true } as const;

// What several kinds of record have in common, each said once.

/** Place in the order of its list. */
export const SEQUENCE = whole('Place in the list', 0, 1_000_000_000, { blank: 0, unsaid: true });
export const year = <const O extends NumberOptions = object>(label: string, options?: O): As<NumberField, O> =>
  whole(label, 1900, 2100, options);
export const currency = <const O extends Common<string> = object>(label: string, options?: O): As<TextField, O> =>
  text(label, 3, { pattern: { is: /^[A-Z]{3}$/, says: '${label} must be three capital letters such as EUR' }, ...options }) as As<
    TextField,
    O
  >;
export const mass = <const O extends NumberOptions = object>(label: string, options?: O): As<NumberField, O & { optional: true }> =>
  positive(label, 'kg', 100_000, { optional: true, ...options }) as As<NumberField, O & { optional: true }>;
export const length = <const O extends NumberOptions = object>(
  label: string,
  max: number,
  options?: O,
): As<NumberField, O & { optional: true }> =>
  positive(label, 'm', max, { optional: true, ...options }) as As<NumberField, O & { optional: true }>;

/** A mass; its uncertainty, and the words it was typed in, stand in its evidence. */
export const MASS_EACH = mass('Mass each', { evidence: 'M' });

/** A price paid or asked: decimal digits with currency and year, all three or none. */
export const PRICE_PAID = {
  price: price('Price', optional),
  priceCurrency: currency('Currency of the price', optional),
  priceYear: year('Year of the price', optional),
} as const;

export const REMARK = text('Remark', 400);
