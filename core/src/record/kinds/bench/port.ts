import { issue } from '../../../shared';
import { allOrNone } from '../../whole-sets';
import { EVIDENCE, REMARK, number, text } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PART } from '../study/of-part';

const onVehicle = { optional: true, min: -100, max: 100 } as const;

/** Where a line meets a part: an outlet, an inlet, a terminal. */
export const PORT = kind({
  list: 'ports',
  table: 'port',
  words: ['port', 'ports'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    ...OF_PART,
    name: text('Name', 100, { needed: true, unsaid: true }),
    /** on the vehicle: x from the front axle rearwards, y from the middle to the right, z from the ground up; its evidence stands for the place */
    xM: number('Place from the front axle', 'm', { ...onVehicle, evidence: 'M' }),
    yM: number('Place from the middle', 'm', onVehicle),
    zM: number('Place above the ground', 'm', onVehicle),
    note: REMARK,
    evidence: EVIDENCE,
  },
  faults: (port) =>
    allOrNone([port.xM, port.yM, port.zM])
      ? []
      : [issue('place-incomplete', 'A place on the vehicle needs all three of x, y and z', 'xM', port.id)],
});
