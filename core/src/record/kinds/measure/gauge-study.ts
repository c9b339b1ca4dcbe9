import { fixed, issue } from '../../../shared';
import { REMARK, SEQUENCE, choice, list, number, optional, text, whole, shown } from '../field';
import { RECORDED, kind } from '../kind';

const MOST_PERSONS = 10;
const MOST_PARTS = 50;
const MOST_TRIALS = 20;

/** A crossed study of a measurement: every person measures every part the same number of times. */
export const GAUGE_STUDY = kind({
  list: 'gaugeStudies',
  table: 'gauge_study',
  words: ['gauge R&R study', 'gauge R&R studies'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    sequence: SEQUENCE,
    name: text('Name', 100, { needed: true, unsaid: true }),
    quantity: choice('Quantity', ['length', 'mass']),
    persons: list('Persons', text('Person', 100, { needed: true }), MOST_PERSONS),
    parts: list('Parts', text('Part', 100, { needed: true }), MOST_PARTS),
    trials: whole('Trials per part', 2, MOST_TRIALS),
    /** [person][part][trial], SI; null is still to be read */
    readings: shown(
      list(
        'Readings',
        list('Readings of a person', list('Readings of a part', number('Reading', '', optional), MOST_TRIALS), MOST_PARTS),
        MOST_PERSONS,
      ),
      (readings) => {
        const all = readings.flat(2);
        return `${fixed(all.filter((x) => x !== null).length, 0)} of ${fixed(all.length, 0)} taken`;
      },
    ),
    instrument: text('Instrument', 200),
    note: REMARK,
  },
  faults: (gaugeStudy) => {
    const fits =
      gaugeStudy.readings.length === gaugeStudy.persons.length &&
      gaugeStudy.readings.every(
        (byPart) => byPart.length === gaugeStudy.parts.length && byPart.every((trials) => trials.length === gaugeStudy.trials),
      );
    return [
      ...(fits ? [] : [issue('readings-shape', 'There must be a place for each person, part and time', 'readings', gaugeStudy.id)]),
      ...(gaugeStudy.persons.length < 2 || gaugeStudy.parts.length < 2
        ? [issue('too-few', 'A gauge R&R study needs two persons and two parts at least', 'persons', gaugeStudy.id)]
        : []),
    ];
  },
});
