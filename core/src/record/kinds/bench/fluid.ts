import { massFaults } from '../../row-rules';
import { EVIDENCE, MASS_EACH, REMARK, flag, optional, positive, text } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PART } from '../study/of-part';

/** A fluid that was in a part or its system. Its mass is that of all of it. */
export const FLUID = kind({
  list: 'fluids',
  table: 'fluid',
  words: ['fluid', 'fluids'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    ...OF_PART,
    name: text('Name', 60, { needed: true, evidence: 'S', unsaid: true }),
    massEachKg: { ...MASS_EACH, label: 'Mass' },
    volumeM3: positive('Volume', 'm³', 10, { ...optional, evidence: 'M' }),
    /** false: left inside */
    drained: flag('Drained', { blank: true }),
    note: REMARK,
    evidence: EVIDENCE,
  },
  faults: (fluid) => massFaults(fluid, fluid.id),
});
