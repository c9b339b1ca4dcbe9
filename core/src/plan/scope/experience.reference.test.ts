import { testId } from '../../../testing/teardown';
import { fitLine, predict, scopeExpectation, scopeOf, type Experience } from './experience';

describe('a straight line by least squares', () => {
  // mtcars of the R datasets (32 cars): mpg on weight has slope −5.344472 and intercept 37.285126, residual 3.046 on 30 degrees of freedom
  const WEIGHT = [2.62, 2.875, 2.32, 3.215, 3.44, 3.46, 3.57, 3.19, 3.15, 3.44, 3.44, 4.07, 3.73, 3.78, 5.25, 5.424, 5.345, 2.2, 1.615, 1.835, 2.465, 3.52, 3.435, 3.84, 3.845, 1.935, 2.14, 1.513, 3.17, 2.77, 3.57, 2.78]; // prettier-ignore
  const MPG = [21, 21, 22.8, 21.4, 18.7, 18.1, 14.3, 24.4, 22.8, 19.2, 17.8, 16.4, 17.3, 15.2, 10.4, 10.4, 14.7, 32.4, 30.4, 33.9, 21.5, 15.5, 15.2, 13.3, 19.2, 27.3, 26, 30.4, 15.8, 19.7, 15, 21.4]; // prettier-ignore
  const line = fitLine(WEIGHT.map((x, i) => [x, MPG[i]!] as const))!;
  it('agrees with R on mtcars', () => {
    expect(line.slope).toBeCloseTo(-5.344472, 6);
    expect(line.intercept).toBeCloseTo(37.285126, 6);
    expect(line.residual).toBeCloseTo(3.046, 3);
  });
  it('predicts a single case wider than its mean, and wider away from the middle', () => {
    // R: predict(lm(mpg ~ wt), wt = 3, interval = "prediction", level = 0.95) gives 21.25171 14.92987 27.57355, recalled
    const { value, half } = predict(line, 3, 0.95);
    expect(value).toBeCloseTo(21.25171, 5);
    expect(value - half!).toBeCloseTo(14.92987, 4);
    expect(predict(line, 6).half!).toBeGreaterThan(predict(line, 3).half!);
  });
  it('says nothing of a spread from two cases, and nothing at all from one', () => {
    expect(predict(fitLine([[1, 2], [3, 4]])!, 2)).toEqual({ value: 3, half: null }); // prettier-ignore
    expect(fitLine([[1, 2]])).toBeNull();
    expect(fitLine([[1, 2], [1, 4]])).toBeNull(); // prettier-ignore
  });
});

describe('what earlier studies let expect of a subsystem', () => {
  const case_ = (vehicle: string, subsystem: string, parts: number, hours: number | null): Experience => ({
    ...{ study: 'Vans of 2021', vehicle, subsystem, depth: 'parts', parts, peopleS: hours === null ? null : hours * 3600 },
  });
  const record = [
    case_('Drayman', 'Cab heater', 80, 8),
    case_('Pannier', 'Cab heater', 100, 10),
    case_('Drayman', 'Driver’s seat', 150, 15),
    case_('Pannier', 'Charger box', 60, null),
  ];
  const scope = { depth: 'parts', expectedParts: null, expectedS: null } as const;
  it('is the mean of the parts and a line from parts to hours', () => {
    const found = scopeExpectation('cab heater', scope, record);
    // mean of 80 and 100; ± t(1, 0.9) s √1.5 = 3.0777 · 14.142 · 1.2247 = 53.3
    expect([found.parts, found.learntParts?.low, found.learntParts?.high, found.learntParts?.cases]).toEqual([90, 37, 143, 2]);
    // the three cases lie on a line of 0.1 h a part
    expect(found.peopleS! / 3600).toBeCloseTo(9, 6);
    expect(found.learntTime?.cases).toBe(3);
  });
  it('gives way to what a person types', () => {
    const found = scopeExpectation('Cab heater', { ...scope, expectedParts: 120, expectedS: 7200 }, record);
    expect([found.parts, found.peopleS]).toEqual([120, 7200]);
    expect(found.learntTime!.value / 3600).toBeCloseTo(12, 6);
  });
  it('says where it comes from, each vehicle once, by a name however it is spelled', () => {
    const spelled = [
      ...record,
      { ...record[0]!, subsystem: ' CAB heater ' },
      { ...record[0]!, depth: 'module', parts: 1 },
      { ...record[1]!, depth: null },
    ];
    const { learntParts, learntTime } = scopeExpectation(' Cab Heater', scope, spelled);
    expect(learntParts).toMatchObject({ cases: 4, value: 90, basis: '“ Cab Heater” of Drayman (Vans of 2021), Pannier (Vans of 2021)' });
    expect(learntTime?.basis).toBe('a line through 6 subsystems of earlier studies');
  });
  it('scatters by nothing that one case could tell, and never below none', () => {
    const one = scopeExpectation('Driver’s seat', scope, record);
    expect([one.learntParts?.value, one.learntParts?.low, one.learntParts?.high]).toEqual([150, null, null]);
    const apart = [case_('a', 'x', 1, null), case_('b', 'x', 200, null)];
    expect(scopeExpectation('x', scope, apart).learntParts?.low).toBe(0);
    // a module is not taken to parts: earlier counts of parts say nothing of it
    expect(scopeExpectation('Cab heater', { ...scope, depth: 'module' }, record).learntParts).toBeNull();
    // a line that runs below nothing predicts nothing
    const steep = [case_('a', 'x', 100, 1), case_('b', 'x', 200, 11)];
    expect(scopeExpectation('y', { ...scope, expectedParts: 50 }, steep).learntTime).toBeNull();
    expect(scopeExpectation('y', { ...scope, expectedParts: 90 }, steep).learntTime).toBeNull();
    expect(scopeExpectation('y', { ...scope, expectedParts: 91 }, steep).learntTime!.value).toBeCloseTo(360, 6);
    expect(scopeExpectation('y', scope, steep)).toMatchObject({ parts: null, learntTime: null });
    expect(scopeExpectation('y', { ...scope, expectedParts: 91, depth: 'closed' }, steep).learntTime).toBeNull();
  });
  it('is kept by vehicle and subsystem', () => {
    const kept = (n: number, vehicleId: string, subsystemId: string) => ({
      ...{ id: testId(n), version: 1, vehicleId, subsystemId, depth: 'parts' as const, reason: '', expectedParts: null, expectedS: null },
    });
    const scopes = [kept(1, 'v', 'a'), kept(2, 'w', 'a'), kept(3, 'v', 'b')];
    expect([...scopeOf({ scopes }, 'v')].map(([id, s]) => [id, s.id])).toEqual([['a', testId(1)], ['b', testId(3)]]); // prettier-ignore
  });
  it('is nothing where no study holds the like, and none for what stays closed', () => {
    expect(scopeExpectation('Load floor', scope, record)).toMatchObject({ parts: null, peopleS: null });
    expect(scopeExpectation('Cab heater', { ...scope, depth: 'closed' }, record).peopleS).toBeNull();
  });
});
