import { blank, EVEN_WEIGHTS, type Candidate, type ReaderRequest } from '../../record';
import { STUDY, testId } from '../../../testing/teardown';
import { chooseVehicle, likenessFraction, type HeldVehicle } from './choose-vehicle';
import { passportDoubts, sampleWarnings } from './sample-warnings';

const candidate = (n: number, fields: Partial<Candidate>): Candidate => ({
  ...{ id: testId(n), version: 1, sequence: n, name: `van ${n}`, maker: '', modelYear: null, vehicleClass: null, drive: null },
  ...{ voltageV: null, novelty: null, noveltyNote: '', waitDays: null, price: null, priceCurrency: null, priceYear: null },
  ...{ note: '', vehicleId: null },
  ...fields,
});
const asks = (n: number, of: Candidate, strength: number): ReaderRequest => ({
  ...{ id: testId(50 + n), version: 1, candidateId: of.id, sequence: n, who: 'the body group', strength, asks: '' },
});
const paid = (price: string) => ({ price, priceCurrency: 'EUR', priceYear: 2026 });
const held: HeldVehicle = {
  ...{ name: 'Drayman', study: 'Vans of 2021', vehicleClass: 'medium van', drive: 'front wheels', voltageV: 400, modelYear: 2021 },
};
const choose = (
  candidates: readonly Candidate[],
  requests: readonly ReaderRequest[],
  choiceWeights = EVEN_WEIGHTS,
  of: readonly HeldVehicle[] = [held],
) => chooseVehicle({ candidates, requests, study: { ...STUDY, choiceWeights } }, of);

describe('what an earlier study already says of a candidate', () => {
  it('is a quarter each for class, drive, voltage and year', () => {
    expect(likenessFraction(held, held)).toBe(1);
    // same class, drive and voltage class, five of ten years apart
    expect(likenessFraction({ ...held, modelYear: 2026, voltageV: 360 }, held)).toBe(0.875);
    expect(likenessFraction({ ...held, voltageV: 800 }, held)).toBe(0.75);
    expect(likenessFraction({ vehicleClass: null, drive: null, voltageV: null, modelYear: null }, held)).toBe(0);
  });
  it('does not count what neither is known of as alike, but two without high voltage are', () => {
    const unknown = { vehicleClass: null, drive: null, voltageV: null, modelYear: null };
    expect(likenessFraction(unknown, unknown)).toBe(0.25);
    expect(likenessFraction({ ...unknown, voltageV: 400 }, unknown)).toBe(0);
    expect(likenessFraction(unknown, { ...unknown, voltageV: 400 })).toBe(0);
    // 500 to 400 is a quarter more, and still of one class
    expect(likenessFraction({ ...unknown, voltageV: 500 }, { ...unknown, voltageV: 400 })).toBe(0.25);
    expect(likenessFraction({ ...unknown, voltageV: 501 }, { ...unknown, voltageV: 400 })).toBe(0);
    expect(likenessFraction({ ...unknown, modelYear: 2026, voltageV: 1 }, { ...unknown, modelYear: null })).toBe(0);
    expect(likenessFraction({ ...unknown, modelYear: 2001, voltageV: 1 }, { ...unknown, modelYear: 2026 })).toBe(0);
  });
  it('takes the most alike of all that were studied, the first of two that are equally so', () => {
    const [far, near] = [
      { ...held, name: 'far', modelYear: 2011 },
      { ...held, name: 'near' },
    ];
    const like = candidate(1, { vehicleClass: 'medium van', drive: 'front wheels', voltageV: 400, modelYear: 2021 });
    const nearest = (of: readonly HeldVehicle[]) => choose([like], [], EVEN_WEIGHTS, of).ranked[0]!.nearest;
    expect(nearest([far, near])?.held.name).toBe('near');
    expect(nearest([near, far])?.held.name).toBe('near');
    expect(nearest([near, { ...near, name: 'as near' }])?.held.name).toBe('near');
    expect(nearest([])).toBeNull();
  });
});

describe('the ranking of candidates', () => {
  // worked by hand with the weights 30, 25, 20, 10, 15:
  // A: requests 8 → 1; gap 1 − 0.875 = 0.125; novelty 0.6; wait 20 of 20…60 → 1; price 48 of 42…48 → 0: score (30 + 3.125 + 12 + 10 + 0) / 100
  // B: requests 3 → 0; gap 1 − 0.125 = 0.875; novelty 0.9; wait 60 → 0; price 42 → 1: score (0 + 21.875 + 18 + 0 + 15) / 100
  const a = candidate(1, {
    vehicleClass: 'medium van',
    drive: 'front wheels',
    voltageV: 400,
    modelYear: 2026,
    novelty: 6,
    waitDays: 20,
    ...paid('48000'),
  });
  const b = candidate(2, {
    vehicleClass: 'small van',
    drive: 'rear wheels',
    voltageV: 800,
    modelYear: 2026,
    novelty: 9,
    waitDays: 60,
    ...paid('42000'),
  });
  const requests = [asks(1, a, 5), asks(2, a, 3), asks(3, b, 3)];
  it('weighs requests, gap, novelty, wait and price', () => {
    const { ranked } = choose([b, a], requests);
    expect(ranked.map((r) => r.candidate.name)).toEqual(['van 1', 'van 2']);
    expect(ranked.map((r) => r.score!.toFixed(5))).toEqual(['0.55125', '0.54875']);
    expect(ranked[0]!.nearest?.held.name).toBe('Drayman');
  });
  it('says the smallest change of each weight that changes the order', () => {
    const { flips } = choose([a, b], requests);
    const novelty = flips.find((f) => f.criterion === 'novelty')!;
    expect([novelty.from, novelty.to, novelty.firstId]).toEqual([20, 21, b.id]);
    const flipped = choose([a, b], requests, { ...EVEN_WEIGHTS, novelty: novelty.to });
    expect(flipped.ranked[0]!.candidate.id).toBe(b.id);
  });
  it('leaves out what is not known, and says what it could do', () => {
    const c = candidate(3, { novelty: 9 });
    const { ranked } = choose([a, c], [asks(1, a, 5)]);
    const found = ranked.find((r) => r.candidate.id === c.id)!;
    expect(found.marks.find((m) => m.criterion === 'price')!.mark).toBeNull();
    expect(found.lowest).toBeLessThan(found.score!);
    expect(found.highest).toBeGreaterThan(found.score!);
  });
  it('does not rank prices of different years or currencies', () => {
    const old = candidate(4, { ...paid('30000'), priceYear: 2022 });
    const { issues, ranked } = choose([a, old], []);
    expect(issues[0]?.message).toContain('EUR 2026 and EUR 2022');
    expect(ranked[0]!.marks.find((m) => m.criterion === 'price')!.mark).toBeNull();
  });
  it('knows no gap of a candidate of which nothing is known, and all of it where nothing was studied', () => {
    const gap = (fields: Partial<Candidate>, of: readonly HeldVehicle[] = [held]) =>
      choose([candidate(1, fields)], [], EVEN_WEIGHTS, of).ranked[0]!.marks.find((m) => m.criterion === 'gap')!.mark;
    expect(gap({})).toBeNull();
    expect(gap({ vehicleClass: 'medium van' })).toBe(0.75);
    expect(gap({ drive: 'front wheels' })).toBe(0.75);
    expect(gap({ modelYear: 2021 })).toBe(0.75);
    expect(gap({ modelYear: 2021 }, [])).toBe(1);
  });
  it('gives a full mark where all are alike, and marks the dearest 0', () => {
    const marks = (prices: readonly string[]) =>
      choose(
        prices.map((price, n) => candidate(n + 1, paid(price))),
        [],
      ).ranked.map((r) => [r.candidate.price, r.marks.find((m) => m.criterion === 'price')!.mark]);
    expect(marks(['30000', '30000'])).toEqual([['30000', 1], ['30000', 1]]); // prettier-ignore
    expect(Object.fromEntries(marks(['30000', '40000', '50000']))).toEqual({ 30000: 1, 40000: 0.5, 50000: 0 });
  });
  it('stands in the order they were entered where scores are the same, and those without a score last', () => {
    const none = { requests: 0, gap: 0, novelty: 1, wait: 0, price: 0 };
    const names = (list: readonly Candidate[]) => choose(list, [], none).ranked.map((r) => r.candidate.name);
    const [x, y, z] = [candidate(3, { novelty: 5 }), candidate(1, { novelty: 5 }), candidate(2, {})];
    expect(names([x, y, z])).toEqual(['van 1', 'van 3', 'van 2']);
    expect(names([z, x, y])).toEqual(['van 1', 'van 3', 'van 2']);
    // of one place in the order the id decides, so that everybody sees the same
    const twins = [candidate(8, { novelty: 5, sequence: 0 }), candidate(7, { novelty: 5, sequence: 0 })];
    expect(names(twins)).toEqual(['van 7', 'van 8']);
    expect(names([...twins].reverse())).toEqual(['van 7', 'van 8']);
  });
  it('holds the score between what is unknown at its worst and at its best', () => {
    // by hand: novelty 5 of 10 is 0.5 of weight 1; the price, of weight 1, is not evidence: (0.5 + 0) / 2 to (0.5 + 1) / 2
    const even = { requests: 0, gap: 0, novelty: 1, wait: 0, price: 1 };
    const found = choose([candidate(1, { novelty: 5 }), candidate(2, { novelty: 9, ...paid('1') })], [], even).ranked.find(
      (r) => r.candidate.name === 'van 1',
    )!;
    expect([found.score, found.lowest, found.highest]).toEqual([0.5, 0.25, 0.75]);
  });
  it('has nothing to change where there is one candidate, or one that is best at everything', () => {
    expect(choose([a], requests).flips).toEqual([]);
    expect(choose([], []).flips).toEqual([]);
    const best = candidate(5, { novelty: 9, waitDays: 1, ...paid('1'), modelYear: 2026, vehicleClass: 'large van', drive: 'rear wheels' });
    const worst = candidate(6, {
      novelty: 1,
      waitDays: 9,
      ...paid('9'),
      modelYear: 2021,
      vehicleClass: 'medium van',
      drive: 'front wheels',
    });
    expect(choose([best, worst], [asks(1, best, 5)]).flips).toEqual([]);
  });
  it('finds the weight below as well as above, down to none at all', () => {
    // by hand: A leads by requests alone. With requests r against novelty 20: A r·1 + 20·0.5 beats B 20·0.8 while r > 6
    const only = { requests: 30, gap: 0, novelty: 20, wait: 0, price: 0 };
    const [x, y] = [candidate(1, { novelty: 5 }), candidate(2, { novelty: 8 })];
    const { flips } = choose([x, y], [asks(1, x, 5)], only);
    const down = flips.find((f) => f.criterion === 'requests')!;
    expect([down.from, down.firstId]).toEqual([30, y.id]);
    expect(down.to).toBeLessThanOrEqual(6);
    expect(down.to).toBeGreaterThan(5);
    // and novelty above 100: 0.3 more of it outweighs 30
    const up = flips.find((f) => f.criterion === 'novelty')!;
    expect(up.to).toBeGreaterThan(99);
    expect(up.to).toBeLessThan(102);
  });
  it('does not count a candidate without a price as one on another basis', () =>
    expect(choose([a, candidate(9, {})], []).issues).toEqual([]));
  it('has no score where no weight is', () =>
    expect(choose([a], [], { requests: 0, gap: 0, novelty: 0, wait: 0, price: 0 }).ranked[0]!.score).toBeNull());
});

describe('warnings about the samples', () => {
  const vehicle = (n: number, fields: object) => ({
    id: testId(n),
    version: 1,
    ...blank('vehicle', { name: `van ${n}`, role: 'competitor', sequence: n }),
    ...fields,
  });
  const codes = (vehicles: readonly ReturnType<typeof vehicle>[]) =>
    sampleWarnings({ vehicles }, (f) => f).map((i) => `${i.recordId === testId(2) ? 2 : 1} ${i.code}`);
  const whole = {
    ...{
      kerbMassKg: 2000,
      powerW: 1e5,
      batteryJ: 2e8,
      voltageV: 400,
      rangeM: 3e5,
      consumptionJPerM: 800,
      turningCircleM: 12,
      wheelbaseM: 3,
      trackM: 1.6,
    },
    acquiredOn: '2026-05-01',
  };
  it('question a figure that no vehicle has, and say what it may be', () => {
    const of = (fields: object): readonly string[] =>
      passportDoubts({ ...vehicle(1, whole), ...fields }, (f) => f).map((i) => `${i.field ?? ''}: ${i.message}`);
    expect(of({})).toEqual([]);
    expect(of({ wheelbaseM: 0.00242 })[0]).toMatch(
      /wheelbaseM: .*2\.42 mm, but vehicles have 1\D?200 mm to 7\D?500 mm\. Is it 2\D?420 mm\?/u,
    );
    expect(of({ kerbMassKg: 2 })[0]).toMatch(/Is it 2\D?000 kg\?/u);
    expect(of({ trackM: 3.2 })[0]).toContain('trackM');
    expect(of({ wheelbaseM: 1.6, trackM: 2.5 })[0]).toContain('swapped');
    // 75 kWh at 20 kWh/100 km go 375 km, not 800
    expect(of({ batteryJ: 2.7e8, consumptionJPerM: 720, rangeM: 375_000 })).toEqual([]);
    expect(of({ batteryJ: 2.7e8, consumptionJPerM: 720, rangeM: 800_000 })[0]).toContain('reaches 375 km, its range is 800 km');
    expect(of({ kerbMassKg: null, wheelbaseM: null, rangeM: null })).toEqual([]);
    // each slip of a unit by the power of ten it is likely to be
    const meant = (field: string, value: number): string =>
      /Is it (.*)\?/.exec(of({ [field]: value })[0] ?? '')?.[1]?.replace(/\D(?=\d{3})/, '') ?? '';
    expect(meant('turningCircleM', 1200)).toBe('12 m');
    expect(meant('wheelbaseM', 0.3)).toBe('3000 mm');
    expect(meant('wheelbaseM', 300)).toBe('3000 mm');
    expect(meant('wheelbaseM', 30)).toBe('3000 mm');
    expect(meant('wheelbaseM', 3000)).toBe('3000 mm');
    expect(of({ kerbMassKg: 1e9 })[0]).not.toContain('Is it');
    // the ends of the range are sensible themselves
    expect(of({ wheelbaseM: 7.5, rangeM: null })).toEqual([]);
    expect(of({ wheelbaseM: 1.7, trackM: 0.9, rangeM: null })).toEqual([]);
    expect(of({ wheelbaseM: 1.6, trackM: 1.6 })[0]).toContain('swapped');
    expect(of({ wheelbaseM: 1.6, trackM: null })).toEqual([]);
    // one doubt is enough: what follows from a wrong figure is not said too
    expect(of({ wheelbaseM: 0.00242, rangeM: 2e6 })).toHaveLength(1);
    // as far as losses and reserve may explain, and no farther
    expect(of({ batteryJ: 3.2e8, consumptionJPerM: 1000, rangeM: 200_000 })).toEqual([]);
    expect(of({ batteryJ: 3.3e8, consumptionJPerM: 1000, rangeM: 200_000 })).toHaveLength(1);
    expect(of({ batteryJ: 3.3e8, consumptionJPerM: null, rangeM: 200_000 })).toEqual([]);
  });
  it('come for samples built more than a year apart, not for 364 days', () => {
    const [a, b] = [vehicle(1, { ...whole, builtOn: '2025-01-10' }), vehicle(2, { ...whole, builtOn: '2026-02-11' })];
    expect(codes([a, b])).toEqual(['2 built-apart']);
    expect(codes([a, { ...b, builtOn: '2026-01-09' }])).toEqual([]);
    // an earlier model is meant to be older
    expect(codes([a, { ...b, role: 'earlier' }])).toEqual([]);
  });
  it('come for a changed, worn or used sample, another variant and missing figures', () => {
    const subject = vehicle(1, { ...whole, builtOn: '2026-01-01', role: 'subject', variant: 'long, high roof' });
    const odd = vehicle(2, {
      ...whole,
      builtOn: '2026-01-01',
      variant: 'short',
      changes: 'other tyres',
      wear: 'dented sill',
      odometerM: 4.2e7,
      rangeM: null,
    });
    expect(codes([subject, odd])).toEqual(['2 variant-mismatch', '2 modified', '2 worn', '2 used', '2 headline-missing']);
    const messages = sampleWarnings(
      { vehicles: [subject, { ...odd, changes: ' other tyres ', wear: ' dented sill ', variant: ' short ' }] },
      (f) => `The ${f}`,
    ).map((i) => i.message.replace(/[\u00a0\u202f]/gu, ' '));
    expect(messages[0]).toContain('van 2 is the variant “short”, van 1 “long, high roof”');
    expect(messages[1]).toContain('(other tyres): mark these parts');
    expect(messages[2]).toContain('(dented sill): masses');
    expect(messages[3]).toContain('has run 42 000 km');
    expect(messages[4]).toBe('van 2 has no the rangem: comparisons per these figures stay empty');
    // the same variant, another spelling; none said; blanks; no farther than ten thousand kilometres
    const same = { ...whole, builtOn: '2026-01-01' };
    for (const variant of ['Long, HIGH roof', '', '  ']) expect(codes([subject, vehicle(2, { ...same, variant })])).toEqual([]);
    expect(codes([{ ...subject, variant: '  ' }, vehicle(2, { ...same, variant: 'short' })])).toEqual([]);
    expect(codes([vehicle(1, { ...same, changes: ' ', wear: ' ', odometerM: 1e7 })])).toEqual([]);
    expect(codes([vehicle(1, { ...same, odometerM: null })])).toEqual([]);
  });
  it('come for a sample without a build date, and for one that is neither there nor expected', () => {
    expect(codes([vehicle(1, { ...whole, builtOn: null })])).toEqual(['1 no-build-date']);
    expect(codes([vehicle(1, { ...whole, builtOn: '2026-01-01', acquiredOn: null })])).toEqual(['1 no-arrival']);
    expect(codes([vehicle(1, { ...whole, builtOn: '2026-01-01', acquiredOn: null, expectedOn: '2027-01-01' })])).toEqual([]);
    // one date says nothing of how far apart two were built
    expect(codes([vehicle(1, { ...whole, builtOn: null }), vehicle(2, { ...whole, builtOn: '2020-01-01' })])).toEqual(['1 no-build-date']);
  });
  it('say how many months lie between, to the nearest', () => {
    const [x, y] = [vehicle(1, { ...whole, builtOn: '2024-01-15' }), vehicle(2, { ...whole, builtOn: '2026-01-01' })];
    expect(sampleWarnings({ vehicles: [x, y] }, (f) => f)[0]?.message).toContain('were built 24 months apart');
    expect(codes([{ ...x, role: 'earlier' }, y])).toEqual([]);
  });
});
