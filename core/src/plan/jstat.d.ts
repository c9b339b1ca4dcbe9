declare module 'jstat' {
  export const jStat: {
    readonly normal: { cdf(x: number, mean: number, std: number): number };
    readonly studentt: { inv(p: number, dof: number): number };
  };
}
