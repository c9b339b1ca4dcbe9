/** Coarse pitch of each metric thread, m by nominal diameter in mm. @source ISO 261 / ISO 262, coarse series, from memory */
const COARSE_PITCH_MM: Readonly<Record<string, number>> = {
  '2': 0.4,
  '2.5': 0.45,
  '3': 0.5,
  '3.5': 0.6,
  '4': 0.7,
  '5': 0.8,
  '6': 1,
  '7': 1,
  '8': 1.25,
  '10': 1.5,
  '12': 1.75,
  '14': 2,
  '16': 2,
  '18': 2.5,
  '20': 2.5,
  '22': 2.5,
  '24': 3,
  '27': 3,
  '30': 3.5,
};

/** Nominal diameters with a coarse thread, mm. */
export const METRIC_THREADS_MM: readonly number[] = Object.keys(COARSE_PITCH_MM)
  .map(Number)
  .sort((a, b) => a - b);

/** Coarse pitch in mm of a nominal diameter in mm, or null when there is no such thread. */
export const coarsePitchMm = (diameterMm: number): number | null => COARSE_PITCH_MM[String(diameterMm)] ?? null;

/**
 * Pitch diameter of a metric thread, mm.
 *
 *   d₂ = d − 0.649519 P
 *
 * @source ISO 724
 * @example pitchDiameterMm(6, 1) // => 5.350481
 */
export const pitchDiameterMm = (diameterMm: number, pitchMm: number): number => diameterMm - 0.649519 * pitchMm;
