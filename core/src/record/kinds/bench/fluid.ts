import { massFaults } from '../../row-rules';
import { KNOWN_BY, MASS_EACH, REMARK, flag, optional, positive, text } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PIECE } from '../study/of-piece';

/** A fluid that was in a piece or its system. Its mass is that of all of it. */
export const FLUID = kind({
  list: 'fluids',
  table: 'fluid',
  words: ['fluid', 'fluids'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    ...OF_PIECE,
    name: text('Name', 60, { needed: true, evidence: 'S', unsaid: true }),
    ...MASS_EACH,
    massEachKg: { ...MASS_EACH.massEachKg, label: 'Mass' },
    volumeM3: positive('Volume', 'm³', 10, { ...optional, evidence: 'M' }),
    /** false: left inside */
    drained: flag('Drained', { blank: true }),
    note: REMARK,
    known: KNOWN_BY,
  },
  faults: (fluid) => massFaults(fluid, fluid.id),
});
