import { blank } from '../../record';
import { packageId, plan } from '../../../testing/plan';
import { testId } from '../../../testing/teardown';
import { usualLiftSetUp, newLiftStep, massTyped, placeTyped, recordedAs, stepsFromPlan } from './lift-steps';

const VAN = testId(2);

describe('a vehicle put on a lift', () => {
  it('hangs half way between its axles on four pads around that point, known to 0.3 m until it is found', () => {
    const liftSetUp = usualLiftSetUp({ id: VAN, kerbMassKg: 2148, wheelbaseM: 3.275 });
    expect(liftSetUp).toMatchObject({ vehicleId: VAN, massKg: 2148, massUKg: 10, xM: 1.64, yM: 0, placeUM: 0.3, marginM: 0.15 });
    expect(liftSetUp?.pads.map(({ xM, yM }) => [xM, yM])).toEqual([[0.55, -0.75], [0.55, 0.75], [2.45, 0.75], [2.45, -0.75]]); // prettier-ignore
  });
  it('has a wheelbase of 3 m where none is known, and is not lifted with a mass nobody knows', () => {
    expect(usualLiftSetUp({ id: VAN, kerbMassKg: 2000, wheelbaseM: null })?.xM).toBe(1.5);
    expect(usualLiftSetUp({ id: VAN, kerbMassKg: null, wheelbaseM: 3 })).toBeNull();
  });
});

describe('a step', () => {
  it('takes a mass typed alone as good to a tenth, and keeps an uncertainty that was typed', () => {
    expect(massTyped({ massUKg: null }, 412)).toEqual({ massKg: 412, massUKg: 41 });
    expect(massTyped({ massUKg: 20 }, 412)).toEqual({ massKg: 412, massUKg: 20 });
    expect(massTyped({ massUKg: 20 }, null)).toEqual({ massKg: null, massUKg: null });
  });
  it('lies in the middle across until that is typed too', () => {
    expect(placeTyped({ xM: null, yM: null }, 'xM', 2.3)).toEqual({ xM: 2.3, yM: 0 });
    expect(placeTyped({ xM: 2.3, yM: 0 }, 'yM', -0.4)).toEqual({ xM: 2.3, yM: -0.4 });
    expect(placeTyped({ xM: 2.3, yM: -0.4 }, 'yM', null)).toEqual({ xM: null, yM: null });
  });
  it('stands for a subsystem, a part, or for nothing recorded', () => {
    const subsystems = [{ id: testId(5) }];
    expect(recordedAs(testId(5), subsystems)).toEqual({ partId: null, subsystemId: testId(5) });
    expect(recordedAs(testId(6), subsystems)).toEqual({ partId: testId(6), subsystemId: null });
    expect(recordedAs(null, subsystems)).toEqual({ partId: null, subsystemId: null });
  });
});

describe('steps taken from the plan', () => {
  const [door, seat, floor] = [testId(11), testId(12), testId(13)];
  const subsystems = [
    { id: door, version: 1, parentId: null, sequence: 0, name: 'Sliding door' },
    { id: seat, version: 1, parentId: null, sequence: 1, name: 'Seat' },
    { id: floor, version: 1, parentId: null, sequence: 2, name: 'Load floor' },
  ];
  const inside = (n: number, subsystemId: string, name: string) => ({
    ...{ id: testId(n), version: 1, ...blank('part', { vehicleId: VAN, subsystemId, parentId: null }), name },
  });
  const record = plan(
    'seat off | 4 | | | lift\ndoor off | 4 | | | lift\nfloor out | 4 | | | lift\ndoor apart | 4 | | | bay\ndoor twice | 4 | | | lift',
  );
  const of = [seat, door, floor, door, door];
  const packages = record.packages.map((p, i) => ({ ...p, vehicleId: VAN, subsystemId: of[i]! }));
  const parts = [inside(21, door, 'door'), inside(22, seat, 'frame'), inside(23, seat, 'cushion')];
  const startOf = new Map([3, 1, 2, 0, 5].map((start, n) => [packageId(n), start]));
  const from = (more: Partial<typeof record> = {}) => stepsFromPlan({ ...record, subsystems, packages, parts, ...more }, VAN, startOf);

  it('are what comes off on the lift, each subsystem once, in the order in which it starts', () =>
    expect(from().map(({ label, sequence }) => `${sequence} ${label}`)).toEqual(['0 Sliding door', '1 Load floor', '2 Seat']));
  it('bring the one part of a subsystem, the subsystem where it has several, and nothing where it has none', () =>
    expect(from().map(({ partId, subsystemId }) => [partId, subsystemId])).toEqual([[testId(21), null], [null, null], [null, seat]])); // prettier-ignore
  it('leave out what is done, what is not on the lift, another vehicle’s and what is there already', () => {
    expect(from({ packages: packages.map((p) => ({ ...p, doneOn: '2026-06-02' })) })).toEqual([]);
    expect(from({ packages: packages.map((p) => ({ ...p, place: 'bay' as const })) })).toEqual([]);
    expect(from({ packages: packages.map((p) => ({ ...p, vehicleId: testId(3) })) })).toEqual([]);
    const liftSteps = [{ id: testId(31), version: 1, ...newLiftStep(VAN, 'Seat', 4) }];
    expect(from({ liftSteps }).map(({ label, sequence }) => `${sequence} ${label}`)).toEqual(['5 Sliding door', '6 Load floor']);
  });
});
