import sharp from 'sharp';
import { block, DATA_OUT_OF_RANGE, MISSING_PARAMETER, SETTINGS_CONFLICT, type DeviceParts, type Reply } from './scpi-device';
import { readingLine } from './reading-line';

export type Random = () => number;

/** An instrument that is asked, and that tells of readings as time goes on. */
export interface StandIn extends DeviceParts {
  /** the reading there is to tell at a moment, or null */
  readonly tick: (nowMs: number) => string | null;
}

/** A number of a normal distribution around 0 with standard deviation 1. @source Box & Muller 1958 */
const normal = (random: Random): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

const readNumber = (text: string | undefined): number | null => {
  const value = Number(text);
  return text === undefined || text === '' || !Number.isFinite(value) ? null : value;
};

interface ScaleRange {
  readonly model: string;
  readonly serial: string;
  readonly mostKg: number;
  readonly stepKg: number;
  /** time in which the pan comes to rest */
  readonly restS: number;
}

export const BENCH_SCALE: ScaleRange = { model: 'Bench pan 6', serial: 'BP6-0142', mostKg: 6, stepKg: 0.0001, restS: 0.35 };
export const FLOOR_SCALE: ScaleRange = { model: 'Floor plate 600', serial: 'FP600-0031', mostKg: 600, stepKg: 0.05, restS: 0.7 };
const MAKER = 'Each Bolt stand-in';
const VERSION = '1.0';
const OVERLOAD = 1.01;
/** readings that must agree before the scale calls itself stable */
const STILL = 5;

/** A scale that settles, drifts, trembles, tares and can be overloaded. */
export const scale = (range: ScaleRange, random: Random): StandIn => {
  let loadKg = 0;
  let shakesKg = 0;
  let shownKg = 0;
  let driftKg = 0;
  let zeroKg = 0;
  let tareKg = 0;
  let lastMs: number | null = null;
  let seq = 0;
  let recent: number[] = [];
  const uOf = (kg: number): number => Math.sqrt((range.stepKg / Math.sqrt(12)) ** 2 + range.stepKg ** 2 + (kg * 1e-5) ** 2);
  const rounded = (kg: number): number => Math.round(kg / range.stepKg) * range.stepKg;
  const isStable = (): boolean => recent.length >= STILL && Math.max(...recent) - Math.min(...recent) <= 2 * range.stepKg;
  const grossKg = (): number => shownKg + driftKg - zeroKg;
  const isOver = (): boolean => loadKg > range.mostKg * OVERLOAD;
  return {
    identity: [MAKER, range.model, range.serial, VERSION],
    reset: () => {
      tareKg = 0;
      zeroKg = 0;
    },
    answer: (header, args): Reply | undefined => {
      switch (header) {
        case 'MEAS:MASS?':
        case 'MEAS?':
          return `${rounded(grossKg() - tareKg).toExponential(6)},KG,${isOver() ? 'OVER' : isStable() ? 'STAB' : 'UNST'}`;
        case 'SENS:MASS:MAX?':
          return range.mostKg.toExponential(6);
        case 'SENS:MASS:UNC?':
          return uOf(grossKg()).toExponential(6);
        case 'ZERO':
          if (!isStable() || Math.abs(grossKg()) > range.mostKg * 0.02) return SETTINGS_CONFLICT;
          zeroKg += grossKg();
          tareKg = 0;
          return null;
        case 'TARE':
          if (!isStable() || isOver()) return SETTINGS_CONFLICT;
          tareKg = grossKg();
          return null;
        case 'TARE:CLE':
          tareKg = 0;
          return null;
        case 'SIM:LOAD': {
          const kg = readNumber(args[0]);
          if (kg === null) return MISSING_PARAMETER;
          if (!(kg >= 0 && kg <= 100_000)) return DATA_OUT_OF_RANGE;
          loadKg = kg;
          // what swings, or somebody who leans on the bench: the scale never comes to rest
          shakesKg = readNumber(args[1]) ?? 0;
          recent = [];
          return null;
        }
        default:
          return undefined;
      }
    },
    tick: (nowMs) => {
      const s = lastMs === null ? 0 : (nowMs - lastMs) / 1000;
      lastMs = nowMs;
      shownKg += (loadKg - shownKg) * (1 - Math.exp(-s / range.restS));
      driftKg += normal(random) * range.stepKg * 0.02 * Math.sqrt(s);
      const trembling =
        normal(random) * range.stepKg * 0.25 +
        (Math.abs(loadKg - shownKg) > range.stepKg * 3 ? normal(random) * range.stepKg * 8 : 0) +
        normal(random) * shakesKg;
      const value = rounded(grossKg() + trembling - tareKg);
      recent = [...recent, value].slice(-STILL);
      seq += 1;
      const over = isOver();
      return readingLine({
        seq,
        quantity: 'MASS',
        value: over ? null : value,
        unit: 'KG',
        u: uOf(grossKg()),
        tare: tareKg,
        status: over ? 'OVER' : isStable() ? 'STAB' : 'UNST',
      });
    },
  };
};

/** A caliper that tells of what its jaws hold. */
export const caliper = (random: Random): StandIn => {
  const mostM = 0.3;
  const stepM = 0.00001;
  let gapM: number | null = null;
  let setAt = 0;
  let zeroM = 0;
  let seq = 0;
  let now = 0;
  return {
    identity: [MAKER, 'Jaw 300', 'J300-0077', VERSION],
    reset: () => (zeroM = 0),
    answer: (header, args) => {
      switch (header) {
        case 'SENS:LENG:MAX?':
          return mostM.toExponential(6);
        case 'MEAS:LENG?':
        case 'MEAS?':
          return `${((gapM ?? 0) - zeroM).toExponential(6)},M,STAB`;
        case 'ZERO':
          zeroM = gapM ?? 0;
          return null;
        case 'SIM:GAP': {
          const metres = readNumber(args[0]);
          if (metres === null) return MISSING_PARAMETER;
          if (!(metres >= 0 && metres <= mostM)) return DATA_OUT_OF_RANGE;
          gapM = metres;
          setAt = now;
          return null;
        }
        default:
          return undefined;
      }
    },
    tick: (nowMs) => {
      now = nowMs;
      if (gapM === null) return null;
      seq += 1;
      const moving = nowMs - setAt < 400;
      const value = Math.round((gapM - zeroM + normal(random) * stepM * (moving ? 20 : 0.3)) / stepM) * stepM;
      return readingLine({ seq, quantity: 'LENG', value, unit: 'M', u: stepM, tare: zeroM, status: moving ? 'UNST' : 'STAB' });
    },
  };
};

/** A torque driver: each screw that is let go is one reading of its breakaway torque; it counts them. */
export const torqueDriver = (random: Random): StandIn => {
  const mostNm = 200;
  let waiting: number[] = [];
  let counted = 0;
  let seq = 0;
  return {
    identity: [MAKER, 'Angle driver 200', 'AD200-0009', VERSION],
    reset: () => (counted = 0),
    answer: (header, args) => {
      switch (header) {
        case 'SENS:TORQ:MAX?':
          return mostNm.toExponential(6);
        case 'COUN?':
          return String(counted);
        case 'COUN:CLE':
          counted = 0;
          return null;
        case 'SIM:TURN': {
          const [n, torque] = [readNumber(args[0]), readNumber(args[1])];
          if (n === null || torque === null) return MISSING_PARAMETER;
          if (!(n >= 1 && n <= 100 && torque > 0 && torque <= mostNm * 2)) return DATA_OUT_OF_RANGE;
          waiting = [...waiting, ...Array.from({ length: n }, () => torque * (1 + 0.06 * normal(random)))];
          return null;
        }
        default:
          return undefined;
      }
    },
    tick: () => {
      const torque = waiting.shift();
      if (torque === undefined) return null;
      seq += 1;
      counted += 1;
      const over = torque > mostNm;
      return readingLine({
        seq,
        quantity: 'TORQ',
        value: over ? null : torque,
        unit: 'NM',
        u: torque * 0.01,
        tare: counted,
        status: over ? 'OVER' : 'STAB',
      });
    },
  };
};

/** An analyser that shoots at a metal and tells fractions of elements with their counting error. Light elements it cannot see. */
export const alloyAnalyser = (random: Random): StandIn => {
  const BLIND = new Set(['H', 'He', 'Li', 'Be', 'B', 'C', 'N', 'O', 'F', 'Ne', 'Na']);
  let sample: Readonly<Record<string, number>> = {};
  let shotAt: number | null = null;
  let now = 0;
  let seq = 0;
  const SHOT_MS = 2000;
  return {
    identity: [MAKER, 'Alloy gun', 'AG-0004', VERSION],
    reset: () => (shotAt = null),
    answer: (header, args) => {
      switch (header) {
        case '*TRG':
        case 'INIT':
          if (Object.keys(sample).length === 0) return SETTINGS_CONFLICT;
          shotAt = now;
          return null;
        case 'SIM:ALLOY': {
          if (args.length === 0 || args.length % 2 !== 0) return MISSING_PARAMETER;
          const next: Record<string, number> = {};
          for (let i = 0; i < args.length; i += 2) {
            const fraction = readNumber(args[i + 1]);
            if (!/^[A-Z][a-z]?$/.test(args[i] ?? '') || fraction === null || !(fraction >= 0 && fraction <= 1)) return DATA_OUT_OF_RANGE;
            next[args[i]!] = fraction;
          }
          sample = next;
          return null;
        }
        default:
          return undefined;
      }
    },
    tick: (nowMs) => {
      now = nowMs;
      if (shotAt === null || nowMs - shotAt < SHOT_MS) return null;
      shotAt = null;
      seq += 1;
      const elements = Object.fromEntries(
        Object.entries(sample)
          .filter(([symbol]) => !BLIND.has(symbol))
          .map(([symbol, fraction]) => {
            // counting: the error goes with the root of what is counted
            const u = Math.max(0.0001, 0.004 * Math.sqrt(fraction));
            return [symbol, { fraction: Math.min(1, Math.max(0, fraction + normal(random) * u)), u }];
          }),
      );
      return readingLine({ seq, quantity: 'ELEM', value: null, unit: '', u: null, tare: null, status: 'STAB', elements });
    },
  };
};

const triangles = ([x, y, z]: readonly [number, number, number]): readonly (readonly number[])[] => {
  const p = (i: number): readonly number[] => [i & 1 ? x : 0, i & 2 ? y : 0, i & 4 ? z : 0];
  const faces = [
    [0, 2, 3, 1],
    [4, 5, 7, 6],
    [0, 1, 5, 4],
    [2, 6, 7, 3],
    [0, 4, 6, 2],
    [1, 3, 7, 5],
  ] as const;
  return faces.flatMap(([a, b, c, d]) => [
    [...p(a), ...p(b), ...p(c)],
    [...p(a), ...p(c), ...p(d)],
  ]);
};

/** A box as binary STL in millimetres: 80 bytes of heading, the number of triangles, 50 bytes each. */
const stlOfBox = (sizeM: readonly [number, number, number]): Buffer => {
  const faces = triangles([sizeM[0] * 1000, sizeM[1] * 1000, sizeM[2] * 1000]);
  const bytes = Buffer.alloc(84 + faces.length * 50);
  bytes.write('scan in mm');
  bytes.writeUInt32LE(faces.length, 80);
  faces.forEach((face, i) => face.forEach((value, k) => bytes.writeFloatLE(value, 84 + i * 50 + 12 + k * 4)));
  return bytes;
};

/** A grey picture with a plain shape on it, as PNG: plainly schematic. */
const pictureOfShape = (seq: number, width = 640, height = 480): Promise<Buffer> => {
  const grey = Buffer.alloc(width * height);
  const [cx, cy, rx, ry] = [width / 2, height / 2, width * (0.2 + 0.05 * (seq % 4)), height * 0.28];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const inside = Math.abs(x - cx) < rx && Math.abs(y - cy) < ry && (x - cx) ** 2 + (y - cy) ** 2 >= 900;
      grey[y * width + x] = inside ? 120 : 222 - Math.round((y / height) * 20);
    }
  return sharp(grey, { raw: { width, height, channels: 1 } })
    .png()
    .toBuffer();
};

/** A device that on its trigger makes a file and tells that it is there. */
const fileDevice = (
  model: string,
  serial: string,
  takesMs: number,
  make: (seq: number) => Promise<Buffer>,
  own: (header: string, args: readonly string[]) => Reply | undefined,
): StandIn => {
  let data: Buffer | null = null;
  let isNew = false;
  let begun: number | null = null;
  let now = 0;
  let seq = 0;
  return {
    identity: [MAKER, model, serial, VERSION],
    reset: () => (data = null),
    answer: (header, args) => {
      if (header === '*TRG' || header === 'INIT') {
        begun = now;
        return null;
      }
      if (header === 'DATA?') return data === null ? SETTINGS_CONFLICT : block(data);
      return own(header, args);
    },
    tick: (nowMs) => {
      now = nowMs;
      if (begun !== null && nowMs - begun >= takesMs) {
        begun = null;
        seq += 1;
        void make(seq).then((made) => {
          data = made;
          isNew = true;
        });
      }
      if (!isNew || data === null) return null;
      isNew = false;
      return readingLine({ seq, quantity: 'DATA', value: data.length, unit: 'BYTE', u: null, tare: null, status: 'STAB' });
    },
  };
};

export const meshScanner = (): StandIn => {
  let size: readonly [number, number, number] = [0.12, 0.045, 0.012];
  return fileDevice(
    'Mesh scanner',
    'MS-0002',
    1500,
    () => Promise.resolve(stlOfBox(size)),
    (header, args) => {
      if (header !== 'SIM:BOX') return undefined;
      const [x, y, z] = args.map(readNumber);
      if (x === undefined || y === undefined || z === undefined || x === null || y === null || z === null) return MISSING_PARAMETER;
      if (![x, y, z].every((m) => m > 0 && m <= 10)) return DATA_OUT_OF_RANGE;
      size = [x, y, z];
      return null;
    },
  );
};

export const camera = (): StandIn =>
  fileDevice(
    'Bench camera',
    'BC-0005',
    500,
    (seq) => pictureOfShape(seq),
    () => undefined,
  );
