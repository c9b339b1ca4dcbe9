import type { RigFields } from '../../record';
import { findRigs } from './find-rigs';

const rig = (name: string, madeFor: string, hazards: readonly string[]): RigFields => ({
  ...{
    sequence: 0,
    name,
    madeFor,
    hazards,
    design: '',
    timeToMakeS: null,
    ratedN: null,
    factor: 2,
    wentWrong: '',
    state: 'made',
    copies: 1,
  },
});
const RIGS = [rig('rotor guide', 'rotor of the drive unit', ['magnets']), rig('table', 'traction battery', ['lifting', 'high-voltage'])];
const names = (words: string, hazard = ''): readonly string[] => findRigs(RIGS, words, hazard).map((r) => r.name);

describe('a rig is found again', () => {
  it('by part, by every word of what is typed', () => {
    expect(names('drive ROTOR')).toEqual(['rotor guide']);
    expect(names('rotor battery')).toEqual([]);
    expect(names('')).toEqual(['rotor guide', 'table']);
  });
  it('by what it is made of, and by what went wrong with it', () => {
    const rigs = [{ ...rig('yoke', 'axle', ['unheard-of']), design: 'two rails', wentWrong: 'slipped on oil' }];
    for (const word of ['rails', 'slipped', 'unheard-of', 'axle']) expect(findRigs(rigs, word, '')).toHaveLength(1);
    expect(findRigs(rigs, 'rails seat', '')).toHaveLength(0);
  });
  it('by hazard, chosen or typed by its name', () => {
    expect(names('', 'high-voltage')).toEqual(['table']);
    expect(names('permanent magnets')).toEqual(['rotor guide']);
  });
});
