declare module 'jstat' {
  export const jStat: {
    readonly normal: { cdf(x: number, mean: number, std: number): number };
    readonly centralF: { cdf(x: number, d1: number, d2: number): number };
    readonly beta: { inv(p: number, a: number, b: number): number };
    gammaln(x: number): number;
    readonly studentt: { inv(p: number, dof: number): number; cdf(x: number, dof: number): number };
  };
}
