import { EVEN_WEIGHTS, blankVehicle, type Candidate, type ReaderRequest } from '../../record';
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
  it('has no score where no weight is', () =>
    expect(choose([a], [], { requests: 0, gap: 0, novelty: 0, wait: 0, price: 0 }).ranked[0]!.score).toBeNull());
});

describe('warnings about the samples', () => {
  const vehicle = (n: number, fields: object) => ({ id: testId(n), version: 1, ...blankVehicle(`van ${n}`, 'competitor', n), ...fields });
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
  });
});
