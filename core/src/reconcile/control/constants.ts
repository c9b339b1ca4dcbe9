import { lnGamma, normalCdf } from '../../shared';

/** Integral of a function over a stretch by Simpson's rule. */
const integral = (of: (x: number) => number, from: number, to: number, steps: number): number => {
  const h = (to - from) / steps;
  let sum = of(from) + of(to);
  for (let i = 1; i < steps; i++) sum += (i % 2 === 1 ? 4 : 2) * of(from + i * h);
  return (sum * h) / 3;
};

const FAR = 8;

/** Mean range of n standard normal values. @source d₂ = ∫ (1 − Φⁿ − (1 − Φ)ⁿ) dx */
export const d2 = (n: number): number => integral((x) => 1 - normalCdf(x, 0, 1) ** n - (1 - normalCdf(x, 0, 1)) ** n, -FAR, FAR, 400);

/**
 * Standard deviation of the range of n standard normal values.
 * @source d₃² = 2 ∬ over y < x of (1 − Φ(x)ⁿ − (1 − Φ(y))ⁿ + (Φ(x) − Φ(y))ⁿ) − d₂²
 */
export const d3 = (n: number): number => {
  const inner = (x: number): number => {
    const px = normalCdf(x, 0, 1);
    return integral((y) => {
      const py = normalCdf(y, 0, 1);
      return 1 - px ** n - (1 - py) ** n + (px - py) ** n;
    }, -FAR, x, 200); // prettier-ignore
  };
  return Math.sqrt(Math.max(0, 2 * integral(inner, -FAR, FAR, 200) - d2(n) ** 2));
};

/** Mean standard deviation of n standard normal values. @source c₄ = √(2/(n − 1)) Γ(n/2)/Γ((n − 1)/2) */
export const c4 = (n: number): number => Math.sqrt(2 / (n - 1)) * Math.exp(lnGamma(n / 2) - lnGamma((n - 1) / 2));
