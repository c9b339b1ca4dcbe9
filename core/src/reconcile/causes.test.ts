import { causesOf, type WeighedGroups } from './causes';
import { checkById } from './checks';
import { PRIOR, ranked } from './chances';
import type { Finding, Rule, Suspect } from './finding';

const suspect = (key: string, rule: Rule, fit: number): Suspect => ({ key, rule, says: key, short: key, fit, mend: null });
const finding = (key: string, check: string, suspects: readonly Suspect[]): Finding => ({
  ...{ key, check, about: { entity: 'part', id: key, field: null }, beside: '', partId: key, vehicleId: 'van' },
  ...{ title: key, says: `${key} does not close`, compared: null, suspects },
});

describe('how likely a cause is', () => {
  it('is its prior times how well it explains, among all that were considered', () => {
    const [first, second, third] = ranked([finding('a', 'density', [suspect('ounces', 'unit', 1), suspect('hollow', 'hollow', 0.4)])]);
    const [unit, hollow, so] = [PRIOR.unit, PRIOR.hollow * 0.4, PRIOR['as it is'] * 0.05];
    expect(first!.chanceFraction).toBeCloseTo(unit / (unit + hollow + so), 12);
    expect([first!.suspect.key, second!.suspect.key, third!.suspect.key]).toEqual(['ounces', 'hollow', 'as it is']);
  });
  it('falls fifty times for each finding it does not speak of', () => {
    const both = suspect('ounces', 'unit', 1);
    const one = suspect('wrong tag', 'wrong tag', 1);
    const [first, second] = ranked([finding('a', 'density', [both, one]), finding('b', 'mass-closure', [both])]);
    expect(first!.chanceFraction / second!.chanceFraction).toBeCloseTo(PRIOR.unit / (PRIOR['wrong tag'] * 0.02), 9);
  });
  it('is that it is so where nothing else is known', () =>
    expect(ranked([finding('a', 'density', [])]).map((r) => [r.suspect.key, r.chanceFraction])).toEqual([['as it is', 1]]));
  it('is told of thousands of findings too, where the product of their fits is none any more', () => {
    const many = Array.from({ length: 5000 }, (_, n) => finding(`p${n}`, 'price-without-source', [suspect('sources', 'not said', 0.9)]));
    expect(ranked(many)[0]).toMatchObject({ suspect: { key: 'sources' }, chanceFraction: 1 });
  });
  it('adds up to one', () => {
    const all = ranked([finding('a', 'tags', [suspect('x', 'unit', 0.3), suspect('y', 'twice', 0.7)])]);
    expect(all.reduce((sum, one) => sum + one.chanceFraction, 0)).toBeCloseTo(1, 12);
  });
});

describe('one cause, one line', () => {
  const ounces = (fit: number): Suspect => suspect('bracket oz', 'unit', fit);
  const lost = suspect('module lost inside', 'not recorded', 0.5);
  const findings = [
    finding('module', 'mass-closure', [ounces(0.9), lost]),
    finding('bracket', 'density', [ounces(1), suspect('bracket wrong tag', 'wrong tag', 0.2)]),
    finding('lamp', 'tags', [suspect('lamp tag', 'wrong tag', 0.8)]),
    finding('seat', 'not-original', []),
  ];
  it('joins what one wrong unit breaks, and leaves the rest apart', () =>
    expect(causesOf(findings, checkById).map(({ key, findings: own }) => [key, own.length])).toEqual([
      ['bracket oz', 2],
      ['lamp tag', 1],
      ['seat', 1],
    ]));
  it('a cause that lost its findings to another is not told again', () =>
    expect(causesOf(findings, checkById).some(({ key }) => key === 'module lost inside')).toBe(false));
  it('what nothing explains is told by itself, in the words of the finding', () =>
    expect(causesOf(findings, checkById).at(-1)?.says).toBe('seat does not close'));
  it('what blocks the nearest stage comes first', () =>
    expect(causesOf(findings, checkById).map(({ blocks }) => blocks)).toEqual(['cost', 'cost', 'compare']));
  it('says the same with what was weighed before, and after something of it changed', () => {
    const weighed: WeighedGroups = new Map();
    causesOf(findings, checkById, weighed);
    expect(causesOf(findings, checkById, weighed)).toEqual(causesOf(findings, checkById));
    const fewer = findings.slice(1);
    expect(causesOf(fewer, checkById, weighed)).toEqual(causesOf(fewer, checkById));
  });
});
