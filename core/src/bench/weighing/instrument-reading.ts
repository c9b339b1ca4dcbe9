import type { ReadingQuantity } from '../../record';

/** Kinds of instrument the bench knows. */
export const INSTRUMENT_KINDS = ['scale', 'floor scale', 'caliper', 'alloy analyser', 'torque driver', 'mesh scanner', 'camera'] as const;
export type InstrumentKind = (typeof INSTRUMENT_KINDS)[number];

export interface ElementReading {
  readonly fraction: number;
  readonly u: number;
}

/** One reading of an instrument as the server passes it on. */
export interface InstrumentReading {
  readonly instrumentId: string;
  /** counts up with every reading of the instrument */
  readonly seq: number;
  readonly at: string;
  readonly quantity: ReadingQuantity;
  /** SI: kg, m, N m; null while there is none */
  readonly value: number | null;
  /** standard uncertainty, SI */
  readonly u: number | null;
  readonly tare: number | null;
  readonly stable: boolean;
  readonly overload: boolean;
  readonly elements: Readonly<Record<string, ElementReading>> | null;
  /** what the instrument said */
  readonly raw: string;
}

export const INSTRUMENT_STATES = ['connecting', 'ready', 'away', 'refused'] as const;

/** An instrument and how it is. */
export interface InstrumentNow {
  readonly id: string;
  readonly name: string;
  readonly kind: InstrumentKind;
  readonly address: string;
  readonly simulated: boolean;
  readonly state: (typeof INSTRUMENT_STATES)[number];
  /** why it is away or refused */
  readonly fault: string;
  readonly maker: string;
  readonly model: string;
  readonly serial: string;
  /** the most it reads, SI; null where there is no such thing */
  readonly most: number | null;
  readonly last: InstrumentReading | null;
}

/** Why a reading must not be kept, or null when it may. */
export const readingFault = (instrument: InstrumentNow, reading: InstrumentReading | null, nowIso: string): string | null => {
  const { name } = instrument;
  if (instrument.state !== 'ready') return `${name} is not there: ${instrument.fault || 'no connection'}. Nothing was stored`;
  if (!reading) return `${name} has not read anything yet`;
  if (reading.overload) return `${name} is overloaded: take something off. Nothing was stored`;
  if (!reading.stable) return `${name} has not settled: wait until it stands still. Nothing was stored`;
  // a shot or a screw let go is told once; only what is told on and on can fall silent
  const goesOn = reading.quantity === 'mass' || reading.quantity === 'length';
  if (goesOn && Date.parse(nowIso) - Date.parse(reading.at) > STALE_MS)
    return `${name} has said nothing for ${STALE_MS / 1000} s. Nothing was stored`;
  if (reading.elements !== null) return null;
  if (reading.value === null) return `${name} gave no value`;
  if (!(reading.value > 0)) return `${name} reads ${reading.raw}: there is nothing on it. Nothing was stored`;
  return reading.u !== null && reading.value < 2 * reading.u ? `${name} reads no more than its own uncertainty. Nothing was stored` : null;
};

/** A reading older than this says nothing of what is there now. */
const STALE_MS = 3000;
