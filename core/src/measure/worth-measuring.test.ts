import { evidence, type Part, type StudyRecord } from '../record';
import { LEFT, recordOf, teardown } from '../../testing/teardown';
import { worthMeasuring } from './worth-measuring';

const rows = (record: StudyRecord): readonly string[] =>
  worthMeasuring(record, LEFT.id).map(
    ({ part, lacks, atStakeKg, isGuess }) => `${part.name}: ${lacks.join(', ')}; ${isGuess ? 'about ' : ''}${atStakeKg.toFixed(3)} kg`,
  );
const withPart = (record: StudyRecord, name: string, more: Partial<Part>): StudyRecord => ({
  ...record,
  parts: record.parts.map((part) => (part.name === name ? { ...part, ...more } : part)),
});

describe('what is worth measuring', () => {
  const record = recordOf(
    teardown(`
module
  2x arm
    1 M6x16 5 g
  plate dc04 stamp 2 kg
  cover pp inj ~400 g
  clip 8 g
`),
  );
  it('puts the part first on which most mass rests, and says what each lacks', () => {
    const weighed = withPart(record, 'plate', { evidence: { massEachKg: evidence('M', { u: 0.001 }) } });
    expect(rows(weighed)).toEqual([
      // not weighed: taken for the median of what is, and there are two of it
      'arm: no mass, no material, not said how it is made; about 0.800 kg',
      'cover: mass inferred; 0.040 kg',
      expect.stringMatching(/^clip: .*no material, not said how it is made; 0\.00\d kg$/),
    ]);
  });
  it('guesses the mass of what is not weighed from the box around it', () => {
    // 300 × 200 × 50 mm, 15 % of it steel of 7850 kg/m³: 3.53 kg each
    const boxed = withPart(record, 'arm', { lengthM: 0.3, widthM: 0.2, heightM: 0.05, materialId: 'dc04' });
    expect(rows(boxed)[0]).toBe('arm: no mass, not said how it is made; about 7.065 kg');
  });
  it('leaves out what lacks nothing, and assemblies', () => {
    const names = worthMeasuring(record, LEFT.id).map(({ part }) => part.name);
    expect(names).not.toContain('module');
    expect(worthMeasuring(record, 'another vehicle')).toEqual([]);
  });
});
