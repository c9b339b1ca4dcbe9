import { MATERIALS, PROCESSES } from '../shared';
import { subsystemKey } from '../record';
import { DOOR, LEFT, STUDY, partNamed, recordOf, teardown } from '../../testing/teardown';
import { totalsAt, totalsOf, type Totals } from '../bench';
import { studyShown, type CostTerms, type StudyMeasures } from './cost-measures';
import { costLines } from './cost-lines';
import { fastenerCost } from './fastener-cost';
import { basisOf, partCost, partTerms } from './part-cost';
import { studyRollUp, studyRollUpAfter, type StudyRollUp } from './study-roll-up';

const all = ({ rolled }: StudyRollUp): readonly (Totals<StudyMeasures> | null)[] =>
  rolled.outline.nodes.map((_, place) => totalsAt(rolled, place));
const BASIS = basisOf(STUDY);
const only = (line: string) => {
  const [part] = teardown(line).parts;
  if (!part) throw new Error('no part');
  return part;
};

const BOUGHT = {
  boughtPrice: '7.40',
  boughtCurrency: 'EUR',
  boughtPriceYear: 2026,
  boughtVolumePerYear: 60_000,
  boughtRegion: 'Central Europe',
};

describe('what a part costs', () => {
  it('is shown term by term: a 1 kg stamping in DC04, 60 000 vehicles a year for 7 years', () => {
    const cost = partCost(only('plate dc04 stamp 1 kg'), 1, BASIS);
    expect(cost.terms.map((t) => t.label)).toEqual(['Material', 'Tooling', 'Conversion']);
    // by hand: 1 × 0.95 / 0.65; (60 000 + 70 000) / 420 000, one set of tools; 5.5 s × 115 EUR/h / 3600 / 0.985
    expect(cost.terms.map((t) => Number(t.amount.toFixed(4)))).toEqual([1.4615, 0.3095, 0.1784]);
    expect(cost.amount).toBeCloseTo(1.9494, 3);
    expect(cost.terms[0]?.working).toBe('1 kg × 0.95 EUR/kg ÷ (1 − 0.35 scrap)');
  });
  it('spreads tooling over all parts of a kind on the vehicle', () => {
    const [one, four] = [1, 4].map((perVehicle) => partCost(only('guide pom inj 40 g'), perVehicle, BASIS).terms[1]?.amount ?? 0);
    // 420 000 parts need one set, 1 680 000 need three (life 800 000)
    expect((one ?? 0) / (four ?? 1)).toBeCloseTo(4 / 3, 9);
  });
  it('is the same with and without its words', () => {
    const sum = (terms: CostTerms | null): number | null => terms && terms.material + terms.tooling + terms.conversion + terms.bought;
    const quickly = (part: ReturnType<typeof only>, basis = BASIS): Pick<ReturnType<typeof partCost>, 'amount' | 'boughtWhole'> => {
      const { terms, boughtWhole } = partTerms(part, 3, basis);
      return { amount: sum(terms), boughtWhole };
    };
    for (const line of ['plate dc04 stamp 1 kg', 'plate dc04 1 kg', 'plate', '3x guide pom inj 40 g']) {
      const { amount, boughtWhole } = partCost(only(line), 3, BASIS);
      expect(quickly(only(line))).toEqual({ amount, boughtWhole });
    }
    const latch = { ...only('latch dc04 stamp 600 g'), ...BOUGHT };
    const ways = [
      latch,
      { ...latch, boughtPriceYear: 2023 },
      { ...only('latch dc04 stamp'), ...BOUGHT },
      { ...only('plate dc04 stamp 1 kg'), massEachKg: null },
      { ...only('plate dc04 stamp 1 kg'), materialId: null },
      { ...only('plate dc04 stamp 1 kg'), materialId: 'none such' },
      { ...only('plate dc04 stamp 1 kg'), processId: 'none such' },
    ];
    const amounts = ways.map((part) => [quickly(part), partCost(part, 3, BASIS)] as const);
    expect(amounts.map(([quick]) => quick.amount)).toEqual([7.4, null, 7.4, null, null, null, null]);
    for (const [quick, { amount, boughtWhole }] of amounts) expect(quick).toEqual({ amount, boughtWhole });
    expect(quickly(ways[0]!, { ...BASIS, priceYear: 2024 }).amount).toBeNull();
    expect(quickly(only('plate dc04 stamp 1 kg'), { ...BASIS, currency: 'USD' }).amount).toBeNull();
  });
  it('names what the catalogue does not know', () => {
    const plate = only('plate dc04 stamp 1 kg');
    const said = (part: typeof plate): readonly string[] => partCost(part, 1, BASIS).issues.map((i) => i.message);
    expect(said({ ...plate, materialId: 'none such' })).toEqual(['The catalogue has no material “none such”']);
    expect(said({ ...plate, processId: 'none such' })).toEqual(['The catalogue has no process “none such”']);
    expect(said({ ...plate, materialId: null, processId: null })).toEqual(['No material yet', 'Not said how it is made']);
    expect(said({ ...plate, massEachKg: null })).toEqual(['No mass yet']);
    expect(said(plate)).toEqual([]);
  });
  it('has no terms where it has no amount, and one where it is bought', () => {
    expect(partCost(only('plate'), 1, BASIS)).toMatchObject({ terms: [], boughtWhole: false });
    const latch = { ...only('latch'), ...BOUGHT };
    expect(partCost(latch, 1, BASIS)).toMatchObject({ terms: [{ label: 'Bought out', amount: 7.4 }], issues: [] });
    expect(partCost({ ...latch, boughtPriceYear: 2023 }, 1, BASIS)).toMatchObject({ terms: [], boughtWhole: true });
  });
  it('says one set of tools, and several sets', () => {
    const working = (perVehicle: number) => partCost(only('guide pom inj 40 g'), perVehicle, BASIS).terms[1]?.working;
    expect(working(1)).toMatch(/ EUR × 1 set ÷ 420000 parts over life$/);
    expect(working(4)).toMatch(/ EUR × 3 sets ÷ 1680000 parts over life$/);
  });
  it('says what is missing instead of guessing', () => {
    expect(partCost(only('plate'), 1, BASIS)).toMatchObject({
      amount: null,
      issues: [{ code: 'no-mass' }, { code: 'no-material' }, { code: 'no-process' }],
    });
  });
  it('takes the bought-out price where there is one', () => {
    const latch = { ...only('latch 600 g'), ...BOUGHT };
    expect(partCost(latch, 1, BASIS)).toMatchObject({ amount: 7.4, boughtWhole: true });
  });
  it('does not count a price of another year, volume or currency, and says why', () => {
    const latch = { ...only('latch 600 g'), ...BOUGHT, boughtCurrency: 'USD', boughtPriceYear: 2023 };
    const cost = partCost(latch, 1, BASIS);
    expect(cost.amount).toBeNull();
    expect(cost.issues[0]?.message).toMatch(/USD, not EUR; prices of 2023, not 2026/);
  });
  it('does not use the catalogue for a basis it was not made for', () => {
    expect(partCost(only('plate dc04 stamp 1 kg'), 1, { ...BASIS, priceYear: 2024 })).toMatchObject({
      amount: null,
      issues: [{ code: 'catalogue-basis' }],
    });
  });
  it('prices a fastener by its mass, and not at all without one', () => {
    const [screw, clip] = teardown('plate\n  1 M6x16 10 g\n  1 clip').fastenerSets;
    expect(screw && fastenerCost(screw, BASIS)).toBeCloseTo(0.015 + 4.2 * 0.01, 12);
    expect(clip && fastenerCost(clip, BASIS)).toBeNull();
  });
});

describe('the catalogue', () => {
  it('has about 25 materials and 12 processes, each with unit, year and source', () => {
    expect(MATERIALS.length).toBeGreaterThanOrEqual(25);
    expect(PROCESSES.length).toBeGreaterThanOrEqual(12);
    for (const entry of [...MATERIALS, ...PROCESSES])
      expect([entry.year, entry.source]).toEqual([expect.any(Number), expect.stringMatching(/assumed|memory/)]);
  });
  it('has no word that names two things', () => {
    const words = [...MATERIALS, ...PROCESSES].flatMap((entry) => [entry.id, ...entry.words]);
    expect(words.filter((word, i) => words.indexOf(word) !== i)).toEqual([]);
  });
});

/** @source rule of mixtures on specific volume from element and polymer densities, recomputed; tolerance 1 % */
describe('densities against the rule of mixtures', () => {
  it.each([
    ['aw-5754', 2660],
    ['aw-6082', 2693],
    ['alsi9cu3', 2751],
    ['alsi10mnmg', 2660],
    ['az91d', 1808],
    ['zamak-5', 6698],
    ['pa66-gf30', 1366],
    ['pp-gf30', 1122],
    ['pp-td20', 1045],
    ['pbt-gf30', 1533],
    ['pc-abs', 1143],
  ] as const)('%s is about %d kg/m³', (id, mixture) => {
    const material = MATERIALS.find((m) => m.id === id);
    expect(Math.abs((material?.densityKgPerM3 ?? 0) / mixture - 1)).toBeLessThan(0.01);
  });
});

describe('the roll-up of a study with its costs', () => {
  const record = recordOf(teardown('module\n  plate dc04 stamp 1 kg\n  2x guide pom inj 40 g\n    1 M6x16 10 g\nlatch'));
  it('adds up to the lines of the cost table', () => {
    const rollUp = studyRollUp(record);
    const key = subsystemKey(LEFT.id, DOOR.id);
    const lines = costLines(record, rollUp, key);
    const totals = totalsOf(rollUp.rolled, key);
    expect(lines.map((line) => [line.name, line.perVehicle])).toEqual([
      ['plate', 1],
      ['guide', 2],
      ['bolt, on guide', 2],
      ['latch', 1],
    ]);
    expect((totals?.cost.value ?? 0) + (totals?.fastenerCost.value ?? 0)).toBeCloseTo(
      lines.reduce((sum, line) => sum + (line.onVehicle ?? 0), 0),
      9,
    );
    expect(lines.at(-1)?.missing).toMatch(/No mass yet; No material yet/);
  });
  it('adds up to the lines under every counting rule', () => {
    const key = subsystemKey(LEFT.id, DOOR.id);
    for (const fastenersIn of [true, false]) {
      for (const assembliesAs of ['parts', 'one'] as const) {
        const held = recordOf(
          teardown('module\n  2 M8x20 12 g\n  plate dc04 stamp 1 kg\n    1 M6x16 10 g\narm dc04 stamp 2 kg\n  3 M6x16 10 g'),
        );
        const ruled = { ...held, study: { ...held.study, fastenersIn, assembliesAs } };
        const rollUp = studyRollUp(ruled);
        const totals = totalsOf(rollUp.rolled, key);
        const sum = costLines(ruled, rollUp, key).reduce((all, line) => all + (line.onVehicle ?? 0), 0);
        expect(sum).toBeCloseTo((totals && studyShown(totals, fastenersIn).cost) ?? Number.NaN, 9);
      }
    }
  });
  it('is the same worked out after an edit as worked out whole', () => {
    const guide = partNamed(record, 'guide');
    const edit = (fields: object) => ({ ...record, parts: record.parts.map((p) => (p.id === guide.id ? { ...p, ...fields } : p)) });
    const before = studyRollUp(record);
    for (const now of [edit({ massEachKg: 0.05 }), edit({ quantity: 5 }), edit({ parentId: null, subsystemId: DOOR.id })]) {
      expect(all(studyRollUpAfter(before, record, now, guide.id))).toEqual(all(studyRollUp(now)));
    }
    const ruled = { ...record, study: { ...record.study, assembliesAs: 'one' as const } };
    expect(all(studyRollUpAfter(before, record, ruled, null))).toEqual(all(studyRollUp(ruled)));
  });
  it('lists a bought assembly once, without what is inside it', () => {
    const bought = {
      ...record,
      parts: record.parts.map((p) => (p.name === 'module' ? { ...p, ...BOUGHT, boughtPrice: '5' } : p)),
    };
    const [module, latch, ...more] = costLines(bought, studyRollUp(bought), subsystemKey(LEFT.id, DOOR.id));
    expect(module).toMatchObject({ name: 'module', bought: 5, each: 5, onVehicle: 5, material: null, tooling: null, conversion: null });
    expect(latch).toMatchObject({ name: 'latch', each: null, onVehicle: null });
    expect(more).toEqual([]);
    // a price on another basis covers nothing: what is inside is costed as before
    const other = { ...bought, parts: bought.parts.map((p) => (p.name === 'module' ? { ...p, boughtPriceYear: 2020 } : p)) };
    const names = costLines(other, studyRollUp(other), subsystemKey(LEFT.id, DOOR.id)).map((line) => line.name);
    expect(names).toEqual(['plate', 'guide', 'bolt, on guide', 'latch']);
  });
  it('shows a line’s terms, its evidence, and why it has no cost', () => {
    const held = recordOf(teardown('2x plate dc04 stamp 1 kg\n  3 M6x16 10 g\n  2 clip'));
    const [plate, bolt, clip] = costLines(held, studyRollUp(held), subsystemKey(LEFT.id, DOOR.id));
    const { terms, amount } = partCost(partNamed(held, 'plate'), 2, BASIS);
    expect([plate?.material, plate?.tooling, plate?.conversion]).toEqual(terms.map((term) => term.amount));
    expect(plate).toMatchObject({ bought: null, each: amount, missing: '' });
    expect(plate?.onVehicle).toBeCloseTo(2 * amount!, 12);
    // by hand: 0.015 EUR each and 4.20 EUR a kg, six on the vehicle
    expect(bolt).toMatchObject({ perVehicle: 6, mark: 'M', missing: '' });
    expect(bolt?.onVehicle).toBeCloseTo(6 * (0.015 + 4.2 * 0.01), 12);
    expect(clip).toMatchObject({ perVehicle: 4, each: null, onVehicle: null, mark: null, missing: 'No mass to price it by' });
    const elsewhere = { ...held, study: { ...held.study, priceYear: 2024 } };
    const [, unpriced] = costLines(elsewhere, studyRollUp(elsewhere), subsystemKey(LEFT.id, DOOR.id));
    expect(unpriced).toMatchObject({
      each: null,
      mark: null,
      missing: expect.stringContaining('The catalogue is in EUR of 2026') as string,
    });
  });
  it('has no lines where nothing stands', () => {
    expect(costLines(record, studyRollUp(record), 'no such node')).toEqual([]);
  });
});
