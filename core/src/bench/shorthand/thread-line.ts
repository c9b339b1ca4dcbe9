import { millimetres } from '../../shared';
import type { FastenerKind } from '../../record';
import { coarsePitchMm } from '../fasteners/metric-threads';
import type { FastenerEntry } from './entry';
import { imperialThread } from './fastener-matchers';

type Sized = Pick<FastenerEntry, 'threadM' | 'pitchM' | 'lengthM'> & { readonly fastenerKind: FastenerKind };

/** A length as whole inches and a fraction of them, as screws in inches are called; null where it is none to 1/64. */
const sixtyFourths = (metres: number): string | null => {
  const parts = Math.round((metres / 0.0254) * 64);
  if (parts < 1 || Math.abs(parts * (0.0254 / 64) - metres) > 1e-9) return null;
  const [whole, rest] = [Math.floor(parts / 64), parts % 64];
  const by = [32, 16, 8, 4, 2].find((n) => rest % n === 0) ?? 1;
  return [whole === 0 ? '' : String(whole), rest === 0 ? '' : `${rest / by}/${64 / by}`].filter((text) => text !== '').join(' ');
};

/** Thread, pitch and length in the spelling that reads back as them. */
export const threadLine = (set: Sized & Pick<FastenerEntry, 'evidence'>): string => {
  const own = set.lengthM === null ? '' : `L${set.evidence.lengthM?.typed ?? `${millimetres(set.lengthM)} mm`}`;
  if (set.threadM === null) return own;
  const typed = set.evidence.threadM?.typed ?? null;
  const inches = typed === null ? null : imperialThread(typed);
  if (typed !== null && inches?.threadM === set.threadM && inches.pitchM === set.pitchM)
    return set.lengthM !== null && !set.evidence.lengthM && sixtyFourths(set.lengthM) !== null
      ? `${typed} x ${sixtyFourths(set.lengthM)}"`
      : [typed, own].filter((text) => text !== '').join(' ');
  const diameter = millimetres(set.threadM);
  const coarse = coarsePitchMm(diameter);
  const isCut = set.fastenerKind === 'screw' || set.fastenerKind === 'rivet';
  const pitch = set.pitchM === null ? null : millimetres(set.pitchM);
  const metric = coarse !== null && (pitch === null || pitch < coarse);
  if (metric && !(isCut && pitch === null)) {
    const joined = set.evidence.lengthM ? '' : set.lengthM === null ? '' : `x${millimetres(set.lengthM)}`;
    const fits = set.lengthM === null || pitch !== null || millimetres(set.lengthM) > coarse;
    const thread = `M${diameter}${pitch === null ? '' : `x${pitch}`}`;
    return fits && joined !== '' ? `${thread}${joined}` : [thread, own].filter((text) => text !== '').join(' ');
  }
  const across =
    set.lengthM !== null && !set.evidence.lengthM
      ? `${diameter}x${millimetres(set.lengthM)}`
      : [`ø${diameter}`, own].filter((text) => text !== '').join(' ');
  return pitch === null ? across : `${across} pitch ${pitch}`;
};
