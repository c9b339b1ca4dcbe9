import type { Experience, HeldVehicle } from '../plan';
import { RIG_STATES, type RigFields } from '../record';
import { answer, figure, listOf, orNull, wordOf, words } from './answer';

export const EXPERIENCE = answer<Experience>({
  study: words(),
  vehicle: words(),
  subsystem: words(),
  depth: orNull(words()),
  parts: figure(),
  peopleS: orNull(figure()),
});

export const HELD_VEHICLE = answer<HeldVehicle>({
  name: orNull(words()),
  study: orNull(words()),
  vehicleClass: orNull(words()),
  drive: orNull(words()),
  voltageV: orNull(figure()),
  modelYear: orNull(figure()),
});

/** Parts first written on a day, by vehicle and subsystem. */
export interface RecordedDay {
  readonly day: string;
  readonly vehicleId: string;
  readonly subsystemId: string;
  readonly lines: number;
}
export const RECORDED_DAY = answer<RecordedDay>({ day: words(), vehicleId: words(), subsystemId: words(), lines: figure() });

/** A rig of another study that a person is of. */
export type OrganisationRig = Omit<RigFields, 'sequence'> & { readonly id: string; readonly studyId: string; readonly study: string };
export const ORGANISATION_RIG = answer<OrganisationRig>({
  id: words(),
  studyId: words(),
  study: words(),
  name: words(),
  madeFor: words(),
  hazards: listOf(words()),
  design: words(),
  timeToMakeS: orNull(figure()),
  ratedN: orNull(figure()),
  factor: figure(),
  wentWrong: words(),
  state: wordOf(RIG_STATES),
  copies: figure(),
});
