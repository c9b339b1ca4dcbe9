import { BLANK } from '../../testing/teardown';
import { boxVolumeM3, heavierThanSolid, volumeText } from './envelope';

/** @source common practice, no source */
describe('box volumes', () => {
  it.each([
    [[0.37, 0.278, 0.122], 12.549],
    [[0.386, 0.386, 0.223], 33.226],
    [[0.407, 0.272, 0.083], 9.188],
  ] as const)('%j m hold %d litres', (box, litres) => {
    expect(boxVolumeM3(box) * 1000).toBeCloseTo(litres, 3);
  });
  it('are printed in litres or cubic centimetres to three digits', () => {
    expect([volumeText(0.01254892), volumeText(0.0000727)]).toEqual(['12.5\u00a0L', '72.7\u00a0cm³']);
  });
});

describe('a part heavier than its box filled solid', () => {
  const plate = { ...BLANK, id: '', version: 1, materialId: 'dc04', massEachKg: 1.84, lengthM: 0.62, widthM: 0.41, heightM: 0.035 };
  it('is not questioned when it fits', () => expect(heavierThanSolid(plate)).toBe(''));
  it('is questioned when centimetres were typed as millimetres', () => {
    const slipped = { ...plate, lengthM: 0.062, widthM: 0.041, heightM: 0.0035 };
    // 0.062 × 0.041 × 0.0035 m³ × 7850 kg/m³ = 0.0698 kg
    expect(heavierThanSolid(slipped)).toMatch(/weighs 0\.0698 kg; this is 26\.3 times that/);
  });
  it('is not questioned while the material or the mass is unknown', () => {
    expect(heavierThanSolid({ ...plate, materialId: null, lengthM: 0.001 })).toBe('');
    expect(heavierThanSolid({ ...plate, massEachKg: null, lengthM: 0.001 })).toBe('');
  });
});
