// the declaration has to be found from every part of the program that compiles core
// eslint-disable-next-line @typescript-eslint/triple-slash-reference
/// <reference path="./jstat.d.ts" />
import { jStat } from 'jstat';

/** Chance that a normal value is at most x. */
export const normalCdf = (x: number, mean: number, std: number): number => jStat.normal.cdf(x, mean, std);

/** The value that a Student t of so many degrees of freedom stays below with a chance of p. */
export const studentQuantile = (p: number, freedom: number): number => jStat.studentt.inv(p, freedom);

/** Chance that a Student t of so many degrees of freedom is at most x; normal where they are infinite. */
export const studentCdf = (x: number, freedom: number): number =>
  Number.isFinite(freedom) ? jStat.studentt.cdf(x, freedom) : normalCdf(x, 0, 1);

/** Chance that a value of the F distribution with these degrees of freedom is at most x. */
export const fDistribution = (x: number, over: number, under: number): number => jStat.centralF.cdf(x, over, under);

/** The value that a beta distribution stays below with a chance of p. */
export const betaQuantile = (p: number, a: number, b: number): number => jStat.beta.inv(p, a, b);

/** Natural logarithm of the gamma function. */
export const lnGamma = (x: number): number => jStat.gammaln(x);
