import { readReading, type ToldReading } from '../read-line';
import { BENCH_SCALE, FLOOR_SCALE, alloyAnalyser, caliper, camera, meshScanner, scale, torqueDriver, type StandIn } from './device-kinds';

/** The same chances at every run. @source Park & Miller 1988, the minimal standard generator */
const chances = (seed: number): (() => number) => {
  let state = seed;
  return () => (state = (state * 48271) % 2147483647) / 2147483647;
};
const TICK_MS = 100;
/** What a device tells in so many ticks from a moment on. */
const told = (device: StandIn, fromMs: number, ticks: number): readonly ToldReading[] =>
  Array.from({ length: ticks }, (_, i) => device.tick(fromMs + i * TICK_MS)).flatMap((line) => {
    const read = line === null ? null : readReading(line.trim());
    if (line !== null && read === null) throw new Error(`not understood: ${line}`);
    return read ? [read] : [];
  });
const mean = (values: readonly number[]): number => values.reduce((sum, v) => sum + v / values.length, 0);

describe('the scale that comes with the program', () => {
  it('moves, then stands still at what lies on it, within its own uncertainty', () => {
    const device = scale(BENCH_SCALE, chances(7));
    told(device, 0, 20);
    expect(device.answer('SIM:LOAD', ['0.1874'])).toBeNull();
    const after = told(device, 2000, 60);
    expect(after[0]).toMatchObject({ stable: false });
    const still = after.filter((r) => r.stable);
    expect(still.length).toBeGreaterThan(30);
    const values = still.slice(-30).map((r) => r.value!);
    expect(Math.abs(mean(values) - 0.1874)).toBeLessThan(0.0002);
    for (const r of still) expect(Math.abs(r.value! - 0.1874)).toBeLessThan(4 * r.u!);
    // it reads in whole steps
    for (const value of values) expect(Math.abs(value / BENCH_SCALE.stepKg - Math.round(value / BENCH_SCALE.stepKg))).toBeLessThan(1e-6);
  });
  it('does not come to rest under what swings', () => {
    const device = scale(BENCH_SCALE, chances(11));
    device.answer('SIM:LOAD', ['0.1874', '0.02']);
    expect(told(device, 0, 100).filter((r) => r.stable)).toEqual([]);
    device.answer('SIM:LOAD', ['0.1874']);
    expect(told(device, 10_000, 60).at(-1)).toMatchObject({ stable: true });
  });
  it('is overloaded above its most, and has then no value', () => {
    const device = scale(BENCH_SCALE, chances(3));
    device.answer('SIM:LOAD', ['18.4']);
    for (const r of told(device, 0, 40)) expect(r).toMatchObject({ overload: true, value: null, stable: false });
    expect(device.answer('TARE', [])).not.toBeNull();
  });
  it('tares what lies on it when it stands still, and only then', () => {
    const device = scale(BENCH_SCALE, chances(5));
    device.answer('SIM:LOAD', ['0.5']);
    told(device, 0, 2);
    expect(typeof device.answer('TARE', [])).not.toBe('string');
    expect(device.answer('TARE', [])).not.toBeNull();
    told(device, 200, 60);
    expect(device.answer('TARE', [])).toBeNull();
    device.answer('SIM:LOAD', ['0.7']);
    const last = told(device, 7000, 60).at(-1)!;
    expect(last.value).toBeCloseTo(0.2, 3);
    expect(last.tare).toBeCloseTo(0.5, 3);
    expect(device.answer('TARE:CLE', [])).toBeNull();
    expect(told(device, 14_000, 3).at(-1)?.value).toBeCloseTo(0.7, 3);
  });
  it('is set to zero near zero only: what lies on it is not hidden so', () => {
    const device = scale(BENCH_SCALE, chances(9));
    device.answer('SIM:LOAD', ['1']);
    told(device, 0, 60);
    expect(device.answer('ZERO', [])).not.toBeNull();
    device.answer('SIM:LOAD', ['0']);
    told(device, 7000, 80);
    expect(device.answer('ZERO', [])).toBeNull();
  });
  it.each([
    [[], 'no load'],
    [['heavy'], 'a word'],
    [['-1'], 'less than nothing'],
    [['1e9'], 'more than a house'],
  ])('refuses %j as a load: %s', (args) => expect(scale(FLOOR_SCALE, chances(1)).answer('SIM:LOAD', args)).not.toBeNull());
  it('knows nothing of what is not its own', () => expect(scale(BENCH_SCALE, chances(1)).answer('SIM:GAP', ['1'])).toBeUndefined());
});

describe('the other devices that come with the program', () => {
  it('a caliper says nothing until its jaws hold something, and tells it with the step of its scale', () => {
    const device = caliper(chances(11));
    expect(told(device, 0, 5)).toEqual([]);
    expect(device.answer('SIM:GAP', ['0.00082'])).toBeNull();
    const read = told(device, 500, 30);
    expect(read.slice(0, 3).some((r) => !r.stable)).toBe(true);
    const still = read.filter((r) => r.stable).map((r) => r.value!);
    expect(mean(still)).toBeCloseTo(0.00082, 5);
    expect(device.answer('SIM:GAP', ['0.4'])).not.toBeNull();
  });
  it('a torque driver tells each screw once, near its torque, and counts them', () => {
    const device = torqueDriver(chances(13));
    expect(device.answer('SIM:TURN', ['12', '9.5'])).toBeNull();
    const read = told(device, 0, 40);
    expect(read).toHaveLength(12);
    expect(mean(read.map((r) => r.value!))).toBeCloseTo(9.5, 0);
    expect(device.answer('COUN?', [])).toBe('12');
    expect(device.answer('COUN:CLE', [])).toBeNull();
    expect(device.answer('COUN?', [])).toBe('0');
    device.answer('SIM:TURN', ['1', '350']);
    expect(told(device, 9000, 3)).toMatchObject([{ overload: true, value: null }]);
  });
  it('an analyser does not see carbon, and errs with the root of what it counts', () => {
    const device = alloyAnalyser(chances(17));
    expect(device.answer('INIT', [])).not.toBeNull();
    expect(device.answer('SIM:ALLOY', ['Fe', '0.985', 'C', '0.0045', 'Mn', '0.0065'])).toBeNull();
    const shots = Array.from({ length: 200 }, (_, i) => {
      told(device, i * 4000, 1);
      device.answer('INIT', []);
      return told(device, i * 4000 + 100, 30)[0]!;
    });
    expect(Object.keys(shots[0]!.elements!)).toEqual(['Fe', 'Mn']);
    const manganese = shots.map((s) => s.elements!.Mn!);
    const spread = Math.sqrt(mean(manganese.map((m) => (m.fraction - 0.0065) ** 2)));
    // it says of itself how much it errs, and does
    expect(spread / manganese[0]!.u).toBeGreaterThan(0.85);
    expect(spread / manganese[0]!.u).toBeLessThan(1.15);
    expect(manganese[0]!.u).toBeLessThan(shots[0]!.elements!.Fe!.u);
  });
  it.each([[['Fe']], [['iron', '0.9']], [['Fe', '1.2']], [[]]])('an analyser refuses the sample %j', (args) =>
    expect(alloyAnalyser(chances(1)).answer('SIM:ALLOY', args)).not.toBeNull(),
  );
  it('a scanner makes its file once it was triggered, and has none before', async () => {
    const device = meshScanner();
    const none = device.answer('DATA?', []);
    device.tick(0);
    expect(device.answer('*TRG', [])).toBeNull();
    expect(device.tick(1000)).toBeNull();
    device.tick(1600);
    await new Promise((done) => setImmediate(done));
    const read = told(device, 1700, 1);
    // a box of twelve triangles as binary STL
    expect(read).toMatchObject([{ seq: 1, value: 84 + 12 * 50 }]);
    expect(device.answer('DATA?', [])).not.toEqual(none);
    expect(told(device, 1800, 5)).toEqual([]);
  });
  it('a camera makes another picture each time', async () => {
    const device = camera();
    const sizes: number[] = [];
    for (let shot = 0; shot < 2; shot++) {
      device.tick(shot * 2000);
      device.answer('*TRG', []);
      device.tick(shot * 2000 + 600);
      for (let wait = 0; wait < 400 && sizes.length === shot; wait++) {
        await new Promise((done) => setTimeout(done, 10));
        for (const r of told(device, shot * 2000 + 700, 1)) sizes.push(r.value!);
      }
    }
    expect([sizes.length, sizes[0] !== sizes[1]]).toEqual([2, true]);
  });
});
