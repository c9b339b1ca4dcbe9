import type { StudyRecord } from '../record';

/** What a first study is begun with, in the order of the work. */
export type FirstStepId = 'vehicle' | 'part' | 'fasteners' | 'mass' | 'removal' | 'second';

/** One step of the path, with a line to try it on where it is done by a line. */
export interface FirstStep {
  readonly id: FirstStepId;
  readonly title: string;
  readonly how: string;
  /** a line for the entry line; empty where the step is done otherwise */
  readonly sample: string;
  readonly isDone: boolean;
}

type Seen = Pick<StudyRecord, 'vehicles' | 'parts' | 'fastenerSets' | 'readings' | 'steps'>;

const STEPS: readonly (Omit<FirstStep, 'isDone'> & { readonly done: (record: Seen) => boolean })[] = [
  {
    id: 'vehicle',
    title: 'Add the vehicle',
    how: 'The first vehicle is the one the study is about; others are compared with it.',
    sample: '',
    done: ({ vehicles }) => vehicles.length > 0,
  },
  {
    id: 'part',
    title: 'Record a part',
    how: 'One line: count, name, material, process, mass. What is understood shows below the line; what is not is asked.',
    sample: '2x bracket, hose guide pa66-gf30 inj 41 g',
    done: ({ parts }) => parts.length > 0,
  },
  {
    id: 'fasteners',
    title: 'Record what holds it',
    how: 'Choose the part. Fasteners, joints and connections typed then go onto it.',
    sample: '4 M6x16 T30 8.8 -z',
    done: ({ fastenerSets }) => fastenerSets.length > 0,
  },
  {
    id: 'mass',
    title: 'Take a mass from the scale',
    how: 'Choose the part, lay it on, press F8 when the reading stands still. The reading is kept with its uncertainty.',
    sample: '',
    done: ({ readings }) => readings.some((r) => r.quantity === 'mass'),
  },
  {
    id: 'removal',
    title: 'Record how a part came off',
    how: 'Behind “>”: the tool, the direction, what it took. The order of removals is the order of disassembly.',
    sample: 'cover, side pp inj 120 g > T30 -z',
    done: ({ steps }) => steps.length > 0,
  },
  {
    id: 'second',
    title: 'Record on a second vehicle and compare',
    how: 'With parts on two vehicles Compare says which is heavier, dearer and more complex, and how sure that is.',
    sample: '',
    done: ({ vehicles, parts }) => vehicles.filter((v) => parts.some((p) => p.vehicleId === v.id)).length > 1,
  },
];

/** The path of a first study: what is done follows from the record. */
export const firstSteps = (record: Seen): readonly FirstStep[] => STEPS.map(({ done, ...step }) => ({ ...step, isDone: done(record) }));
