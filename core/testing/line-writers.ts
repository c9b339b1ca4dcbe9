import { part, set, type Meant } from './meaning';

/** A source of even random numbers from a seed. @source xorshift32, Marsaglia 2003 */
export const randomFrom = (seed: number): (() => number) => {
  let state = seed >>> 0 || 1;
  return () => {
    state ^= state << 13;
    state >>>= 0;
    state ^= state >>> 17;
    state ^= state << 5;
    state >>>= 0;
    return state / 4294967296;
  };
};

/**
 * Writers of lines: each has habits of its own for numbers, units, counts and the order of things. They know nothing of how
 * lines are read; what a line means is settled before it is written.
 */
interface Writer {
  readonly decimal: ',' | '.';
  readonly gap: '' | ' ';
  readonly between: readonly string[];
  readonly count: readonly ((n: number) => string)[];
  readonly countLast: readonly ((n: number) => string)[];
  readonly kilograms: readonly string[];
  readonly grams: readonly string[];
  readonly inches: boolean;
  readonly about: readonly string[];
  readonly total: readonly ((mass: string) => string)[];
  readonly capitals: 'none' | 'codes' | 'all';
}

const WRITERS: readonly Writer[] = [
  {
    ...{ decimal: '.', gap: ' ', between: [' '], capitals: 'none', inches: false },
    count: [(n) => `${n}x `, (n) => `${n} x `],
    countLast: [(n) => ` x${n}`],
    ...{ kilograms: ['kg'], grams: ['g'], about: ['~', 'approx ', 'ca. '] },
    total: [(m) => `total ${m}`, (m) => `${m} total`],
  },
  {
    ...{ decimal: ',', gap: ' ', between: [' ', ', '], capitals: 'codes', inches: false },
    count: [(n) => `${n}x `, (n) => `${n} Stk `, (n) => `${n} Stück `],
    countLast: [(n) => ` (${n}x)`, (n) => ` ${n} Stk`],
    ...{ kilograms: ['kg', 'KG'], grams: ['g', 'gr'], about: ['ca. ', 'etwa ', 'ca.'] },
    total: [(m) => `gesamt ${m}`, (m) => `${m} ges.`],
  },
  {
    ...{ decimal: '.', gap: '', between: [' ', '; ', ', '], capitals: 'codes', inches: false },
    count: [(n) => `${n}pcs `, (n) => `${n} pcs `, (n) => `qty ${n} `],
    countLast: [(n) => ` x ${n}`, (n) => ` ${n} off`, (n) => ` qty ${n}`],
    ...{ kilograms: ['kg', 'kgs'], grams: ['g', 'gms', 'grams'], about: ['approx.', 'about ', 'est. '] },
    total: [(m) => `tot ${m}`, (m) => `${m} tot`, (m) => `${m} in all`],
  },
  {
    ...{ decimal: '.', gap: ' ', between: [' ', ', '], capitals: 'all', inches: true },
    count: [(n) => `${n}X `, (n) => `(${n}X) `],
    countLast: [(n) => ` X${n}`],
    ...{ kilograms: ['KG'], grams: ['G'], about: ['~', '≈', 'APPROX '] },
    total: [(m) => `TOTAL ${m}`, (m) => `TOT. ${m}`],
  },
];

const HEADS = [
  'bracket',
  'rail',
  'cover',
  'lever',
  'plate',
  'support',
  'housing',
  'arm',
  'beam',
  'duct',
  'lid',
  'panel',
  'tray',
  'hinge',
  'carrier',
  'guide',
  'yoke',
  'shield',
];
const SIDES = ['upper', 'lower', 'inner', 'outer', 'front', 'rear', 'fixed', 'main'];
const PLACES = ['roller', 'hose', 'lock', 'sill', 'seat', 'belt', 'motor', 'fan', 'cable'];
const MATERIALS: readonly (readonly [id: string, ...spelled: string[]])[] = [
  ['dc04', 'dc04', 'DC04'],
  ['dp600', 'dp600', 'DP 600'],
  ['22mnb5', '22mnb5', '22MnB5'],
  ['pa66-gf30', 'pa66-gf30', 'PA66 GF30', 'pa66gf30', 'PA66-GF 30'],
  ['pp-td20', 'pp-td20', 'pp td20', 'PP-TD20'],
  ['pom', 'pom', 'POM'],
  ['aw-6082', '6082', 'EN AW-6082', 'aw 6082', 'AlMgSi1'],
  ['aw-5754', '5754', 'EN AW 5754'],
  ['alsi9cu3', 'alsi9cu3', 'AlSi9Cu3(Fe)', 'AC-46000'],
  ['epdm', 'epdm', 'EPDM'],
];
const PROCESSES: readonly (readonly [id: string, ...spelled: string[]])[] = [
  ['stamping', 'stamp', 'stamped', 'stamping'],
  ['hot-stamping', 'hot stamping', 'hot stamped', 'press hardened'],
  ['injection-moulding', 'inj', 'injection moulding', 'injection molded'],
  ['hpdc', 'hpdc', 'die cast', 'high pressure die casting'],
  ['sand-casting', 'sand cast', 'sand casting'],
  ['forging', 'forge', 'forged', 'drop forged'],
  ['extrusion', 'ext', 'extruded', 'extrusion'],
];
const NUISANCES = ['V2', 'rev B', '12V', '5 kW', 'type 3', '2nd row', 'no 7', '640 µF', '3-way', '10%'];

export interface Written {
  readonly line: string;
  readonly meant: Meant;
  readonly kind: 'part' | 'part with a figure that is no code' | 'fasteners' | 'joints';
}

/** One line with what it means, drawn from a source of random numbers. */
export const writtenLine = (random: () => number): Written => {
  const below = (n: number): number => Math.floor(random() * n);
  const one = <T>(list: readonly T[]): T => list[below(list.length)] as T;
  const chance = (p: number): boolean => random() < p;
  const writer = one(WRITERS);
  const digits = (value: number, decimals: number): string => value.toFixed(decimals).replace('.', writer.decimal);
  const spelled = (text: string): string => (writer.capitals === 'all' ? text.toUpperCase() : text);

  const mass = (most: number): { readonly text: string; readonly g: number } => {
    if (chance(0.4)) {
      const kg = Number((0.2 + random() * most).toFixed(2));
      return { text: `${digits(kg, 2)}${writer.gap}${one(writer.kilograms)}`, g: kg * 1000 };
    }
    if (writer.inches && chance(0.3)) {
      const lb = Number((0.5 + random() * most).toFixed(1));
      return { text: `${digits(lb, 1)}${writer.gap}${one(['LB', 'LBS'])}`, g: lb * 453.59237 };
    }
    const g = chance(0.3) ? Number((1 + random() * 90).toFixed(1)) : 5 + below(900);
    return { text: `${Number.isInteger(g) ? String(g) : digits(g, 1)}${writer.gap}${one(writer.grams)}`, g };
  };

  const r = random();
  if (r < 0.2) {
    const n = 1 + below(40);
    const d = one([4, 5, 6, 8, 10, 12]);
    const l = one([12, 16, 20, 25, 30, 45]);
    const more: Record<string, unknown> = { d, l };
    const by = one(['x', ' x ', 'X', '*', '×']);
    const stretches = [`M${d}${by}${l}`];
    if (chance(0.5)) {
      const size = one([20, 25, 30, 40]);
      more.drive = `T${size}`;
      stretches.push(one([`T${size}`, `TX${size}`]));
    }
    if (chance(0.4)) {
      more.grade = one(['8.8', '10.9']);
      if (chance(0.3)) stretches[0] += `-${more.grade as string}`;
      else stretches.push(more.grade as string);
    }
    if (chance(0.3)) {
      more.dir = one(['+x', '-x', '-z', '+y']);
      stretches.push(one([more.dir as string, (more.dir as string).toUpperCase(), (more.dir as string).replace('-', '−')]));
    }
    if (chance(0.25)) {
      const torque = 4 + below(60);
      const isTight = chance(0.5);
      more[isTight ? 'tight' : 'loose'] = torque;
      const unit = one(['Nm', 'N·m', 'N m', 'nm']);
      stretches.push(
        isTight
          ? one([`tightened ${torque} ${unit}`, `tighten to ${torque}${writer.gap}${unit}`])
          : one([`breakaway ${torque} ${unit}`, `${torque} ${unit} to loosen`, `${torque} ${unit}`]),
      );
    }
    if (chance(0.15)) {
      more.access = 'from below';
      stretches.push('from below');
    }
    const kind = one(['', '', 'bolt', 'bolts']);
    const count = chance(0.7) ? one([`${n} `, `${n}x `, `${n} x `, `${n}x`]) : '';
    const isGlued = count.endsWith('x');
    const body = [
      ...(kind !== '' && chance(0.5) && !isGlued
        ? [kind, ...stretches]
        : kind === ''
          ? stretches
          : [stretches[0] ?? '', kind, ...stretches.slice(1)]),
    ].join(' ');
    return { line: count === '' ? `${body} x${n}` : `${count}${body}`, meant: set(n, more as never), kind: 'fasteners' };
  }
  if (r < 0.28) {
    const n = 2 + below(120);
    const [of, ...words] = one([
      ['spot weld', 'spot', 'spot welds', 'spots', 'spot weld'],
      ['self-piercing rivet', 'spr', 'SPR', 'self-piercing rivets'],
      ['flow-drill screw', 'fds', 'flow drill screws'],
    ]);
    return { line: `${one([`${n} `, `${n}x `, `${n} x `])}${one(words)}`, meant: { kind: 'joints', n, of: of ?? '' }, kind: 'joints' };
  }

  // a part: a name of one to three words, then what is known of it in any order
  const name = [...(chance(0.4) ? [one(PLACES)] : []), one(HEADS)].join(' ') + (chance(0.35) ? `, ${one(SIDES)}` : '');
  const more: Record<string, unknown> = {};
  const stretches: string[] = [];
  const n = chance(0.4) ? 2 + below(20) : 1;
  if (chance(0.6)) {
    const [id, ...spellings] = one(MATERIALS);
    const spelling = one(spellings);
    if (spelling !== 'AlMgSi1') {
      more.mat = id;
      stretches.push(writer.capitals === 'none' ? spelling : spelled(spelling));
    }
  }
  if (chance(0.4)) {
    const [id, ...spellings] = one(PROCESSES);
    more.made = id;
    stretches.push(spelled(one(spellings)));
  }
  if (chance(0.75)) {
    const { text, g } = mass(6);
    const isTotal = n > 1 && chance(0.4);
    const isAbout = !isTotal && chance(0.25);
    more.g = isTotal ? g / n : g;
    if (isAbout) more.by = 'I';
    stretches.push(
      isTotal
        ? one(writer.total)(text)
        : isAbout
          ? `${one(writer.about)}${text}`
          : n > 1 && chance(0.2)
            ? `${text} ${spelled(one(['each', 'ea']))}`
            : text,
    );
  }
  if (chance(0.3)) {
    const t = one([0.7, 0.8, 1.2, 1.5, 2.5, 3.5]);
    more.t = t;
    const d = digits(t, 1);
    stretches.push(one([`t${d}`, `t=${d}`, `${d} mm thick`, `${d}T`, `thk ${d}`, `t ${d} mm`]));
  }
  if (chance(0.25)) {
    const box = [100 + below(700), 20 + below(90), 5 + below(60)] as const;
    more.box = box;
    stretches.push(one([box.join('x'), box.join(' x '), `${box.join('×')} mm`, box.join('*'), `${box[0]}mm x ${box[1]}mm x ${box[2]}mm`]));
  }
  if (chance(0.15)) {
    const [hand, word] = one([
      ['left', 'lh'],
      ['right', 'rh'],
      ['left', 'LH'],
    ] as const);
    more.hand = hand;
    stretches.push(word);
  }
  for (let i = stretches.length - 1; i > 0; i--) {
    const j = below(i + 1);
    [stretches[i], stretches[j]] = [stretches[j] ?? '', stretches[i] ?? ''];
  }
  let called = spelled(name);
  const isNuisance = chance(0.2);
  if (isNuisance) called += ` ${one(NUISANCES)}`;
  const between = one(writer.between);
  const isFirst = n === 1 || chance(0.6);
  const head = n > 1 && isFirst ? one(writer.count)(n) : '';
  const tail = n > 1 && !isFirst ? one(writer.countLast)(n) : '';
  const line = `${head}${[called, ...stretches].join(between === '; ' ? '; ' : between)}${tail}`;
  return {
    line,
    meant: part(called, { ...more, ...(n > 1 ? { n } : {}) }),
    kind: isNuisance ? 'part with a figure that is no code' : 'part',
  };
};
