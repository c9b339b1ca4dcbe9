import type { RigFields } from '../../record';
import { hazardById } from './hazards';

/** Rigs that are against a hazard and whose name, parts, design or lesson hold every word; all of them when nothing is asked. */
export const findRigs = <R extends Pick<RigFields, 'name' | 'madeFor' | 'design' | 'wentWrong' | 'hazards'>>(
  rigs: readonly R[],
  words: string,
  hazard: string,
): R[] => {
  const wanted = words
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '');
  return rigs.filter((rig) => {
    const hazards = rig.hazards.map((id) => hazardById.get(id)?.name ?? id).join(' ');
    const text = [rig.name, rig.madeFor, rig.design, rig.wentWrong, hazards].join(' ').toLowerCase();
    return (hazard === '' || rig.hazards.includes(hazard)) && wanted.every((word) => text.includes(word));
  });
};
