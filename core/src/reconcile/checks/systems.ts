import { fixed, inUnit, READ_IN, threeDigits, type ShownUnit } from '../../shared';
import type { Pack, Vehicle } from '../../record';
import { boardFigures, BY_CELLS, BY_RANGE, BY_VOLTAGE, packFigures, topologyIssues, type Allowed } from '../../measure';
import type { Check, Finding, Suspect } from '../finding';
import type { Ground } from '../ground';
import { editOp, finding, toLookAt, told, worked } from '../said';

const PIECES: ShownUnit = { per: 1, unit: '', digits: 0 };

const boards = (ground: Ground): readonly Finding[] =>
  ground.record.boards.flatMap((board): readonly Finding[] => {
    const part = ground.parts.get(board.partId);
    const sets = ground.record.componentSets.filter((set) => set.partId === board.partId);
    const figures = boardFigures(board, sets, part ?? null);
    const about = (field: string) => ({ entity: 'board', id: board.id, field }) as const;
    const name = part ? `${part.name}, ${ground.vehicleName(part.vehicleId)}` : 'a board';
    const counts =
      board.componentsCounted === null || sets.length === 0 || board.componentsCounted === figures.fitted
        ? []
        : [
            finding('board-counts', about('componentsCounted'), {
              part,
              title: 'Components by class, against the whole board',
              says: `The classes of ${name} add up to ${figures.fitted} components, and ${board.componentsCounted} were counted on the whole board`,
              compared: { recorded: worked(figures.fitted, 0, 'C'), against: told('board', board, 'componentsCounted'), readIn: PIECES },
              suspects: [
                figures.fitted < board.componentsCounted
                  ? toLookAt(`${board.id} class`, 'not recorded', `A class of components of ${part?.name ?? 'the board'} is not recorded: ${board.componentsCounted - figures.fitted}`, 'a class missing', 0.6)
                  : toLookAt(`${board.id} twice`, 'twice', `Components of ${part?.name ?? 'the board'} are counted in two classes`, 'counted twice', 0.5),
                toLookAt(`${board.id} counted`, 'counted wrong', `The components of ${part?.name ?? 'the board'} were counted wrong`, 'count again', 0.6),
              ],
            }),
          ];
    const larger = figures.issues.map((issue) =>
      finding('board-size', about(issue.field ?? 'lengthM'), {
        part,
        title: 'Board inside its box',
        says: issue.message,
        suspects: [
          toLookAt(`${board.id} size`, 'unit', `The size of the board of ${part?.name ?? 'a part'} is wrong`, 'size of the board', 0.5),
          ...(part ? [toLookAt(`${part.id} box`, 'unit', `The envelope of ${part.name} is wrong`, 'envelope', 0.4)] : []),
        ],
      }),
    );
    return [...counts, ...larger];
  }); // prettier-ignore

const packs = (ground: Ground): readonly Finding[] =>
  ground.record.packs
    .filter((pack) => !pack.isWhatIf)
    .flatMap((pack): readonly Finding[] => {
      const part = ground.parts.get(pack.partId);
      const about = (field: string | null) => ({ entity: 'pack', id: pack.id, field }) as const;
      const miscounted = (field: string): Suspect => toLookAt(`${pack.id} ${field}`, 'counted wrong', `Cells of ${pack.name} were counted wrong`, 'count again', 0.6); // prettier-ignore
      const issues = topologyIssues(pack, { cells: pack.cellsCounted, cellsInModule: pack.cellsInModule }, pack.id).map((issue) =>
        finding('pack-topology', about(issue.field), { part, title: `Cells of ${pack.name}`, says: issue.message, suspects: [miscounted('topology')] }),
      );
      const modules = ground.parts.get(pack.modulesPartId ?? '');
      const counted =
        !modules || modules.quantity === pack.modules
          ? []
          : [
              finding('pack-topology', about('modules'), {
                part,
                title: `Modules of ${pack.name}`,
                says: `${pack.name} has ${pack.modules} modules in series, and ${modules.quantity} of “${modules.name}” are recorded`,
                compared: { recorded: told('pack', pack, 'modules'), against: told('part', modules, 'quantity'), readIn: PIECES },
                suspects: [miscounted('topology')],
              }),
            ];
      return [...issues, ...counted];
    }); // prettier-ignore

/** A reading of a stated figure in another unit, and how the figure changes by it. */
interface Slip {
  readonly factor: number;
  readonly says: string;
}
/** @source 1 mile = 1609.344 m exactly; 1 kWh = 3.6 MJ (SI Brochure) */
const OF_BATTERY: readonly Slip[] = [
  { factor: 1 / 3.6, says: 'MJ taken for kWh' },
  { factor: 3.6, says: 'kWh taken for MJ' },
  { factor: 1000, says: 'MWh taken for kWh' },
  { factor: 0.001, says: 'Wh taken for kWh' },
  { factor: 10, says: 'the decimal point one place off' },
  { factor: 0.1, says: 'the decimal point one place off' },
];
const OF_RANGE: readonly Slip[] = [
  { factor: 1.609344, says: 'miles taken for kilometres' },
  { factor: 1 / 1.609344, says: 'kilometres taken for miles' },
  { factor: 10, says: 'the decimal point one place off' },
  { factor: 0.1, says: 'the decimal point one place off' },
];
const OF_CONSUMPTION: readonly Slip[] = [
  { factor: 0.1, says: 'Wh/km taken for kWh/100 km' },
  { factor: 10, says: 'kWh/100 km taken for Wh/km' },
  { factor: 100, says: 'kWh/km taken for kWh/100 km' },
  { factor: 1 / 1.609344, says: 'per 100 miles taken for per 100 km' },
  { factor: 3.6, says: 'kWh/100 km taken for MJ/100 km' },
  { factor: 1 / 3.6, says: 'MJ/100 km taken for kWh/100 km' },
];

type Stated = 'batteryJ' | 'rangeM' | 'consumptionJPerM' | 'voltageV';
const READ: Readonly<Record<Stated, ShownUnit>> = {
  batteryJ: READ_IN.kWh,
  rangeM: READ_IN.km,
  consumptionJPerM: READ_IN['kWh/100 km'],
  voltageV: READ_IN.V,
};
const WORD: Readonly<Record<Stated, string>> = {
  batteryJ: 'Battery energy',
  rangeM: 'Range',
  consumptionJPerM: 'Consumption',
  voltageV: 'Battery voltage',
};

const agrees = (ratio: number, { from, to }: Allowed): number => (ratio >= from && ratio <= to ? 0.9 : 0);

/** Other readings of a stated figure under which a ratio is near one. */
const statedSuspects = (vehicle: Vehicle, field: Stated, slips: readonly Slip[], fit: (factor: number) => number): readonly Suspect[] =>
  slips.flatMap(({ factor, says }): readonly Suspect[] => {
    const value = vehicle[field];
    const own = fit(factor);
    if (value === null || own === 0) return [];
    const mended = Number((value * factor).toPrecision(9));
    return [
      {
        ...{ key: `${vehicle.id} ${field} ${factor}`, rule: says.startsWith('the decimal') ? 'decimal point' : 'unit', fit: own },
        ...{ says: `${WORD[field]} of ${vehicle.name} looks like ${says}`, short: says },
        mend: { field: WORD[field], from: inUnit(READ[field], value), to: inUnit(READ[field], mended), ops: [editOp('vehicle', vehicle, field, mended)] },
      },
    ];
  }); // prettier-ignore

const stated = (ground: Ground): readonly Finding[] =>
  ground.record.vehicles.flatMap((vehicle): readonly Finding[] => {
    const { batteryJ, rangeM, consumptionJPerM } = vehicle;
    if (!batteryJ || !rangeM || !consumptionJPerM) return [];
    const neededJ = rangeM * consumptionJPerM;
    const ratio = neededJ / batteryJ;
    if (agrees(ratio, BY_RANGE) > 0) return [];
    return [
      finding('stated-figures', { entity: 'vehicle', id: vehicle.id, field: 'batteryJ' }, {
        title: 'Range × consumption, against battery energy',
        says: `${inUnit(READ_IN.km, rangeM)} at ${inUnit(READ_IN['kWh/100 km'], consumptionJPerM)} take ${threeDigits(ratio)} times the ${inUnit(READ_IN.kWh, batteryJ)} that ${vehicle.name} is said to hold`,
        compared: { recorded: told('vehicle', vehicle, 'batteryJ'), against: worked(neededJ, 0), readIn: READ_IN.kWh },
        suspects: [
          ...statedSuspects(vehicle, 'batteryJ', OF_BATTERY, (factor) => agrees(ratio / factor, BY_RANGE)),
          ...statedSuspects(vehicle, 'rangeM', OF_RANGE, (factor) => agrees(ratio * factor, BY_RANGE)),
          ...statedSuspects(vehicle, 'consumptionJPerM', OF_CONSUMPTION, (factor) => agrees(ratio * factor, BY_RANGE)),
        ],
      }, vehicle.id),
    ];
  }); // prettier-ignore

const cellsOf = (ground: Ground, pack: Pack): readonly Finding[] => {
  const part = ground.parts.get(pack.partId);
  const vehicle = ground.record.vehicles.find((one) => one.id === part?.vehicleId);
  if (!part || !vehicle || pack.capacityC === null || pack.nominalV === null) return [];
  const { energyJ, nominalV } = packFigures(pack, { capacityC: pack.capacityC, nominalV: pack.nominalV, lowestV: null, highestV: null, massKg: null });
  const { batteryJ, voltageV } = vehicle;
  const byEnergy = batteryJ === null ? 1 : energyJ / batteryJ;
  const byVoltage = voltageV === null ? 1 : nominalV / voltageV;
  const about = { entity: 'pack', id: pack.id, field: 'capacityC' } as const;
  const capacity = [1000, 0.001, 10, 0.1, 3600, 1 / 3600].flatMap((factor): readonly Suspect[] => {
    if (agrees(byEnergy * factor, BY_CELLS) === 0) return [];
    const mended = Number((pack.capacityC! * factor).toPrecision(9));
    const says = factor === 1000 || factor === 0.001 ? 'mAh and Ah mixed up' : factor === 10 || factor === 0.1 ? 'the decimal point one place off' : 'coulombs and Ah mixed up';
    return [
      {
        ...{ key: `${pack.id} capacityC ${factor}`, rule: says.startsWith('the') ? 'decimal point' : 'unit', says: `Capacity of a cell of ${pack.name} looks like ${says}`, short: says, fit: 0.9 },
        mend: { field: 'Capacity of a cell', from: inUnit(READ_IN.Ah, pack.capacityC!), to: inUnit(READ_IN.Ah, mended), ops: [editOp('pack', pack, 'capacityC', mended)] },
      },
    ];
  });
  const energy =
    agrees(byEnergy, BY_CELLS) > 0
      ? []
      : [
          finding('cells-and-battery', about, {
            part,
            title: 'Energy of the cells, against the battery stated',
            says: `The cells of ${pack.name} hold ${inUnit(READ_IN.kWh, energyJ)}, and ${vehicle.name} is said to have ${inUnit(READ_IN.kWh, batteryJ!)}`,
            compared: { recorded: worked(energyJ, 0), against: told('vehicle', vehicle, 'batteryJ'), readIn: READ_IN.kWh },
            suspects: [...capacity, ...statedSuspects(vehicle, 'batteryJ', OF_BATTERY, (factor) => agrees(byEnergy / factor, BY_CELLS)), toLookAt(`${pack.id} topology`, 'counted wrong', `Cells of ${pack.name} were counted wrong`, 'count again', 0.4)],
          }),
        ];
  const voltage =
    agrees(byVoltage, BY_VOLTAGE) > 0
      ? []
      : [
          finding('cells-and-battery', { ...about, field: 'nominalV' }, {
            part,
            title: 'Bricks in series, against the voltage stated',
            says: `The bricks of ${pack.name} in series come to ${fixed(nominalV, 0)} V, and ${vehicle.name} is said to have ${fixed(voltageV!, 0)} V`,
            compared: { recorded: worked(nominalV, 0), against: told('vehicle', vehicle, 'voltageV'), readIn: READ_IN.V },
            suspects: [
              ...statedSuspects(vehicle, 'voltageV', [{ factor: 1000, says: 'kV taken for V' }, { factor: 0.001, says: 'mV taken for V' }, { factor: 10, says: 'the decimal point one place off' }, { factor: 0.1, says: 'the decimal point one place off' }], (factor) => agrees(byVoltage / factor, BY_VOLTAGE)),
              toLookAt(`${pack.id} topology`, 'counted wrong', `Cells of ${pack.name} were counted wrong`, 'count again', 0.6),
            ],
          }),
        ];
  return [...energy, ...voltage];
}; // prettier-ignore

/** Warmer than this no coolant goes into a pack and no heat pump evaporates; read in degrees Fahrenheit it does. Assumed. */
const [WARMEST_INLET_C, WARMEST_SOURCE_C] = [55, 45];
const celsius = (fahrenheit: number): number => (fahrenheit - 32) / 1.8;

const temperatures = (ground: Ground): readonly Finding[] => {
  const hot = (entity: 'pack' | 'heating', row: Pack | StudyHeating, field: string, valueC: number | null, most: number, part: string | null): readonly Finding[] => {
    if (valueC === null || valueC <= most) return [];
    const mended = Number(celsius(valueC).toFixed(1));
    return [
      finding('temperatures', { entity, id: row.id, field }, {
        part: ground.parts.get(part ?? ''),
        title: `A temperature of ${row.name}`,
        says: `${fixed(valueC, 1)} °C of ${row.name} is warmer than it is there: ${fixed(valueC, 1)} °F would be ${fixed(mended, 1)} °C`,
        suspects: [
          {
            ...{ key: `${row.id} ${field} °F`, rule: 'unit', says: `A temperature of ${row.name} looks like degrees Fahrenheit`, short: '°F read as °C', fit: 0.8 },
            mend: { field: 'Temperature', from: `${fixed(valueC, 1)} °C`, to: `${fixed(mended, 1)} °C`, ops: [editOp(entity, row, field, mended)] },
          },
        ],
      }, 'vehicleId' in row ? row.vehicleId : null),
    ];
  };
  return [
    ...ground.record.packs.flatMap((pack) => (pack.isWhatIf ? [] : hot('pack', pack, 'inletC', pack.inletC, WARMEST_INLET_C, pack.partId))),
    ...ground.record.heatings.flatMap((heating) => (heating.isWhatIf ? [] : hot('heating', heating, 'evaporatesC', heating.evaporatesC, WARMEST_SOURCE_C, null))),
  ];
}; // prettier-ignore
type StudyHeating = Ground['record']['heatings'][number];

/** Checks of systems and of what is stated of a vehicle. */
export const SYSTEM_CHECKS: readonly Check[] = [
  {
    ...{ id: 'board-counts', name: 'Components of a board', severity: 'wrong', blocks: 'cost', reads: ['boards', 'componentSets', 'parts'] },
    ...{ asks: 'Do the classes add up to what was counted on the whole board?', needs: 'components by class, and the count of all' },
    ofRecord: (ground) => boards(ground).filter((one) => one.check === 'board-counts'),
  },
  {
    ...{ id: 'board-size', name: 'Board inside its box', severity: 'wrong', blocks: 'compare', reads: ['boards', 'componentSets', 'parts'] },
    ...{ asks: 'Does the board lie in its box?', needs: 'sizes of both' },
    ofRecord: (ground) => boards(ground).filter((one) => one.check === 'board-size'),
  },
  {
    ...{ id: 'pack-topology', name: 'Cells of a pack', severity: 'wrong', blocks: 'cost', reads: ['packs', 'parts'] },
    ...{ asks: 'Do cells, bricks and modules multiply to what was counted?', needs: 'topology and counts', ofRecord: packs },
  },
  {
    ...{ id: 'cells-and-battery', name: 'Cells against the battery stated', severity: 'doubtful', blocks: 'compare', reads: ['packs', 'parts', 'vehicles'] },
    ...{ asks: 'Do the cells hold what the maker says?', needs: 'capacity and voltage of a cell, battery energy or voltage' },
    ofRecord: (ground) => ground.record.packs.flatMap((pack) => (pack.isWhatIf ? [] : cellsOf(ground, pack))),
  },
  {
    ...{ id: 'stated-figures', name: 'Range, consumption and battery', severity: 'doubtful', blocks: 'compare', reads: ['vehicles'] },
    ...{ asks: 'Does range × consumption make the battery?', needs: 'all three of a vehicle', ofRecord: stated },
  },
  {
    ...{ id: 'temperatures', name: 'Temperatures', severity: 'doubtful', blocks: 'compare', reads: ['packs', 'heatings', 'parts'] },
    ...{ asks: 'Is a temperature one that can be there?', needs: 'temperatures of packs and cab heatings', ofRecord: temperatures },
  },
]; // prettier-ignore
