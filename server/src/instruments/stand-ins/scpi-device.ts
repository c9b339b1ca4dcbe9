/** An error of the standard, by number and words. */
interface ScpiError {
  readonly number: number;
  readonly words: string;
}

/** @source SCPI-99 volume 2, chapter 21, from memory; IEEE 488.2-1992 sections 10 and 11, from memory */
const UNDEFINED_HEADER: ScpiError = { number: -113, words: 'Undefined header' };
export const MISSING_PARAMETER: ScpiError = { number: -109, words: 'Missing parameter' };
export const DATA_OUT_OF_RANGE: ScpiError = { number: -222, words: 'Data out of range' };
export const SETTINGS_CONFLICT: ScpiError = { number: -221, words: 'Settings conflict' };
const QUEUE_OVERFLOW: ScpiError = { number: -350, words: 'Queue overflow' };
const NO_ERROR: ScpiError = { number: 0, words: 'No error' };
const MOST_ERRORS = 10;

/** Bits of the standard event status register. @source IEEE 488.2-1992, section 11.5.1, from memory */
const OPERATION_COMPLETE = 1;
const QUERY_ERROR = 4;
const DEVICE_ERROR = 8;
const EXECUTION_ERROR = 16;
const COMMAND_ERROR = 32;
const POWER_ON = 128;
/** bits of the status byte */
const ERROR_QUEUE_BIT = 4;
const EVENT_SUMMARY_BIT = 32;

export type Reply = string | Buffer | ScpiError | null;

const isError = (reply: Reply): reply is ScpiError => typeof reply === 'object' && reply !== null && 'number' in reply;

/** What one kind of instrument does beside what every one must. */
export interface DeviceParts {
  /** maker, model, serial number, version: the four fields of *IDN? */
  readonly identity: readonly [string, string, string, string];
  /** answers a command or query of its own, or undefined when it knows none of that name */
  readonly answer: (header: string, args: readonly string[]) => Reply | undefined;
  /** back to how it was switched on */
  readonly reset: () => void;
}

const eventBit = ({ number }: ScpiError): number => {
  if (number <= -400) return QUERY_ERROR;
  if (number <= -300) return DEVICE_ERROR;
  return number <= -200 ? EXECUTION_ERROR : COMMAND_ERROR;
};

/** The text of a definite-length block: `#`, how many digits, how many bytes, the bytes. @source IEEE 488.2-1992, section 8.7.9, from memory */
export const block = (bytes: Buffer): Buffer => {
  const length = String(bytes.length);
  return Buffer.concat([Buffer.from(`#${length.length}${length}`), bytes]);
};

/** The common commands, status registers and error queue that every instrument of the standard has. */
export class ScpiDevice {
  private readonly errors: ScpiError[] = [];
  private events = POWER_ON;
  private enabled = 0;

  constructor(private readonly parts: DeviceParts) {}

  /** Answers one message line: several units may stand in it, parted by semicolons. */
  message(line: string): readonly (string | Buffer)[] {
    return line
      .split(';')
      .map((unit) => unit.trim())
      .filter((unit) => unit !== '')
      .flatMap((unit) => {
        const reply = this.unit(unit);
        return reply === null ? [] : [reply];
      });
  }

  private unit(unit: string): string | Buffer | null {
    const [, header = '', rest = ''] = /^(\S+)\s*(.*)$/.exec(unit) ?? [];
    const args = rest === '' ? [] : rest.split(',').map((arg) => arg.trim());
    const reply = this.common(header.toUpperCase(), args);
    if (!isError(reply)) return reply;
    this.fault(reply);
    return null;
  }

  private common(header: string, args: readonly string[]): Reply {
    switch (header) {
      case '*IDN?':
        return this.parts.identity.join(',');
      case '*CLS':
        this.errors.length = 0;
        this.events = 0;
        return null;
      case '*RST':
        this.parts.reset();
        return null;
      case '*ESR?': {
        const { events } = this;
        this.events = 0;
        return String(events);
      }
      case '*ESE':
        if (args[0] === undefined) return MISSING_PARAMETER;
        if (!/^\d{1,3}$/.test(args[0]) || Number(args[0]) > 255) return DATA_OUT_OF_RANGE;
        this.enabled = Number(args[0]);
        return null;
      case '*ESE?':
        return String(this.enabled);
      case '*OPC':
        this.events |= OPERATION_COMPLETE;
        return null;
      case '*OPC?':
        return '1';
      case '*STB?':
        return String((this.errors.length > 0 ? ERROR_QUEUE_BIT : 0) | (this.events & this.enabled ? EVENT_SUMMARY_BIT : 0));
      case '*TST?':
        return '0';
      case '*WAI':
        return null;
      case 'SYST:ERR?':
      case 'SYST:ERR:NEXT?': {
        const { number, words } = this.errors.shift() ?? NO_ERROR;
        return `${number},"${words}"`;
      }
      case 'SYST:ERR:COUN?':
        return String(this.errors.length);
      default: {
        const reply = this.parts.answer(header, args);
        return reply === undefined ? UNDEFINED_HEADER : reply;
      }
    }
  }

  private fault(error: ScpiError): void {
    this.events |= eventBit(error);
    // the last place of a full queue says that more was lost
    if (this.errors.length >= MOST_ERRORS) this.errors[MOST_ERRORS - 1] = QUEUE_OVERFLOW;
    else this.errors.push(error);
  }
}
