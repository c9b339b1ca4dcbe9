import type { Part, Vehicle } from '../../record';
import { type Check, type Finding, NOTHING } from '../finding';
import { squeezed, type Ground } from '../ground';
import { finding, nameOf, ofPart, toLookAt } from '../said';

const priceCheck = (ground: Ground, part: Part): readonly Finding[] => {
  if (part.boughtPrice === null) return NOTHING;
  const said = part.evidence.boughtPrice;
  const noSource = (said?.mark === undefined || said.mark === 'T' || said.mark === 'R') && (said?.source ?? '').trim() === '';
  if (!noSource) return NOTHING;
  return [
    ofPart('price-without-source', part, 'boughtPrice', {
      title: `Price of ${part.name}`,
      says: `The price of ${nameOf(ground, part)} does not say who told it`,
      suspects: [toLookAt(`${part.vehicleId} price source`, 'not said', `Prices of ${ground.vehicleName(part.vehicleId)} do not say who told them`, 'source not said', 0.9)],
    }),
  ];
}; // prettier-ignore

/** Samples of one comparison built further apart than this show two states of the art, or two of one model. Assumed. */
const APART_DAYS = 550;
const DAY_MS = 86_400_000;
const builtAt = ({ builtOn, modelYear }: Vehicle): number | null =>
  builtOn !== null ? Date.parse(builtOn) : modelYear !== null ? Date.UTC(modelYear, 6, 1) : null;

const samples = (ground: Ground): readonly Finding[] => {
  const { vehicles } = ground.record;
  const subject = vehicles.find((vehicle) => vehicle.role === 'subject');
  const own = subject ? builtAt(subject) : null;
  if (!subject || own === null) return NOTHING;
  return vehicles.flatMap((vehicle): readonly Finding[] => {
    const its = builtAt(vehicle);
    if (vehicle.role !== 'competitor' || its === null) return NOTHING;
    const days = Math.abs(own - its) / DAY_MS;
    if (days <= APART_DAYS) return NOTHING;
    return [
      finding('samples-apart', { entity: 'vehicle', id: vehicle.id, field: 'builtOn' }, {
        title: `Built, against ${subject.name}`,
        says: `${vehicle.name} and ${subject.name} were built ${Math.round(days / 30.44)} months apart: a comparison of them says so`,
        suspects: [toLookAt(`${vehicle.id} built`, 'not said', `${vehicle.name} is of another time than ${subject.name}`, 'of another time', 0.9)],
      }, vehicle.id),
    ];
  }); // prettier-ignore
};

const NOT_ORIGINAL = /\b(?:after-?market|not original|non-original|retro-?fit(?:ted)?|replacement part|replaced by|not as delivered|second-?hand|repaired)\b/i; // prettier-ignore

const original = (ground: Ground, part: Part): readonly Finding[] => {
  const named = ground.changesOf(part.vehicleId).includes(squeezed(part.name));
  const words = part.notes === '' && part.supplier === '' ? null : NOT_ORIGINAL.exec(`${part.notes} ${part.supplier}`)?.[0];
  if (!named && !words) return NOTHING;
  return [
    ofPart('not-original', part, 'notes', {
      title: 'As delivered',
      says: `${nameOf(ground, part)} is ${named ? 'named among the changes from standard' : `noted as “${words!}”`}, and is part of the comparison`,
      suspects: [toLookAt(`${part.id} original`, 'not said', `${part.name} is not the part the maker delivered`, 'not original', 0.9)],
    }),
  ];
}; // prettier-ignore

/** Checks of what a comparison and its money stand on. */
export const BASIS_CHECKS: readonly Check[] = [
  {
    ...{ id: 'price-without-source', name: 'Costs without basis', severity: 'missing', blocks: 'cost', ofPart: priceCheck },
    ...{ asks: 'Does every price say who told it?', needs: 'bought-out prices' },
  },
  {
    ...{ id: 'samples-apart', name: 'Samples built far apart', severity: 'doubtful', blocks: 'compare', reads: ['vehicles'], ofRecord: samples },
    ...{ asks: 'Were subject and competitor built at about the same time?', needs: 'days they were built, or model years' },
  },
  {
    ...{ id: 'not-original', name: 'Parts that are not original', severity: 'doubtful', blocks: 'compare', ofPart: original },
    ...{ asks: 'Are only parts compared that the maker delivered?', needs: 'changes from standard, notes' },
  },
]; // prettier-ignore
