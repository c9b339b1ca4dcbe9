import { blank, evidence, type BoardDuty } from '../../record';
import { testId } from '../../../testing/teardown';
import { figureRows } from '../systems/figure-rows';
import { BOARD_DUTY_WORDS, boardDutyDifference, boardDutyReport, dischargeS, layerKPerW, storedJ, viasKPerW } from './board-duty';

const duty = (fields: Partial<BoardDuty>): BoardDuty => ({
  ...{ id: testId(1), version: 1, ...blank('boardDuty', { partId: testId(2), name: 'as recorded', isWhatIf: false }) },
  ...fields,
});

describe('what a board has to do', () => {
  it('20 mV over 0.1 mΩ are 200 A; 80 A and −30 A leave −50 A in the third phase', () => {
    const { values, lines } = boardDutyReport(duty({ shuntOhm: 1e-4, shuntV: 0.02, phaseOneA: 80, phaseTwoA: -30 }));
    expect([values.shuntA, values.thirdA]).toEqual([expect.closeTo(200, 9), -50]);
    expect(lines.map(({ word, text, formula }) => [word, text, formula])).toEqual([
      ['Shunt', '200 A', '20.00 mV / 0.100 mΩ'],
      ['Phase 3', '−50.0 A', '−(80.0 A + −30.0 A), no neutral'],
    ]);
  });
  it('three sine currents a third of a turn apart add up to nothing at every moment', () => {
    for (const angle of [0, 0.4, 1.7, 4]) {
      const at = (phase: number): number => 100 * Math.sin(angle + (phase * 2 * Math.PI) / 3);
      const { values } = boardDutyReport(duty({ phaseOneA: at(0), phaseTwoA: at(1) }));
      expect(values.thirdA).toBeCloseTo(at(2), 9);
    }
  });
  // worked out by hand: ½ · 600 µF · 400² = 48 J; 30 kΩ · 600 µF = 18 s, ln(400/60) = 1.897120
  it('600 µF at 400 V hold 48 J and come down to 60 V through 30 kΩ in 34.1 s', () => {
    expect(storedJ(6e-4, 400)).toBeCloseTo(48, 12);
    expect(dischargeS(6e-4, 30_000, 400, 60)).toBeCloseTo(34.14816, 4);
    expect(dischargeS(6e-4, 30_000, 48, 60)).toBe(0);
    // one time constant leaves 1/e of the voltage
    expect(dischargeS(6e-4, 30_000, 400, 400 / Math.E)).toBeCloseTo(18, 9);
  });
});

describe('the way of the heat', () => {
  // worked out by hand: barrel of 0.30 mm with 25 µm plating: π/4 (0.30² − 0.25²) = 0.0215984 mm² of copper
  it('a via of 0.3 mm with 25 µm of copper through 1.6 mm has 192.4 K/W, a hundred of them a hundredth', () => {
    expect(viasKPerW(1, 3e-4, 2.5e-5, 1.6e-3, 385)).toBeCloseTo(192.414, 3);
    expect(viasKPerW(100, 3e-4, 2.5e-5, 1.6e-3, 385)).toBeCloseTo(1.92414, 5);
  });
  // a shell is a flat layer when it is thin: ln(r2/r1)/(2 π k L) → t/(k A); 10/15 mm, k 0.2, 1 m: 0.322659 K/W, closed form
  it('a layer tends to the shell of a cylinder as it gets thin', () => {
    const shell = (inner: number, outer: number): number => Math.log(outer / inner) / (2 * Math.PI * 0.2);
    expect(shell(0.01, 0.015)).toBeCloseTo(0.322659, 6);
    const [r, t] = [0.01, 1e-6];
    expect(layerKPerW(t, 2 * Math.PI * (r + t / 2), 0.2) / shell(r, r + t)).toBeCloseTo(1, 8);
  });
  const whole = duty({
    ...{ lossW: 40, sinkC: 60, limitC: 150, viaCount: 120, viaOuterM: 3e-4, viaWallM: 2.5e-5, viaLengthM: 1.6e-3, viaWPerMK: 385 },
    ...{ compoundM: 2e-4, compoundM2: 1.2e-3, compoundWPerMK: 3, plateM: 0.004, plateM2: 0.004, plateWPerMK: 150, plateWPerM2K: 3000 },
  });
  it('resistances one behind the other add up, and the hottest is what they carry over the coolant', () => {
    const { values } = boardDutyReport(whole);
    const layers = [1.60345, 0.0555556, 0.0066667, 0.0833333];
    expect([values.viasKPerW, values.compoundKPerW, values.plateKPerW, values.coolantKPerW]).toEqual(
      layers.map((r) => expect.closeTo(r, 6) as number),
    );
    expect(values.hottestC).toBeCloseTo(60 + 40 * layers.reduce((a, b) => a + b, 0), 4);
    expect(values.headroomK).toBeCloseTo(150 - values.hottestC!, 9);
  });
  it('a layer nobody said anything of is not in it; one that is half said stops the sum and is named', () => {
    const bare = { ...whole, viaCount: null, viaOuterM: null, viaWallM: null, viaLengthM: null, viaWPerMK: null };
    const without = boardDutyReport(bare);
    expect(without.values.pathKPerW).toBeCloseTo(0.1455556, 6);
    expect(without.lines.at(-1)?.formula).toContain('(compound + plate + plate to coolant)');
    const half = boardDutyReport({ ...whole, compoundM2: null });
    expect([half.values.pathKPerW, half.values.hottestC, half.values.plateKPerW]).toEqual([null, null, expect.closeTo(0.0066667, 6)]);
    expect(half.missing).toEqual([{ of: 'the resistance of compound', labels: ['Compound, area'] }]);
  });
  it('± of the heat carries into the temperature; a what-if with the same heat shares it', () => {
    const known = { ...whole, evidence: { lossW: evidence('I', { u: 2 }) } };
    const report = boardDutyReport(known);
    expect(report.us.hottestC).toBeCloseTo(2 * report.values.pathKPerW!, 9);
    const thinner: BoardDuty = { ...known, id: testId(3), compoundM: 1e-4, isWhatIf: true, reason: 'thinner?' };
    const difference = boardDutyDifference(known, thinner);
    expect(difference.values.hottestC).toBeCloseTo(-40 * 0.0277778, 5);
    expect(difference.us.hottestC).toBeCloseTo(2 * 0.0277778, 5);
    const rows = figureRows(BOARD_DUTY_WORDS, boardDutyReport(thinner), report, difference);
    expect(rows.find(({ word }) => word === 'Hottest, °C')).toEqual({
      word: 'Hottest, °C',
      now: '128.8 ± 6.9',
      beside: '130.0 ± 7.0',
      change: '−1.11 ± 0.11',
    });
  });
});
