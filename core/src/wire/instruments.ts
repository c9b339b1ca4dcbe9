import { array } from 'yup';
import { finite, oneOf, requiredText, shape, text, uuid, whole } from '../shared';
import {
  INSTRUMENT_KINDS,
  INSTRUMENT_STATES,
  type ElementReading,
  type InstrumentKind,
  type InstrumentNow,
  type InstrumentReading,
} from '../bench';
import { READING_QUANTITIES } from '../record';
import { answer, figure, orNull, outline, wordOf, words, yesNo } from './answer';

// —— asked ——

export interface NewInstrument {
  readonly id: string;
  readonly name: string;
  readonly kind: InstrumentKind;
  readonly host: string;
  readonly port: number;
}
export const NEW_INSTRUMENT = shape<NewInstrument>({
  id: uuid('Instrument'),
  name: requiredText('Name', 100),
  kind: oneOf('Kind', INSTRUMENT_KINDS),
  host: text('Address', 200).matches(/^[A-Za-z0-9.:-]{1,200}$/, '${label} must be a host name or number'),
  port: whole('Port', 1, 65_535),
});

const INSTRUMENT_COMMANDS = ['zero', 'tare', 'clear tare', 'trigger', 'clear count'] as const;
export type InstrumentCommand = (typeof INSTRUMENT_COMMANDS)[number];
export const COMMAND = shape<{ command: InstrumentCommand }>({ command: oneOf('Command', INSTRUMENT_COMMANDS) });

/** Something put on or into a stand-in: the numbers each kind takes, in SI. */
export interface Placed {
  readonly numbers: readonly number[];
  readonly symbols: readonly string[];
}
export const PLACED = shape<Placed>({
  numbers: array(finite('Value')).label('Values').defined().max(40, 'At most ${max} values'),
  symbols: array(text('Symbol', 2).matches(/^[A-Z][a-z]?$/, '${label} must be that of an element'))
    .label('Symbols')
    .defined()
    .max(40, 'At most ${max} symbols'),
});

// —— answered ——

const isElements = (value: unknown): boolean =>
  typeof value === 'object' &&
  value !== null &&
  Object.values(value).every(
    (of) => typeof of === 'object' && of !== null && [(of as ElementReading).fraction, (of as ElementReading).u].every(Number.isFinite),
  );

const READING = answer<InstrumentReading>({
  instrumentId: words(),
  seq: figure(),
  at: words(),
  quantity: wordOf(READING_QUANTITIES),
  value: orNull(figure()),
  u: orNull(figure()),
  tare: orNull(figure()),
  stable: yesNo(),
  overload: yesNo(),
  elements: outline<InstrumentReading['elements']>((value) => value === null || isElements(value), 'element fractions'),
  raw: words(),
});

export const INSTRUMENT_NOW = answer<InstrumentNow>({
  id: words(),
  name: words(),
  kind: wordOf(INSTRUMENT_KINDS),
  address: words(),
  simulated: yesNo(),
  state: wordOf(INSTRUMENT_STATES),
  fault: words(),
  maker: words(),
  model: words(),
  serial: words(),
  most: orNull(figure()),
  last: orNull(READING),
});
