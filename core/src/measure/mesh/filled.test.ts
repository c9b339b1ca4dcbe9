import { boxVolumeM3 } from '../../bench';
import { filledFraction } from './filled';

describe('how much of what surrounds it a part fills', () => {
  it('is its volume over that of the box or hull', () => {
    expect(boxVolumeM3([0.01, 0.02, 0.02])).toBeCloseTo(4e-6, 18);
    expect(filledFraction(2e-6, boxVolumeM3([0.01, 0.02, 0.02]))).toBeCloseTo(0.5, 12);
  });
  it('is nothing where the scan encloses nothing, or lies flat', () => {
    expect(filledFraction(null, 4e-6)).toBeNull();
    expect(filledFraction(2e-6, boxVolumeM3([0.01, 0.02, 0]))).toBeNull();
  });
});
