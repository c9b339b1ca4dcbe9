import { millimetres } from '../../shared';
import type { FastenerKind } from '../../record';
import { coarsePitchMm } from '../fasteners/metric-threads';
import type { FastenerEntry } from './entry';
import { imperialThread } from './fastener-matchers';

type Sized = Pick<FastenerEntry, 'threadM' | 'pitchM' | 'lengthM'> & { readonly fastenerKind: FastenerKind };

/** Thread, pitch and length in the spelling that reads back as them. */
export const threadLine = (set: Sized & Pick<FastenerEntry, 'known'>): string => {
  const own = set.lengthM === null ? '' : `L${set.known.lengthM?.typed ?? `${millimetres(set.lengthM)} mm`}`;
  if (set.threadM === null) return own;
  const typed = set.known.threadM?.typed ?? null;
  const inches = typed === null ? null : imperialThread(typed);
  if (typed !== null && inches?.threadM === set.threadM && inches.pitchM === set.pitchM)
    return [typed, own].filter((part) => part !== '').join(' ');
  const diameter = millimetres(set.threadM);
  const coarse = coarsePitchMm(diameter);
  const isCut = set.fastenerKind === 'screw' || set.fastenerKind === 'rivet';
  const pitch = set.pitchM === null ? null : millimetres(set.pitchM);
  const metric = coarse !== null && (pitch === null || pitch < coarse);
  if (metric && !(isCut && pitch === null)) {
    const joined = set.known.lengthM ? '' : set.lengthM === null ? '' : `x${millimetres(set.lengthM)}`;
    const fits = set.lengthM === null || pitch !== null || millimetres(set.lengthM) > coarse;
    const thread = `M${diameter}${pitch === null ? '' : `x${pitch}`}`;
    return fits && joined !== '' ? `${thread}${joined}` : [thread, own].filter((part) => part !== '').join(' ');
  }
  const across =
    set.lengthM !== null && !set.known.lengthM
      ? `${diameter}x${millimetres(set.lengthM)}`
      : [`ø${diameter}`, own].filter((part) => part !== '').join(' ');
  return pitch === null ? across : `${across} pitch ${pitch}`;
};
