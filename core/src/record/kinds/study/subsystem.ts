import { issue } from '../../../shared';
import { SEQUENCE, optional, reference, text } from '../field';
import { RECORDED, kind } from '../kind';

/** A part of the vehicle by what it does; all vehicles of a study share one tree of them. */
export const SUBSYSTEM = kind({
  list: 'subsystems',
  table: 'subsystem',
  words: ['subsystem', 'subsystems'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    parentId: reference('Parent subsystem', 'subsystem', 'refuse', { ...optional, unsaid: true }),
    sequence: SEQUENCE,
    name: text('Name', 200, { needed: true, unsaid: true }),
  },
  faults: (subsystem) =>
    subsystem.parentId === subsystem.id ? [issue('cycle', 'A subsystem cannot be inside itself', 'parentId', subsystem.id)] : [],
  noCircle: 'parentId',
});
